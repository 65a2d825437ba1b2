"""What broke for new users of 1.0.0, in the real interface: a head coach, an assistant, an athlete, a physio, a teacher."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from tests.browser.controls import choose, more
from tests.browser.floors import on_today, started, windows
from tests.browser.rooms import asks_for_health
from tests.browser.screens import call
from tests.browser.squads import OwnSquad
from tests.browser.test_log import person_called

pytestmark = pytest.mark.browser


def editor_of(page: Page) -> Any:
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    return page.get_by_role("textbox", name="Board text")


# The head coach


def test_a_short_text_can_be_gone_on_with(page: Page) -> None:
    editor = editor_of(page)
    length = page.get_by_role("button", name="Length, whole session").locator("b")
    editor.fill("Warm up 5 min")
    expect(length).to_have_text("5:00")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    editor.fill("Warm up 5 min\n\n40/20 x 5 burpees")
    expect(length).not_to_have_text("5:00")
    expect(page.get_by_label("What the words come to")).to_contain_text("burpee")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_text_that_cannot_be_read_is_kept_and_read_at_the_next_letter(page: Page) -> None:
    editor = editor_of(page)
    editor.fill("3 rounds\n10 burpees")
    expect(page.get_by_text("Everything was understood.")).to_be_visible()
    asked = re.compile(r"/api/board$")
    page.route(
        asked, lambda route: route.fulfill(status=413, json={"type": "t", "detail": "Too large.", "problems": []})
    )
    editor.fill("3 rounds\n10 burpees\n10 swings")
    expect(page.get_by_text("This text could not be read.")).to_be_visible()
    expect(page.get_by_text("Everything was understood.")).to_have_count(0)
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    page.get_by_role("tab", name="Board text").click()
    expect(editor).to_contain_text("10 swings")
    page.unroute(asked)
    editor.press("ControlOrMeta+End")
    editor.press_sequentially(" 24kg")
    expect(page.get_by_text("Everything was understood.")).to_be_visible()
    expect(page.get_by_label("What the words come to")).to_contain_text("swing")


def test_numbers_in_no_figure_are_told_at_their_place(page: Page) -> None:
    editor_of(page).fill("3 rounds\n45 s box step-up 40 cm\n45 s plank")
    expect(page.get_by_text("1 number is not in the figures")).to_be_visible()
    expect(page.get_by_text("Everything was understood.")).to_have_count(0)
    expect(page.locator(".unused-number")).to_have_text("40")


def test_an_unlikely_session_is_asked_about(page: Page) -> None:
    page.goto("/bench")
    document = {"fine_tally": 1, "title": "Pulls", "blocks": [{
        "clock": {"kind": "task"}, "rounds": 225, "steps": [{"movement": "barbell-deadlift", "reps": 5}],
    }], "gym": "north"}  # fmt: skip
    made = call(page, "POST", "/sessions", {"document": document})
    page.goto(f"/bench/{made['id']}")
    expect(page.get_by_text("225 rounds of barbell deadlift: is 225 a load?")).to_be_visible()
    # Keys of a file that change no figure are listed.
    page.get_by_role("button", name="1 key of the file has no effect").click()
    expect(page.get_by_role("list", name="1 key of the file has no effect")).to_contain_text(
        "gym is not known here"
    )


def test_what_is_removed_from_the_week_comes_back(page: Page) -> None:
    on_today(page, windows(60, 2), title="Gone and back")
    page.goto("/week")
    entry = page.get_by_role("article", name="Gone and back")
    entry.get_by_role("button").first.click()
    page.get_by_role("dialog").get_by_role("button", name="take off").click()
    expect(entry).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(entry).to_be_visible()
    expect(page.get_by_role("button", name="Undo", exact=True)).to_have_count(0)


def test_a_season_is_named_after_whom_it_is_of(page: Page) -> None:
    name = call(page, "GET", "/people")[0]["name"]
    page.goto("/week")
    choose(page, "Whose week", name)
    more(page, "Season")
    expect(page.get_by_role("heading", level=1)).to_have_text(f"Season: {name}")
    page.get_by_role("link", name="To the week").click()
    expect(page).to_have_url(re.compile("whose=person"))


def test_run_it_now_keeps_the_chosen_group(page: Page) -> None:
    squad = call(page, "GET", "/me")["squads"][0]["id"]
    group = call(page, "POST", "/groups", {"name": "North", "squad": squad})
    person = call(page, "GET", "/people")[0]["id"]
    call(page, "PUT", f"/people/{person}/groups", {"groups": [group["id"]]})
    page.goto("/bench")
    page.locator("main tbody tr a").first.click()
    expect(page.locator("dl.big")).to_be_visible()
    page.keyboard.press("p")
    form = page.get_by_role("form", name=re.compile("day"))
    choose(form, "group", "North")
    form.get_by_role("button", name="Run it now").click()
    expect(page.get_by_text("1 of 1 here")).to_be_visible()


# The assistant, with a phone


def test_a_run_that_ended_without_a_network_is_sent_from_any_page(phone: Page) -> None:
    entry = on_today(phone, windows(60, 2), title="No signal")
    asked = re.compile(r"/api/floor/runs/")
    phone.goto(f"/floor/start/{entry}")
    expect(phone.get_by_role("button", name="Start")).to_be_visible()
    phone.route(asked, lambda route: route.abort())
    phone.get_by_role("button", name="Start").tap()
    expect(phone.locator(".time")).to_be_visible()
    phone.goto("/log")
    expect(phone.get_by_text("1 run on this phone is waiting to be sent.")).to_be_visible()
    # Nothing is logged over it.
    phone.goto(f"/log/entries/{entry}")
    phone.get_by_role("button", name=re.compile("^Log it as")).first.tap()
    expect(phone.get_by_text("A run of this session is on this phone and not sent yet.")).to_be_visible()
    assert call(phone, "GET", f"/log/entries/{entry}")["logged"] is False
    phone.unroute(asked)
    with phone.expect_response(lambda answer: "/events" in answer.url and answer.ok):
        phone.goto("/people")
    expect(phone.get_by_role("heading", name="People")).to_be_visible()
    expect(phone.get_by_text("1 run on this phone is waiting to be sent.")).to_have_count(0)
    assert len(call(phone, "GET", f"/log/entries/{entry}")["runs"]) == 1


def test_the_wall_says_rest_and_names_what_comes_next(phone: Page, browser: Browser, squad: OwnSquad) -> None:
    block = {
        "clock": {"kind": "intervals", "work_s": 600, "rest_s": 600},
        "rounds": 2,
        "steps": [{"movement": "burpee"}],
    }
    run = started(phone, on_today(phone, block))
    screen = browser.new_context(viewport={"width": 1920, "height": 1080}, base_url=squad.server.url)
    wall = screen.new_page()
    wall.goto("/wall")
    code = wall.locator(".signs").inner_text().replace(" ", "")
    call(phone, "POST", "/floor/wall/pair", {"code": code, "squad": call(phone, "GET", "/me")["squads"][0]["id"]})
    expect(wall.locator(".line")).to_contain_text("burpee")
    expect(wall.get_by_text("Rest", exact=True)).to_have_count(0)
    events = [{"device": "a-tablet", "number": 0, "event": {"t": 2, "do": "next"}}]
    call(phone, "POST", f"/floor/runs/{run}/events?since=0", {"events": events})
    expect(wall.get_by_text("Rest", exact=True)).to_be_visible()
    expect(wall.get_by_text("Next:", exact=True)).to_be_visible()
    screen.close()


# The athlete, and the physio


def test_a_report_of_pain_reaches_the_coach_before_training(page: Page, squad: OwnSquad) -> None:
    asks_for_health(page)
    entry = on_today(page, windows(60, 2), title="Evening")
    person = person_called(page, "Tamsin Arkwell")
    said = {"person": person, "kind": "pain", "text": "left knee, since yesterday", "place": "knee"}
    assert squad.visitor("tamsin").send("POST", f"/log/entries/{entry}/notes", said).status < 300
    for path in ("/", "/today", f"/people/{person}"):
        page.goto(path)
        told = page.get_by_role("region", name="Before training")
        expect(told).to_contain_text("reported pain")
        expect(told).not_to_contain_text("knee")
    page.goto(f"/floor/start/{entry}")
    expect(page.get_by_role("status").filter(has_text="reported pain")).to_be_visible()
    expect(page.get_by_role("checkbox", name=re.compile("Tamsin.*reported pain"))).to_have_count(1)
    # An athlete sees nobody's.
    assert squad.visitor("tamsin").send("GET", "/reports").status == 403


def test_who_was_hurt_in_a_run_is_marked_afterwards(phone: Page) -> None:
    started(phone, on_today(phone, windows(600, 1), title="First"))
    second = on_today(phone, windows(600, 1), title="Second")
    phone.get_by_role("button", name="Someone is hurt").tap()
    hurt = phone.get_by_role("region", name="Someone is hurt")
    hurt.locator(".el-select__wrapper").tap()
    phone.get_by_role("option", name="Greta").tap()
    hurt.get_by_role("button", name="Go on without Greta").tap()
    expect(phone.locator(".kind")).to_contain_text("Work")
    phone.goto("/today")
    expect(phone.get_by_role("region", name="Before training")).to_contain_text("Greta was hurt")
    phone.goto(f"/floor/start/{second}")
    box = phone.get_by_role("checkbox", name=re.compile("Greta.*was hurt"))
    expect(box).not_to_be_checked()


def test_the_bench_says_where_restrictions_could_not_be_checked(page: Page) -> None:
    def too_large(route: Route) -> None:
        route.fulfill(status=413, json={"type": "t", "detail": "Up to 64,000 bytes here.", "problems": []})

    page.route(re.compile(r"/api/otherwise$"), too_large)
    page.goto("/bench")
    page.locator("main tbody tr a").first.click()
    expect(page.get_by_role("alert").filter(has_text="Restrictions could not be checked")).to_be_visible()


# The teacher, with a list of pupils


def test_a_list_with_other_headings_is_refused_and_a_good_one_undone(page: Page) -> None:
    before = len(call(page, "GET", "/people"))
    page.goto("/people")
    page.get_by_role("button", name=re.compile("list")).click()
    upload = page.locator("input[type=file]")
    bad = "Surname;First name;Form\r\nMüller;Zoë;9B\r\n".encode("cp1252")
    upload.set_input_files({"name": "class.csv", "mimeType": "text/csv", "buffer": bad})
    expect(page.get_by_role("alert")).to_contain_text("“name” and “group”")
    good = "name;group\r\nZoë Müller;9B\r\n".encode("cp1252")
    upload.set_input_files({"name": "class.csv", "mimeType": "text/csv", "buffer": good})
    expect(page.get_by_role("cell", name="Zoë Müller")).to_be_visible()
    page.get_by_role("button", name=re.compile("1 new")).click()
    expect(page.get_by_role("link", name="Zoë Müller")).to_be_visible()
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_role("link", name="Zoë Müller")).to_have_count(0)
    assert len(call(page, "GET", "/people")) == before
