"""A squad of its own for each test: the demo's, copied with its accounts, so that no test sees what another left."""

from __future__ import annotations

import json
import subprocess
import sys
from dataclasses import dataclass
from typing import Any

from playwright.sync_api import Page, StorageState, expect

from tests.conftest import REPOSITORY
from tests.serving import PASSWORD, Server, Visitor


@dataclass(frozen=True)
class OwnSquad:
    """A copy of the demo squad; its accounts carry its number behind their names."""

    server: Server
    number: int
    cookies: dict[str, str]
    """Session keys of its accounts, by the names they have in the demo: signing in takes its time on purpose."""

    def account(self, name: str) -> str:
        return f"{name}-{self.number}"

    def visitor(self, name: str = "marit") -> Visitor:
        """Somebody of the squad at the server's doors."""
        return Visitor(self.server, self.account(name))

    def state(self, name: str = "marit") -> StorageState:
        """What a browser keeps of somebody of the squad who has signed in."""
        kept = {"name": "sessionid", "value": self.cookies[name], "url": self.server.url}
        return {"cookies": [kept], "origins": []}  # type: ignore[typeddict-item]

    def sign_in(self, page: Page, name: str = "marit") -> None:
        sign_in(page, self.server.url, self.account(name))


def sign_in(page: Page, url: str, name: str = "marit") -> None:
    """Sign in by hand, at a server's sign-in."""
    page.goto(f"{url}/sign-in")
    page.get_by_label("Name").fill(name)
    page.get_by_label("Password", exact=True).fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Sessions").wait_for()


def signed_out(page: Page) -> None:
    """Wait for the page that is loaded once signing out has ended: only it has this button."""
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()


class SquadMaker:
    """Makes squads on a server's database while it runs, by a process of its own (squad_process.py)."""

    def __init__(self, server: Server) -> None:
        self._server = server
        self._number = 0
        self._process = subprocess.Popen(
            [sys.executable, "-m", "tests.browser.squad_process"],
            cwd=REPOSITORY, env=server.environment, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True,
        )  # fmt: skip

    def make(self) -> OwnSquad:
        """The demo's squad once more, as it is after setting up."""
        self._number += 1
        return OwnSquad(self._server, self._number, self._ask("copy", self._number))

    def make_empty(self, account: str, name: str) -> None:
        """A squad of that name with nothing in it, that the account coaches too."""
        self._ask("empty", account, name)

    def close(self) -> None:
        self._process.communicate(timeout=60)

    def _ask(self, *wish: Any) -> Any:
        assert self._process.stdin is not None
        assert self._process.stdout is not None
        self._process.stdin.write(json.dumps(wish) + "\n")
        self._process.stdin.flush()
        return json.loads(self._process.stdout.readline())
