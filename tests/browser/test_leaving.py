"""What happens to that which is on the Bench when the coach goes elsewhere: kept, or asked about."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from tests.browser.screens import block, call, open_session
from tests.browser.squads import OwnSquad, signed_out

pytestmark = pytest.mark.browser


def rail(page: Page, name: str) -> Locator:
    return page.get_by_role("navigation", name="Screens").get_by_role("link", name=name, exact=True)


def imported(page: Page, text: str) -> str:
    made = call(page, "POST", "/sessions/import", {"kind": "txt", "text": text})
    page.goto(f"/bench/{made['id']}")
    expect(page.locator("dl.big")).to_be_visible()
    identity: str = made["id"]
    return identity


def test_what_was_typed_last_is_on_the_card_and_in_the_list(page: Page) -> None:
    session = imported(page, "Last minute\nMain: 30 s each, 3 rounds\n  burpee\n")
    block(page, 1).get_by_label("rounds", exact=True).fill("7")
    page.get_by_role("button", name="Card", exact=True).click()
    expect(page.get_by_text("7 rounds")).to_be_visible()
    page.go_back()
    title = page.get_by_role("textbox", name="Title")
    title.fill("To the last minute")
    rail(page, "Bench").click()
    expect(page.get_by_role("link", name="To the last minute", exact=True)).to_be_visible()
    assert call(page, "GET", f"/sessions/{session}")["document"]["blocks"][0]["rounds"] == 7


def test_a_new_session_that_is_left_at_once_is_kept_and_nobody_is_led_back(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("textbox", name="Format").press("Escape")
    page.get_by_role("tab", name="Board text").click()
    page.get_by_role("textbox", name="Board text").fill("Left at once\n\nMain: 30 s each, 3 rounds\n  burpee\n")
    rail(page, "Bench").click()
    expect(page.get_by_role("link", name="Left at once", exact=True)).to_be_visible()
    expect(page).to_have_url(re.compile("/bench$"))


def test_a_board_text_that_cannot_be_read_is_not_left_behind_unasked(page: Page) -> None:
    imported(page, "Ridge wall\nMain: 30 s each, 3 rounds\n  burpee\n")
    page.get_by_role("tab", name="Board text").click()
    editor = page.get_by_role("textbox", name="Board text")
    expect(editor).to_contain_text("burpee")
    editor.fill("Ridge wall\n\nMain: 30 s each, 3 rounds\n  burpee\n--- not for the wall ---\n{no\n")
    expect(page.get_by_text("1 place not read")).to_be_visible()
    rail(page, "Week").click()
    question = page.get_by_role("alertdialog")
    expect(question).to_contain_text("cannot be read")
    expect(question.get_by_role("button", name="Stay here")).to_be_focused()
    page.keyboard.press("Enter")
    expect(question).to_have_count(0)
    expect(editor).to_contain_text("{no")
    rail(page, "Week").click()
    question.get_by_role("button", name="Leave without it").click()
    expect(page.get_by_role("button", name="Level the week")).to_be_visible()


def test_a_refused_value_is_asked_about_with_its_place(page: Page) -> None:
    open_session(page, "Ridge day, rounds with rest")
    rest = block(page, 2).get_by_label("between rounds")
    rest.fill("soon")
    rail(page, "Bench").click()
    question = page.get_by_role("alertdialog")
    expect(question).to_contain_text("blocks[1].clock.round_rest_s: found 'soon'")
    page.keyboard.press("Escape")
    expect(question).to_have_count(0)
    rest.fill("60")
    rail(page, "Bench").click()
    expect(page.get_by_role("heading", name="Sessions")).to_be_visible()


def test_signing_out_keeps_what_is_being_written(page: Page, browser: Browser, squad: OwnSquad) -> None:
    # A sign-in of its own: signing out ends it for whoever shares it.
    own = browser.new_context(base_url=squad.server.url).new_page()
    squad.sign_in(own)
    session = imported(own, "Signed out\nMain: 30 s each, 3 rounds\n  burpee\n")
    block(own, 1).get_by_label("rounds", exact=True).fill("9")
    with own.expect_response("**/api/sign-out") as left:
        own.get_by_role("button", name="Sign out").click()
    assert left.value.ok
    signed_out(own)
    assert call(own, "GET", f"/sessions/{session}")["status"] == 401
    assert call(page, "GET", f"/sessions/{session}")["document"]["blocks"][0]["rounds"] == 9
    # Signing out clears what the site has stored; a browser that was told to drop the whole window then has hung once.
    own.close()
