"""Movements: found, looked at with their chain and use, changed with a preview, brought in, names settled."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.controls import choose, held_back
from tests.browser.screens import call

pytestmark = pytest.mark.browser


def session_of(page: Page, title: str, *movements: str) -> str:
    """Keep a session of three rounds of these; its id."""
    squad = call(page, "GET", "/me")["squads"][0]["id"]
    steps = [{"movement": one, "reps": 5} for one in movements]
    block: dict[str, Any] = {"clock": {"kind": "task"}, "rounds": 3, "steps": steps}
    document = {"fine_tally": 1, "title": title, "blocks": [block]}
    return str(call(page, "POST", "/sessions", {"document": document, "squad": squad})["id"])


def steps_of(page: Page, session: str) -> list[str]:
    document = call(page, "GET", f"/sessions/{session}")["document"]
    return [step["movement"] for step in document["blocks"][0]["steps"]]


def test_a_movement_is_found_changed_with_a_preview_and_put_back(page: Page) -> None:
    session_of(page, "Press day", "push-up", "push-up")
    page.goto("/movements")
    page.get_by_role("textbox", name="Find a movement").fill("press-up")
    found = page.get_by_role("region", name="Movements found")
    found.get_by_role("button", name="push-up", exact=False).first.press("Enter")
    expect(page.get_by_role("heading", name="push-up", exact=True)).to_be_visible()
    chain = page.get_by_role("group", name="Easier and harder")
    expect(chain.get_by_role("button", name="hands-raised push-up")).to_be_visible()
    expect(page.get_by_role("link", name="Press day")).to_be_visible()
    page.get_by_role("button", name="Change it").press("Enter")
    form = page.get_by_role("form", name="Change push-up")
    form.get_by_role("spinbutton", name="Seconds a rep").fill("2.6")
    page.keyboard.press("Tab")
    form.get_by_role("button", name="See what it changes").press("Enter")
    expect(form.get_by_text("Seconds a rep: 2 → 2.6")).to_be_visible()
    expect(form.get_by_text(re.compile(r"Changes the figures of \d+ sessions: “Press day”"))).to_be_visible()
    form.get_by_role("button", name="Keep it").press("Enter")
    expect(page.get_by_text("In the library; the squad has it otherwise")).to_be_visible()
    page.get_by_role("button", name="Back to the library’s").press("Enter")
    page.get_by_role("button", name="Yes, do it").press("Enter")
    expect(page.get_by_text("Choose a movement to see")).to_be_visible()
    page.goto("/movements?one=push-up")
    expect(page.get_by_text("In the library · Also called")).to_be_visible()
    # Up and down the chain by its names.
    chain.get_by_role("button", name="hands-raised push-up").press("Enter")
    expect(page.get_by_role("heading", name="hands-raised push-up", exact=True)).to_be_visible()


def test_what_is_wrong_in_a_definition_is_told_before_it_is_looked_at(page: Page) -> None:
    page.goto("/movements")
    page.get_by_role("button", name="Define one").press("Enter")
    form = page.get_by_role("form", name="Define a movement")
    look = form.get_by_role("button", name="See what it changes")
    look.press("Enter")
    expect(form.get_by_role("alert")).to_contain_text("needs a name")
    form.get_by_role("textbox", name="Name").fill("Gate vault")
    choose(form, "Pattern 1", "jump")
    form.get_by_role("button", name="one more pattern").press("Enter")
    choose(form, "Pattern 2", "push-level")
    form.get_by_role("spinbutton", name="Share in %").nth(1).fill("30")
    page.keyboard.press("Tab")
    look.press("Enter")
    expect(form.get_by_role("alert")).to_contain_text("add up to 100 %")
    form.get_by_role("spinbutton", name="Share in %").first.fill("70")
    form.get_by_role("textbox", name="Harder ones").fill("box vault of mine")
    look.press("Enter")
    expect(form.get_by_role("alert")).to_contain_text("Nobody knows box vault of mine.")
    form.get_by_role("textbox", name="Harder ones").fill("burpee")
    look.press("Enter")
    expect(form.get_by_text("Works: jump 0.7; push-level 0.3")).to_be_visible()
    form.get_by_role("button", name="Keep it").press("Enter")
    expect(page.get_by_role("heading", name="Gate vault")).to_be_visible()
    expect(page.get_by_text("Defined by the squad")).to_be_visible()


def test_one_is_defined_by_a_coach_who_is_quicker_than_the_list(page: Page) -> None:
    held: list[Route] = []
    page.route(re.compile(r"/api/movements\?"), lambda route: route.continue_() if held else held.append(route))
    page.goto("/movements")
    page.get_by_role("button", name="Define one").press("Enter")
    expect(page.locator(".one").get_by_role("status")).to_have_text("Reading the movements …")
    held_back(page, held, 0).continue_()
    form = page.get_by_role("form", name="Define a movement")
    form.get_by_role("textbox", name="Name").fill("Gate vault")
    choose(form, "Pattern 1", "jump")
    form.get_by_role("button", name="See what it changes").press("Enter")
    form.get_by_role("button", name="Keep it").press("Enter")
    expect(page.get_by_role("heading", name="Gate vault")).to_be_visible()


def slowly(route: Route) -> None:
    route.request.frame.page.wait_for_timeout(500)
    route.continue_()


def test_what_others_changed_meanwhile_is_seen_before_it_is_kept(page: Page) -> None:
    page.goto("/movements?one=push-up")
    page.get_by_role("button", name="Change it").press("Enter")
    form = page.get_by_role("form", name="Change push-up")
    form.get_by_role("spinbutton", name="Seconds a rep").fill("2.6")
    page.keyboard.press("Tab")
    look = form.get_by_role("button", name="See what it changes")
    look.press("Enter")
    keep = form.get_by_role("button", name="Keep it")
    expect(keep).to_be_visible()
    call(page, "POST", "/movements/names", {"key": "push-up", "words": "floor press of ours"})
    page.route("**/api/movements*", slowly)
    keep.press("Enter")
    expect(form.get_by_role("alert")).to_contain_text("Meanwhile changed by somebody else")
    look.press("Enter")
    expect(form.get_by_text("floor press of ours")).to_be_visible()
    keep.press("Enter")
    expect(page.get_by_text("In the library; the squad has it otherwise")).to_be_visible()


def test_names_that_nobody_knows_are_settled_in_one_list(page: Page) -> None:
    first = session_of(page, "Gates", "gate-run", "push-up", "gate-run")
    session_of(page, "Gates again", "gate-run", "sled-shove")
    page.goto("/movements")
    page.get_by_role("button", name="Names to settle: 2").press("Enter")
    names = page.get_by_role("region", name="Names to settle")
    row = names.get_by_role("listitem").filter(has_text="gate-run")
    expect(row).to_contain_text("3 times in 2 sessions")
    row.get_by_role("button", name="It is shuttle run").press("Enter")
    expect(names.get_by_role("status")).to_contain_text("gate-run is settled: in 2 sessions")
    expect(names.get_by_role("listitem")).to_have_count(1)
    assert steps_of(page, first) == ["shuttle-run", "push-up", "shuttle-run"]
    # The other one is defined under its own name, and stands in the library then.
    names.get_by_role("button", name="define sled-shove").press("Enter")
    form = page.get_by_role("form", name="Define a movement")
    expect(form.get_by_role("textbox", name="Name")).to_have_value("sled shove")
    choose(form, "Pattern 1", "carry")
    form.get_by_role("button", name="See what it changes").press("Enter")
    form.get_by_role("button", name="Keep it").press("Enter")
    expect(page.get_by_role("heading", name="sled shove")).to_be_visible()
    expect(page.get_by_role("button", name="Names to settle")).to_have_count(0)


def test_a_file_is_looked_at_before_it_is_taken(page: Page) -> None:
    page.goto("/movements")
    page.get_by_role("button", name="Files").press("Enter")
    files = page.get_by_role("region", name="Movements as a file")
    field = files.get_by_role("textbox", name="or paste it here")
    field.fill("key,patterns,met\ngate-vault,jump 1,-2")
    files.get_by_role("button", name="See what it brings").press("Enter")
    expect(files.get_by_role("alert")).to_contain_text("line 2, met")
    field.fill("key,name,patterns,pace_s\ngate-vault,gate vault,jump 1,4")
    files.get_by_role("button", name="See what it brings").press("Enter")
    expect(files.get_by_text("Seconds a rep: 4")).to_be_visible()
    assert "gate-vault" not in call(page, "GET", "/movements")["own"]
    files.get_by_role("button", name="Take 1 in").press("Enter")
    expect(files.get_by_text("One movement is the squad’s now.")).to_be_visible()
    assert "gate-vault" in call(page, "GET", "/movements")["own"]
