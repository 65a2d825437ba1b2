"""Levelling that is under way in this process: looked at and stopped by a ticket that the asker made up."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager

from finetally.core.week.proposal import Watch

_watches: dict[tuple[int, str], Watch] = {}
_lock = threading.Lock()


@contextmanager
def watched(user_id: int, ticket: str) -> Iterator[Watch]:
    """A watch that others can find while the work goes on. Without a ticket nobody can."""
    watch = Watch()
    key = (user_id, ticket)
    if ticket:
        with _lock:
            _watches[key] = watch
    try:
        yield watch
    finally:
        with _lock:
            if _watches.get(key) is watch:
                del _watches[key]


def watch_of(user_id: int, ticket: str) -> Watch | None:
    """The watch of one's own work; None where it is over."""
    with _lock:
        return _watches.get((user_id, ticket))
