"""What several people and squads share: nothing stays for who signs in next, both weeks are reached, nobody is overwritten."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.controls import choose
from tests.browser.screens import call
from tests.browser.squads import OwnSquad, SquadMaker, signed_out
from tests.serving import Server


@pytest.fixture
def own_page(browser: Browser, server: Server) -> Iterator[Page]:
    """A browser that nobody has signed in with."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=server.url)
    yield context.new_page()
    context.close()


def test_nothing_of_one_account_stays_for_the_next_in_the_same_tab(own_page: Page, squad: OwnSquad) -> None:
    squad.sign_in(own_page)
    own_page.goto("/bench")
    own_page.get_by_role("link", name="Stretcher-carry readiness B", exact=True).click()
    own_page.locator("dl.big").wait_for()
    own_page.evaluate(
        "() => { window.left = 1; sessionStorage.setItem('left', '1'); localStorage.setItem('left', '1') }"
    )
    own_page.get_by_role("button", name="Sign out").click()
    signed_out(own_page)
    kept = "() => [window.left ?? null, sessionStorage.getItem('left'), localStorage.getItem('left')]"
    assert own_page.evaluate(kept) == [None, None, None]
    squad.sign_in(own_page, "tamsin")
    assert own_page.evaluate("() => fetch('/api/people').then((answer) => answer.status)") == 403


def test_a_member_of_two_squads_reaches_both_weeks(own_page: Page, squad: OwnSquad, squads: SquadMaker) -> None:
    squads.make_empty(squad.account("osk"), "Vale Search")
    squad.sign_in(own_page, "osk")
    own_page.goto("/week")
    expect(own_page.get_by_role("main")).to_contain_text("Strength for the lift")
    choose(own_page, "Which squad", "Vale Search")
    expect(own_page.get_by_role("main")).not_to_contain_text("Strength for the lift")
    expect(own_page.get_by_role("button", name="add to").first).to_be_visible()
    own_page.reload()
    expect(own_page.get_by_role("main")).not_to_contain_text("Strength for the lift")
    choose(own_page, "Which squad", "Thornlow Ridge")
    expect(own_page.get_by_role("main")).to_contain_text("Strength for the lift")


def test_each_address_says_its_squad_or_refuses(own_page: Page, squad: OwnSquad, squads: SquadMaker) -> None:
    squads.make_empty(squad.account("osk"), "Vale Search")
    squad.sign_in(own_page, "osk")
    mine = {one["name"]: one["id"] for one in call(own_page, "GET", "/me")["squads"]}
    ridge = next(number for name, number in mine.items() if name != "Vale Search")
    own_page.goto(f"/week?squad={mine['Vale Search']}")
    expect(own_page.get_by_role("button", name="add to").first).to_be_visible()
    expect(own_page.get_by_role("main")).not_to_contain_text("Strength for the lift")
    own_page.get_by_role("link", name="People").click()
    expect(own_page).to_have_url(re.compile(rf"/people\?squad={mine['Vale Search']}$"))
    # A session is of its squad, and takes the screens there.
    session = next(one["id"] for one in call(own_page, "GET", "/sessions")["items"])
    own_page.goto(f"/bench/{session}")
    own_page.locator("dl.big").wait_for()
    own_page.get_by_role("link", name="Week", exact=True).click()
    expect(own_page).to_have_url(re.compile(rf"/week\?squad={ridge}$"))
    own_page.goto("/week?squad=999999")
    expect(own_page.get_by_role("heading", name="Nothing here")).to_be_visible()


def test_who_was_slower_is_told_and_sees_what_stands(page: Page, squad: OwnSquad) -> None:
    page.goto("/week")
    entry = page.get_by_role("article", name="Rope and knots").get_by_role("button")
    entry.click()
    page.get_by_role("region", name="Change Rope and knots").wait_for()
    other = squad.visitor("osk")
    today = page.evaluate("() => new Date().toISOString().slice(0, 10)")
    week = other.send("GET", f"/plan/week?day={today}").json()
    mine = next(one for one in week["entries"] if one["title"] == "Rope and knots")
    group = other.send("POST", "/groups", {"name": "north face"}).json()
    sent = {"version": mine["version"], "group": group["id"]}
    assert other.send("PATCH", f"/plan/entries/{mine['id']}", sent).status == 200
    page.get_by_role("button", name="lock", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("Meanwhile changed")
    expect(page.get_by_role("main")).to_contain_text("north face")
    back = other.send("GET", f"/plan/week?day={today}").json()
    now = next(one for one in back["entries"] if one["id"] == mine["id"])
    assert (now["group"]["name"], now["locked"]) == ("north face", False)


DOCUMENT = {
    "fine_tally": 1,
    "title": "Pods to failure",
    "blocks": [
        {
            "section": "Pods", "times": 2, "rest_between_s": 45, "rest_after_s": 90,
            "blocks": [
                {"clock": {"kind": "task", "rest_s": 60}, "group": 1, "rounds": 2, "announced_s": 300,
                 "steps": [{"movement": "push-up", "reps": {"to_failure": True, "plan": 12}}]},
            ],
        },
        {"clock": {"kind": "intervals", "work_s": 30}, "talk_s": 60, "talk_over": True, "steps": [{"movement": "march"}]},
    ],
}  # fmt: skip


def test_sections_doses_to_failure_and_talk_are_edited_on_the_bench(page: Page, squad: OwnSquad) -> None:
    made = squad.visitor().send("POST", "/sessions", {"document": DOCUMENT}).json()
    page.goto(f"/bench/{made['id']}")
    after = page.get_by_role("textbox", name="rest after").first
    expect(after).to_have_value("90")
    expect(page.get_by_role("textbox", name="reps").first).to_have_value("to failure (12)")
    expect(page.get_by_text("people move during the talk").first).to_be_visible()
    total = page.locator("dl.big")
    total.wait_for()
    after.fill("150")
    after.press("Enter")
    page.get_by_role("textbox", name="reps").first.fill("max 20")
    page.get_by_role("textbox", name="reps").first.press("Enter")
    page.get_by_role("tab", name="Board text").click()
    board = page.locator(".cm-content")
    expect(board).to_contain_text("rest 2:30")
    expect(board).to_contain_text("push-up to failure (plan 20)")
    expect(board).to_contain_text("people move meanwhile")
    page.get_by_role("status").filter(has_text="Saved").wait_for()
    kept = squad.visitor().send("GET", f"/sessions/{made['id']}").json()["document"]
    assert kept["blocks"][0]["rest_after_s"] == 150
    assert kept["blocks"][0]["blocks"][0]["steps"][0]["reps"] == {"to_failure": True, "plan": 20}
    assert json.dumps(kept)
