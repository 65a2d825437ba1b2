"""What the reader's own system asks for: forced colours, less motion, the keyboard alone."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser import rooms
from tests.browser.shown import entry, first, open_bench, own_account, person, season, week

pytestmark = pytest.mark.browser

DRAWINGS = """() => [...document.querySelectorAll('main svg:not(.one-ink, .el-icon svg)')]
    .filter((e) => e.getBoundingClientRect().width > 0)
    .map((e) => { const its = getComputedStyle(e); return [its.forcedColorAdjust, its.backgroundColor] })"""
SHEET = "rgb(255, 253, 248)"
FOCUSED = """() => {
    const at = document.activeElement
    if (!at || at === document.body) return null
    const seen = (e) => {
        const its = getComputedStyle(e)
        return (its.outlineStyle !== 'none' && parseFloat(its.outlineWidth) >= 1) || its.boxShadow !== 'none'
    }
    // A field of a list shows it on the box around it; a box that is ticked, beside itself.
    const around = [at, at.parentElement, at.closest('.el-select__wrapper, .el-input__wrapper, .el-checkbox__input, .cm-editor')]
    return [at.tagName + ' ' + (at.getAttribute('aria-label') ?? at.textContent.trim()).slice(0, 40), around.some((e) => e && seen(e))]
}"""
MOST_STOPS = 140
MOVING = "() => document.getAnimations().filter((one) => one.playState === 'running').map((one) => one.animationName ?? one.transitionProperty)"


def forced(page: Page) -> None:
    page.emulate_media(forced_colors="active", color_scheme="dark", reduced_motion="reduce")


@pytest.mark.parametrize("show", [open_bench, week, season, first], ids=["bench", "week", "season", "first"])
def test_drawings_keep_their_inks_on_a_sheet_of_their_own(page: Page, show: Callable[[Page], object]) -> None:
    show(page)
    forced(page)
    drawn = page.evaluate(DRAWINGS)
    assert drawn
    assert drawn == [["none", SHEET]] * len(drawn)


def test_what_is_chosen_is_told_in_the_systems_colours(page: Page) -> None:
    rooms.check_in(page)
    forced(page)
    session = page.get_by_role("article", name="Evening on the ridge")
    session.get_by_role("button", name="7 very hard").click()
    session.get_by_role("button", name="Say it anew").click()

    def look(of: Any) -> list[str]:
        return list(of.evaluate("(e) => { const s = getComputedStyle(e); return [s.color, s.backgroundColor] }"))

    chosen, other = (session.get_by_role("button", name=one) for one in ("7 very hard", "10 maximal"))
    expect(chosen).to_have_attribute("aria-pressed", "true")
    assert look(chosen)[1] != look(other)[1]
    assert look(chosen)[0] != look(chosen)[1]
    dot = """(e) => getComputedStyle(e.closest('.el-radio__input').querySelector('.el-radio__inner'), '::after').backgroundColor"""
    told = page.get_by_role("radio", name="kilograms and metres").evaluate(dot)
    assert told == "rgb(255, 255, 255)", "the dot is there on black"


@pytest.mark.parametrize(
    "show", [first, open_bench, week, entry, person, own_account],
    ids=["first", "bench", "week", "an entry", "a person", "the account"],
)  # fmt: skip
def test_the_keyboard_shows_where_it_is_at_each_stop(page: Page, show: Callable[[Page], object]) -> None:
    show(page)
    unseen, stops = [], 0
    for _ in range(MOST_STOPS):
        page.keyboard.press("Tab")
        at = page.evaluate(FOCUSED)
        if at is not None:
            stops += 1
            if not at[1]:
                unseen.append(at[0])
    assert stops > 10
    assert unseen == []


def test_the_keyboard_shows_where_it_is_in_a_calendar(page: Page) -> None:
    person(page)
    page.get_by_role("region", name="Limits").get_by_role("combobox", name="From").press("ArrowDown")
    sheet = page.locator(".el-picker__popper:visible")
    expect(sheet).to_be_visible()
    parts = sheet.locator("button:visible, [role=button]:visible, td.current")
    assert parts.count() > 4
    for part in parts.all():
        part.focus()
        named, seen = page.evaluate(FOCUSED)
        assert seen, named


def test_nothing_moves_for_whoever_wants_less_motion(page: Page) -> None:
    page.emulate_media(reduced_motion="reduce")
    open_bench(page)
    page.get_by_role("button", name="Density, main and finisher").click()
    assert page.evaluate(MOVING) == []
    page.locator("main header").get_by_role("button", name="More for this session").click()
    assert page.evaluate(MOVING) == []
    page.goto("/week")
    page.locator(".days article button").first.click()
    expect(page.get_by_role("dialog")).to_be_visible()
    assert page.evaluate(MOVING) == []
