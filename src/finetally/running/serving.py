"""gunicorn's settings: two processes of four threads that answer; beside them one for heavy work, one that tells
how it goes.

Used as `gunicorn -c python:finetally.running.serving`.
"""

from __future__ import annotations

import contextlib
import gc
import os
import shutil
import signal
import sys
import threading
import time
from pathlib import Path
from typing import Any

from finetally.environment import WATCH_OFF, value_of
from finetally.running.installation import current_installation
from finetally.web.log_config import log_config

workers = 2
threads = 4
worker_class = "finetally.web.server.PunctualWorker"
loglevel = "warning"
control_socket_disable = True
"""A door of gunicorn's own in the user's home, which two servers would share: nobody here opens it."""
logconfig_dict = log_config({"gunicorn.error": {"handlers": ["stderr"], "propagate": False}})

keepalive = 10
"""Seconds that a connection is kept for its next question. At two, gunicorn's own, some were closed under it."""

COUNTS_FOLDER = "PROMETHEUS_MULTIPROC_DIR"
"""The variable by which prometheus-client is told where processes count together."""
KINDS_COUNTED = ("counter", "histogram")
"""Kinds of counts of web/metrics.py, each in a file of its own of each process."""
COUNTS_BYTES = 1 << 20
"""Bytes of such a file: four times what all routes take."""
SWITCH_S = 0.02
GARBAGE_AFTER = 5_000
AGAIN_S = 1.0
END_S = 15.0


# Before the first process that answers counts anything: they count into files of one folder, together.
os.environ[COUNTS_FOLDER] = str(current_installation().counts)


class ProcessBeside:
    """A process beside those that answer: started again when it ends, ended when the server does."""

    def __init__(self, module: str, doors: list[int], *arguments: str) -> None:
        self._module, self._arguments = module, arguments
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
            [sys.executable, "-m", self._module, str(os.getpid()), *self._arguments],
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


_beside: list[ProcessBeside] = []


def on_starting(server: Any) -> None:
    """Nothing is open yet: what an earlier server counted is put away."""
    shutil.rmtree(os.environ[COUNTS_FOLDER], ignore_errors=True)
    Path(os.environ[COUNTS_FOLDER]).mkdir(mode=0o700, parents=True)


def when_ready(server: Any) -> None:
    """The server's door is open."""
    doors = [door.fileno() for door in server.LISTENERS]
    host, port = server.LISTENERS[0].getsockname()[:2]
    _beside.append(ProcessBeside("finetally.running.worker", doors))
    if value_of("FINE_TALLY_WATCH") != WATCH_OFF:
        _beside.append(ProcessBeside("finetally.running.watch", doors, f"{host}:{port}"))
    for one in _beside:
        one.start()


def on_exit(server: Any) -> None:
    """The server ends."""
    for one in _beside:
        one.end()


def post_fork(server: Any, worker: Any) -> None:
    """A process that will answer is there, and has counted nothing yet: room for its counts is taken now.

    They are written into memory that stands for a file: without room behind it, a full disk would end the process.
    Where there is none it counts by itself, and nobody is told.
    """
    folder = Path(os.environ[COUNTS_FOLDER])
    try:
        for kind in KINDS_COUNTED:
            with (folder / f"{kind}_{os.getpid()}.db").open("wb") as file:
                # Written, and not only promised: some file systems promise more than they have.
                file.write(bytes(COUNTS_BYTES))
                file.flush()
                os.fsync(file.fileno())
    except OSError:
        for kind in KINDS_COUNTED:
            (folder / f"{kind}_{os.getpid()}.db").unlink(missing_ok=True)
        del os.environ[COUNTS_FOLDER]


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
