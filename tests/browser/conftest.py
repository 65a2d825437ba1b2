"""The real interface: the production server on a database of its own, driven in headless Chromium."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, StorageState, expect, sync_playwright

from tests.serving import PASSWORD, Server, served

# A loaded machine may take its time; what matters is that it comes.
expect.set_options(timeout=20_000)

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    with served(tmp_path_factory.mktemp("demo")) as made:
        yield made


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
    opened.on("console", lambda said: faults.append(said.text) if said.text.startswith("Fault:") else None)
    opened.goto("/bench")
    opened.locator("tbody tr").first.wait_for()
    yield opened
    context.close()
    assert faults == []
