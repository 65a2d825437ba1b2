"""A coach who reads pounds: everywhere told so, typed so, and kept as it was."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.floors import on_today
from tests.browser.rooms import own_link
from tests.browser.screens import call, open_session

pytestmark = pytest.mark.browser
TITLE = "Stretcher-carry readiness B"


def in_pounds(page: Page) -> None:
    page.goto("/account")
    page.get_by_text("pounds, yards and miles").click()
    expect(page.get_by_role("radio", name="pounds, yards and miles")).to_be_checked()


def test_from_the_account_to_the_bench_the_card_and_a_person(page: Page) -> None:
    in_pounds(page)
    open_session(page, TITLE)
    load = page.get_by_role("textbox", name="load").first
    expect(load).to_have_value("35.27")
    expect(page.get_by_role("combobox", name="Unit of the load").first).to_have_value("lb")
    expect(page.get_by_role("button", name="Volume load").locator("b")).to_contain_text(" lb")
    load.fill("40")
    load.press("Tab")
    page.get_by_role("button", name="more of goblet squat").click()
    page.get_by_role("tab", name="Board text").click()
    # What was typed in a unit stays so on the wall; what was not touched does, too.
    text = page.get_by_role("textbox", name="Board text")
    expect(text).to_contain_text("goblet squat 40 lb")
    expect(text).to_contain_text("bent row 2 x 12 kg")
    page.get_by_role("button", name="Card", exact=True).click()
    card = page.locator("article.sheet")
    expect(card).to_contain_text("goblet squat 40 lb")
    expect(card).to_contain_text("bent row 2 x 26.46 lb")
    expect(card).not_to_contain_text(" kg")
    page.goto("/people")
    page.get_by_role("link", name="Bram Tullivant").click()
    mass = page.get_by_role("spinbutton", name="Body mass")
    mass.fill("180")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved.").first).to_be_visible()
    person = next(one for one in call(page, "GET", "/people") if one["name"] == "Bram Tullivant")
    assert call(page, "GET", f"/people/{person['id']}")["body_kg"] == pytest.approx(81.647)
    page.reload()
    expect(mass).to_have_value("180")


def test_distances_are_typed_in_yards_and_nudged_by_one(page: Page) -> None:
    in_pounds(page)
    open_session(page, TITLE)
    page.get_by_role("button", name="more of goblet squat").click()
    step = page.locator("li.step.open")
    far = step.get_by_role("textbox", name="distance")
    far.fill("40")
    far.press("ArrowUp")
    far.press("Enter")
    expect(far).to_have_value("41")
    far.press("Tab")
    page.get_by_role("tab", name="Board text").click()
    expect(page.get_by_role("textbox", name="Board text")).to_contain_text("37.49 m goblet squat")


def test_a_phone_with_an_own_link_says_what_it_reads(page: Page) -> None:
    step = {"movement": "bent-row", "reps": 8, "load": {"kg": 12, "count": 2}}
    on_today(page, {"clock": {"kind": "task"}, "steps": [step]})
    page.goto(own_link(page))
    text = page.get_by_text("bent row 2 x")
    expect(text.first).to_contain_text("12 kg")
    page.get_by_text("pounds, yards and miles").click()
    expect(text.first).to_contain_text("26.46 lb")
    page.reload()
    expect(text.first).to_contain_text("26.46 lb")
    # It is of this phone's page alone: whoever is signed in here reads kilograms as before.
    open_session(page, TITLE)
    expect(page.get_by_role("combobox", name="Unit of the load").first).to_have_value("kg")
