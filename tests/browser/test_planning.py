"""The week, in the real interface."""

from __future__ import annotations

import re
from datetime import date, timedelta

import pytest
from playwright.sync_api import Locator, Page, Route, expect

from tests.browser.controls import choose, fill_picker, more, tick
from tests.browser.screens import call, open_session

pytestmark = pytest.mark.browser


def day_of(page: Page, number: int) -> Locator:
    return page.locator(".days > .day").nth(number)


def put(page: Page, number: int, title: str) -> None:
    day = day_of(page, number)
    day.get_by_role("button", name="add to").click()
    choose(day, "What", re.compile(f"^{re.escape(title)} "))
    day.get_by_role("button", name="Put it there").click()
    expect(day.get_by_role("article", name=title)).to_be_visible()


def load(page: Page) -> float:
    return float(page.locator(".panel .big dd").first.inner_text().replace(",", ""))


def turn(page: Page, name: str) -> None:
    """Go to another week by keyboard, and see that it is there."""
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_contain_text(re.compile(r"\d"))
    before = heading.inner_text()
    page.get_by_role("button", name=name).press("Enter")
    expect(heading).not_to_have_text(before)


def test_nothing_is_done_to_a_week_that_is_about_to_be_another(page: Page) -> None:
    page.goto("/week")
    days = page.locator(".days")
    expect(days).to_be_visible()
    held: list[Route] = []
    asked = re.compile(r"/api/plan/week\?")
    page.route(asked, lambda one: held.append(one))
    for _ in range(2):
        page.get_by_role("button", name="The week before").click()
    expect(page.locator(".cols")).to_have_attribute("aria-busy", "true")
    assert days.evaluate("one => one.closest('[inert]') !== null")
    two_ago = date.today() - timedelta(weeks=2)
    expect(page).to_have_url(re.compile(two_ago.isoformat()))
    page.route(asked, lambda one: one.continue_())
    for one in held:
        one.continue_()
    expect(page.locator(".cols")).to_have_attribute("aria-busy", "false")
    monday = two_ago - timedelta(days=two_ago.weekday())
    expect(page.get_by_role("heading", level=1)).to_contain_text(f"{monday.day} {monday:%B}")


def test_a_week_from_nothing_to_a_levelled_one_of_which_some_is_taken_and_one_undone(page: Page) -> None:
    # A week far from the demo's: nothing is planned there.
    monday = date.today() + timedelta(weeks=12)
    page.goto(f"/week?day={monday.isoformat()}")
    expect(page.locator(".panel")).to_contain_text("nothing is planned")
    for number, title in enumerate(["Ridge intervals", "Steep ground ladder", "Countdown on steep ground"]):
        put(page, number, title)
    put(page, 5, "Strength for the lift")
    expect(page.get_by_role("heading", name="Clashes")).to_be_visible()
    expect(page.locator(".panel .note-bar").first).to_contain_text("squat")
    more(page, "Phase and times away")
    page.get_by_role("spinbutton", name="weeks", exact=True).fill("1")
    page.get_by_role("spinbutton", name="load from").fill("500")
    page.get_by_role("spinbutton", name="to", exact=True).fill("620")
    page.get_by_role("button", name="Set", exact=True).click()
    expect(page.locator(".panel")).to_contain_text("over it")
    before = load(page)
    page.get_by_role("button", name="Level the week").click()
    expect(page.get_by_role("heading", name="Ways to level it")).to_be_visible()
    edits = page.locator(".level li .el-checkbox")
    assert edits.count() >= 3
    # Seen before it is taken: as it is pale, as it would be in ink; each edit says what it does by itself.
    stave = page.locator(".stave svg[role=img]")
    expect(page.get_by_text("Proposed: as it is pale")).to_be_visible()
    expect(page.locator(".level .own").first).to_contain_text("→")
    all_ticked = stave.get_attribute("aria-label")
    assert stave.locator("rect.before").count() > 0
    page.locator(".level li label").last.click()
    expect(stave).not_to_have_attribute("aria-label", all_ticked or "")
    page.get_by_role("button", name=re.compile("^Take")).click()
    expect(page.get_by_role("heading", name="Taken")).to_be_visible()
    expect(page.locator(".panel .big dd").first).not_to_have_text(f"{before:,.0f}")
    taken = load(page)
    page.get_by_role("button", name=re.compile("^undo")).first.click()
    expect(page.get_by_text("(undone)")).to_be_visible()
    expect(page.locator(".panel .big dd").first).not_to_have_text(f"{taken:,.0f}")
    page.emulate_media(media="print")
    expect(page.get_by_role("navigation", name="Screens")).to_be_hidden()
    expect(day_of(page, 0).get_by_role("article").first).to_be_visible()


def test_an_entry_is_moved_logged_and_repeated_by_keyboard(page: Page) -> None:
    page.goto("/week")
    card = page.get_by_role("article", name="Long walk out")
    card.get_by_role("button", name="Long walk out").press("Enter")
    editor = page.get_by_role("region", name="Change Long walk out")
    # What is to come is not logged: it is moved to today first.
    day = date.fromisoformat(call(page, "GET", "/floor/today")["day"])
    choose(editor, "on", day.strftime("%A %-d %B"))
    editor.get_by_label("done, min").fill("200")
    editor.get_by_label("effort").fill("3")
    editor.get_by_role("button", name="log").press("Enter")
    expect(card).to_contain_text("logged")
    expect(card).to_contain_text("200 min")
    choose(editor, "repeat for", "1 week")
    turn(page, "The week after")
    expect(page.get_by_role("article", name="Long walk out")).to_contain_text("150 min")


def test_a_season_opens_its_weeks_and_a_calendar_link_is_made_and_revoked(page: Page) -> None:
    page.goto("/week")
    more(page, "Season")
    expect(page.locator("tbody tr")).to_have_count(13)
    expect(page.locator("tr.present")).to_contain_text("this week")
    page.locator("tr.present").get_by_role("button").click()
    expect(page.get_by_role("button", name="Level the week")).to_be_visible()
    more(page, "Export")
    page.get_by_label("name", exact=True).fill("Wall calendar")
    page.get_by_role("button", name="Make a link").click()
    address = page.locator(".share code").inner_text()
    assert page.request.get(address).text().startswith("BEGIN:VCALENDAR")
    page.get_by_role("button", name="revoke Wall calendar").click()
    expect(page.get_by_role("button", name="revoke Wall calendar")).to_have_count(0)
    assert page.request.get(address).status == 404


def test_targets_are_set_and_the_weeks_stave_says_how_rows_stand_to_them(page: Page) -> None:
    page.goto("/week")
    more(page, "Targets")
    page.get_by_label("pull: at least").fill("30")
    page.get_by_role("button", name="Set the targets").click()
    expect(page.locator(".stave svg[role=img]")).to_contain_text("under")
    more(page, "Targets")
    page.get_by_label("pull: at least").fill("")
    page.get_by_role("button", name="Set the targets").click()
    expect(page.locator(".stave svg[role=img]")).not_to_contain_text("under")


def test_who_was_away_has_another_week(page: Page) -> None:
    page.goto("/week")
    turn(page, "The week before")
    card = page.get_by_role("article", name="Strength for the lift")
    card.get_by_role("button").click()
    page.get_by_role("button", name="Who came").click()
    tick(page, "Osk Brannock", on=False)
    all_came = load(page)
    choose(page, "Whose week", "Osk Brannock")
    expect(page.locator(".panel .big dd").first).not_to_have_text(f"{all_came:,.0f}")
    assert load(page) < all_came


def test_a_session_is_put_on_a_day_from_the_bench_as_it_stands_there(page: Page) -> None:
    day = date.today() + timedelta(weeks=20)
    open_session(page, "Steep ground ladder")
    title = page.get_by_role("textbox", name="Title")
    title.fill("Steep ground ladder, longer")
    more(page, "Put on a day")
    panel = page.get_by_role("form", name="Put on a day")
    fill_picker(panel, "Day", f"{day.day} {day:%b} {day.year}")
    fill_picker(panel, "at", "18:30")
    panel.get_by_role("button", name="Put it there").click()
    expect(panel).to_contain_text("It stands on")
    panel.get_by_role("link", name="To that week").click()
    card = page.get_by_role("article", name="Steep ground ladder, longer")
    expect(card).to_contain_text("18:30")
    expect(card).not_to_contain_text("newer version")
    page.go_back()
    title.fill("Steep ground ladder")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.goto(f"/week?day={day.isoformat()}")
    expect(card).to_contain_text("newer version exists")


def test_a_time_that_is_only_come_through_stays_open_and_one_that_is_typed_at_once_stays(page: Page) -> None:
    open_session(page, "Steep ground ladder")
    more(page, "Put on a day")
    time = page.get_by_role("form", name="Put on a day").get_by_role("combobox", name="at", exact=True)
    pickers = page.locator(".el-picker__popper:visible")
    time.focus()
    expect(pickers).to_have_count(1)
    time.press("Tab")
    expect(pickers).to_have_count(0)
    expect(time).to_have_value("")
    time.click()
    time.press_sequentially("6:35")
    time.press("Enter")
    expect(pickers).to_have_count(0)
    expect(time).to_have_value("06:35")
    time.fill("")
    time.press("Enter")
    expect(time).to_have_value("")
    # What the picker offers is taken by Enter.
    time.press("Enter")
    expect(time).to_have_value("18:00")
    time.press("Enter")
    expect(pickers).to_have_count(0)
    expect(time).to_have_value("18:00")
