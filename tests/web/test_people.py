"""People of a squad: what is known of them, their groups, limits and times away; what others see of it."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest
from django.core import signing
from django.db import connection
from django.test.utils import CaptureQueriesContext

from finetally.web.people.models import Group, GroupPlace, Maximum
from finetally.web.plan.models import Attendance, Away, Entry
from finetally.web.squads.models import Person
from tests.web.conftest import World

TODAY = date.today()
JUMPS: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Jumps",
    "blocks": [
        {
            "clock": {"kind": "intervals", "work_s": 30, "rest_s": 15},
            "rounds": 2,
            "steps": [
                {
                    "id": "s1",
                    "movement": "push-up",
                    "options": [{"label": "from the knees", "level": "easier", "movement": "knee-push-up"}],
                },
                {"id": "s2", "movement": "box-jump", "options": [{"label": "bridge", "movement": "glute-bridge"}]},
                {"id": "s3", "movement": "squat-jump"},
            ],
        }
    ],
}


def on(days: int) -> str:
    return (TODAY + timedelta(days=days)).isoformat()


def path_of(person: Person) -> str:
    return f"/people/{person.public_id}"


def limited(world: World, person: Person, **more: Any) -> Any:
    answer = world.send("head", "POST", f"{path_of(person)}/limits", {"first": on(0), "joint": "knee", **more})
    assert answer.status_code == 201, answer.content
    return answer.json()


def otherwise(world: World, who: str, document: dict[str, Any] = JUMPS, **more: Any) -> list[Any]:
    body = {"document": document, "squad": world.squad.pk, **more}
    answer = world.send(who, "POST", "/otherwise", body)
    assert answer.status_code == 200, answer.content
    return list(answer.json())


# What is known of them


def test_numbers_are_kept_within_bounds_all_or_nothing(world: World) -> None:
    path = path_of(world.planned.person)
    made = world.send("head", "PATCH", path, {"body_kg": 70, "pace_factor": 1.2, "effort_offset": -1}).json()
    assert (made["body_kg"], made["pace_factor"], made["effort_offset"]) == (70, 1.2, -1)
    bad = {"body_kg": 19, "pace_factor": 2.1, "effort_offset": 3.5, "short_name": "x" * 21}
    refused = world.send("head", "PATCH", path, bad).json()
    assert {one["path"] for one in refused["problems"]} == set(bad)
    now = world.send("head", "PATCH", path, {"body_kg": None, "effort_offset": None}).json()
    assert (now["body_kg"], now["pace_factor"], now["effort_offset"]) == (None, 1.2, 0)
    assert world.send("head", "PATCH", path, {"version": "older", "body_kg": 80}).status_code == 409


@pytest.mark.parametrize("name", ["body_kg", "pace_factor", "effort_offset", "short_name", "under_age"])
def test_nothing_sent_takes_away_what_can_be_without(world: World, name: str) -> None:
    assert world.send("head", "PATCH", path_of(world.planned.person), {name: None}).status_code == 200


def test_two_people_have_two_names_on_the_wall(world: World) -> None:
    for _ in range(2):
        assert world.send("coach", "POST", "/people", {"name": "Ines Korrigan"}).status_code == 201
    assert sorted(Person.objects.filter(name="Ines Korrigan").values_list("short_name", flat=True)) == [
        "Ines",
        "Ines K",
    ]
    second = Person.objects.get(short_name="Ines K")
    refused = world.send("coach", "PATCH", path_of(second), {"short_name": "ines"})
    assert refused.json()["problems"][0]["path"] == "short_name"


def test_a_maximum_is_the_newest_set_by_the_squads_school(world: World) -> None:
    person = world.known.own
    for day, kg, reps in ((on(-9), 100, 1), (on(-2), 90, 5), (on(-30), 120, 3)):
        made = world.send(
            "coach",
            "POST",
            f"{path_of(person)}/maxima",
            {"movement": "bench-press", "kg": kg, "reps": reps, "day": day},
        )
        assert made.status_code == 201
    assert made.json()["epley"] == pytest.approx(132)
    presses = {"fine_tally": 1, "title": "P", "blocks": [{"clock": {"kind": "task"}, "steps": [
        {"movement": "bench-press", "reps": 5, "load": {"pct_1rm": 50}},
    ]}]}  # fmt: skip

    def volume() -> float:
        body = {"document": presses, "squad": world.squad.pk, "person": str(person.public_id)}
        figures = world.send("coach", "POST", "/figures", body).json()["figures"]
        return float(figures["volume_kg"])

    assert volume() == pytest.approx(5 * 0.5 * 90 * (1 + 5 / 30))
    world.send("head", "PATCH", f"/squads/{world.squad.pk}/methods", {"methods": {"one_rm": "brzycki"}})
    assert volume() == pytest.approx(5 * 0.5 * 90 * 36 / 32)
    newest = Maximum.objects.get(kg=90)
    world.send("coach", "DELETE", f"/people/maxima/{newest.pk}")
    assert volume() == pytest.approx(5 * 0.5 * 100)


@pytest.mark.parametrize(
    ("body", "place"),
    [({"kg": 0}, "kg"), ({"kg": 1001}, "kg"), ({"reps": 0}, "reps"), ({"reps": 13}, "reps"), ({"movement": "gate-dive"}, "movement")],
)  # fmt: skip
def test_a_set_that_says_nothing_is_refused(world: World, body: dict[str, Any], place: str) -> None:
    good = {"movement": "bench-press", "kg": 60, "reps": 5, "day": on(0)}
    refused = world.send("coach", "POST", f"{path_of(world.known.own)}/maxima", {**good, **body})
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, place)


def test_capacity_says_where_it_is_from(world: World) -> None:
    path = f"{path_of(world.known.own)}/capacity"
    made = world.send("coach", "PUT", path, {"test": "twelve-minute-run", "result": 2400, "day": on(-3)}).json()
    assert made["capacity"] == {
        "met": pytest.approx(12.105, abs=0.001), "test": "twelve-minute-run", "result": 2400, "day": on(-3),
    }  # fmt: skip
    assert world.send("coach", "PUT", path, {"test": "twelve-minute-run", "result": 20}).status_code == 422
    assert world.send("coach", "PUT", path, {}).json()["capacity"] is None


# Under age


def test_of_somebody_under_age_little_is_kept_until_a_guardian_agrees(world: World) -> None:
    person = world.planned.person
    path = path_of(person)
    assert world.send("head", "PATCH", path, {"under_age": True}).json()["keeps_little"] is True
    assert world.send("head", "PATCH", path, {"body_kg": 50}).json()["problems"][0]["code"] == "cannot_under_age"
    capacity = {"test": "shuttle-20-m", "result": 7}
    assert (
        world.send("coach", "PUT", f"{path}/capacity", capacity).json()["problems"][0]["code"] == "cannot_under_age"
    )
    agreed = world.send("head", "PUT", f"{path}/guardian", {"who": "Ada Merribeck", "day": on(0)}).json()
    assert (agreed["guardian"], agreed["guardian_on"], agreed["keeps_little"]) == ("Ada Merribeck", on(0), False)
    assert world.send("head", "PATCH", path, {"body_kg": 50}).status_code == 200
    # What is kept goes before the consent does.
    assert world.send("head", "PUT", f"{path}/guardian", {}).json()["problems"][0]["path"] == "body_kg"
    assert world.send("head", "PUT", f"{path}/guardian", {"who": " ", "day": on(0)}).status_code == 422


@pytest.mark.parametrize(("reps", "status"), [(1, 422), (4, 422), (5, 201)])
def test_no_maxima_are_tested_under_age(world: World, reps: int, status: int) -> None:
    person = world.planned.person
    world.send("head", "PATCH", path_of(person), {"under_age": True})
    world.send("head", "PUT", f"{path_of(person)}/guardian", {"who": "Ada", "day": on(0)})
    body = {"movement": "bench-press", "kg": 30, "reps": reps, "day": on(0)}
    assert world.send("coach", "POST", f"{path_of(person)}/maxima", body).status_code == status


# Lists and groups


def test_a_list_is_shown_before_it_is_taken(world: World) -> None:
    text = "name,group\nWim Karsholt,North\nSomebody,North\n"
    seen = world.send("coach", "POST", "/people/list/preview", {"text": text}).json()
    assert [(one["line"], one["name"], one["groups"], one["known"]) for one in seen] == [
        (2, "Wim Karsholt", ["North"], False), (3, "Somebody", ["North"], True),
    ]  # fmt: skip
    assert not Group.objects.filter(name="North").exists()
    assert world.send("coach", "POST", "/people/list", {"text": text}).json()["added"] == 1
    assert world.send("coach", "POST", "/people/list", {"text": text}).json()["added"] == 0
    groups = world.send("coach", "GET", "/groups").json()
    assert [(one["name"], one["count"]) for one in groups] == [("North", 2), ("South", 0)]
    assert len({one["mark"] for one in groups}) == 2


def test_a_wrong_list_adds_nobody(world: World) -> None:
    before = Person.objects.count()
    refused = world.send("coach", "POST", "/people/list", {"text": f"Good Name\n{'x' * 200}"})
    assert refused.json()["problems"][0]["path"] == "line 2, name"
    assert Person.objects.count() == before


def entry_for(world: World, day: int, **more: Any) -> str:
    body = {"title": "Hike", "day": on(day), "minutes": 60, "effort": 3, "squad": world.squad.pk, **more}
    made = world.send("coach", "POST", "/plan/entries", body)
    assert made.status_code == 201, made.content
    return str(made.json()["id"])


def loads(world: World, who: str = "coach", day: int = 0, **asked: Any) -> float:
    query = "".join(f"&{name}={value}" for name, value in asked.items())
    week = world.send(who, "GET", f"/plan/week?day={on(day)}&squad={world.squad.pk}{query}").json()
    return float(week["load"]["totals"]["load"])


def test_a_week_of_a_group_has_what_is_for_all_and_for_it(world: World) -> None:
    north, south = world.group("North"), world.group("South")
    for group in (north, south, None):
        entry_for(world, 0, group=group)
    assert loads(world) == 540
    assert loads(world, group=north) == 360
    assert world.send("coach", "GET", f"/plan/week?day={on(0)}&group=999").status_code == 404


def test_somebodys_week_has_what_their_groups_do(world: World) -> None:
    own = world.known.own
    north = world.group("North")
    entry_for(world, 0, group=north)
    assert loads(world, "athlete") == 0
    world.send("coach", "PUT", f"{path_of(own)}/groups", {"groups": [north]})
    assert loads(world, "athlete") == 180
    assert loads(world, person=own.public_id) == 180
    # Who changes groups keeps what they did.
    GroupPlace.objects.update(since=TODAY - timedelta(days=30))
    entry_for(world, -14, group=north)
    world.send("coach", "PUT", f"{path_of(own)}/groups", {"groups": []})
    assert (loads(world, "athlete"), loads(world, "athlete", -14)) == (0, 180)


def test_a_group_with_something_to_come_is_not_ended(world: World) -> None:
    north = world.group("North")
    planned = entry_for(world, 3, group=north)
    refused = world.send("coach", "DELETE", f"/groups/{north}")
    assert refused.json()["problems"][0]["code"] == "cannot_planned"
    Entry.objects.filter(pk=planned).update(day=TODAY - timedelta(days=3))
    assert world.send("coach", "DELETE", f"/groups/{north}").status_code == 204
    # What was for it stays so; its name is free again.
    assert Entry.objects.get(pk=planned).group_id == north
    assert north not in {one["id"] for one in world.send("coach", "GET", "/groups").json()}
    assert world.send("coach", "POST", "/groups", {"name": "north"}).status_code == 201
    assert world.send("coach", "POST", "/groups", {"name": "North"}).json()["problems"][0]["code"] == "taken"


def test_a_group_of_another_squad_is_no_group(world: World) -> None:
    foreign = Group.objects.create(squad=world.foreign.squad, name="Theirs")
    assert (
        world.send("coach", "PUT", f"{path_of(world.known.own)}/groups", {"groups": [foreign.pk]}).status_code
        == 422
    )
    entry = {"title": "Hike", "day": on(0), "minutes": 60, "effort": 3, "group": foreign.pk}
    assert world.send("coach", "POST", "/plan/entries", entry).status_code == 404


def test_a_session_is_for_whoever_is_in_its_group(world: World) -> None:
    north = world.group("North")
    entry = entry_for(world, 0, group=north)
    people = [
        world.send("coach", "POST", "/people", {"name": f"P{n}", "groups": ["North"]}).json() for n in range(5)
    ]
    expected = world.send("coach", "GET", f"/plan/entries/{entry}/attendance").json()
    assert [one["name"] for one in expected] == ["P0", "P1", "P2", "P3", "P4"]
    assert (
        world.send(
            "coach", "POST", "/plan/away", {"first": on(0), "last": on(2), "person": people[0]["id"]}
        ).status_code
        == 204
    )
    away = world.send("coach", "GET", f"/plan/entries/{entry}/attendance").json()
    assert [(one["away"], one["came"]) for one in away[:2]] == [(True, False), (False, True)]
    world.send("coach", "PUT", f"/plan/entries/{entry}/teams", {"count": 2, "by": "pace"})
    teams = [one["team"] for one in world.send("coach", "GET", f"/plan/entries/{entry}/attendance").json()]
    assert (teams[0], sorted(one for one in teams if one)) == (None, [1, 1, 2, 2])
    refused = world.send("coach", "PUT", f"/plan/entries/{entry}/teams", {"count": 5})
    assert refused.json()["problems"][0]["path"] == "count"
    world.send("coach", "PUT", f"/plan/entries/{entry}/teams", {"count": 0})
    assert {one["team"] for one in world.send("coach", "GET", f"/plan/entries/{entry}/attendance").json()} == {None}


def test_who_is_away_does_nothing_that_day(world: World) -> None:
    own = world.known.own
    entry = entry_for(world, 0)
    before = loads(world, "athlete")
    away = {"first": on(0), "last": on(0), "person": str(own.public_id)}
    assert world.send("athlete", "POST", "/plan/away", away).status_code == 204
    assert (before, loads(world, "athlete"), loads(world)) == (180, 0, 180)
    world.send("coach", "PUT", f"/plan/entries/{entry}/attendance", {"person": str(own.public_id), "came": True})
    assert loads(world, "athlete") == 180
    assert world.send("coach", "POST", "/plan/away", away).json()["problems"][0]["path"] == "first"
    mine = Away.objects.get(person=own)
    assert world.send("athlete", "DELETE", f"/plan/away/{mine.pk}").status_code == 204
    squads = Away.objects.get(person=None)
    assert world.send("athlete", "DELETE", f"/plan/away/{squads.pk}").status_code == 403


# What it costs


def test_a_list_of_people_asks_as_much_however_many_they_are(world: World) -> None:
    def asked() -> int:
        client = world.client("coach")
        with CaptureQueriesContext(connection) as queries:
            assert client.get("/api/people").status_code == 200
        return len(queries)

    few = asked()
    world.send("coach", "POST", "/people/list", {"text": "\n".join(f"P{n}, G{n % 5}" for n in range(60))})
    assert asked() == few <= 9


def test_a_list_that_is_taken_asks_for_each_of_its_people_no_more_than_it_must(world: World) -> None:
    def asked(count: int, kind: str) -> int:
        client = world.client("coach")
        text = "\n".join(f"{kind}{n} Ostrel" for n in range(count))
        with CaptureQueriesContext(connection) as queries:
            assert (
                client.post("/api/people/list", {"text": text}, content_type="application/json").status_code == 200
            )
        return len(queries)

    first = asked(1, "A")
    assert asked(51, "B") - first == 50


def test_an_import_of_people_is_undone_but_for_who_has_something_since(world: World) -> None:
    squad = world.squad
    before = set(squad.people.values_list("name", flat=True))
    text = "Ada Merribeck, Ridge\nBo Tarn, Ridge\nSomebody, Ridge"
    made = world.send("coach", "POST", "/people/list", {"text": text, "squad": squad.pk}).json()
    assert made["added"] == 2
    Attendance.objects.create(entry=world.planned.entry, person=squad.people.get(name="Bo Tarn"), came=True)
    assert world.send("coach", "POST", "/people/list/undo", {"undo": made["undo"]}).status_code == 204
    assert set(squad.people.values_list("name", flat=True)) == before | {"Bo Tarn"}
    assert not squad.people.get(name="Somebody").places.filter(group__name="Ridge").exists()


def test_nothing_else_is_undone_as_an_import(world: World) -> None:
    for word in ("", "made-up", signing.dumps({"squad": world.squad.pk, "people": [1], "places": []})):
        assert world.send("coach", "POST", "/people/list/undo", {"undo": word}).status_code == 422


def test_body_mass_under_age_and_who_agreed_are_a_head_coachs_and_the_persons(world: World) -> None:
    person = world.known.own
    Person.objects.filter(pk=person.pk).update(
        body_kg=61, under_age=True, guardian="Ida Arkwell", guardian_on=date(2026, 11, 2)
    )
    private = ("body_kg", "under_age", "guardian", "guardian_on", "keeps_little")
    for who in ("head", "athlete"):
        told = world.send(who, "GET", path_of(person)).json()
        assert [told[name] for name in private] == [61, True, "Ida Arkwell", "2026-11-02", False]
    told = world.send("coach", "GET", path_of(person)).json()
    assert [told[name] for name in private] == [None, None, "", None, None]
    listed = {who: world.send(who, "GET", "/people").json() for who in ("head", "coach")}
    assert [one["under_age"] for one in listed["head"] if one["id"] == str(person.public_id)] == [True]
    assert {one["under_age"] for one in listed["coach"]} == {None}
