"""gunicorn's settings: two processes of four threads that answer, and beside them the one for heavy work.

Used as `gunicorn -c python:finetally.running.serving`.
"""

from __future__ import annotations

import contextlib
import gc
import os
import signal
import sys
import threading
import time
from typing import Any

workers = 2
threads = 4
worker_class = "finetally.web.server.PunctualWorker"
loglevel = "warning"

keepalive = 10
"""Seconds that a connection is kept for its next question. At two, gunicorn's own, some were closed under it."""

SWITCH_S = 0.02
GARBAGE_AFTER = 5_000
AGAIN_S = 1.0
END_S = 15.0


class WorkerProcess:
    """The process for heavy work: started again when it ends, ended when the server does."""

    def __init__(self, doors: list[int]) -> None:
        self._doors = doors
        self._over = threading.Event()
        self._pid = 0

    def start(self) -> None:
        """Start it, and look after it."""
        self._spawn()
        threading.Thread(target=self._keep, daemon=True).start()

    def _spawn(self) -> None:
        # Not by subprocess: that waits for a pipe which a web process forked meanwhile would keep open for ever.
        # What may be inherited is: the handle that holds the database. The server's doors are not its own.
        self._pid = os.posix_spawn(
            sys.executable,
            [sys.executable, "-m", "finetally.running.worker", str(os.getpid())],
            os.environ,
            file_actions=[(os.POSIX_SPAWN_CLOSE, door) for door in self._doors],
        )

    def _keep(self) -> None:
        while not self._over.wait(AGAIN_S):
            if not self._runs():
                self._spawn()

    def _runs(self) -> bool:
        try:
            # The server collects its children, this one among them; whoever comes first.
            return os.waitpid(self._pid, os.WNOHANG) == (0, 0)
        except ChildProcessError:
            return False

    def end(self) -> None:
        """End it; what it works on is content with what it has."""
        self._over.set()
        deadline = time.monotonic() + END_S
        with contextlib.suppress(ProcessLookupError):
            os.kill(self._pid, signal.SIGTERM)
            while self._runs():
                if time.monotonic() > deadline:
                    os.kill(self._pid, signal.SIGKILL)
                time.sleep(0.02)


_worker: list[WorkerProcess] = []


def when_ready(server: Any) -> None:
    """The server's door is open."""
    beside = WorkerProcess([door.fileno() for door in server.LISTENERS])
    beside.start()
    _worker.append(beside)


def on_exit(server: Any) -> None:
    """The server ends."""
    for beside in _worker:
        beside.end()


def post_worker_init(worker: Any) -> None:
    """A process is about to answer."""
    # An answer takes some ten milliseconds of reckoning: four threads that take turns every five of them push each
    # other's data out of the processor's memory.
    sys.setswitchinterval(SWITCH_S)
    # What is there now stays until the end. Without this the whole of it was searched for garbage now and then, a
    # tenth of a second in which nobody was answered.
    gc.collect()
    gc.freeze()
    gc.set_threshold(GARBAGE_AFTER)
