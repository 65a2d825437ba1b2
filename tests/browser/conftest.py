"""The real interface: the production server on a database of its own, driven in headless Chromium."""

from __future__ import annotations

import os
from collections.abc import Iterator
from typing import Any, Literal

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, StorageState, expect, sync_playwright

from tests.serving import PASSWORD, Server, served

# A loaded machine may take its time; what matters is that it comes.
expect.set_options(timeout=20_000)

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    # Each window would load two pages of the browser's own for its address bar, beside the one that is tested. Of several
    # such flags the last counts, so those that Playwright gives are said again.
    "--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup,AimEnabled,MediaRouter,LensOverlay,"
    "OptimizationHints,NetworkTimeServiceQuerying,PreconnectToSearch,HttpsUpgrades,HttpsFirstBalancedModeAutoEnable,"
    "PaintHolding,ThirdPartyStoragePartitioning,AvoidUnnecessaryBeforeUnloadCheckSync,DestroyProfileOnBrowserClose,"
    "AvoidCorsURLLoaderRestartOnRedirect",
]


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    with served(tmp_path_factory.mktemp("demo")) as made:
        yield made


HELD_BACK_MS = int(os.environ.get("FINE_TALLY_HELD_BACK_MS", "0"))
"""Up to so long each answer is held back at random (./tally held-back): none may count on answers coming in order."""
MOTION: Literal["reduce", "no-preference"] = "no-preference" if HELD_BACK_MS else "reduce"
"""Nobody waits for things to glide into their places, but where answers are held back to find what comes in between."""
HOLD_BACK = """
const asked = window.fetch
window.fetch = async (...what) => {
  const answer = await asked(...what)
  await new Promise((done) => setTimeout(done, Math.random() * MOST))
  return answer
}
""".replace("MOST", str(HELD_BACK_MS))


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        opened = chromium.new_context

        def in_our_way(**how: Any) -> BrowserContext:
            context = opened(**{"reduced_motion": MOTION, **how})
            if HELD_BACK_MS:
                context.add_init_script(HOLD_BACK)
            return context

        chromium.new_context = in_our_way  # type: ignore[method-assign]
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
