"""What goes into the log by hand beside scores: options, where somebody stopped, sets; and what goes on from it."""

from __future__ import annotations

import re
from datetime import date, timedelta
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser.floors import entry_today, kept_session, rounds_in, started, windows
from tests.browser.screens import call
from tests.browser.test_log import person_called, told, worked_out

pytestmark = pytest.mark.browser
NAME = "Bram Tullivant"
SQUATS = {
    "clock": {"kind": "amrap", "window_s": 360},
    "title": "Window",
    "part": "finisher",
    "steps": [
        {
            "id": "p",
            "movement": "push-up",
            "reps": 5,
            "options": [{"label": "knees", "level": "easier", "movement": "knee-push-up"}],
        }
    ],
}


def test_options_where_somebody_stopped_and_sets_are_typed(page: Page) -> None:
    entry = entry_today(page, kept_session(page, SQUATS, windows(30, 4, movement="swing", title="Swings")))
    page.goto(f"/log/entries/{entry}")
    page.get_by_role("textbox", name=f"Score of {NAME}, Window").fill("5+2")
    page.keyboard.press("Enter")
    more = page.get_by_role("button", name=re.compile(f"what {NAME} did otherwise"))
    more.press("Enter")
    form = page.get_by_role("form", name=f"{NAME}, otherwise")
    form.get_by_role("combobox", name="Instead of push-up").click()
    page.get_by_role("option", name="knees").click()
    form.get_by_role("button", name="Keep").click()
    row = page.get_by_role("row").filter(has_text=NAME).first
    expect(row).to_contain_text("knees")
    more.press("Enter")
    form.get_by_role("textbox", name="Did not finish: stopped at").fill("round 4, push-ups")
    page.keyboard.press("Enter")
    expect(page.get_by_role("textbox", name=f"Score of {NAME}, Window")).to_have_value("round 4, push-ups")
    [one] = told(page, entry, 1)
    assert (one["unfinished"], list(one["options"].values())) == ("round 4, push-ups", ["knees"])
    # Sets of a block that makes no score; what cannot be read stays there with a word on it.
    sets = page.get_by_role("region", name="Sets, one by one")
    sets.get_by_role("combobox", name="Note sets of").click()
    page.get_by_role("option", name="2. Swings").click()
    field = sets.get_by_role("textbox", name=f"Sets of {NAME}, Swings")
    field.fill("heavy")
    page.keyboard.press("Enter")
    expect(sets.get_by_role("alert")).to_be_visible()
    field.fill("24x10 24 x 8")
    page.keyboard.press("Enter")
    expect(sets.get_by_text("432 kg in all")).to_be_visible()
    expect(field).to_have_value("24×10 24×8")


def test_last_time_stands_by_name_where_somebody_agreed_and_on_the_floor(phone: Page) -> None:
    person = person_called(phone, NAME)
    call(phone, "PUT", f"/people/{person}/named", {"agreed": True})
    session = kept_session(phone, rounds_in(360, title="Window", id="w"))
    day = date.fromisoformat(call(phone, "GET", "/floor/today")["day"]) - timedelta(days=7)
    earlier = call(phone, "POST", "/plan/entries", {"session": session, "day": day.isoformat()})["id"]
    score = {"person": person, "block": 0, "score": {"rounds": 9, "reps": 3}}
    call(phone, "PUT", f"/log/entries/{earlier}/results", {"results": [score]})
    worked_out(phone, earlier)
    phone.goto(f"/bench/{session}/card")
    expect(phone.get_by_text(re.compile(r"Window, last made: .*Bram 9\+3 \(best 9\+3\)"))).to_be_visible()
    started(phone, entry_today(phone, session))
    expect(phone.get_by_text("Bram 9+3 (best 9+3)")).to_be_visible()


def test_a_comparison_says_at_whose_pace_it_is(page: Page) -> None:
    person = person_called(page, NAME)
    version = call(page, "GET", f"/people/{person}")["version"]
    call(page, "PATCH", f"/people/{person}", {"version": version, "pace_factor": 1.8})
    page.goto(f"/side-by-side?session={kept_session(page, {**SQUATS, 'part': 'main'})}")
    rate = page.get_by_role("row", name=re.compile("^Reps a minute")).get_by_role("cell").first
    expect(rate).to_be_visible()
    before = rate.inner_text()
    page.get_by_role("combobox", name="At whose pace").click()
    page.get_by_role("option", name=NAME).click()
    expect(page.get_by_text("at the pace set for them (1.8")).to_be_visible()
    expect(rate).not_to_have_text(before)


def test_what_is_typed_in_the_weeks_drawer_is_in_the_log(page: Page) -> None:
    entry_today(page, kept_session(page, rounds_in(60), title="Short one"))
    page.goto("/week")
    page.get_by_role("button", name=re.compile("Short one")).first.click()
    drawer = page.get_by_role("dialog")
    drawer.get_by_role("spinbutton", name="done, min").fill("7")
    drawer.get_by_role("spinbutton", name="effort").fill("4")
    drawer.get_by_role("button", name="log", exact=True).click()
    drawer.get_by_role("link", name="logged: open it").click()
    expect(page.get_by_text("logged as typed")).to_be_visible()


def test_the_log_is_taken_out_between_two_days(page: Page) -> None:
    page.goto("/log")
    page.get_by_role("button", name="Take it out, bring it in").click()
    files = page.get_by_role("region", name="The log as a file")
    days = [call(page, "GET", "/floor/today")["day"]]
    for label in ("from", "to"):
        files.get_by_role("combobox", name=label).fill(date.fromisoformat(days[0]).strftime("%-d %b %Y"))
        page.keyboard.press("Enter")
    with page.expect_download() as taken:
        files.get_by_role("button", name="In the open form (JSON)").click()
    text: Any = taken.value.path().read_text("utf-8")
    assert '"fine_tally_log": 1' in text
    assert '"entries": []' in text


def test_what_was_left_out_is_ticked(page: Page) -> None:
    entry = entry_today(page, kept_session(page, rounds_in(60, title="Window"), windows(30, 4, title="Squats")))
    page.goto(f"/log/entries/{entry}")
    page.get_by_role("button", name="What was left out").press("Enter")
    page.get_by_role("list", name="What was left out").get_by_role("checkbox", name="Squats").press("Space")
    page.get_by_role("button", name="Log it as planned").press("Enter")
    expect(page.get_by_text("logged as typed")).to_be_visible()
    expect(page.get_by_role("region", name="What differed")).to_contain_text("Squats: left out")
