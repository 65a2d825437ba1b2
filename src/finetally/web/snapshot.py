"""Reading several tables as they were at one moment."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from django.db import connection as default
from django.db.backends.base.base import BaseDatabaseWrapper


@contextmanager
def snapshot(connection: BaseDatabaseWrapper = default) -> Iterator[None]:
    """Let all queries inside see the database as it is at the first of them. Nothing may be written inside.

    Without it each query sees the newest rows, and an answer made of several can contradict itself. Writers do not
    wait for it. Inside a transaction it changes nothing: that is a snapshot already.
    """
    if connection.in_atomic_block:
        yield
        return
    with connection.cursor() as cursor:
        cursor.execute("BEGIN DEFERRED")
        try:
            yield
        finally:
            cursor.execute("ROLLBACK")
