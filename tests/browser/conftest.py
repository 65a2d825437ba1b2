"""The real interface: the production server on a database of its own, driven in headless Chromium."""

from __future__ import annotations

import os
from collections.abc import Iterator
from typing import Any, Literal

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright

from tests.browser.floors import phone_of
from tests.browser.squads import OwnSquad, SquadMaker
from tests.serving import Server, served

# A loaded machine may take its time; what matters is that it comes.
expect.set_options(timeout=60_000)

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
"""Up to so long each question and each answer is held back at random (./tally held-back): none may count on their order."""
MOTION: Literal["reduce", "no-preference"] = "no-preference" if HELD_BACK_MS else "reduce"
"""Nobody waits for things to glide into their places, but where answers are held back to find what comes in between."""
HOLD_BACK = """
const asked = window.fetch
const later = () => new Promise((done) => setTimeout(done, Math.random() * MOST))
window.fetch = async (...what) => {
  await later()
  const answer = await asked(...what)
  await later()
  return answer
}
""".replace("MOST", str(HELD_BACK_MS))


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        opened = chromium.new_context

        def in_our_way(**how: Any) -> BrowserContext:
            # A worker would fetch the whole shell for each test; the floor's journey without a network lets it.
            context = opened(**{"reduced_motion": MOTION, "service_workers": "block", **how})
            context.set_default_timeout(60_000)
            if HELD_BACK_MS:
                context.add_init_script(HOLD_BACK)
            return context

        chromium.new_context = in_our_way  # type: ignore[method-assign]
        yield chromium
        chromium.close()


@pytest.fixture(scope="session")
def squads(server: Server) -> Iterator[SquadMaker]:
    maker = SquadMaker(server)
    yield maker
    maker.close()


@pytest.fixture
def squad(squads: SquadMaker) -> OwnSquad:
    """The demo's squad as it is after setting up, with accounts of its own, for this test alone."""
    return squads.make()


@pytest.fixture
def page(browser: Browser, squad: OwnSquad) -> Iterator[Page]:
    """A page of a browser of its own, signed in as the squad's head coach. Any fault in the page's script fails the test."""
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, base_url=squad.server.url, storage_state=squad.state()
    )
    opened = context.new_page()
    faults: list[str] = []
    opened.on("pageerror", lambda error: faults.append(str(error)))
    opened.on("console", lambda said: faults.append(said.text) if said.text.startswith("Fault:") else None)
    yield opened
    context.close()
    assert faults == []


@pytest.fixture
def hand(browser: Browser, squad: OwnSquad) -> Iterator[BrowserContext]:
    """The coach's phone."""
    context = phone_of(browser, squad)
    yield context
    context.close()


@pytest.fixture
def phone(hand: BrowserContext) -> Page:
    """Its page on what stands on today."""
    page = hand.new_page()
    page.goto("/today")
    expect(page.get_by_role("heading", name="Run from a text")).to_be_visible()
    return page
