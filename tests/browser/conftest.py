"""The real interface: the production server on a database of its own, driven in headless Chromium."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from urllib.request import urlopen

import pytest
from playwright.sync_api import Browser, Page, sync_playwright

from tests.conftest import REPOSITORY

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
            self._process.terminate()
            self._process.wait(10)

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


@pytest.fixture
def page(browser: Browser, server: Server) -> Iterator[Page]:
    """A signed-in page of a browser of its own. Any fault in the page's script fails the test."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=server.url)
    opened = context.new_page()
    faults: list[str] = []
    opened.on("pageerror", lambda error: faults.append(str(error)))
    sign_in(opened, server.url)
    yield opened
    context.close()
    assert faults == []
