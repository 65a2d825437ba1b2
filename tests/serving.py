"""The production server on a database of its own, for tests that need the real thing: browsers, fuzzing, kills."""

from __future__ import annotations

import atexit
import contextlib
import fcntl
import http.client
import http.cookiejar
import json
import os
import shutil
import signal
import socket
import ssl
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Any

from tests.conftest import REPOSITORY, SHARED

if TYPE_CHECKING:
    from playwright.sync_api import Page

PASSWORD = "ridge-winter-8420"
HANGS_S = 120
"""So long is waited for what has to come: only what hangs takes it, however slow the machine."""
HELD_S, HANGING_S = 4.0, 8.0
"""Seconds that nobody may be kept waiting by somebody else, on a quick machine and on any: what hangs takes ten."""


def until(look: Callable[[], Any], what: str | Callable[[], object], page: Page | None = None) -> Any:
    """Look again and again until there is what has to come, and give it back. With a page, its own work goes on meanwhile."""
    give_up = time.monotonic() + HANGS_S
    while time.monotonic() < give_up:
        # What cannot be reached yet has not come yet.
        with contextlib.suppress(OSError):
            if found := look():
                return found
        if page:
            page.wait_for_timeout(20)
        else:
            time.sleep(0.02)
    raise AssertionError(f"never came: {what if isinstance(what, str) else what()}")


def longest(ask: Callable[[], Any], times: int = 4) -> float:
    """The longest of several waits for an answer, in seconds."""
    waits = []
    for _ in range(times):
        began = time.monotonic()
        ask()
        waits.append(time.monotonic() - began)
    return max(waits)


def patience(ask: Callable[[], Any]) -> float:
    """Seconds that nobody may be kept waiting by somebody else: a slow machine has five times what it takes anyway."""
    return min(max(HELD_S, 5 * longest(ask)), HANGING_S)


def answers(url: str, context: ssl.SSLContext | None = None) -> bool:
    """Whether a server answers there, if only that nobody is signed in."""
    try:
        urllib.request.urlopen(url, timeout=20, context=context).close()
    except urllib.error.HTTPError:
        return True
    except OSError:
        return False
    return True


def free_port() -> int:
    with socket.socket() as one:
        one.bind(("127.0.0.1", 0))
        port: int = one.getsockname()[1]
        return port


@contextlib.contextmanager
def served(folder: Path, **settings: str) -> Iterator[Server]:
    """A server that runs as long as it is needed, with settings of its own."""
    made = Server(folder, **settings)
    made.start()
    try:
        yield made
    finally:
        made.stop()


def _is_beside(pid: int, module: str) -> bool:
    try:
        return f"-m\0{module}".encode() in Path(f"/proc/{pid}/cmdline").read_bytes()
    except OSError:
        return False


@dataclass(frozen=True)
class Answer:
    """What came back."""

    status: int
    body: bytes
    headers: Any

    def json(self) -> Any:
        return json.loads(self.body)


def _environment(folder: Path) -> dict[str, str]:
    return {**os.environ, "FINE_TALLY_VAR": str(folder), "FINE_TALLY_DATABASE": "demo.sqlite3"}


def _manage(environment: dict[str, str], *arguments: str) -> None:
    command = [sys.executable, "-m", "finetally.web.manage", *arguments]
    subprocess.run(command, check=True, cwd=REPOSITORY, env=environment, capture_output=True)


MIGRATE = ("migrate", "--verbosity", "0")


def _installed() -> Path:
    """The folder of a demo installation as it is before its first start."""
    return _made_once("demo", lambda folder: [_manage(_environment(folder), *one) for one in (MIGRATE, ("demo",))])


def empty_installation(into: Path) -> Path:
    """An installation with its tables and nobody in it, in a folder that is there; returns its database."""

    def make(folder: Path) -> None:
        environment = {**os.environ, "FINE_TALLY_VAR": str(folder)}
        environment.pop("FINE_TALLY_DATABASE", None)
        _manage(environment, *MIGRATE)

    shutil.copytree(_made_once("empty", make), into, dirs_exist_ok=True)
    return into / "fine-tally.sqlite3"


def _made_once(name: str, make: Callable[[Path], object]) -> Path:
    """A folder that is slow to make: once for all workers of a run, and copied by them."""
    if SHARED not in os.environ:
        os.environ[SHARED] = tempfile.mkdtemp(prefix="fine-tally-")
        atexit.register(shutil.rmtree, os.environ[SHARED], ignore_errors=True)
    shared = Path(os.environ[SHARED])
    folder = shared / name
    with (shared / f"{name}.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not folder.exists():
            making = shared / f"making {name}"
            shutil.rmtree(making, ignore_errors=True)
            making.mkdir()
            make(making)
            making.rename(folder)
    return folder


class Server:
    """A demo installation that can be stopped, killed and started again."""

    def __init__(self, folder: Path, **settings: str) -> None:
        self.folder = folder
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        # Nobody asks most of them how they are.
        self.environment = {**_environment(folder), "FINE_TALLY_WATCH": "off", **settings}
        self._process: subprocess.Popen[bytes] | None = None
        shutil.copytree(_installed(), folder, dirs_exist_ok=True)

    @property
    def database(self) -> Path:
        return self.folder / "demo.sqlite3"

    @property
    def log(self) -> Path:
        """What the server said."""
        return self.folder / "server.log"

    def manage(self, *arguments: str) -> None:
        _manage(self.environment, *arguments)

    def fine_tally(self, *arguments: str) -> subprocess.CompletedProcess[str]:
        command = [sys.executable, "-m", "finetally.cli", *arguments]
        return subprocess.run(command, cwd=REPOSITORY, env=self.environment, capture_output=True, text=True)

    def start(self, *options: str) -> None:
        command = [sys.executable, "-m", "gunicorn", "-c", "python:finetally.running.serving"]
        with self.log.open("ab") as log:
            self._process = subprocess.Popen(
                [*command, "finetally.web.wsgi:application", *options, "--bind", f"127.0.0.1:{self.port}"],
                cwd=REPOSITORY,
                env=self.environment,
                start_new_session=True,
                stderr=log,
            )
        self.wait()

    def wait(self) -> None:
        """Wait until it answers."""
        # No page is asked for, so the front end need not be built.
        until(lambda: answers(f"{self.url}/api/me"), "the server's answer")

    def stop(self) -> None:
        if self._process is not None:
            # Connections that a browser keeps open are not waited for: what was answered is in the database.
            self._process.send_signal(signal.SIGINT)
            self._process.wait(60)

    def restart(self) -> None:
        self.stop()
        self.start()

    def kill(self) -> None:
        """End it in the middle of what it does, as a power cut would."""
        assert self._process is not None
        os.killpg(self._process.pid, signal.SIGKILL)
        self._process.wait(60)

    def workers(self) -> list[int]:
        """The processes that answer."""
        return [pid for pid in self._children() if not _is_beside(pid, "finetally.running.")]

    def worker_beside(self) -> int | None:
        """The process for heavy work."""
        return next((pid for pid in self._children() if _is_beside(pid, "finetally.running.worker")), None)

    def _children(self) -> list[int]:
        # Of all threads: the process beside is started by one of its own.
        assert self._process is not None
        tasks = Path(f"/proc/{self._process.pid}/task").glob("*/children")
        return [int(one) for task in tasks for one in task.read_text().split()]

    def memory_mb(self) -> float:
        """Resident memory of the workers."""
        pages = sum(int(Path(f"/proc/{pid}/statm").read_text().split()[1]) for pid in self.workers())
        return pages * os.sysconf("SC_PAGE_SIZE") / 1e6


class Visitor:
    """Somebody at the server's doors, signed in or not."""

    def __init__(self, server: Server, name: str | None = None) -> None:
        self.server = server
        self._cookies = http.cookiejar.CookieJar()
        self._opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self._cookies))
        with contextlib.suppress(urllib.error.HTTPError):
            # The page brings the cookie also where the front end is not built.
            self._opener.open(f"{server.url}/sign-in", timeout=60).read()
        if name is not None:
            answer = self.send("POST", "/sign-in", {"name": name, "password": PASSWORD})
            assert answer.status == 200, answer.body

    def headers(self) -> dict[str, str]:
        """What a browser sends: cookies, and the token of the page."""
        cookies = {one.name: one.value or "" for one in self._cookies}
        text = "; ".join(f"{name}={value}" for name, value in cookies.items())
        return {"Cookie": text, "X-CSRFToken": cookies.get("csrftoken", ""), "Referer": self.server.url}

    def send(self, method: str, path: str, body: Any = None, timeout: float = 120) -> Answer:
        """Ask the API. Raises OSError where no answer comes."""
        data = None
        if body is not None:
            data = body if isinstance(body, bytes) else json.dumps(body).encode()
        request = urllib.request.Request(f"{self.server.url}/api{path}", data=data, method=method)
        request.add_header("Content-Type", "application/json")
        token = next((one.value for one in self._cookies if one.name == "csrftoken"), None)
        request.add_header("X-CSRFToken", token or "")
        try:
            with self._opener.open(request, timeout=timeout) as answer:
                return Answer(answer.status, answer.read(), answer.headers)
        except urllib.error.HTTPError as error:
            return Answer(error.code, error.read(), error.headers)
        except http.client.HTTPException as error:
            raise OSError(f"the answer broke off: {error!r}") from error
