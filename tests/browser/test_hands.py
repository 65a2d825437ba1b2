"""What ten common changes cost a hand, in clicks and keys, and that nothing jumps meanwhile."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.screens import block, call
from tests.conftest import REPOSITORY

pytestmark = pytest.mark.browser

DEMO = REPOSITORY / "src/finetally/data/demo/stretcher-carry-b.json"


class Hand:
    """A hand on mouse and keys that is counted: a click, or a press of a key (with whatever is held), is one."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.clicks = 0
        self.keys = 0

    def click(self, at: Locator) -> None:
        at.click()
        self.clicks += 1

    def press(self, key: str) -> None:
        self.page.keyboard.press(key)
        self.keys += 1

    def type(self, text: str) -> None:
        self.page.keyboard.type(text)
        self.keys += len(text)

    def find(self, field: str, words: str, first: str) -> None:
        """Type into a field that finds, and take what it offers first."""
        expect(self.page.get_by_role("textbox", name=field)).to_be_focused()
        self.type(words)
        expect(self.page.locator(".found-list:visible").get_by_role("option").first).to_contain_text(first)
        self.press("Enter")


def rest(hand: Hand, page: Page) -> None:
    hand.click(block(page, 3).get_by_label("rest", exact=True))
    hand.type("25")


def dose(hand: Hand, page: Page) -> None:
    hand.click(block(page, 4).get_by_role("listitem").nth(1).get_by_label("reps", exact=True))
    hand.type("12")


def load(hand: Hand, page: Page) -> None:
    hand.click(block(page, 2).get_by_role("listitem").nth(1).get_by_role("textbox", name="load", exact=True))
    hand.type("20")


def movement(hand: Hand, page: Page) -> None:
    hand.click(block(page, 2).get_by_role("button", name="bent row", exact=True))
    hand.click(page.locator(".found-list:visible").get_by_role("option").filter(has_text="bell row").first)


def order(hand: Hand, page: Page) -> None:
    hand.click(block(page, 2).get_by_label("Move goblet squat: arrow"))
    hand.press("ArrowUp")


def rounds(hand: Hand, page: Page) -> None:
    hand.click(block(page, 1).get_by_label("rounds", exact=True))
    hand.type("3")


def side(hand: Hand, page: Page) -> None:
    sides = block(page, 4).get_by_role("listitem").first.get_by_label("sides")
    hand.click(sides)
    # The browser's own list is not of the page: choosing from it is one click more.
    sides.select_option("both")
    hand.clicks += 1


def add(hand: Hand, page: Page) -> None:
    hand.press("a")
    hand.click(page.locator(".found-list:visible").get_by_role("option").filter(has_text="Even intervals"))
    hand.find("Movement 1", "b", "burpee")
    hand.find("Movement 2", "m", "march")
    expect(page.get_by_role("textbox", name="Movement 3")).to_be_focused()
    hand.press("Enter")


def shape(hand: Hand, page: Page) -> None:
    hand.click(block(page, 2).get_by_role("button", name="Movement pyramid"))
    listed = page.get_by_role("listbox", name="format", exact=True)
    hand.click(listed.get_by_role("option", name="Even intervals"))


def length(hand: Hand, page: Page) -> None:
    hand.click(page.get_by_label("told", exact=True).first)
    hand.type("35")


# What each cost before the Bench read like a sheet, counted alike: a field was clicked and its number chosen whole before
# typing; a movement was found by its letters; a new block came last, and was moved above the cool-down. Beside it where
# the change is seen in the document, and what stands there then.
CHANGES: list[tuple[Callable[[Hand, Page], None], int, str, Any]] = [
    (rest, 4, "blocks.2.clock.rest_s", 25),
    (dose, 4, "blocks.3.steps.1.reps", 12),
    (load, 4, "blocks.1.steps.1.load.kg", 20),
    (movement, 5, "blocks.1.steps.2.movement", "bell-row"),
    (order, 2, "blocks.1.steps.0.movement", "goblet-squat"),
    (rounds, 3, "blocks.0.rounds", 3),
    (side, 3, "blocks.3.steps.0.sides", "both"),
    (add, 11, "blocks.4.steps.1.movement", "march"),
    (shape, 3, "blocks.1.group", "all"),
    (length, 7, "announced_s", 2100),
]


KEPT = """async ([session, path, value]) => {
  const { document } = await (await fetch(`/api/sessions/${session}`)).json()
  return path.split('.').reduce((here, part) => here?.[part], document) === value
}"""


def at(document: dict[str, Any], path: str) -> Any:
    here: Any = document
    for part in path.split("."):
        here = here[int(part)] if part.isdigit() else here.get(part)
    return here


def opened(page: Page) -> str:
    """A copy of the demo session under a name of its own, open at rest; its id."""
    document = {**json.loads(DEMO.read_text("utf-8")), "title": "Under a hand"}
    made = call(page, "POST", "/sessions", {"document": document})
    page.goto(f"/bench/{made['id']}")
    expect(page.locator("dl.big")).to_be_visible()
    expect(block(page, 2).get_by_label("Move goblet squat: arrow")).to_contain_text("SQ")
    expect(block(page, 5).get_by_role("option", name="cool-down")).to_have_count(1)
    return str(made["id"])


def test_ten_common_changes_cost_a_third_less_than_before(page: Page) -> None:
    costs = {}
    for change, before, path, value in CHANGES:
        session = opened(page)
        assert at(call(page, "GET", f"/sessions/{session}")["document"], path) != value
        hand = Hand(page)
        change(hand, page)
        # What was changed is kept by itself; the page tells when.
        page.wait_for_function(KEPT, arg=[session, path, value], polling=100)
        costs[change.__name__] = (hand.clicks + hand.keys, before)
    assert all(now <= before for now, before in costs.values()), costs
    assert 3 * sum(now for now, _ in costs.values()) <= 2 * sum(before for _, before in costs.values()), costs


# Focuses every cell of the list, one after another, and tells the farthest that anything else went up or down meanwhile.
FARTHEST = """() => {
  const tops = () => [...document.querySelectorAll('.block, .step, .foot')].map((one) => one.getBoundingClientRect().top)
  const lane = document.querySelector('.board')
  const before = tops().map((top) => top + lane.scrollTop)
  let farthest = 0, cells = 0
  for (const cell of document.querySelectorAll('.block input, .block select, .block button')) {
    cell.focus({ preventScroll: true })
    cells += 1
    tops().forEach((top, index) => (farthest = Math.max(farthest, Math.abs(top + lane.scrollTop - before[index]))))
  }
  return { farthest, cells }
}"""
LINE = 26


def test_the_demo_session_is_seen_whole_and_nothing_jumps_when_a_cell_opens(page: Page) -> None:
    opened(page)
    board = page.locator(".board")
    assert board.evaluate("e => e.scrollTop") == 0
    bottom = block(page, 5).locator(".step").last.evaluate("e => e.getBoundingClientRect().bottom")
    assert bottom <= board.evaluate("e => e.getBoundingClientRect().bottom") <= 800
    found = page.evaluate(FARTHEST)
    assert found["cells"] > 60
    assert found["farthest"] <= LINE
    # A movement's cell opens a list over what stands below.
    tops = "() => [...document.querySelectorAll('.block, .foot')].map((one) => one.getBoundingClientRect().top)"
    before = page.evaluate(tops)
    block(page, 2).get_by_role("button", name="bent row", exact=True).click()
    expect(page.get_by_role("textbox", name="Instead of bent row")).to_be_focused()
    assert max(abs(a - b) for a, b in zip(before, page.evaluate(tops), strict=True)) <= LINE


def test_minutes_told_stand_as_a_clock_and_a_movement_is_taken_out_by_its_code(page: Page) -> None:
    opened(page)
    told = page.get_by_label("told", exact=True).first
    told.click()
    page.keyboard.type("35")
    expect(page.get_by_text("over by 5:00")).to_be_visible()
    told.press("Tab")
    expect(told).to_have_value("35:00")
    steps = block(page, 2).get_by_role("listitem")
    page.get_by_label("Move goblet squat: arrow").press("Delete")
    expect(steps).to_have_count(3)
    expect(steps.filter(has_text="goblet squat")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(steps).to_have_count(4)
    page.get_by_label("Move childs pose: arrow").press("ArrowLeft")
    expect(block(page, 5).get_by_role("listitem").nth(3)).to_contain_text("childs pose")
