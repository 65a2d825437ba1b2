"""The process that tells how it goes, on a socket of its own: `/healthz` and `/metrics`.

Never on the door that the squad comes in by. It asks the server, the database and the process for heavy work; what
was counted comes from the files that the processes which answer count into.
"""

from __future__ import annotations

import http.client
import json
import os
import signal
import socketserver
import sqlite3
import sys
import threading
import time
from collections.abc import Iterator
from contextlib import closing, suppress
from datetime import UTC, datetime
from http.server import BaseHTTPRequestHandler
from pathlib import Path
from types import FrameType

from prometheus_client import CONTENT_TYPE_LATEST, generate_latest
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.registry import Collector

from finetally import __version__
from finetally.environment import value_of
from finetally.running.installation import OWNER_ONLY, Installation, current_installation
from finetally.running.state import counted, free_bytes, is_held, last_backup, queue_of, read_only, size_of

WELL_WITHIN_S = 5
"""Seconds within which the server must answer to be well, and a question here must be asked."""
PARENT_LOOK_S = 1.0
LONGEST_PATH = 100
"""Characters that the path of a socket may have; the system takes few more."""


def health(installation: Installation, door: str) -> dict[str, str]:
    """`ok`, or what is wrong, for each of: the server at a door (`host:port`), the database, heavy work."""
    return {
        "server": _server(door),
        "database": _database(installation),
        "worker": _worker(installation),
    }


def _worker(installation: Installation) -> str:
    if not is_held(installation.worker_lock):
        return "it does not run"
    try:
        return queue_of(installation.database, datetime.now(UTC)).stuck or "ok"
    except sqlite3.Error:
        # The database says so itself.
        return "ok"


def _server(door: str) -> str:
    asking = http.client.HTTPConnection(door, timeout=WELL_WITHIN_S)
    with closing(asking):
        try:
            asking.request("GET", "/alive", headers={"Host": "localhost"})
            status = asking.getresponse().status
        except (OSError, http.client.HTTPException):
            return f"no answer within {WELL_WITHIN_S} s"
    return "ok" if status == http.client.NO_CONTENT else f"it answers {status}"


def _database(installation: Installation) -> str:
    try:
        with closing(read_only(installation.database)) as found:
            found.execute("SELECT count(*) FROM squads_squad").fetchone()
    except sqlite3.Error as error:
        return f"it cannot be read ({type(error).__name__})"
    return "ok"


class Standing(Collector):
    """What is looked up when it is asked for."""

    def __init__(self, installation: Installation) -> None:
        self._installation = installation

    def collect(self) -> Iterator[GaugeMetricFamily]:
        """Gauges: sizes in bytes, times in seconds; what cannot be told is left out."""
        here, now = self._installation, datetime.now(UTC)
        release = GaugeMetricFamily("fine_tally_release", "The release that runs", labels=["version"])
        release.add_metric([__version__], 1)
        yield release
        yield _gauge("database_bytes", "The database with its log", size_of(here))
        yield _gauge("disk_free_bytes", "What the disk has left", free_bytes(here.folder))
        yield _gauge("worker_running", "Whether the process for heavy work runs", int(is_held(here.worker_lock)))
        with suppress(sqlite3.Error):
            queue = queue_of(here.database, now)
            yield _gauge("jobs_waiting", "Heavy work that waits", queue.waiting)
            yield _gauge("jobs_waiting_seconds", "How long the oldest of it has waited", queue.oldest_s)
        backup = last_backup(here)
        if backup is not None:
            yield _gauge("backup_age_seconds", "Since the last backup", (now - backup.at).total_seconds())


def _gauge(name: str, says: str, value: float) -> GaugeMetricFamily:
    return GaugeMetricFamily(f"fine_tally_{name}", says, value=value)


def metrics(installation: Installation) -> bytes:
    """Everything that is counted, in Prometheus' text."""
    registry = counted(installation)
    registry.register(Standing(installation))
    return generate_latest(registry)


class Questions(BaseHTTPRequestHandler):
    """Answers the two questions."""

    timeout = WELL_WITHIN_S
    installation: Installation
    door: str

    def do_GET(self) -> None:
        """`/healthz`: 200 where all is well, else 503, as JSON; `/metrics`."""
        if self.path == "/healthz":
            found = health(self.installation, self.door)
            well = all(one == "ok" for one in found.values())
            body = json.dumps({"ok": well, **found}).encode()
            self._answer(200 if well else 503, "application/json", body)
        elif self.path == "/metrics":
            self._answer(200, CONTENT_TYPE_LATEST, metrics(self.installation))
        else:
            self._answer(404, "text/plain; charset=utf-8", b"/healthz or /metrics\n")

    def _answer(self, status: int, kind: str, body: bytes) -> None:
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def address_string(self) -> str:
        """Nobody's name: a socket of the machine has none."""
        return "here"

    def log_message(self, *told: object) -> None:
        """Questions of this kind are asked all day: no line of the log."""


class AtPort(socketserver.ThreadingTCPServer):
    """Listens at an address."""

    allow_reuse_address = True
    daemon_threads = True


class AtPath(socketserver.ThreadingUnixStreamServer):
    """Listens at a path that the owner of the folder opens alone."""

    daemon_threads = True


def listen(installation: Installation, door: str, told: str) -> socketserver.BaseServer:
    """Open the socket: an address with its port, a path, or nothing for the one in the folder. Raises OSError."""
    handler = type("QuestionsHere", (Questions,), {"installation": installation, "door": door})
    if told and not told.startswith("/"):
        host, _, port = told.rpartition(":")
        return AtPort((host.strip("[]"), int(port)), handler)
    path = Path(told) if told else installation.watch_socket
    if len(str(path)) > LONGEST_PATH:
        raise OSError(f"the path of the socket has over {LONGEST_PATH} characters")
    if path.is_socket():
        path.unlink()
    os.umask(OWNER_ONLY)
    return AtPath(str(path), handler)


def main() -> int:
    """Answer until told to end, or until the process that the command line names is no longer its parent."""
    parent, door = int(sys.argv[1]), sys.argv[2]

    def end(signum: int = 0, frame: FrameType | None = None) -> None:
        # What is asked just now need not be answered: whoever asks comes again.
        os._exit(0)

    for number in (signal.SIGTERM, signal.SIGINT):
        signal.signal(number, end)
    threading.Thread(target=_answers, args=(door,), daemon=True).start()
    while os.getppid() == parent:
        time.sleep(PARENT_LOOK_S)
    return 0


def _answers(door: str) -> None:
    told = value_of("FINE_TALLY_WATCH")
    try:
        with listen(current_installation(), door, told) as questions:
            questions.serve_forever()
    except OSError as error:
        # It serves all the same; the rest of its life this process only waits for its end.
        line = {
            "at": datetime.now(UTC).isoformat(timespec="milliseconds"),
            "level": "error",
            "what": "told",
            "says": "/healthz and /metrics are not answered",
            "why": error.strerror or str(error),
        }
        sys.stderr.write(json.dumps(line) + "\n")


if __name__ == "__main__":
    sys.exit(main())
