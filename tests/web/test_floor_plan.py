"""What the floor asks the server beside a run: minutes left, changes, stations, who stands where, earlier scores."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.people.models import Group, GroupPlace
from finetally.web.plan.models import Entry, TeamPlace
from finetally.web.squads.models import Person
from tests.web.conftest import DEVICE, WALL_TOKEN, World

WINDOW = {"id": "w", "title": "Window", "clock": {"kind": "amrap", "window_s": 60}}
STEPS = [
    {
        "id": "s",
        "movement": "burpee",
        "reps": 5,
        "options": [{"label": "no jump", "level": "easier", "dose_factor": 0.5}],
    }
]
LAST = {"id": "r", "title": "Swings", "clock": {"kind": "intervals", "work_s": 30, "rest_s": 30}, "rounds": 4}
DOCUMENT: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Two",
    "blocks": [{**WINDOW, "steps": STEPS}, {**LAST, "steps": [{"movement": "swing"}]}],
}
STATIONS = [{"name": name, "capacity": 2, "steps": [{"movement": "swing"}]} for name in ("North", "South")]
ROTATION = {"kind": "rotation", "stations": STATIONS, "inner": {"kind": "intervals", "work_s": 60}}


@pytest.fixture(autouse=True)
def set_up(world: World) -> None:
    assert world.floor.run.pk
    Entry.objects.filter(pk=world.floor.to_run.pk).update(document=DOCUMENT, session_id=world.session.pk)
    FloorRun.objects.filter(pk=world.floor.run.pk).update(document=DOCUMENT)


def path(world: World) -> str:
    return f"/floor/runs/{world.floor.run.pk}"


def give(world: World, *events: dict[str, Any], first: int = 1) -> Any:
    sent = [{"device": DEVICE, "number": first + n, "event": one} for n, one in enumerate(events)]
    answer = world.send("coach", "POST", f"{path(world)}/events", {"events": sent})
    assert answer.status_code == 200, answer.content
    return answer.json()


def test_minutes_left_come_back_as_changes_that_can_be_made(world: World) -> None:
    # 60 s of the window run, and 210 s of swings: 120 s are to be left out.
    (way, *_) = world.send("coach", "POST", f"{path(world)}/minutes", {"t": 0, "left_s": 150}).json()["ways"]
    assert way["timetable_s"] <= 150
    answer = give(world, {"t": 1, "do": "change", "edits": way["edits"]})
    assert f"{DEVICE}/1" in answer["layouts"]


def test_what_is_offered_goes_by_the_moment_that_is_asked_for(world: World) -> None:
    early = world.send("coach", "GET", f"{path(world)}/changes?t=1").json()["offers"]
    give(world, {"t": 5, "do": "next"})
    late = world.send("coach", "GET", f"{path(world)}/changes?t=90").json()["offers"]
    assert {one["title"] for one in early} == {"Window", "Swings"}
    assert {one["title"] for one in late} == {"Swings"}
    assert any(one["kind"] == "option" and one["to"] == "no jump" for one in early)


def test_a_text_is_added_or_refused_with_its_place(world: World) -> None:
    added = world.send("coach", "POST", f"{path(world)}/added", {"t": 1, "text": "3 rounds\n10 burpees"}).json()
    assert added["edits"][0] == {**added["edits"][0], "op": "insert", "path": ["blocks"], "index": 1}
    answer = give(world, {"t": 2, "do": "change", "edits": added["edits"]})
    layout = answer["layouts"][f"{DEVICE}/1"]
    assert [layout["blocks"][number]["title"] for number in layout["numbers"]][::2] == ["Window", "Swings"]
    nothing = world.send("coach", "POST", f"{path(world)}/added", {"t": 1, "text": "?!"})
    assert nothing.status_code == 422


def test_stations_are_laid_out_for_who_is_here(world: World) -> None:
    entry = world.floor.to_run
    Entry.objects.filter(pk=entry.pk).update(
        document={"fine_tally": 1, "title": "Circuit", "blocks": [{"clock": ROTATION}]}
    )
    ways = world.send("coach", "GET", f"/floor/entries/{entry.pk}/stations?people=5").json()["ways"]
    assert [(one["kind"], one["fits"]) for one in ways] == [("as-planned", False), ("twice", True), ("wait", True)]
    assert world.send("coach", "GET", f"/floor/entries/{entry.pk}/stations?people=0").status_code == 422
    assert world.send("coach", "GET", f"/floor/entries/{entry.pk}/stations?people=201").status_code == 422


def in_group(world: World, group: Group, *names: str) -> list[Person]:
    people = [Person.objects.create(squad=world.squad, name=name) for name in names]
    GroupPlace.objects.bulk_create(GroupPlace(group=group, person=one) for one in people)
    return people


def test_people_come_team_by_team_and_group_by_group(world: World) -> None:
    world.squad.people.all().delete()
    north = Group.objects.create(squad=world.squad, name="North")
    anna, bo = in_group(world, north, "Anna Vint", "Bo Rell")
    (cleo,) = in_group(world, world.known.group, "Cleo Marr")
    told = world.send("coach", "GET", f"/floor/entries/{world.floor.to_run.pk}/sheet").json()["people"]
    assert [(one["name"], one["group"], one["team"]) for one in told] == [
        ("Anna", "North", None),
        ("Bo", "North", None),
        ("Cleo", "South", None),
    ]
    for person, team in ((cleo, 1), (bo, 1), (anna, 2)):
        TeamPlace.objects.create(entry=world.floor.to_run, person=person, team=team)
    told = world.send("coach", "GET", f"/floor/entries/{world.floor.to_run.pk}/sheet").json()["people"]
    assert [(one["name"], one["team"]) for one in told] == [("Bo", 1), ("Cleo", 1), ("Anna", 2)]


def on_wall(world: World, query: str = "") -> Any:
    return world.client("wall").get(f"/api/floor/wall{query}", headers={"X-Wall": WALL_TOKEN}).json()


def test_the_wall_names_who_is_here_and_only_where_something_changed(world: World) -> None:
    world.squad.people.all().delete()
    anna, bo = in_group(world, world.known.group, "Anna Vint", "Bo Rell")
    shown = on_wall(world)
    assert [one["name"] for one in shown["names"]] == ["Anna", "Bo"]
    known = f"?run={world.floor.run.pk}&since={shown['run']['last']}"
    assert on_wall(world, known)["names"] is None
    give(world, {"t": 3, "do": "away", "person": str(bo.public_id), "why": "hurt"})
    changed = on_wall(world, known)
    assert [one["name"] for one in changed["names"]] == ["Anna"]
    assert "hurt" not in str(changed)
    assert str(bo.public_id) not in str(changed)
    give(world, {"t": 4, "do": "here", "person": str(bo.public_id)}, first=2)
    anna.delete()
    assert [one["name"] for one in on_wall(world)["names"]] == ["Bo"]


def test_a_team_keeps_its_score_and_another_name_does_not(world: World) -> None:
    give(
        world,
        {"t": 5, "do": "score", "block": 0, "rounds": 3, "person": "team 2"},
        {"t": 6, "do": "score", "block": 0, "rounds": 4, "person": "Anna Vint"},
    )
    kept = [one.event.get("person") for one in FloorEvent.objects.filter(run=world.floor.run, number__gte=1)]
    assert kept == ["team 2"]


def earlier_run(world: World, day: int, *scores: tuple[Person | None, dict[str, Any]]) -> None:
    """A run of the same session on another day, in which the window was another number."""
    moved = {**DOCUMENT, "blocks": [{**LAST, "id": "x", "steps": [{"movement": "swing"}]}, *DOCUMENT["blocks"]]}
    entry = Entry.objects.create(
        squad=world.squad, day=f"2030-01-0{day}", title="Two", document=moved, session_id=world.session.pk
    )
    run = FloorRun.objects.create(
        squad=world.squad, entry=entry, day=entry.day, title="Two", document=moved,
        begun_at=timezone.now() - timedelta(days=30 - day),
    )  # fmt: skip
    for number, (person, score) in enumerate(scores):
        event = {"t": 60, "do": "score", "block": 1, **score}
        FloorEvent.objects.create(run=run, device=DEVICE, number=number, event=event, person=person)


def earlier_of(world: World) -> list[Any]:
    answer: list[Any] = world.send("coach", "GET", f"/floor/entries/{world.floor.to_run.pk}/sheet").json()[
        "earlier"
    ]
    return answer


def test_the_last_score_and_the_best_are_found_by_the_block_s_id(world: World) -> None:
    own = world.known.own
    earlier_run(world, 1, (own, {"rounds": 4, "reps": 3}), (None, {"rounds": 1}))
    earlier_run(world, 2, (own, {"rounds": 2, "reps": 0}), (own, {"rounds": 3, "reps": 1}))
    told = {one["person"]: one for one in earlier_of(world)}
    assert told[str(own.public_id)] == {
        "person": str(own.public_id),
        "block": 0,
        "section_pass": 0,
        "index": 0,
        "last": {"rounds": 3, "reps": 1},
        "best": {"rounds": 4, "reps": 3},
    }
    assert told[None]["last"] == {"rounds": 1}


def test_a_shorter_time_is_the_better_one(world: World) -> None:
    earlier_run(world, 1, (None, {"time_s": 300}))
    earlier_run(world, 2, (None, {"time_s": 320}))
    assert [(one["last"], one["best"]) for one in earlier_of(world)] == [({"time_s": 320}, {"time_s": 300})]


def test_a_sheet_asks_no_more_for_more_people_and_runs(world: World) -> None:
    def queries() -> int:
        with CaptureQueriesContext(connection) as caught:
            assert world.send("coach", "GET", f"/floor/entries/{world.floor.to_run.pk}/sheet").status_code == 200
        return len(caught)

    earlier_run(world, 1, (None, {"rounds": 1}))
    few = queries()
    in_group(world, world.known.group, *(f"Person {n}" for n in range(20)))
    for day in (2, 3, 4):
        earlier_run(world, day, (world.known.own, {"rounds": day}))
    assert queries() == few


def test_a_run_that_is_not_there_is_not_found(world: World) -> None:
    for method, of, body in (
        ("GET", "changes?t=1", None),
        ("POST", "minutes", {"t": 1, "left_s": 60}),
        ("POST", "added", {"t": 1, "text": "10 burpees"}),
    ):
        assert world.send("coach", method, f"/floor/runs/{uuid4()}/{of}", body).status_code == 404


def test_today_tells_what_of_the_days_before_is_not_logged(world: World) -> None:
    day = date.fromisoformat(world.send("coach", "GET", "/floor/today").json()["day"])
    world.squad.entries.all().delete()

    def planned(title: str, ago: int, **more: Any) -> None:
        Entry.objects.create(squad=world.squad, title=title, day=day - timedelta(days=ago), **more)

    planned("today", 0, logged_minutes=40, logged_effort=5)
    planned("yesterday", 1)
    planned("logged", 2, logged_minutes=40, logged_effort=5)
    planned("left out", 3, skipped=True)
    planned("long ago", 8)
    told = world.send("coach", "GET", "/floor/today").json()
    assert [(one["title"], one["logged"]) for one in told["entries"]] == [("today", True)]
    assert [one["title"] for one in told["unlogged"]] == ["yesterday"]
