"""Access for all: no violation that the checker finds, on the screens as they are used."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.conftest import REPOSITORY

pytestmark = pytest.mark.browser
AXE = (REPOSITORY / "frontend/node_modules/axe-core/axe.min.js").read_text("utf-8")


def open_bench(page: Page) -> None:
    page.get_by_role("link", name="Stretcher-carry readiness B").first.click()
    expect(page.locator("dl.big")).to_be_visible()


def bench_in_full(page: Page) -> None:
    open_bench(page)
    page.get_by_role("button", name="more numbers").first.click()
    page.get_by_role("button", name="more of goblet squat").click()
    page.get_by_role("button", name="Density, main and finisher").click()
    page.locator("button.clock").first.click()
    page.get_by_role("button", name="Keys").click()


def adding(page: Page) -> None:
    open_bench(page)
    page.locator("main").press("a")
    page.keyboard.type("pyramid")
    page.keyboard.press("Enter")


def board(page: Page) -> None:
    open_bench(page)
    page.get_by_role("button", name="Board text").click()
    expect(page.get_by_role("textbox", name="Board text")).to_contain_text("Warm-up")


def card(page: Page) -> None:
    page.get_by_role("link", name="Card of Stretcher-carry readiness B").click()
    expect(page.get_by_role("heading", name="Stretcher-carry readiness B")).to_be_visible()


SCREENS: list[tuple[str, Callable[[Page], None]]] = [
    ("list", lambda page: None),
    ("bench", open_bench),
    ("bench in full", bench_in_full),
    ("adding a block", adding),
    ("board", board),
    ("card", card),
]


@pytest.mark.parametrize("show", [s[1] for s in SCREENS], ids=[s[0] for s in SCREENS])
def test_nothing_stands_in_the_way(page: Page, show: Callable[[Page], None]) -> None:
    show(page)
    page.evaluate(AXE)
    found = page.evaluate(
        "async () => (await axe.run()).violations.map(v => [v.id, v.nodes.map(n => n.html.slice(0, 160))])"
    )
    assert found == []


@pytest.mark.parametrize(
    ("width", "height", "zoom"), [(1280, 800, 1), (1920, 1080, 1), (1280, 800, 2), (390, 844, 1)]
)
def test_the_bench_never_scrolls_sideways(page: Page, width: int, height: int, zoom: int) -> None:
    # At 200 % zoom a window has half the pixels.
    page.set_viewport_size({"width": width // zoom, "height": height // zoom})
    open_bench(page)
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    expect(page.get_by_role("button", name="Length, whole session")).to_be_visible()
