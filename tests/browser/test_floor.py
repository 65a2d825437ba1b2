"""The floor as it is used: by phone, with a wall, without a network, by two at once, with somebody hurt."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Route, expect

from tests.browser.floors import due, held, kept, on_today, phone_of, rounds_in, sent, started, windows
from tests.browser.screens import call
from tests.browser.squads import OwnSquad, signed_out
from tests.serving import until

pytestmark = pytest.mark.browser


def time_of(page: Page) -> int:
    minutes, seconds = page.locator(".time").inner_text().split(":")
    return int(minutes) * 60 + int(seconds)


def test_four_blocks_by_phone_with_a_wall_and_without_a_network(browser: Browser, squad: OwnSquad) -> None:
    hand = phone_of(browser, squad, service_workers="allow")
    phone = hand.new_page()
    phone.goto("/today")
    blocks = [
        windows(30, 2, movement="march", part="warm-up"),
        windows(2, 2, movement="push-up", rest=1),
        rounds_in(40),
        windows(2, 1, movement="march", part="cool-down"),
    ]
    entry = on_today(phone, *blocks)
    wall = browser.new_context(viewport={"width": 1920, "height": 1080}, base_url=squad.server.url).new_page()
    wall.goto("/wall")
    phone.get_by_label("Six signs").fill(wall.locator(".signs").inner_text())
    phone.get_by_role("button", name="Show our runs there").tap()
    expect(phone.get_by_text("A screen shows our runs until")).to_be_visible()
    phone.evaluate("navigator.serviceWorker.ready.then(() => true)")

    run = started(phone, entry)
    expect(wall.locator(".line")).to_contain_text("march")
    assert abs(time_of(wall) - time_of(phone)) <= 1

    # The network goes in a window; the page is opened anew, and the run goes on where it is.
    hand.set_offline(True)
    phone.get_by_role("button", name="+10 sec").tap()
    until(lambda: '"more"' in kept(phone), "the tap on the phone", phone)
    phone.reload()
    expect(phone.locator(".time")).to_be_visible()
    expect(phone.locator(".line")).to_contain_text("march")
    assert 25 < time_of(phone) <= 40
    held(phone, "Skip this block")
    phone.get_by_role("button", name="Less", exact=True).tap()
    expect(phone.locator(".kind")).to_contain_text("Waiting")
    hand.set_offline(False)
    assert [one["do"] for one in sent(phone, run, "skip")] == ["start", "more", "skip"]

    due(phone, "Start")
    expect(wall.locator(".line")).to_contain_text("push-up")
    expect(phone.locator(".kind")).to_contain_text("Waiting")
    due(phone, "Start")
    phone.wait_for_timeout(800)
    due(phone, "Round done")
    expect(phone.locator(".laps")).to_contain_text("one round counted")
    held(phone, "End this now")
    phone.get_by_role("button", name="Scores", exact=True).tap()
    phone.get_by_label("Score of All together").fill("3+4")
    phone.get_by_label("Score of All together").press("Enter")
    phone.get_by_role("button", name="Less", exact=True).tap()
    due(phone, "Start")
    expect(phone.get_by_role("heading", name="Done")).to_be_visible()
    expect(phone.get_by_text("The run is kept on the server.")).to_be_visible()
    expect(wall.locator(".time")).to_have_text("done")
    events = sent(phone, run, "score", "lap")
    score = next(one for one in events if one["do"] == "score")
    assert (score["block"], score["rounds"], score["reps"]) == (2, 3, 4)
    today = call(phone, "GET", "/floor/today")
    assert next(one for one in today["runs"] if one["id"] == run)["ended"] is not None
    wall.context.close()
    hand.close()


def test_a_wrong_tap_is_taken_back_and_a_round_comes_again(phone: Page) -> None:
    entry = on_today(phone, windows(60, 3, movement="air-squat"), windows(60, 1, movement="march"))
    run = started(phone, entry)
    held(phone, "Skip this block")
    phone.get_by_role("button", name="Less", exact=True).tap()
    expect(phone.locator(".kind")).to_contain_text("Waiting")
    phone.get_by_role("button", name="Undo").tap()
    expect(phone.locator(".line")).to_contain_text("air squat")
    held(phone, "This round again")
    events = sent(phone, run, "skip", "undo", "again")
    assert [one["do"] for one in events] == ["start", "skip", "undo", "again"]
    assert [one.get("on") for one in events] == [None, 0, None, 0]


def test_a_tap_twice_on_the_same_place_counts_once(phone: Page) -> None:
    entry = on_today(phone, rounds_in(120))
    run = started(phone, entry)
    lap = phone.locator(".due").get_by_role("button", name="Round done", exact=True)
    # Both at once, as no machine is too slow for.
    lap.evaluate("(key) => { key.click(); key.click() }")
    phone.wait_for_timeout(800)
    lap.tap()
    assert [one["do"] for one in sent(phone, run, "lap", "lap")] == ["start", "lap", "lap"]


def test_two_devices_tap_the_same_change_and_nothing_is_skipped(
    phone: Page, browser: Browser, squad: OwnSquad
) -> None:
    task = {
        "clock": {"kind": "task", "rest_s": 60},
        "rounds": 3,
        "group": 1,
        "steps": [{"movement": "air-squat", "reps": 10}],
    }
    run = started(phone, on_today(phone, task))
    other = phone_of(browser, squad)
    tablet = other.new_page()
    tablet.goto(f"/floor/{run}")
    expect(tablet.locator(".line")).to_contain_text("air squat")
    phone.wait_for_timeout(1_200)
    # Both tap before either knows of the other's.
    tablet.evaluate("document.querySelector('.due button').click()")
    phone.evaluate("document.querySelector('.due button').click()")
    events = sent(phone, run, "next", "next")
    assert [one["on"] for one in events if one["do"] == "next"] == [0, 0]
    for page in (phone, tablet):
        expect(page.locator(".kind")).to_contain_text("Rest")
        expect(page.locator(".kind")).to_contain_text("round 1 of 3")
    other.close()


def test_somebody_is_hurt(phone: Page) -> None:
    run = started(phone, on_today(phone, windows(60, 2)))
    phone.get_by_role("button", name="Someone is hurt").tap()
    hurt = phone.get_by_role("region", name="Someone is hurt")
    expect(hurt).to_contain_text("defibrillator")
    expect(hurt).to_contain_text("licensed practice come first")
    hurt.locator(".el-select__wrapper").tap()
    phone.get_by_role("option", name="Greta").tap()
    hurt.get_by_label("What happened").fill("turned an ankle")
    hurt.get_by_role("button", name="Go on without Greta").tap()
    # One tap: time goes on.
    expect(phone.locator(".kind")).to_contain_text("Work")
    events = sent(phone, run, "resume")
    assert [one["do"] for one in events] == ["start", "pause", "note", "away", "resume"]
    assert (events[2]["text"], events[2]["kind"], events[3]["why"]) == ("turned an ankle", "hurt", "hurt")
    assert events[2]["person"] == events[3]["person"]
    # A note about somebody leaves the phone once it knows that the note was sent.
    until(lambda: "turned an ankle" not in kept(phone), "a phone without the note", phone)


def test_only_one_tab_of_a_device_runs_the_run(phone: Page, hand: BrowserContext) -> None:
    run = started(phone, on_today(phone, windows(60, 2)))
    second = hand.new_page()
    second.goto(f"/floor/{run}")
    expect(second.get_by_text("open in another tab")).to_be_visible()
    expect(second.get_by_role("button", name="Hold", exact=True)).to_be_disabled()
    phone.close()
    expect(second.get_by_role("button", name="Hold", exact=True)).to_be_enabled()


def test_keys_and_a_clicker_run_it(phone: Page) -> None:
    task = {"clock": {"kind": "task"}, "rounds": 2, "steps": [{"movement": "air-squat", "reps": 10}]}
    run = started(phone, on_today(phone, task, windows(60, 1)))
    phone.wait_for_timeout(1_100)
    phone.keyboard.press("b")
    expect(phone.locator(".kind")).to_contain_text("Time stands")
    phone.keyboard.press("PageDown")
    expect(phone.locator(".kind")).to_contain_text("Work")
    phone.wait_for_timeout(800)
    phone.keyboard.press("PageDown")
    expect(phone.locator(".kind")).to_contain_text("Waiting")
    phone.keyboard.press("PageUp")
    expect(phone.locator(".line")).to_contain_text("air squat")
    assert [one["do"] for one in sent(phone, run, "back")] == ["start", "pause", "resume", "next", "back"]


SHIFTS = """
() => { window.shifted = []
  new PerformanceObserver((list) => {
    for (const one of list.getEntries())
      for (const { node, previousRect: from, currentRect: to } of one.sources)
        window.shifted.push(`${node?.parentElement?.className}: ${from.x},${from.y} to ${to.x},${to.y}`)
  }).observe({ type: 'layout-shift' }) }
"""


def test_nothing_moves_while_time_runs(phone: Page) -> None:
    # Past ten minutes the time has a sign less and is larger; ten seconds more make it small again.
    started(phone, on_today(phone, windows(605, 2, movement="push-up")))
    expect(phone.get_by_role("button", name="Hold", exact=True)).to_be_enabled()
    phone.wait_for_timeout(500)
    phone.evaluate(SHIFTS)
    expect(phone.locator(".time")).to_have_text(re.compile("9:5[0-9]"))
    phone.get_by_role("button", name="+10 sec").tap()
    expect(phone.locator(".time")).to_have_text(re.compile("10:0[0-9]"))
    expect(phone.locator(".time")).to_have_text(re.compile("9:5[0-9]"))
    assert phone.evaluate("window.shifted") == []


def test_an_exit_is_asked_once_and_the_cool_down_stays(phone: Page) -> None:
    blocks = [
        windows(600, 1, movement="push-up"),
        windows(600, 1, movement="burpee", optional="exit", part="finisher"),
        windows(600, 1, movement="march", part="cool-down"),
    ]
    run = started(phone, on_today(phone, *blocks))
    held(phone, "Skip this block")
    phone.get_by_role("button", name="Less", exact=True).tap()
    asked = phone.get_by_text("May end here: 20:00")
    expect(asked).to_contain_text("With what follows: 30:00")
    phone.get_by_role("button", name="Stop here").tap()
    expect(phone.locator(".line")).to_contain_text("march")
    expect(asked).to_have_count(0)
    assert [one["do"] for one in sent(phone, run, "exit", "skip", "skip")] == ["start", "skip", "exit", "skip"]


def test_a_text_is_run_on_the_spot(phone: Page) -> None:
    phone.get_by_label("What stands on the wall").fill(
        "Quick one\n3 rounds, 40 s on 20 s off: push-ups, air squats"
    )
    phone.get_by_role("button", name="Read it and run it").tap()
    phone.get_by_role("button", name="Start").tap()
    expect(phone.locator(".line")).to_contain_text("push-up")
    phone.goto("/today")
    expect(phone.get_by_role("link", name="Go on with Quick one")).to_be_visible()


def test_who_is_not_here_is_ticked_off(phone: Page) -> None:
    entry = on_today(phone, windows(60, 1))
    phone.goto(f"/floor/start/{entry}")
    phone.get_by_text("Greta", exact=True).tap()
    expect(phone.get_by_text("13 of 14 here")).to_be_visible()
    phone.get_by_role("button", name="Start").tap()
    expect(phone.locator(".time")).to_be_visible()
    run = phone.url.rpartition("/")[2]
    assert [one["do"] for one in sent(phone, run, "start")] == ["away", "start"]


def test_signing_out_with_something_unsent_asks(phone: Page, hand: BrowserContext) -> None:
    entry = on_today(phone, windows(60, 1))
    phone.goto(f"/floor/start/{entry}")
    expect(phone.get_by_role("button", name="Start")).to_be_visible()
    phone.route("**/api/floor/runs/**", lambda route: route.abort())
    phone.get_by_role("button", name="Start").tap()
    expect(phone.locator(".time")).to_be_visible()
    phone.goto("/account")
    phone.get_by_role("button", name="Sign out here").tap()
    asked = phone.get_by_role("dialog", name="A run is not sent yet")
    expect(asked).to_contain_text("They stay here for 30 days")
    asked.get_by_role("button", name="Stay").tap()
    expect(phone).to_have_url(re.compile("/account"))


@pytest.mark.parametrize("button", ["Sign out here", "Sign out"])
def test_signing_out_keeps_what_it_promised(browser: Browser, squad: OwnSquad, button: str) -> None:
    """The run that waits, and what the device keeps for others; nothing else of the account."""
    # A sign-in of its own: signing out ends it for whoever shares it.
    own = browser.new_context(base_url=squad.server.url).new_page()
    squad.sign_in(own)
    entry = on_today(own, windows(60, 1))
    own.goto(f"/floor/start/{entry}")
    own.route("**/api/floor/runs/**", lambda route: route.abort())
    own.get_by_role("button", name="Start").click()
    expect(own.locator(".time")).to_be_visible()
    run = own.url.rpartition("/")[2]
    own.evaluate("localStorage.setItem('wall-screen', 'a token of a screen')")
    own.goto("/account")
    own.get_by_role("button", name=button, exact=True).click()
    own.get_by_role("dialog").get_by_role("button", name="Sign out", exact=True).click()
    signed_out(own)
    own.unroute("**/api/floor/runs/**")
    squad.sign_in(own)
    assert [one["do"] for one in sent(own, run, "start")] == ["start"]
    assert own.evaluate("localStorage.getItem('wall-screen')") == "a token of a screen"
    own.close()


def test_an_event_that_the_server_refuses_holds_nothing_up(phone: Page) -> None:
    run = started(phone, on_today(phone, windows(600, 2)))

    def spoiled(route: Route) -> None:
        """The first of several is spoiled on its way: the server says which, and the others come alone."""
        body = route.request.post_data_json
        for one in body["events"]:
            if one["event"]["do"] == "more":
                one["event"]["s"] = "ten"
        route.continue_(post_data=json.dumps(body))

    phone.route("**/api/floor/runs/*/events**", spoiled)
    phone.get_by_role("button", name="+10 sec").tap()
    phone.get_by_role("button", name="Hold", exact=True).tap()
    assert [one["do"] for one in sent(phone, run, "pause")] == ["start", "pause"]
    expect(phone.get_by_text("not sent yet")).to_have_count(0)


def test_a_coach_runs_the_weeks_entry(phone: Page) -> None:
    on_today(phone, windows(60, 1), title="From the week")
    phone.goto("/week")
    phone.get_by_role("button", name=re.compile("From the week")).first.tap()
    phone.get_by_role("dialog").get_by_role("link", name="Run it").tap()
    expect(phone.get_by_role("heading", name="From the week")).to_be_visible()
    expect(phone.get_by_role("button", name="Start")).to_be_visible()


def test_the_files_of_the_shell_are_what_browsers_ask_for(phone: Page) -> None:
    worker = phone.request.get("/sw.js")
    assert worker.status == 200
    assert worker.headers["content-type"].startswith("text/javascript")
    assert (worker.headers["cache-control"], worker.headers["service-worker-allowed"]) == ("no-cache", "/")
    card = phone.request.get("/manifest.webmanifest")
    assert card.headers["content-type"].startswith("application/manifest+json")
    assert card.headers["cache-control"] == "no-cache"
    told = card.json()
    assert (told["start_url"], told["scope"], told["display"]) == ("/today", "/", "standalone")
    for icon in told["icons"]:
        assert phone.request.get(icon["src"]).status == 200
