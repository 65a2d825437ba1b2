"""gunicorn's settings: two processes of four threads that answer, and beside them the one for heavy work.

Used as `gunicorn -c python:finetally.running.serving`.
"""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import threading
import time
from typing import Any

workers = 2
threads = 4
worker_class = "finetally.web.server.PunctualWorker"
loglevel = "warning"

HELD = "FINE_TALLY_HELD"
"""Environment: the handle that marks the database as held, for the process beside to keep, too."""
AGAIN_S = 1.0
END_S = 15.0


class Beside:
    """The process for heavy work: started again when it ends, ended when the server does."""

    def __init__(self) -> None:
        self._process: subprocess.Popen[bytes] | None = None
        self._over = threading.Event()

    def start(self) -> None:
        """Start it, and look after it."""
        threading.Thread(target=self._keep, daemon=True).start()

    def _keep(self) -> None:
        while not self._over.is_set():
            held = os.environ.get(HELD)
            self._process = subprocess.Popen(
                [sys.executable, "-m", "finetally.running.worker"], pass_fds=[int(held)] if held else []
            )
            self._process.wait()
            self._over.wait(AGAIN_S)

    def end(self) -> None:
        """End it; what it works on is content with what it has."""
        self._over.set()
        one = self._process
        if one is None:
            return
        one.send_signal(signal.SIGTERM)
        deadline = time.monotonic() + END_S
        while one.poll() is None and time.monotonic() < deadline:
            time.sleep(0.02)
        one.kill()


_beside = Beside()


def when_ready(server: Any) -> None:
    """The server's door is open."""
    _beside.start()


def on_exit(server: Any) -> None:
    """The server ends."""
    _beside.end()
