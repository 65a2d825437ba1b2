"""On a phone, on the floor of the gym: what a coach does there with a thumb."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from tests.browser.controls import choose
from tests.browser.screens import block, figure, open_list, open_session
from tests.browser.squads import OwnSquad

pytestmark = pytest.mark.browser
WIDTH, HEIGHT = 390, 844
SMALLEST = 24
"""Pixels that a target has at least, either way (WCAG 2.2, 2.5.8)."""


@pytest.fixture
def phone(browser: Browser, squad: OwnSquad) -> Iterator[Page]:
    """A page with touch, as wide as a phone, signed in."""
    context = browser.new_context(
        viewport={"width": WIDTH, "height": HEIGHT}, base_url=squad.server.url, storage_state=squad.state(),
        has_touch=True, is_mobile=True,
    )  # fmt: skip
    yield context.new_page()
    context.close()


def test_a_session_is_cut_to_the_time_that_is_left(phone: Page) -> None:
    open_session(phone, "Stretcher-carry readiness B")
    before = figure(phone, "Length, whole session")
    phone.get_by_role("button", name="Fit to time").tap()
    phone.get_by_label("Minutes there are").fill("32")
    first = phone.locator(".fit li button").first
    expect(first).to_contain_text("Enter")
    offered = re.search(r"\d\d:\d\d", first.inner_text())
    assert offered is not None
    assert offered.group() <= "32:00"
    first.tap()
    length = phone.get_by_role("button", name="Length, whole session").locator("b")
    expect(length).to_have_text(offered.group())
    phone.get_by_role("button", name="Undo").tap()
    expect(length).to_have_text(before)


def dragged(page: Page, start: Locator, end: Locator, rest_ms: int = 0) -> None:
    """A finger on one place (resting there for a while), moved to another and lifted: as the touch screen tells it."""
    touch = page.context.new_cdp_session(page)
    start.evaluate("one => one.scrollIntoView({ block: 'center' })")
    (x, y), (to_x, to_y) = (middle(one) for one in (start, end))
    touch.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [{"x": x, "y": y}]})
    page.wait_for_timeout(rest_ms)
    for step in range(1, 9):
        point = {"x": x + (to_x - x) * step / 8, "y": y + (to_y - y) * step / 8}
        touch.send("Input.dispatchTouchEvent", {"type": "touchMove", "touchPoints": [point]})
        page.wait_for_timeout(60)
    touch.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})


def middle(one: Locator) -> tuple[float, float]:
    box = one.bounding_box()
    assert box is not None
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def test_a_movement_is_dragged_with_a_finger(phone: Page) -> None:
    open_session(phone, "Stretcher-carry readiness B")
    steps = block(phone, 1).get_by_role("listitem")
    expect(steps.first).to_contain_text("march")
    dragged(
        phone,
        steps.first.get_by_label("Move march: arrow"),
        steps.nth(1).get_by_role("button", name="hip hinge", exact=True),
    )
    expect(steps.nth(1)).to_contain_text("march")
    expect(steps.first).to_contain_text("hip hinge")
    # A tap so soon after would only stop the fling that the screen takes the finger's way for.
    phone.get_by_role("button", name="Undo").click()
    expect(steps.first).to_contain_text("march")


def test_an_entry_is_dragged_to_another_day_with_a_finger_that_rests_on_it(phone: Page) -> None:
    phone.goto("/week")
    card = phone.get_by_role("article", name="Rope and knots")
    expect(card).to_be_visible()
    names = [one.get_attribute("aria-label") or "" for one in phone.locator(".days > .day").all()]
    was = phone.locator(".days > .day", has=card).get_attribute("aria-label") or ""
    after = names[names.index(was) + 1]

    def stands_on(day: str) -> None:
        expect(phone.get_by_role("region", name=day).get_by_role("article", name="Rope and knots")).to_be_visible()

    dragged(phone, card, phone.get_by_role("region", name=after).locator(".entries"), rest_ms=400)
    stands_on(after)
    # And back without a finger: Alt and an arrow.
    card.get_by_role("button").press("Alt+ArrowLeft")
    stands_on(was)


def test_an_entry_is_moved_and_moved_back(phone: Page) -> None:
    phone.goto("/week")
    card = phone.get_by_role("article", name="Long walk out")
    day = phone.locator(".day", has=card)
    was = day.get_attribute("aria-label")
    card.get_by_role("button").tap()
    editor = phone.get_by_role("region", name="Change Long walk out")
    before = was or ""
    day_before = phone.locator(".days > .day", has_not=card).last.get_attribute("aria-label") or ""
    choose(editor, "on", day_before)
    expect(phone.locator(".day", has=card)).not_to_have_attribute("aria-label", was or "")
    choose(editor, "on", before)
    expect(phone.locator(".day", has=card)).to_have_attribute("aria-label", was or "")


def test_the_card_can_be_read(phone: Page) -> None:
    open_list(phone)
    phone.get_by_role("link", name="Card of Stretcher-carry readiness B").tap()
    expect(phone.get_by_text("Put out")).to_be_visible()
    expect(phone.get_by_role("article")).to_contain_text(re.compile(r"comes to \d\d:\d\d · 14 people"))
    line = phone.get_by_text("half-kneeling press").first
    line.scroll_into_view_if_needed()
    box = line.bounding_box()
    assert box is not None
    assert box["x"] >= 0
    assert box["x"] + box["width"] <= WIDTH


@pytest.mark.parametrize("path", ["/bench", "/week", "/side-by-side", "/week/season"])
def test_screens_are_reached_from_each_other(phone: Page, path: str) -> None:
    phone.goto(path)
    for name in ("Week", "Bench", "Side by side"):
        link = phone.get_by_role("navigation", name="Screens").get_by_role("link", name=name, exact=True)
        box = link.bounding_box()
        assert box is not None
        assert box["height"] >= SMALLEST
        assert box["width"] >= SMALLEST


def test_buttons_are_large_enough_for_a_thumb(phone: Page) -> None:
    open_session(phone, "Stretcher-carry readiness B")
    small = phone.evaluate(
        """least => [...document.querySelectorAll('.el-button, .grip, .zoom button')]
            .filter(one => one.checkVisibility())
            .map(one => [one.textContent.trim(), one.getBoundingClientRect()])
            .filter(([, box]) => box.width < least || box.height < least)
            .map(([text, box]) => `${text} ${box.width}x${box.height}`)""",
        SMALLEST,
    )
    assert small == []
