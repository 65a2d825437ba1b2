"""The server's clock, by which runs count: seconds since 1970."""

from __future__ import annotations

from datetime import datetime

from django.utils import timezone


def since_1970(moment: datetime) -> float:
    """A moment in seconds since 1970."""
    return moment.timestamp()


def server_now() -> float:
    """This moment in seconds since 1970."""
    return since_1970(timezone.now())
