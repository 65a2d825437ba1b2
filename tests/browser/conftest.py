"""The real interface: the production server on a database of its own, driven in headless Chromium."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from urllib.request import urlopen

import pytest
from playwright.sync_api import Browser, Page, StorageState, expect, sync_playwright

from tests.conftest import REPOSITORY

# A loaded machine may take its time; what matters is that it comes.
expect.set_options(timeout=20_000)

PASSWORD = "ridge-winter-8420"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


def free_port() -> int:
    with socket.socket() as one:
        one.bind(("127.0.0.1", 0))
        port: int = one.getsockname()[1]
        return port


class Server:
    """A demo installation that can be stopped and started again."""

    def __init__(self, folder: Path) -> None:
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self._environment = {**os.environ, "FINE_TALLY_VAR": str(folder), "FINE_TALLY_DATABASE": "demo.sqlite3"}
        self._process: subprocess.Popen[bytes] | None = None
        for command in (["migrate", "--verbosity", "0"], ["demo"]):
            self._manage(*command)

    def _manage(self, *arguments: str) -> None:
        command = [sys.executable, "-m", "finetally.web.manage", *arguments]
        subprocess.run(command, check=True, cwd=REPOSITORY, env=self._environment, capture_output=True)

    def start(self) -> None:
        command = [sys.executable, "-m", "gunicorn", "finetally.web.wsgi:application", "--threads", "4"]
        self._process = subprocess.Popen(
            [*command, "--bind", f"127.0.0.1:{self.port}", "--log-level", "error"],
            cwd=REPOSITORY,
            env=self._environment,
        )
        for _ in range(100):
            try:
                with urlopen(f"{self.url}/sign-in", timeout=2):
                    return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server does not answer")

    def stop(self) -> None:
        if self._process is not None:
            # Connections that a browser keeps open are not waited for: what was answered is in the database.
            self._process.send_signal(signal.SIGINT)
            self._process.wait(60)

    def restart(self) -> None:
        self.stop()
        self.start()


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    made = Server(tmp_path_factory.mktemp("demo"))
    made.start()
    yield made
    made.stop()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        yield chromium
        chromium.close()


def sign_in(page: Page, url: str, name: str = "marit") -> None:
    page.goto(f"{url}/sign-in")
    page.get_by_label("Name").fill(name)
    page.get_by_label("Password", exact=True).fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Sessions").wait_for()


@pytest.fixture(scope="session")
def signed_in(browser: Browser, server: Server) -> StorageState:
    """The cookies of the head coach: signing in takes its time on purpose, so it is done once."""
    context = browser.new_context(base_url=server.url)
    sign_in(context.new_page(), server.url)
    state = context.storage_state()
    context.close()
    return state


@pytest.fixture
def page(browser: Browser, server: Server, signed_in: StorageState) -> Iterator[Page]:
    """A signed-in page of a browser of its own, at the list. Any fault in the page's script fails the test."""
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, base_url=server.url, storage_state=signed_in
    )
    opened = context.new_page()
    faults: list[str] = []
    opened.on("pageerror", lambda error: faults.append(str(error)))
    opened.goto("/bench")
    opened.locator("tbody tr").first.wait_for()
    yield opened
    context.close()
    assert faults == []
