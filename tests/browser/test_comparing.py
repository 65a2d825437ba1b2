"""Side by side, in the real interface."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.controls import choose, held_back, tick
from tests.browser.screens import block, open_session
from tests.serving import until

pytestmark = pytest.mark.browser


def columns(page: Page) -> list[str]:
    return page.locator(".page thead th .name > span").all_inner_texts()


def cell(page: Page, row: str, column: int) -> str:
    rows = page.get_by_role("row", name=re.compile(rf"^{row}"))
    return rows.first.locator("td").nth(column).locator("b").inner_text()


def test_from_a_block_to_other_formats_to_the_first_pick_and_back(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    expect(block(page, 2).get_by_role("option", name="cool-down")).to_have_count(1)
    # Late come pounds, once it is known what one weighs, and the movements with their names and codes.
    expect(block(page, 2).locator("option", has_text="lb").first).to_be_attached()
    expect(block(page, 2)).to_contain_text("goblet squat")
    before = block(page, 2).inner_text()
    length = page.get_by_role("button", name="Length, whole session").locator("b").inner_text()
    block(page, 2).get_by_role("button", name="other formats").click()
    expect(page.locator(".page thead th .name")).to_have_count(7)
    choose(page, "Add a format", "Rising windows")
    expect(page.locator(".page thead th .name")).to_have_count(8)
    # All eight places are taken: another stands in the place of the last.
    choose(page, "Add a format", "Rounds until done")
    expect(page.locator(".page thead th .name").last).to_contain_text("Rounds until done")
    expect(page.locator(".page thead th .name")).to_have_count(8)
    held = page.get_by_role("radiogroup", name="Hold still").get_by_role("radio", name=re.compile("work time"))
    held.locator("xpath=ancestor::label").click()
    expect(held).to_be_checked()
    expect(page.get_by_text("left over").first).to_be_visible()
    choose(page, "Add a wish", re.compile("^effort", re.IGNORECASE))
    choose(page, "Add a wish", re.compile("short rests", re.IGNORECASE))
    verdict = page.locator(".verdict")
    expect(verdict).to_contain_text("comes first")
    expect(verdict).to_contain_text("density")
    first = (
        page.locator("thead")
        .get_by_role("radio", checked=True)
        .locator("xpath=ancestor::th")
        .locator(".name > span")
        .inner_text()
    )
    expect(verdict).to_contain_text(first)
    page.get_by_role("button", name="Replace").click()
    expect(page.locator("dl.big")).to_be_visible()
    expect(block(page, 2)).to_have_attribute("aria-label", f"Block 2, {first}")
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).not_to_have_text(length)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).to_have_text(length)
    expect(block(page, 2)).to_have_text(before, use_inner_text=True)


def test_figures_open_columns_sort_rows_hide_and_a_number_is_swept(page: Page) -> None:
    page.goto("/side-by-side")
    page.get_by_role("button", name=re.compile("other formats.*Stretcher")).first.click()
    expect(page.locator(".page thead th .name")).to_have_count(7)
    efforts = [float(cell(page, "Effort", n)) for n in range(1, 7)]
    page.get_by_role("button", name=re.compile("^Effort")).click()
    until(lambda: [float(cell(page, "Effort", n)) for n in range(1, 7)] == sorted(efforts), "rows by effort", page)
    assert columns(page)[0] == "As planned"
    page.get_by_role("row", name=re.compile("^Density")).get_by_role("button").nth(2).click()
    expect(page.locator(".opened .sentence")).to_contain_text(re.compile(r"of work\W+in \d"))
    page.get_by_role("button", name="Rows", exact=True).click()
    tick(page, "Peak uptake", on=False)
    page.keyboard.press("Escape")
    expect(page.get_by_role("row", name=re.compile("^Peak uptake"))).to_have_count(0)
    page.get_by_role("button", name="Sweep").click()
    expect(page.locator(".sweep tbody tr").first.locator("td")).to_have_count(10)
    expect(page.locator(".sweep .turns")).to_contain_text("turn")


def test_a_shape_of_ones_own_is_offered_on_the_bench(page: Page) -> None:
    page.goto("/side-by-side?movements=push-up,swing")
    page.get_by_role("button", name="Keep the shape").click()
    page.get_by_label("Name of the shape").fill("Thornlow bursts")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("status")).to_contain_text("Thornlow bursts")
    # What is typed before the squad's shapes are there waits for them.
    held: list[Route] = []
    page.route("**/api/shapes?*", lambda route: held.append(route))
    page.goto("/bench/new")
    page.get_by_role("textbox", name="Format").fill("thornlow")
    shapes = held_back(page, held, 0)
    expect(page.get_by_role("option")).to_have_count(0)
    shapes.continue_()
    expect(page.get_by_role("option").first).to_contain_text("Thornlow bursts")


def test_two_sessions_stand_beside_each_other(page: Page) -> None:
    page.goto("/side-by-side")
    for title in ("Strength for the lift", "Pack ladder under a pulse"):
        tick(page, f"Compare whole: {title}")
    page.get_by_role("button", name="Compare 2 sessions").click()
    expect(page.locator(".page thead th .name")).to_have_count(2)
    page.get_by_text(re.compile(r"Pack ladder under a pulse: \d+ differences")).click()
    expect(page.locator(".differences li").first).to_be_visible()


def ask(page: Page, text: str, minutes: int, matter: str) -> None:
    """From the empty page in three choices to an answer."""
    page.goto("/side-by-side")
    page.get_by_label("These movements").fill(text)
    page.get_by_role("spinbutton", name="minutes").fill(str(minutes))
    page.get_by_text(matter, exact=True).click()
    page.get_by_role("button", name="Ask", exact=True).click()


FOUR = "10 push-ups\ngoblet squat 16 kg\nbent row 12 kg each side\nburpees"


def test_from_the_question_over_why_not_to_a_block_in_a_session(page: Page) -> None:
    ask(page, FOUR, 12, "conditioning, with short rests")
    expect(page.locator(".read")).to_contain_text("10 push-up, goblet squat 16 kg")
    verdict = page.locator(".verdict")
    expect(verdict).to_contain_text("comes first")
    first = page.locator(".verdict b").inner_text()
    # Most of the formats that coaches ask for by name stand in the table, the first one first.
    assert columns(page)[0] == first
    assert {"20/10 pairs", "Rep ladder", "Movement pyramid", "Minute starts", "Rounds against the clock"} <= set(
        columns(page)
    )
    why = page.get_by_role("region", name="Why not")
    choose(why, "Why not which format", re.compile("^Halving"))
    expect(why.locator(".answer")).to_contain_text("takes 3 movements, not 4")
    choose(why, "Why not which format", "Minute starts")
    expect(why.locator(".answer")).to_contain_text("behind in density")
    expect(why.locator(".answer")).to_contain_text(re.compile(r"density \d+ % against \d+ %"))
    page.get_by_role("button", name="New session").click()
    page.get_by_label("Title of the session").fill("Twelve minutes asked for")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator("dl.big")).to_be_visible()
    expect(block(page, 1)).to_contain_text(first)
    expect(block(page, 1)).to_contain_text("goblet squat")


def test_marks_open_and_what_is_next_best_is_swapped_in(page: Page) -> None:
    ask(page, FOUR, 12, "many clean reps")
    picture = page.get_by_role("region", name="Trade-off")
    mark = picture.get_by_role("button", name=re.compile("^Even intervals: "))
    if "Even intervals" in columns(page):
        page.get_by_role("button", name="take out Even intervals").click()
        expect(page.locator(".page thead th .name")).to_have_count(7)
    mark.focus()
    page.keyboard.press("Enter")
    opened = picture.locator(".opened")
    expect(opened).to_contain_text("Even intervals")
    opened.get_by_role("button", name="Show it beside").click()
    expect(page.locator(".page thead th .name").filter(has_text="Even intervals")).to_have_count(1)
    page.locator(".next").get_by_role("button").first.click()
    expect(page.locator(".page thead th .name")).to_have_count(8)
    for kind, begins in (("svg", b"<svg"), ("png", b"\x89PNG")):
        with page.expect_download() as loaded:
            picture.get_by_role("button", name=f".{kind}").click()
        assert loaded.value.path().read_bytes().startswith(begins)
    picture.get_by_role("button", name="The picture as a table").click()
    expect(picture.get_by_role("row", name=re.compile("^Movement pyramid"))).to_be_visible()


def test_formats_are_put_on_free_days(page: Page) -> None:
    ask(page, FOUR, 12, "low impact")
    placing = page.get_by_role("region", name="Into the week")
    placing.get_by_role("button", name="Put each on each free day").click()
    expect(placing.get_by_role("row", name=re.compile("^Movement pyramid"))).to_contain_text("load")
    shown = placing.locator(".bar b").inner_text()
    placing.get_by_role("button", name="Week after").click()
    expect(placing.locator(".bar b")).not_to_have_text(shown)


def test_what_is_no_movement_and_what_fits_nowhere_is_said(page: Page) -> None:
    ask(page, "???", 12, "even sides")
    expect(page.get_by_role("alert")).to_contain_text("movements, one a line")
    page.get_by_role("button", name="Change the question").click()
    expect(page.get_by_label("These movements")).to_have_value("???")
    expect(page.get_by_role("radio", name="even sides")).to_be_checked()
    ask(page, "push-ups", 150, "even sides")
    expect(page.locator(".verdict")).to_contain_text("No format fits.")
    expect(page.locator(".verdict")).to_contain_text("of 2:30:00")


def test_on_a_phone_one_format_fills_a_page(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    ask(page, FOUR, 12, "conditioning, with short rests")
    expect(page.locator(".page thead th .name")).to_have_count(1)
    first = columns(page)
    page.get_by_role("button", name="Next", exact=True).click()
    expect(page.locator(".pages")).to_contain_text("2 of 8")
    assert columns(page) != first
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390
