"""Help where it is needed: each screen says what it is for; the first steps from a text to a day, left at any moment."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.screens import call

pytestmark = pytest.mark.browser
RAILED = ("/", "/bench", "/today", "/week", "/week/season", "/side-by-side", "/log", "/movements", "/methods", "/people",
          "/squad", "/account")  # fmt: skip


def path_of(page: Page, title: str) -> None:
    """The step that the first steps stand at."""
    expect(page.get_by_role("complementary", name="First steps")).to_contain_text(title)


def test_the_first_steps_go_from_a_text_to_a_day_and_take_away_what_they_made(page: Page) -> None:
    before = {one["id"] for one in call(page, "GET", "/sessions")["items"]}
    page.goto("/")
    page.get_by_role("button", name="New here? Take the first steps").press("Enter")
    path_of(page, "Write it as it stands on the wall")
    page.get_by_role("button", name="Put a text in").press("Enter")
    expect(page.get_by_role("textbox", name="Start from a text")).to_have_value(re.compile("swings 16 kg"))
    page.get_by_role("button", name="Read it").press("Enter")
    path_of(page, "Look at what it comes to")
    page.get_by_role("button", name="Density, main and finisher").press("Enter")
    path_of(page, "Compare it with other formats")
    steps = page.get_by_role("complementary", name="First steps")
    steps.get_by_role("link", name="Go there").press("Enter")
    expect(page.locator(".verdict").or_(page.get_by_role("columnheader").nth(2)).first).to_be_visible()
    path_of(page, "Put it on a day")
    # It can be left and gone on with: where one stands is kept.
    page.reload()
    path_of(page, "Put it on a day")
    steps.get_by_role("link", name="Go there").press("Enter")
    page.get_by_role("button", name="Density, main and finisher").wait_for()
    page.locator("main").press("p")
    page.get_by_role("button", name="Put it there").press("Enter")
    path_of(page, "That is the whole way")
    made = {one["id"] for one in call(page, "GET", "/sessions")["items"]} - before
    assert len(made) == 1
    day = call(page, "GET", "/floor/today")
    assert [one for one in day["entries"] if one["title"] == "Ridge evening"]
    steps.get_by_role("button", name="Take away what it made").press("Enter")
    expect(steps).to_have_count(0)
    expect(page.get_by_role("region", name="What waits today").get_by_text("Ridge evening")).to_have_count(0)
    assert {one["id"] for one in call(page, "GET", "/sessions")["items"]} == before


def test_the_first_steps_are_left_at_any_moment(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="New here? Take the first steps").press("Enter")
    steps = page.get_by_role("complementary", name="First steps")
    steps.get_by_role("button", name="Leave the steps").press("Enter")
    expect(steps).to_have_count(0)
    page.reload()
    expect(page.get_by_role("button", name="New here? Take the first steps")).to_be_visible()


def test_every_screen_says_what_it_is_for_by_its_key(page: Page) -> None:
    said = set()
    dialog = page.get_by_role("dialog", name="What this screen is for")
    for path in RAILED:
        page.goto(path)
        page.locator("main").wait_for()
        # By the key while nothing is typed; by its button as well.
        page.get_by_role("button", name="Help on this screen").focus()
        page.keyboard.press("?")
        lines = dialog.locator("p.what")
        expect(lines).to_have_count(3)
        said.add(lines.first.inner_text())
        page.keyboard.press("Escape")
        expect(dialog).to_have_count(0)
    assert len(said) == len(RAILED)
    page.goto("/")
    page.get_by_role("textbox", name="Start from a text").fill("")
    page.keyboard.type("what?")
    expect(dialog).to_have_count(0)
    page.get_by_role("button", name="Help on this screen").press("Enter")
    dialog.get_by_text("single letters act when no field has the focus").click()
    page.keyboard.press("Escape")
    page.locator("main").press("?")
    expect(dialog).to_have_count(0)
