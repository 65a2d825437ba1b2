"""Answers that come late, or in another order than they were asked for: nothing is lost, and nothing moves under the hand."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.controls import choose, held_back
from tests.browser.screens import block, call

pytestmark = pytest.mark.browser

WINDOWS = "Ridge\nMain: 30 s each, 3 rounds\n  burpee\n  swing\n"


def test_two_numbers_of_a_format_are_changed_before_either_answer_is_there(page: Page) -> None:
    made = call(page, "POST", "/sessions/import", {"kind": "txt", "text": WINDOWS})
    page.goto(f"/bench/{made['id']}")
    card = block(page, 1)
    card.locator("button.format").click()
    choose(card, "format", "Rising windows")
    expect(card.get_by_role("textbox", name="slot", exact=True)).to_have_value("30")
    held: list[Route] = []
    page.route("**/api/formats/make", lambda route: held.append(route))
    for number, (name, value) in enumerate((("slot", "40"), ("by", "10"))):
        field = card.get_by_role("textbox", name=name, exact=True)
        field.fill(value)
        field.press("Tab")
        asked = held_back(page, held, number)
    # The second question holds what the first asked for; the first was called off.
    params = asked.request.post_data_json["params"]
    assert (params["slot_s"], params["by_s"]) == (40, 10)
    asked.continue_()
    expect(card.get_by_role("textbox", name="work, round 1")).to_have_value("10")
    for name, value in (("slot", "40"), ("by", "10")):
        expect(card.get_by_role("textbox", name=name, exact=True)).to_have_value(value)


def test_enter_that_is_quicker_than_the_offer_takes_what_was_typed(page: Page) -> None:
    page.goto("/bench/new")
    field = page.get_by_role("textbox", name="Format")
    field.fill("rep")
    expect(page.get_by_role("option").first).to_contain_text("rep")
    field.evaluate("""(input) => {
        input.value = 'rising windows'
        input.dispatchEvent(new Event('input', { bubbles: true }))
        input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', code: 'Enter', bubbles: true }))
    }""")
    expect(page.get_by_role("region", name="Add a block").locator(".head b")).to_have_text("Rising windows")


def test_the_bench_is_drawn_once_its_lists_can_be_chosen_from(page: Page) -> None:
    made = call(
        page, "POST", "/sessions/import", {"kind": "txt", "text": "Ridge\nMain\n3 rounds\n5 swings 24 kg\n"}
    )
    held: list[Route] = []
    page.route("**/api/tables*", lambda route: held.append(route))
    page.goto(f"/bench/{made['id']}")
    tables = held_back(page, held, 0)
    expect(page.get_by_role("status").filter(has_text="Opening the session")).to_be_attached()
    page.wait_for_timeout(300)
    expect(page.get_by_role("article")).to_have_count(0)
    tables.continue_()
    unit = page.get_by_role("combobox", name="Unit of the load")
    expect(unit).to_be_visible()
    assert unit.input_value() == "kg"


def test_figures_that_come_late_move_nothing_under_the_hand(page: Page) -> None:
    made = call(page, "POST", "/sessions/import", {"kind": "txt", "text": WINDOWS})
    held: list[Route] = []
    page.route("**/api/figures*", lambda route: held.append(route))
    page.goto(f"/bench/{made['id']}")
    figures = held_back(page, held, 0)
    tab = page.get_by_role("tab", name="Board text")
    expect(tab).to_be_visible()
    before = tab.bounding_box()
    figures.continue_()
    expect(page.get_by_role("img", name="Stave of the session")).to_be_visible()
    assert tab.bounding_box() == before


def test_people_who_come_late_move_no_day_of_the_week(phone: Page) -> None:
    held: list[Route] = []
    phone.route(re.compile(r"/api/people\?"), lambda route: held.append(route))
    phone.goto("/week")
    people = held_back(phone, held, 0)
    level = phone.get_by_role("button", name="Level the week")
    expect(level).to_be_visible()
    before = level.bounding_box()
    with phone.expect_response(re.compile(r"/api/people\?")):
        people.continue_()
    phone.wait_for_timeout(300)
    assert level.bounding_box() == before
