"""How much is fetched before a screen can be used: a slow hall's network decides the rest."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import Page

from tests.browser.floors import on_today, windows
from tests.browser.screens import call

pytestmark = pytest.mark.browser

MOST_OF_THE_FIRST_SCRIPT = 250_000
MOST_OF_A_SCREEN = 450_000
MOST_OF_THE_FLOOR = 150_000
FETCHED = """
() => performance.getEntriesByType('resource')
  .filter((one) => one.name.includes('/static/'))
  .map((one) => ({ name: one.name, sent: one.encodedBodySize, whole: one.decodedBodySize }))
"""
SCREENS = {
    "/bench": "table",
    "/week": ".day",
    "/week/season": "table",
    "/side-by-side": "form",
}


def fetched(page: Page, path: str, drawn: str) -> list[dict[str, Any]]:
    page.goto(path)
    page.locator(drawn).first.wait_for()
    page.wait_for_load_state("networkidle")
    entries: list[dict[str, Any]] = page.evaluate(FETCHED)
    return entries


def test_the_bench_comes_with_the_first_script_and_that_is_small(page: Page) -> None:
    session = call(page, "GET", "/sessions")["items"][0]["id"]
    files = fetched(page, f"/bench/{session}", "dl.big")
    scripts = [one for one in files if one["name"].endswith(".js")]
    assert len(scripts) == 1, "one script, not a row of them, each found in the one before"
    assert scripts[0]["sent"] < MOST_OF_THE_FIRST_SCRIPT
    assert scripts[0]["sent"] < scripts[0]["whole"] / 2, "scripts are sent gzipped"
    assert len([one for one in files if one["name"].endswith(".css")]) == 1


def test_no_screen_fetches_much(page: Page) -> None:
    for path, drawn in SCREENS.items():
        files = fetched(page, path, drawn)
        assert sum(one["sent"] for one in files) < MOST_OF_A_SCREEN, path


def test_the_floor_fetches_little_beside_the_shell(page: Page) -> None:
    entry = on_today(page, windows(600, 1))
    fetched(page, f"/floor/start/{entry}", ".start")
    page.get_by_role("button", name="Start").click()
    page.locator(".time").wait_for()
    files = fetched(page, page.url, ".time")
    own = [one for one in files if one["name"].endswith(".js")][1:]
    assert sum(one["sent"] for one in own) < MOST_OF_THE_FLOOR
