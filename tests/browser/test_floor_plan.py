"""The plan of a run on the floor: short of time, changes, stations, two runs on one phone, scores by person."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Route, expect

from tests.browser.controls import held_back
from tests.browser.floors import (
    CIRCUIT,
    behind_more,
    due,
    entry_today,
    held,
    kept_session,
    on_today,
    phone_of,
    rounds_in,
    sent,
    started,
    windows,
)
from tests.browser.squads import OwnSquad

pytestmark = pytest.mark.browser


def test_minutes_left_are_fitted_by_the_core_and_the_run_goes_by_it(phone: Page) -> None:
    run = started(
        phone, on_today(phone, windows(60, 2, title="First"), windows(60, 6, rest=30, title="Second", part="main"))
    )
    behind_more(phone, "Minutes left")
    expect(phone.get_by_text(re.compile("As planned it goes on for 10:"))).to_be_visible()
    phone.get_by_role("spinbutton", name="Minutes left").fill("7")
    phone.get_by_role("button", name="How to fit them").click()
    expect(phone.get_by_text(re.compile(r"^over in [4-6]:\d\d · load")).first).to_be_visible()
    phone.get_by_role("button", name="Take this one").first.click()
    expect(phone.get_by_text("What has not begun is laid out anew.")).to_be_visible()
    change = next(one for one in sent(phone, run, "change") if one["do"] == "change")
    assert change["edits"]
    behind_more(phone, "Minutes left")
    behind_more(phone, "Minutes left")
    # Nobody knows how long the last steps took: less than it would have been, and no more than was asked for.
    expect(phone.get_by_text(re.compile("As planned it goes on for ([3-6]:|7:00)"))).to_be_visible()


def test_without_a_network_whole_steps_are_left_out_when_their_turn_comes(
    phone: Page, hand: BrowserContext
) -> None:
    blocks = [
        windows(60, 1, title="First"),
        windows(60, 3, title="Extra", optional="skip"),
        windows(60, 1, title="Last", movement="march"),
    ]
    run = started(phone, on_today(phone, *blocks))
    hand.set_offline(True)
    behind_more(phone, "Minutes left")
    phone.get_by_role("spinbutton", name="Minutes left").fill("2")
    phone.get_by_role("button", name="How to fit them").click()
    expect(phone.get_by_text("No network: whole steps only.")).to_be_visible()
    expect(phone.get_by_text("leave out Extra")).to_be_visible()
    phone.get_by_role("button", name="Take this one").click()
    expect(phone.get_by_text("It is left out when its turn comes.")).to_be_visible()
    behind_more(phone, "Minutes left")
    # What was chosen is still known after the page was opened anew.
    hand.set_offline(False)
    phone.reload()
    held(phone, "End this now")
    phone.get_by_role("button", name="Less", exact=True).click()
    expect(phone.locator(".line")).to_contain_text("march")
    assert [one["do"] for one in sent(phone, run, "next", "skip")] == ["start", "next", "skip"]


def test_the_plan_is_changed_while_it_runs(phone: Page) -> None:
    run = started(phone, on_today(phone, windows(60, 2, title="First"), windows(60, 2, title="Second")))
    behind_more(phone, "Change the plan")
    second = phone.get_by_role("region", name="Second")
    second.get_by_role("button", name="One round more").dispatch_event("pointerdown")
    expect(phone.get_by_text("Changed. What has not begun is laid out anew.")).to_be_visible()
    phone.get_by_label("Add, as on a wall").fill("?")
    phone.get_by_role("button", name="Put it in next").click()
    expect(phone.get_by_role("alert")).to_be_visible()
    phone.get_by_label("Add, as on a wall").fill("2 rounds\n10 burpees")
    phone.get_by_role("button", name="Put it in next").click()
    sent(phone, run, "change", "change")
    phone.get_by_role("button", name="Change the plan").click()
    held(phone, "Skip this block")
    phone.get_by_role("button", name="Less", exact=True).click()
    expect(phone.locator(".line")).to_contain_text("burpee")
    held(phone, "Skip this block")
    phone.get_by_role("button", name="Less", exact=True).click()
    expect(phone.locator(".kind")).to_contain_text("round 1 of 3")


def test_stations_are_laid_out_for_who_is_here_and_everybody_sees_where_they_stand(
    phone: Page, browser: Browser, squad: OwnSquad
) -> None:
    screen = phone_of(browser, squad, viewport={"width": 1920, "height": 1080}, storage_state=None)
    wall = screen.new_page()
    wall.goto("/wall")
    expect(wall.locator(".signs")).to_be_visible()
    phone.get_by_label("Six signs").fill(wall.locator(".signs").inner_text())
    phone.get_by_role("button", name="Show our runs there").tap()
    entry = on_today(phone, CIRCUIT)
    phone.goto(f"/floor/start/{entry}")
    expect(phone.get_by_text("more people than fit")).to_be_visible()
    expect(phone.get_by_text(re.compile("With a place to wait, 4 min"))).to_be_visible()
    phone.get_by_text(re.compile("A station twice")).tap()
    asked: list[Route] = []
    phone.route(re.compile(r"/stations\?people=13"), lambda route: asked.append(route))
    phone.get_by_text("Greta", exact=True).tap()
    # Another number of people needs other ways, and the plan is back to normal; until they arrive, nothing can be chosen.
    answer = held_back(phone, asked, 0)
    expect(phone.get_by_role("radio", name=re.compile("A station twice"))).to_be_disabled()
    expect(phone.get_by_text("for 13 people")).to_have_count(0)
    answer.continue_()
    expect(phone.get_by_text("for 13 people")).to_be_visible()
    phone.get_by_text(re.compile("A station twice")).tap()
    phone.get_by_role("button", name="Start").tap()
    expect(phone.locator(".station")).to_have_count(4)
    expect(phone.locator(".station h2").nth(1)).to_contain_text("North 2")
    first = phone.locator(".station h2 small").nth(0).inner_text()
    assert len(first.split(", ")) == 4
    for page in (phone, wall):
        expect(page.locator("h2").nth(-4 if page is wall else 0).locator("small")).to_have_text(first)
    held(phone, "End this now")
    phone.get_by_role("button", name="Less", exact=True).click()
    # All move on: who stood first stands at the second station now.
    for page in (phone, wall):
        expect(page.locator("h2 small").nth(1)).to_have_text(first)
    assert "Greta" not in wall.locator("main").inner_text()
    screen.close()


def test_two_runs_go_on_one_phone(phone: Page) -> None:
    one = on_today(phone, rounds_in(300), title="Northern rounds")
    other = on_today(phone, windows(90, 2, movement="march"), title="Southern windows")
    started(phone, one)
    started(phone, other)
    strip = phone.get_by_role("link", name="Change over to Northern rounds")
    expect(strip).to_contain_text("Round done")
    expect(strip).to_contain_text(re.compile(r"4:5\d"))
    strip.tap()
    expect(phone.locator(".line")).to_contain_text("push-up")
    expect(phone.get_by_role("link", name="Change over to Southern windows")).to_contain_text(re.compile(r"1:2\d"))
    due(phone, "Round done")
    expect(phone.locator(".laps")).to_contain_text("one round counted")


def only(page: Page, count: int) -> list[str]:
    """Tick all off but the first so many; their names."""
    boxes = page.locator(".people .el-checkbox")
    boxes.first.wait_for()
    names = [one.inner_text().splitlines()[0].strip() for one in boxes.all()]
    for box in boxes.all()[count:]:
        box.tap()
    return names[:count]


def test_up_to_four_are_counted_by_tapping_and_the_sheet_has_their_scores(phone: Page) -> None:
    entry = on_today(phone, rounds_in(300, title="Rounds"))
    phone.goto(f"/floor/start/{entry}")
    names = only(phone, 3)
    phone.get_by_role("button", name="Start").tap()
    behind_more(phone, "Scores")
    for count in (1, 2):
        # Tapped again at once it counts for nothing. Both in the page: a slow machine's second tap is not at once.
        tapped = phone.get_by_role("button", name=f"{names[1]}: {count - 1}, one round more")
        tapped.evaluate("(button) => { button.click(); button.click() }")
        expect(phone.get_by_role("button", name=f"{names[1]}: {count}, one round more")).to_be_visible()
        phone.wait_for_timeout(800)
        expect(phone.get_by_role("button", name=f"{names[1]}: {count}, one round more")).to_be_visible()
    phone.get_by_text("Type them").tap()
    field = phone.get_by_label(f"Score of {names[0]}")
    field.fill("five")
    field.press("Enter")
    expect(phone.get_by_role("alert")).to_contain_text("Rounds and reps as 5+12")
    expect(field).to_have_value("five")
    field.fill("4+3")
    field.press("Enter")
    expect(phone.get_by_role("alert")).to_have_count(0)
    run = phone.url.rpartition("/")[2]
    scores = [one for one in sent(phone, run, "score", "score", "score") if one["do"] == "score"]
    assert [(one["rounds"], one["reps"]) for one in scores] == [(1, 0), (2, 0), (4, 3)]
    assert len({one["person"] for one in scores}) == 2

    phone.get_by_role("link", name="Score sheet").tap()
    expect(phone.get_by_label(f"Score of {names[1]}, Rounds")).to_have_value("2")
    expect(phone.locator("tbody tr")).to_have_count(4)
    phone.get_by_label("Score of All together, Rounds").fill("5")
    phone.get_by_label("Score of All together, Rounds").press("Enter")
    scores = [one for one in sent(phone, run, "score", "score", "score", "score") if one["do"] == "score"]
    assert "person" not in scores[-1]
    # The clock went on all the while.
    assert all(one["do"] in ("start", "away", "score") for one in sent(phone, run))
    phone.emulate_media(media="print")
    expect(phone.get_by_role("button", name="Print it")).not_to_be_visible()
    expect(phone.get_by_label(f"Score of {names[2]}, Rounds")).to_be_visible()


def test_scores_of_a_session_that_nobody_ran_here_are_typed_in(phone: Page) -> None:
    entry = on_today(phone, rounds_in(300, title="Rounds"))
    phone.goto(f"/floor/scores/{entry}")
    phone.get_by_label("Score of Greta, Rounds").fill("6+1")
    phone.get_by_label("Score of Greta, Rounds").press("Enter")
    expect(phone).to_have_url(re.compile("run="))
    expect(phone.get_by_label("Score of Greta, Rounds")).to_have_value("6+1")
    (score,) = sent(phone, phone.url.rpartition("run=")[2], "score")
    assert (score["rounds"], score["reps"]) == (6, 1)


def test_last_time_stands_beside_it_where_it_is_run_again(phone: Page) -> None:
    session = kept_session(phone, rounds_in(300, title="Rounds", id="w1"))
    phone.goto(f"/floor/scores/{entry_today(phone, session)}")
    phone.get_by_label("Score of All together, Rounds").fill("6+1")
    phone.get_by_label("Score of All together, Rounds").press("Enter")
    expect(phone).to_have_url(re.compile("run="))
    sent(phone, phone.url.rpartition("run=")[2], "score")
    again = entry_today(phone, session)
    started(phone, again)
    expect(phone.locator(".laps")).to_contain_text("last time 6+1 · best 6+1")
    expect(phone.locator(".laps")).to_contain_text("planned: in round 1 now")


def test_late_comers_options_and_notes_are_taken_down(phone: Page) -> None:
    block = windows(300, 1, title="Jumps")
    block["steps"][0] |= {"id": "s1", "options": [{"label": "to a chair", "level": "easier"}]}
    entry = on_today(phone, block)
    phone.goto(f"/floor/start/{entry}")
    phone.get_by_text("Greta", exact=True).tap()
    phone.get_by_role("button", name="Start").tap()
    run = phone.url.rpartition("/")[2] if "/start/" not in phone.url else ""
    behind_more(phone, "People")
    run = run or phone.url.rpartition("/")[2]
    phone.get_by_role("button", name="Greta: has come").tap()
    expect(phone.get_by_role("button", name="Greta: has gone")).to_be_visible()
    chosen = phone.get_by_role("region", name="More")
    for label, option in (("Who does it otherwise", "Greta"), ("What instead", "air squat: to a chair")):
        chosen.locator(".choice", has=phone.get_by_label(label)).locator(".el-select__wrapper").tap()
        phone.get_by_role("option", name=option).tap()
    phone.get_by_role("button", name="Keep that").tap()
    expect(phone.get_by_text("here · to a chair")).to_be_visible()
    behind_more(phone, "Note")
    chosen.get_by_text("dizziness").tap()
    expect(phone.get_by_role("alert")).to_contain_text("licensed practice come first")
    phone.get_by_role("button", name="Keep it").tap()
    events = sent(phone, run, "note", "option", "here")
    assert [one["do"] for one in events] == ["away", "start", "here", "option", "note"]
    assert (events[3]["step"], events[3]["label"]) == ("s1", "to a chair")
    assert events[4]["kind"] == "dizziness"


def test_each_call_can_be_switched_off_and_the_sound_is_tried_once(phone: Page) -> None:
    entry = on_today(phone, windows(300, 1))
    phone.goto(f"/floor/start/{entry}")
    phone.get_by_text("over the silent switch").tap()
    phone.get_by_role("button", name="Try the sound").tap()
    phone.get_by_role("button", name="That can be heard").tap()
    phone.reload()
    expect(phone.get_by_role("button", name="Start")).to_be_visible()
    expect(phone.get_by_role("button", name="Try the sound")).to_have_count(0)
    phone.get_by_role("button", name="Start").tap()
    behind_more(phone, "Calls")
    phone.get_by_text("half-way", exact=True).tap()
    phone.reload()
    behind_more(phone, "Calls")
    expect(phone.get_by_role("checkbox", name="half-way")).not_to_be_checked()
    expect(phone.get_by_role("checkbox", name="last five")).to_be_checked()
    expect(phone.get_by_role("radio", name="over the silent switch")).to_be_checked()


def test_what_is_due_is_announced_on_a_change_and_not_every_second(phone: Page) -> None:
    started(phone, on_today(phone, windows(4, 2, movement="push-up", rest=5)))
    phone.evaluate(
        """() => {
          window.announced = []
          const place = document.querySelector('[aria-live]')
          const say = () => window.announced.push(place.textContent)
          new MutationObserver(say).observe(place, { characterData: true, childList: true, subtree: true })
        }"""
    )
    expect(phone.get_by_role("heading", name="Done")).to_be_visible()
    # Work, rest and work again, 13 seconds long: two changes and the end.
    said = phone.evaluate("window.announced")
    assert said[:2] == ["Rest: 0:05", "Work: push-up"]
    assert len(said) <= 3
