"""Where a day begins, and what lights together once one is there."""

from __future__ import annotations

import re
from datetime import date

import pytest
from playwright.sync_api import Page, expect

from tests.browser.screens import block, call, open_session

pytestmark = pytest.mark.browser


def test_the_first_page_tells_what_waits_and_reads_a_text(page: Page) -> None:
    entry = {"title": "Rope check", "day": date.today().isoformat(), "minutes": 20, "effort": 2}
    put = call(page, "POST", "/plan/entries", entry)
    page.goto("/")
    waits = page.get_by_role("region", name="What waits today")
    expect(waits.get_by_role("listitem").filter(has_text="Rope check")).to_contain_text("20 min · effort 2.0")
    call(page, "PATCH", f"/plan/entries/{put['id']}", {"skipped": True, "version": put["version"]})
    page.reload()
    expect(waits.get_by_role("link", name="To the week")).to_be_visible()
    expect(waits.get_by_text("Rope check")).to_have_count(0)
    last = page.get_by_role("region", name="Last sessions")
    expect(last.get_by_role("listitem").first).to_be_visible()
    assert last.get_by_role("listitem").count() <= 6
    # A text goes to the board as it is written, places that are not sure and all.
    page.get_by_role("textbox", name="Start from a text").fill("3 rounds, 40 s on 20 s off: swings, gate vaults")
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_role("textbox", name="Board text")).to_contain_text("gate vaults")
    expect(page.get_by_text("1 movement is new")).to_be_visible()
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).to_have_text("5:40")
    page.get_by_role("link", name="Fine Tally").click()
    page.get_by_role("button", name="Ask it").or_(page.get_by_role("link", name="Ask it")).click()
    expect(page.get_by_role("heading", name="Side by side", exact=True)).to_be_visible()


def test_a_window_its_step_and_its_figures_light_together_both_ways(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    row = page.locator(".tally .el-collapse").filter(has_text="travel")
    stave = page.get_by_role("img", name="Stave of the session")
    box = stave.bounding_box()
    assert box is not None
    # The march of the warm-up, in the row of travel: its block, its step and its row of the tally light.
    page.mouse.move(box["x"] + 82, box["y"] + 26 + 7 * 16 - 8)
    expect(page.locator("li.step.pointed")).to_contain_text(["march"])
    expect(block(page, 1)).to_have_class(re.compile("pointed"))
    expect(row).to_have_class(re.compile("shines"))
    # The other way round: from the figure to the windows, the steps and the blocks.
    row.hover()
    expect(page.locator(".stave path.lit")).to_have_count(1)
    expect(page.locator("li.step.pointed")).to_contain_text(["march", "bear crawl"])
    # And by the keyboard: a cell that has the focus lights what is its own.
    block(page, 3).get_by_label("rest", exact=True).focus()
    page.mouse.move(5, 700)
    block(page, 2).get_by_role("textbox", name="load", exact=True).first.focus()
    expect(page.locator("li.step.pointed")).to_contain_text(["goblet squat"])
    expect(page.locator(".tally .el-collapse.shines")).to_contain_text(["squat"])


def test_the_legend_of_the_stave_is_met_once(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    legend = page.get_by_text("darker: harder")
    expect(legend).to_be_visible()
    page.get_by_role("button", name="I see").click()
    expect(legend).to_have_count(0)
    page.reload()
    expect(page.locator("dl.big")).to_be_visible()
    expect(legend).to_have_count(0)
    # It can be read again under the keys.
    page.locator("main").press("?")
    expect(page.get_by_role("dialog", name="What this screen is for")).to_contain_text("upper half: left side")
