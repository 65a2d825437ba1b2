"""What a coach does on the Bench, in the real interface."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from finetally.core.session.ids import without_ids
from tests.browser.controls import more
from tests.browser.screens import block, call, figure, open_session
from tests.browser.squads import OwnSquad
from tests.serving import Server

pytestmark = pytest.mark.browser


def test_changing_a_rest_changes_the_figures_and_is_there_after_a_restart(page: Page, server: Server) -> None:
    open_session(page, "Stretcher-carry readiness B")
    before = {name: figure(page, name) for name in ("Density, main and finisher", "Length, whole session")}
    effort = page.locator("dl.big dd").nth(3).inner_text()
    marks = page.locator("svg path[fill='var(--e0)']").get_attribute("d")
    block(page, 3).get_by_label("rest", exact=True).fill("20")
    for name, value in before.items():
        expect(page.get_by_role("button", name=name).locator("b")).not_to_have_text(value)
    assert page.locator("dl.big dd").nth(3).inner_text() != effort
    assert page.locator("svg path[fill='var(--e0)']").get_attribute("d") != marks
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    server.restart()
    page.reload()
    expect(block(page, 3).get_by_label("rest", exact=True)).to_have_value("20")


def test_a_wrong_value_is_refused_with_its_place_and_nothing_is_lost(page: Page) -> None:
    open_session(page, "Ridge day, rounds with rest")
    length = figure(page, "Length, whole session")
    rest = block(page, 2).get_by_label("between rounds")
    rest.fill("soon")
    told = block(page, 2).get_by_role("alert")
    expect(told).to_contain_text("blocks[1].clock.round_rest_s: found 'soon'")
    expect(told).to_contain_text("a number from 0 to 86400")
    expect(page.get_by_text("Not saved: see the marked place")).to_be_visible()
    expect(rest).to_have_value("soon")
    assert figure(page, "Length, whole session") == length
    rest.fill("60")
    expect(told).to_have_count(0)
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    assert figure(page, "Length, whole session") == length


def test_undo_and_redo(page: Page) -> None:
    open_session(page, "Pack ladder under a pulse")
    cap = block(page, 2).get_by_label("cap")
    cap.fill("600")
    page.get_by_role("button", name="Undo").click()
    expect(cap).to_have_value("15:00")
    more(page, "Redo")
    expect(cap).to_have_value("10:00")
    page.get_by_role("button", name="Undo").click()
    expect(cap).to_have_value("15:00")


def test_figures_open_down_to_the_windows(page: Page) -> None:
    open_session(page, "Cold-hands rising windows")
    page.get_by_role("button", name="Work time").click()
    page.locator(".why").get_by_role("button", name="5/25 up to 30/0").click()
    page.locator(".why").get_by_role("button", name="burpee").click()
    expect(page.locator(".why .why .why")).to_contain_text("30 s")


def test_a_foreign_session_keeps_everything_but_the_one_edit(page: Page) -> None:
    document = {
        "fine_tally": 1,
        "club": {"anthem": [1, 2.5, "three"]},
        "title": "From another tool",
        "blocks": [
            {
                "hall": None,
                "clock": {"rest_s": 10, "kind": "intervals", "work_s": 20.5},
                "steps": [{"movement": "burpee", "mood": "grim"}],
            }
        ],
    }
    made = call(page, "POST", "/sessions", {"document": document})
    page.goto(f"/bench/{made['id']}")
    block(page, 1).get_by_label("work", exact=True).fill("25")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    after = call(page, "GET", f"/sessions/{made['id']}")["document"]
    document["blocks"][0]["clock"]["work_s"] = 25  # type: ignore[index]
    assert without_ids(after) == document
    assert json.dumps(after["club"]) == json.dumps(document["club"])


def test_two_coaches_on_one_session_are_told_and_lose_nothing(
    page: Page, browser: Browser, squad: OwnSquad
) -> None:
    made = call(page, "POST", "/sessions", {"document": {
        "fine_tally": 1, "title": "Shared", "blocks": [
            {"clock": {"kind": "intervals", "work_s": 20, "rest_s": 10}, "steps": [{"movement": "burpee"}]}]}})  # fmt: skip
    other = browser.new_context(base_url=squad.server.url, storage_state=squad.state("osk")).new_page()
    for one in (page, other):
        one.goto(f"/bench/{made['id']}")
        expect(one.locator("dl.big")).to_be_visible()
    block(other, 1).get_by_label("rest", exact=True).fill("15")
    expect(other.get_by_text("Saved", exact=True)).to_be_visible()
    block(page, 1).get_by_label("rest", exact=True).fill("30")
    expect(page.get_by_role("alert")).to_contain_text(f"{squad.account('osk')} saved this session")
    page.get_by_role("button", name="Put mine on top").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    assert call(page, "GET", f"/sessions/{made['id']}")["document"]["blocks"][0]["clock"]["rest_s"] == 30
    kinds = [r["kind"] for r in call(page, "GET", f"/sessions/{made['id']}/revisions")]
    assert "conflict" in kinds
    other.context.close()


def test_the_stave_can_be_walked_by_keyboard(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    page.get_by_role("img", name="Stave of the session").focus()
    page.keyboard.press("ArrowRight")
    expect(page.locator(".line")).to_contain_text("march")
    page.keyboard.press("ArrowRight")
    expect(page.locator(".line")).to_contain_text("hip hinge")


def test_checks_are_mended_accepted_and_undone(page: Page) -> None:
    made = call(page, "POST", "/sessions", {"document": {
        "fine_tally": 1, "title": "Two hard ones", "stands_alone": True, "blocks": [
            {"id": "b1", "clock": {"kind": "intervals", "work_s": 20, "rest_s": 20}, "steps": [{"movement": "burpee"}]},
            {"id": "b2", "clock": {"kind": "intervals", "work_s": 20, "rest_s": 20}, "steps": [{"movement": "swing"}]}]}})  # fmt: skip
    page.goto(f"/bench/{made['id']}")
    check = page.get_by_text("starts hard straight after")
    expect(check).to_be_visible()
    page.get_by_role("button", name="60 s of rest before it").click()
    expect(check).to_have_count(0)
    expect(block(page, 1).get_by_label("rest after")).to_have_value("60")
    page.get_by_role("button", name="Undo").click()
    expect(check).to_be_visible()
    page.get_by_role("button", name="on purpose: main block 2 starts hard").click()
    expect(check).to_have_count(0)
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    kept = call(page, "GET", f"/sessions/{made['id']}")["document"]["blocks"]
    assert kept[1]["on_purpose"] == ["rest-missing"]


def test_a_check_is_muted_for_the_squad_and_told_again(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    checks = page.get_by_role("region", name="Checks")
    checks.get_by_role("button", name=re.compile("more$")).click()
    first = checks.get_by_role("listitem").filter(has_text="cool-down leaves out")
    first.get_by_role("button", name="mute").click()
    expect(first).to_have_count(0)
    expect(checks).to_contain_text("Muted for the squad: cool down misses")
    checks.get_by_role("button", name="tell again of cool-down-misses").click()
    expect(first).to_have_count(1)


def test_pointing_at_ink_tells_its_line_and_marks_its_step(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    stave = page.get_by_role("img", name="Stave of the session")
    box = stave.bounding_box()
    assert box is not None
    # The first second of the first row that has ink then: the march of the warm-up, in the row of travel.
    page.mouse.move(box["x"] + 82, box["y"] + 26 + 7 * 16 - 8)
    expect(page.locator(".line").first).to_contain_text("march")
    expect(page.locator("li.step.pointed")).to_contain_text("march")
    page.get_by_role("button", name="Move goblet squat: arrow").hover()
    expect(page.locator(".stave path.lit")).to_have_count(1)


def test_nobody_is_led_to_the_sign_in_and_back(browser: Browser, server: Server) -> None:
    page = browser.new_context(base_url=server.url).new_page()
    page.goto("/bench")
    page.get_by_label("Name").fill("marit")
    page.get_by_label("Password", exact=True).fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("Wrong name or password")
    page.context.close()


def dragged(page: Page, start: Locator, end: Locator) -> None:
    """By mouse from one place to another, in steps as a hand goes."""
    start.scroll_into_view_if_needed()
    start.hover()
    page.mouse.down()
    box = end.bounding_box()
    assert box is not None
    # Below the middle: exactly on it, it is neither before nor after.
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.7
    page.mouse.move(x, y, steps=12)
    # A busy page may not have seen the last of it: a hand that rests there still moves a little.
    for nudge in (2, -2, 0):
        page.wait_for_timeout(200)
        page.mouse.move(x + nudge, y)
    page.wait_for_timeout(200)
    page.mouse.up()


def test_blocks_steps_and_entries_are_dragged_by_mouse(page: Page) -> None:
    text = "Dragged\nMain: 30 s each, 3 rounds\n  burpee\n  swing\n  march\nMain: 20 s each, 2 rounds\n  push-up\n"
    made = call(page, "POST", "/sessions/import", {"kind": "txt", "text": text})
    page.goto(f"/bench/{made['id']}")
    steps = block(page, 1).get_by_role("listitem")
    # What comes late moves what stands below it: a hand that drags waits until all is there.
    expect(page.locator("dl.big")).to_be_visible()
    expect(steps.nth(2)).not_to_contain_text("??")
    expect(block(page, 1).get_by_role("option", name="cool-down")).to_have_count(1)
    dragged(page, steps.first.get_by_label("Move burpee: arrow"), steps.nth(2))
    expect(steps.nth(2)).to_contain_text("burpee")
    # To another block, and then the blocks themselves.
    other = block(page, 2).get_by_role("listitem")
    dragged(page, steps.first.get_by_label("Move swing: arrow"), other.first)
    expect(other).to_have_count(2)
    expect(steps).to_have_count(2)
    dragged(page, page.get_by_label("Move block 2: arrow"), block(page, 1).locator("h3"))
    expect(block(page, 1)).to_contain_text("push-up")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    kept = call(page, "GET", f"/sessions/{made['id']}")["document"]["blocks"]
    assert [[step["movement"] for step in one["steps"]] for one in kept][1] == ["march", "burpee"]
    assert sorted(step["movement"] for step in kept[0]["steps"]) == ["push-up", "swing"]

    page.goto("/week")
    card = page.get_by_role("article", name="Long walk out")
    expect(card).to_be_visible()
    names = [one.get_attribute("aria-label") or "" for one in page.locator(".days > .day").all()]
    was = page.locator(".days > .day", has=card).get_attribute("aria-label") or ""
    before = names[names.index(was) - 1]
    dragged(page, card, page.get_by_role("region", name=before).locator(".entries"))
    expect(page.get_by_role("region", name=before).get_by_role("article", name="Long walk out")).to_be_visible()
    dragged(page, card, page.get_by_role("region", name=was).locator(".entries"))
    expect(page.get_by_role("region", name=was).get_by_role("article", name="Long walk out")).to_be_visible()
