"""On paper: nothing reaches over its edge, on A4 and on letter; what belongs on one page is on one."""

from __future__ import annotations

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.controls import choose
from tests.browser.screenshots import log_entry, person_log
from tests.browser.shown import card, comparing, score_sheet, season

pytestmark = pytest.mark.browser
MARGIN_MM = 10
PAPERS = {"A4": (210, 297), "Letter": (216, 279)}
PIXELS_A_MM = 96 / 25.4
OVER_THE_EDGE = """() => [...document.querySelectorAll('main *')]
    .filter((e) => e.getBoundingClientRect().right > innerWidth + 1 && !e.closest('.visually-hidden'))
    .map((e) => `${e.tagName} ${e.className.baseVal ?? e.className}: ${e.textContent.trim().slice(0, 30)}`)"""


def bare_week(page: Page) -> None:
    page.goto("/week")
    expect(page.locator(".days article button").first).to_be_visible()
    expect(page.get_by_role("heading", name="Clashes")).to_be_visible()


PRINTED: list[tuple[str, Callable[[Page], object], bool, int | None]] = [
    ("card", card, False, 1),
    ("score sheet", score_sheet, False, 1),
    ("week", bare_week, False, 1),
    ("season", season, True, 1),
    ("side by side", comparing, True, None),
    ("log entry", log_entry, False, None),
    ("person in the log", person_log, False, None),
]
"""Screens that are printed: whether they lie on their side, and how many pages they take at most, if that is said."""


def pages_of(made: bytes) -> int:
    return len(re.findall(rb"/Type\s*/Page\b", made))


@pytest.mark.parametrize(
    ("show", "lying", "most"), [one[1:] for one in PRINTED], ids=[one[0] for one in PRINTED]
)  # fmt: skip
def test_no_line_is_cut(page: Page, show: Callable[[Page], object], lying: bool, most: int | None) -> None:
    show(page)
    over, pages = {}, {}
    for paper, (width, height) in PAPERS.items():
        if show is card and paper == "Letter":
            choose(page, "paper", "letter")
        made = page.pdf(format=paper, prefer_css_page_size=True)
        pages[paper] = pages_of(made)
        page.emulate_media(media="print")
        across = round(((height if lying else width) - 2 * MARGIN_MM) * PIXELS_A_MM)
        page.set_viewport_size({"width": across, "height": 900})
        page.wait_for_timeout(300)
        over[paper] = page.evaluate(OVER_THE_EDGE)
        page.emulate_media(media="null")
        page.set_viewport_size({"width": 1280, "height": 800})
    assert over == {paper: [] for paper in PAPERS}
    if most is not None:
        assert pages == dict.fromkeys(PAPERS, most)
