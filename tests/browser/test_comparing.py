"""Side by side, in the real interface."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_journeys import block, open_session

pytestmark = pytest.mark.browser


def columns(page: Page) -> list[str]:
    return page.locator(".page thead th .name > span").all_inner_texts()


def cell(page: Page, row: str, column: int) -> str:
    rows = page.get_by_role("row", name=re.compile(rf"^{row}"))
    return rows.first.locator("td").nth(column).locator("b").inner_text()


def test_from_a_block_to_six_formats_to_the_first_pick_and_back(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    before = block(page, 2).inner_text()
    length = page.get_by_role("button", name="Length, whole session").locator("b").inner_text()
    block(page, 2).get_by_role("button", name="other formats").click()
    expect(page.locator(".page thead th .name")).to_have_count(6)
    page.get_by_label("Add a format").select_option("rounds-for-time")
    expect(page.locator(".page thead th .name")).to_have_count(7)
    page.get_by_role("button", name="work time").click()
    expect(page.get_by_role("button", name="work time")).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_text("left over").first).to_be_visible()
    page.get_by_label("Add a wish").select_option("effort-cap")
    page.get_by_label("Add a wish").select_option("short-rests")
    verdict = page.locator(".verdict")
    expect(verdict).to_contain_text("comes first")
    expect(verdict).to_contain_text("density")
    first = (
        page.get_by_role("radio", checked=True).locator("xpath=ancestor::th").locator(".name > span").inner_text()
    )
    page.get_by_role("button", name="Replace").click()
    expect(page.locator("dl.big")).to_be_visible()
    expect(block(page, 2).locator("button.clock")).to_contain_text(first)
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).not_to_have_text(length)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).to_have_text(length)
    assert block(page, 2).inner_text() == before


def test_figures_open_columns_sort_rows_hide_and_a_number_is_swept(page: Page) -> None:
    page.goto("/side-by-side")
    page.get_by_role("button", name=re.compile("other formats.*Stretcher")).first.click()
    expect(page.locator(".page thead th .name")).to_have_count(6)
    efforts = [float(cell(page, "Effort", n)) for n in range(1, 6)]
    page.get_by_role("button", name=re.compile("^Effort")).click()
    assert [float(cell(page, "Effort", n)) for n in range(1, 6)] == sorted(efforts)
    assert columns(page)[0] == "As planned"
    page.get_by_role("row", name=re.compile("^Density")).get_by_role("button").nth(2).click()
    expect(page.locator(".opened .how")).to_contain_text("divided")
    page.get_by_text("Rows", exact=True).click()
    page.get_by_role("checkbox", name="Peak uptake").uncheck()
    expect(page.get_by_role("row", name=re.compile("^Peak uptake"))).to_have_count(0)
    page.get_by_role("button", name="Sweep").click()
    expect(page.locator(".sweep tbody tr").first.locator("td")).to_have_count(10)


def test_a_shape_of_ones_own_is_offered_on_the_bench(page: Page) -> None:
    page.goto("/side-by-side?movements=push-up,swing")
    page.get_by_role("button", name="Keep the shape").click()
    page.get_by_label("Name of the shape").fill("Thornlow bursts")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("status")).to_contain_text("Thornlow bursts")
    page.goto("/bench/new")
    page.get_by_role("combobox", name="Format").fill("thornlow")
    expect(page.get_by_role("option")).to_contain_text("Thornlow bursts")


def test_two_sessions_stand_beside_each_other(page: Page) -> None:
    page.goto("/side-by-side")
    for title in ("Strength for the lift", "Pack ladder under a pulse"):
        page.get_by_label(f"Compare whole: {title}").check()
    page.get_by_role("button", name="Compare 2 sessions").click()
    expect(page.locator(".page thead th .name")).to_have_count(2)
    page.get_by_text(re.compile(r"Pack ladder under a pulse: \d+ differences")).click()
    expect(page.locator(".differences li").first).to_be_visible()
