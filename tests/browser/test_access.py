"""Access for all: no violation that the checker finds, on the screens as they are used."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.shown import SCREENS, comparing, open_bench, picking, running_with_more, season
from tests.conftest import REPOSITORY

pytestmark = pytest.mark.browser
AXE = (REPOSITORY / "frontend/node_modules/axe-core/axe.min.js").read_text("utf-8")


def faults(page: Page, within: str = "html") -> object:
    """What the checker finds; `within`: of what it looks through, by its selector."""
    page.evaluate(AXE)
    return page.evaluate(
        """async (within) => {
            // WCAG 2.2 asks for targets of 24 pixels; the checker looks for it only where it is told to.
            // What it finds to be right nobody reads, and naming all of that is a quarter of its time.
            const found = await axe.run(within, { resultTypes: ['violations'], rules: { 'target-size': { enabled: true } } })
            return found.violations.map(v => [v.id, v.nodes.map(n => n.html.slice(0, 160))])
        }""",
        within,
    )


SIZES = {"desk": (1280, 800), "desk at 200 %": (640, 400), "phone": (390, 844), "desk at 400 %": (320, 640)}
LOOKED_THROUGH = ("desk", "phone")
"""Sizes at which the checker looks: the layout of 200 % is that of a phone that lies."""


TOO_WIDE = """() => [...document.querySelectorAll('main, main *')]
    .filter((e) => e.getBoundingClientRect().right > innerWidth + 1 && getComputedStyle(e).position !== 'absolute')
    .filter((e) => !e.closest('.visually-hidden, .scroll, .wide, .stave, .chain'))
    .map((e) => `${e.tagName} ${e.className.baseVal ?? e.className}: ${e.textContent.trim().slice(0, 30)}`)"""
"""What reaches out of the window to the side. Tables and pictures may: they are scrolled by themselves (WCAG 1.4.10)."""


def reach(page: Page, width: int, height: int) -> tuple[int, int]:
    """How far the page reaches; screens scroll inside of themselves, what reaches out moves the whole to a blank."""
    reached = (0, 0)
    for _ in range(10):
        # A list that is open follows its field a moment after what came late has moved it.
        page.wait_for_timeout(200)
        reached = tuple(
            page.evaluate("[document.documentElement.scrollWidth, document.documentElement.scrollHeight]")
        )
        if reached == (width, height):
            break
    return reached


@pytest.mark.parametrize("show", [s[1] for s in SCREENS], ids=[s[0] for s in SCREENS])
def test_nothing_stands_in_the_way_and_no_screen_is_wider_or_longer_than_its_window(
    page: Page, show: Callable[[Page], object]
) -> None:
    show(page)
    found, reached, wide = {}, {}, []
    for size, (width, height) in SIZES.items():
        page.set_viewport_size({"width": width, "height": height})
        reached[size] = reach(page, width, height)
        if size in LOOKED_THROUGH:
            found[size] = faults(page)
        if size == "desk at 400 %":
            wide = page.evaluate(TOO_WIDE)
    assert reached == SIZES
    assert wide == []
    assert found == {size: [] for size in LOOKED_THROUGH}


def test_nothing_stands_in_the_way_behind_more(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    running_with_more(page)
    found = {}
    for panel, shows in (
        ("Scores", "Score of All together"),
        ("Note", "What to remember"),
        ("People", "Greta: has gone"),
        ("Minutes left", "Minutes left"),
        ("Change the plan", "Add, as on a wall"),
        ("Calls", "Each call"),
    ):
        page.get_by_role("button", name=panel, exact=True).click()
        expect(page.get_by_label(shows).last).to_be_visible()
        found[panel] = faults(page, ".more")
    assert found == {panel: [] for panel in found}


@pytest.mark.parametrize(("width", "height"), SIZES.values(), ids=SIZES)
def test_a_list_that_lies_over_the_bench_stays_in_the_window(page: Page, width: int, height: int) -> None:
    page.set_viewport_size({"width": width, "height": height})
    picking(page)
    # What lies under it is looked at elsewhere: half of a field that shows would be too small a target.
    assert faults(page, ".choosing, .found-list") == []
    assert page.evaluate("[document.documentElement.scrollWidth, document.documentElement.scrollHeight]") == [
        width,
        height,
    ]


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1920, 1080), (390, 844)])
def test_the_figures_of_the_bench_are_in_reach(page: Page, width: int, height: int) -> None:
    page.set_viewport_size({"width": width, "height": height})
    open_bench(page)
    figure = page.get_by_role("button", name="Length, whole session")
    figure.scroll_into_view_if_needed()
    expect(figure).to_be_in_viewport()


@pytest.mark.parametrize(
    "show",
    [open_bench, lambda page: page.goto("/week"), season, comparing],
    ids=["bench", "week", "season", "side by side"],
)
def test_the_head_of_a_screen_is_one_line_on_a_desk(page: Page, show: Callable[[Page], None]) -> None:
    show(page)
    head = page.locator("main > header")
    expect(head).to_be_visible()
    expect(head.get_by_role("button").first).to_be_visible()
    box = head.bounding_box()
    assert box is not None
    assert box["height"] <= 60
