"""The worker that serves: no connection holds one of its threads for longer than it takes to be served.

Used by gunicorn as `-k finetally.web.server.PunctualWorker`. Bodies have their own limit of time (web/body.py);
this one is for what comes before and after them: head lines that trickle in, bodies that nobody read, answers that
are not taken.
"""

from __future__ import annotations

import contextlib
import socket
import time
from typing import Any

from gunicorn.workers.gthread import ThreadWorker

HEAD_S = 10.0
"""Seconds from taking up a connection until its head lines are there, and for what is left over after it."""

ANSWER_S = 30.0
"""Seconds that one piece of an answer may wait to be taken."""


class PunctualWorker(ThreadWorker):  # type: ignore[misc]
    """gunicorn's worker with threads, with an end to waiting."""

    def __init__(self, *args: Any, **options: Any) -> None:
        super().__init__(*args, **options)
        self._waiting: dict[Any, float] = {}

    def handle(self, conn: Any) -> Any:
        """Serve one request of a connection."""
        self._waiting[conn] = time.monotonic() + HEAD_S
        try:
            return super().handle(conn)
        finally:
            self._waiting.pop(conn, None)

    def handle_request(self, req: Any, conn: Any) -> Any:
        """The head lines are there."""
        self._waiting.pop(conn, None)
        conn.sock.settimeout(ANSWER_S)
        try:
            return super().handle_request(req, conn)
        finally:
            self._waiting[conn] = time.monotonic() + HEAD_S

    def notify(self) -> None:
        """Called every second: give up on what came too late, which ends its thread's waiting."""
        super().notify()
        now = time.monotonic()
        for conn, deadline in list(self._waiting.items()):
            if now > deadline:
                self._waiting.pop(conn, None)
                with contextlib.suppress(OSError):
                    conn.sock.shutdown(socket.SHUT_RD)
