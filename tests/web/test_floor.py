"""Runs on the server: begun by a device, their events kept once, seen by others, shown on a wall."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from finetally.core.floor.events import MAX_EVENTS
from finetally.web.floor.models import FloorEvent, FloorRun, WallScreen
from finetally.web.floor.walls import MOST_SCREENS_WAITING
from finetally.web.plan.models import Attendance, Entry
from tests.web.conftest import DEVICE, WALL_CODE, World

OTHER = "a-tablet-on-a-box"


@pytest.fixture(autouse=True)
def set_up(world: World) -> None:
    assert world.floor.run.pk


def begun(world: World, **more: Any) -> str:
    """A run that the coach's phone began now; its id."""
    run = str(uuid4())
    wish = {"entry": str(world.floor.to_run.pk), "begun": timezone.now().timestamp(), **more}
    answer = world.send("coach", "PUT", f"/floor/runs/{run}", wish)
    assert answer.status_code == 200, answer.content
    return run


def sent(
    world: World, run: str, *events: dict[str, Any], device: str = DEVICE, first: int = 0, since: int = 0
) -> Any:
    numbered = [{"device": device, "number": first + n, "event": event} for n, event in enumerate(events)]
    return world.send("coach", "POST", f"/floor/runs/{run}/events?since={since}", {"events": numbered})


START = {"t": 0, "do": "start"}


def test_a_run_that_is_sent_again_is_the_one_that_there_is(world: World) -> None:
    run = begun(world)
    wish = {"entry": str(world.floor.to_run.pk), "begun": timezone.now().timestamp() - 60}
    again = world.send("coach", "PUT", f"/floor/runs/{run}", wish).json()
    assert again["id"] == run
    assert FloorRun.objects.filter(pk=run).count() == 1
    assert abs(again["begun"] - timezone.now().timestamp()) < 30


def test_an_event_is_kept_once_however_often_it_is_sent(world: World) -> None:
    run = begun(world)
    for _ in range(3):
        answer = sent(world, run, START, {"t": 12.5, "do": "next"}).json()
    assert [(one["device"], one["number"], one["event"]["do"]) for one in answer["events"]] == [
        (DEVICE, 0, "start"),
        (DEVICE, 1, "next"),
    ]


def test_two_devices_tap_the_same_change_and_both_are_kept(world: World) -> None:
    run = begun(world)
    sent(world, run, START)
    sent(world, run, {"t": 12, "do": "next", "on": 0}, first=1)
    answer = sent(world, run, {"t": 12.4, "do": "next", "on": 0}, device=OTHER).json()
    assert [one["event"].get("on") for one in answer["events"]] == [None, 0, 0]


def test_a_second_device_gets_what_came_since(world: World) -> None:
    run = begun(world)
    last = sent(world, run, START).json()["last"]
    sent(world, run, {"t": 5, "do": "pause"}, first=1)
    news = world.send("head", "GET", f"/floor/runs/{run}?since={last}").json()
    assert [one["event"]["do"] for one in news["events"]] == ["pause"]
    assert news["last"] > last
    nothing = world.send("head", "GET", f"/floor/runs/{run}?since={news['last']}").json()
    assert (nothing["events"], nothing["last"]) == ([], news["last"])


def test_a_run_that_is_over_says_when(world: World) -> None:
    run = begun(world)
    sent(world, run, START, {"t": 30, "do": "stop"})
    kept = FloorRun.objects.get(pk=run)
    assert kept.ended_at == kept.begun_at + timedelta(seconds=30)
    sent(world, run, {"t": 40, "do": "undo"}, first=2)
    assert FloorRun.objects.get(pk=run).ended_at == kept.begun_at + timedelta(seconds=230)


def test_a_run_ends_by_the_clock_too(world: World) -> None:
    run = begun(world)
    sent(world, run, START)
    kept = FloorRun.objects.get(pk=run)
    # Eight windows of 20 s and seven rests of 10 s: it will be over by itself.
    assert kept.ended_at == kept.begun_at + timedelta(seconds=230)
    assert not kept.is_over
    sent(world, run, {"t": 20, "do": "pause"}, first=1)
    assert FloorRun.objects.get(pk=run).ended_at is None


def test_a_change_is_laid_out_for_those_who_play_it(world: World) -> None:
    run = begun(world)
    edits = [{"op": "set", "path": ["blocks", 0, "rounds"], "value": 3}]
    answer = sent(world, run, START, {"t": 5, "do": "change", "edits": edits}).json()
    layout = answer["layouts"][f"{DEVICE}/1"]
    assert layout["order"] == ["block 0/0"]
    assert [one["number"] for one in layout["beats"]] == [0, 1, 2, 3, 4]


def test_a_person_of_an_event_is_one_of_the_squad_or_nobody(world: World) -> None:
    run = begun(world)
    own = str(world.known.own.public_id)
    answer = sent(
        world,
        run,
        {"t": 1, "do": "away", "person": own, "why": "late"},
        {"t": 2, "do": "note", "text": "x", "person": str(uuid4())},
        {"t": 3, "do": "note", "text": "the hall is cold"},
    ).json()
    assert [one["event"].get("person") for one in answer["events"]] == [own, None]
    assert "not in the squad any more" in answer["left_out"][0]
    assert FloorEvent.objects.filter(person=world.known.own).count() == 1
    world.known.own.delete()
    after = world.send("coach", "GET", f"/floor/runs/{run}").json()
    assert [one["event"]["do"] for one in after["events"]] == ["note"]


@pytest.mark.parametrize(
    ("event", "place"),
    [
        ({"t": 1, "do": "fly"}, "events[0].event"),
        ({"t": -1, "do": "next"}, "events[0].event"),
        ({"t": 1, "do": "more", "s": "ten"}, "events[0].event"),
    ],
    ids=["no such event", "before the start", "no number"],
)
def test_what_is_wrong_is_told_with_its_place(world: World, event: dict[str, Any], place: str) -> None:
    run = begun(world)
    answer = sent(world, run, START, first=5)
    answer = sent(world, run, event)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"].startswith(place)
    assert FloorEvent.objects.filter(run=run).count() == 1


def test_a_run_has_so_many_events_and_no_more(world: World) -> None:
    run = begun(world)
    FloorEvent.objects.bulk_create(
        FloorEvent(run_id=run, device=DEVICE, number=n, event={"t": 1, "do": "lap"}) for n in range(MAX_EVENTS)
    )
    answer = sent(world, run, START, device=OTHER)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["code"] == "too_many"


@pytest.mark.parametrize("days", [-40, 1], ids=["long ago", "to come"])
def test_a_run_begins_about_now(world: World, days: int) -> None:
    begins = (timezone.now() + timedelta(days=days)).timestamp()
    wish = {"entry": str(world.floor.to_run.pk), "begun": begins}
    assert world.send("coach", "PUT", f"/floor/runs/{uuid4()}", wish).status_code == 422


def test_other_training_is_not_run(world: World) -> None:
    wish = {"entry": str(world.planned.entry.pk), "begun": timezone.now().timestamp()}
    assert world.send("coach", "PUT", f"/floor/runs/{uuid4()}", wish).status_code == 422
    assert world.send("coach", "GET", f"/floor/entries/{world.planned.entry.pk}/sheet").status_code == 422


def test_the_run_of_another_squad_cannot_be_taken_by_its_id(world: World) -> None:
    run = begun(world)
    wish = {"entry": str(world.floor.to_run.pk), "begun": timezone.now().timestamp()}
    assert world.send("stranger", "PUT", f"/floor/runs/{run}", wish).status_code == 404


def test_a_run_stays_as_it_was_when_its_entry_changes_or_goes(world: World) -> None:
    run = begun(world)
    world.floor.to_run.delete()
    kept = world.send("coach", "GET", f"/floor/runs/{run}").json()
    assert (kept["entry"], kept["title"]) == (None, "Windows")
    assert len(world.send("coach", "GET", f"/floor/runs/{run}/sheet").json()["beats"]) == 15


def test_today_lists_what_is_to_run_and_what_was(world: World) -> None:
    world.floor.to_run.day = timezone.now().date()
    world.floor.to_run.save()
    told = world.send("coach", "GET", f"/floor/today?squad={world.squad.pk}").json()
    assert [(one["title"], one["runs_here"], round(one["minutes"], 1)) for one in told["entries"]] == [
        ("Windows", True, 3.8)
    ]
    assert [(one["title"], one["events"], one["ended"]) for one in told["runs"]] == [("Windows", 1, None)]


def test_a_sheet_tells_who_is_expected_and_what_they_do_otherwise(world: World) -> None:
    world.squad.emergency = "Gate 2. Call 112."
    world.squad.save()
    told = world.send("coach", "GET", f"/floor/entries/{world.floor.to_run.pk}/sheet").json()
    assert told["emergency"] == "Gate 2. Call 112."
    assert {one["name"] for one in told["people"]} == {"Somebody", "Tamsin"}
    assert len(told["sheet"]["beats"]) == 15
    assert told["apart"] is None


def test_a_sheet_tells_what_an_exit_saves(world: World) -> None:
    entry = world.floor.to_run
    block = entry.document["blocks"][0]
    entry.document = {**entry.document, "blocks": [block, {**block, "optional": "exit"}]}
    entry.save()
    told = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()
    ((exit_way),) = told["exits"]
    assert (exit_way["block"], exit_way["whole_s"], exit_way["ended_s"]) == (1, 460, 230)
    assert exit_way["whole_load"] > exit_way["ended_load"]


def test_news_of_a_run_cost_few_questions(world: World) -> None:
    run = begun(world)
    last = sent(world, run, START).json()["last"]
    client = world.client("coach")
    client.get(f"/api/floor/runs/{run}?since={last}")
    with CaptureQueriesContext(connection) as queries:
        assert client.get(f"/api/floor/runs/{run}?since={last}").status_code == 200
    assert len(queries) <= 4


# The wall


def shown(world: World, **query: Any) -> Any:
    told = "&".join(f"{key}={value}" for key, value in query.items())
    return world.send("wall", "GET", f"/floor/wall?{told}")


def test_a_wall_shows_the_run_of_the_hour(world: World) -> None:
    told = shown(world).json()
    assert (told["paired"], told["squad"], told["run"]["id"]) == (True, "Thornlow Ridge", str(world.floor.run.pk))
    assert len(told["sheet"]["beats"]) == 15
    again = shown(world, run=told["run"]["id"], since=told["run"]["last"]).json()
    assert (again["sheet"], again["run"]["events"]) == (None, [])


def test_a_wall_is_told_nothing_of_people(world: World) -> None:
    run = str(world.floor.run.pk)
    own = str(world.known.own.public_id)
    events: list[dict[str, Any]] = [
        {"t": 1, "do": "note", "text": "left knee", "person": own, "kind": "pain"},
        {"t": 2, "do": "away", "person": own, "why": "hurt"},
        {"t": 3, "do": "option", "person": own, "step": "a", "label": "easier"},
        {"t": 4, "do": "score", "block": 0, "rounds": 3, "person": own},
    ]
    assert sent(world, run, *events, first=1).status_code == 200
    answer = shown(world)
    assert [one["event"]["do"] for one in answer.json()["run"]["events"]] == ["start", "score"]
    assert own not in answer.content.decode()


def test_a_wall_opened_by_nobody_waits_for_a_coach(world: World) -> None:
    opened = world.send(None, "POST", "/floor/wall/screens").json()
    key = {"X-Wall": opened["token"]}
    client = world.client(None)
    waiting = client.get("/api/floor/wall", headers=key).json()
    assert (waiting["paired"], waiting["run"], waiting["sheet"], waiting["squad"]) == (False, None, None, "")
    typed = opened["code"].lower()[:3] + " " + opened["code"].lower()[3:]
    assert (
        world.send("coach", "POST", "/floor/wall/pair", {"code": typed, "squad": world.squad.pk}).status_code == 200
    )
    assert client.get("/api/floor/wall", headers=key).json()["run"]["id"] == str(world.floor.run.pk)
    again = world.send("coach", "POST", "/floor/wall/pair", {"code": typed, "squad": world.squad.pk})
    assert again.status_code == 422


def test_a_wall_ends_at_midnight_or_when_it_is_told(world: World) -> None:
    assert world.floor.screen.until > timezone.now()
    WallScreen.objects.filter(pk=world.floor.screen.pk).update(until=timezone.now() - timedelta(seconds=1))
    assert shown(world).status_code == 401
    WallScreen.objects.filter(pk=world.floor.screen.pk).update(until=timezone.now() + timedelta(hours=1))
    assert shown(world).status_code == 200
    assert world.send("coach", "DELETE", f"/floor/walls/{world.floor.screen.pk}").status_code == 204
    assert shown(world).status_code == 401


def test_an_old_code_pairs_nothing(world: World) -> None:
    WallScreen.objects.filter(squad=None).update(until=timezone.now() - timedelta(seconds=1))
    answer = world.send("coach", "POST", "/floor/wall/pair", {"code": WALL_CODE, "squad": world.squad.pk})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["code"] == "cannot_code"


def test_a_paired_wall_ends_with_the_day_of_the_squad(world: World) -> None:
    world.squad.time_zone = "Pacific/Auckland"
    world.squad.save()
    told = world.send("coach", "POST", "/floor/wall/pair", {"code": WALL_CODE, "squad": world.squad.pk}).json()
    screen = WallScreen.objects.get(pk=told["id"])
    assert timedelta(0) < screen.until - timezone.now() <= timedelta(days=1)
    assert screen.until.minute == 0


def test_screens_that_wait_do_not_pile_up(world: World) -> None:
    WallScreen.objects.bulk_create(
        WallScreen(token_hash=f"{n:064d}", code_hash=f"{n:064d}", until=timezone.now() + timedelta(minutes=5))
        for n in range(MOST_SCREENS_WAITING + 100)
    )
    world.send(None, "POST", "/floor/wall/screens")
    assert WallScreen.objects.filter(squad=None).count() == MOST_SCREENS_WAITING


def test_a_sheet_counts_equipment_for_who_is_expected(world: World) -> None:
    entry = world.floor.to_run
    entry.document = {**entry.document, "people": 12, "blocks": [{
        "clock": {"kind": "task"}, "steps": [{"movement": "swing", "reps": 10, "load": {"kg": 16}}],
    }]}  # fmt: skip
    entry.save()
    path = f"/floor/entries/{entry.pk}/sheet"
    assert [one["count"] for one in world.send("coach", "GET", path).json()["kit"]] == [2]
    people = world.send("coach", "GET", path).json()["people"]
    away = {"person": people[0]["person"], "came": False}
    assert world.send("coach", "PUT", f"/plan/entries/{entry.pk}/attendance", away).status_code < 300
    assert [one["count"] for one in world.send("coach", "GET", path).json()["kit"]] == [1]


def away_names(world: World, entry: Any) -> set[str]:
    people = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()["people"]
    return {one["name"] for one in people if one["away"]}


def test_who_was_absent_from_the_first_session_is_not_expected_at_the_second(world: World) -> None:
    first = world.floor.to_run
    second = Entry.objects.create(
        squad=world.squad, day=first.day, title="Second", document=first.document, summary=first.summary
    )
    person = str(world.planned.person.public_id)
    run = begun(world)
    sent(world, run, {"t": 0, "do": "away", "person": person}, START)
    assert away_names(world, second) == {"Somebody"}
    assert away_names(world, first) == set()
    # Who came late is there again.
    sent(world, run, {"t": 60, "do": "here", "person": person, "why": "late"}, first=2)
    assert away_names(world, second) == set()
    Attendance.objects.create(entry=first, person=world.planned.person, came=False)
    assert away_names(world, second) == {"Somebody"}


def test_the_log_shows_who_was_ticked_as_absent_before_it_is_logged(world: World) -> None:
    entry = world.floor.to_run
    person = str(world.planned.person.public_id)
    run = begun(world)
    sent(world, run, {"t": 0, "do": "away", "person": person}, START)

    def came() -> dict[str, bool]:
        people = world.send("coach", "GET", f"/log/entries/{entry.pk}").json()["people"]
        return {one["name"].split()[0]: one["came"] for one in people}

    assert came() == {"Somebody": False, "Tamsin": True}
    # Who left later was there.
    sent(world, run, {"t": 0, "do": "here", "person": person}, {"t": 90, "do": "away", "person": person}, first=2)
    assert came()["Somebody"] is True
