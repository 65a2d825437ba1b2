"""The plan over the API: entries and what they make, links, files, many entries."""

from __future__ import annotations

import csv
import io
import uuid
from datetime import date, datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from icalendar import Calendar
from openpyxl import load_workbook

from finetally.web.plan.demo import load_demo_plan
from finetally.web.plan.models import Change, Entry
from finetally.web.plan.week import read_week
from finetally.web.squads.actor import member
from finetally.web.squads.models import Person, Squad
from finetally.web.training.demo import load_demo
from tests.web.conftest import DOCUMENT, World

MONDAY = date(2026, 12, 7)


def on(day: int) -> str:
    return (MONDAY + timedelta(days=day)).isoformat()


def put(world: World, day: int, **more: Any) -> Any:
    body = {"session": str(world.session.pk), "day": on(day), **more}
    answer = world.send("coach", "POST", "/plan/entries", body)
    assert answer.status_code == 201, answer.content
    return answer.json()


def week(world: World, day: int = 0, who: str = "coach") -> Any:
    return world.send(who, "GET", f"/plan/week?day={on(day)}").json()


def test_entries_make_a_week(world: World) -> None:
    put(world, 0, time="19:00")
    put(world, 0)
    hike = {"title": "Hike", "day": on(5), "minutes": 90, "effort": 4}
    assert world.send("coach", "POST", "/plan/entries", hike).json()["load"] == 360
    made = week(world, 3)
    assert made["begins"] == MONDAY.isoformat()
    figures = world.send("coach", "POST", "/figures", {"document": DOCUMENT}).json()["figures"]
    assert made["load"]["days"][0]["totals"]["load"] == pytest.approx(2 * figures["effort"]["load"], abs=0.01)
    assert made["load"]["totals"]["load"] == pytest.approx(2 * figures["effort"]["load"] + 360, abs=0.01)
    squat = next(row for row in made["rows"] if row["name"] == "squat")
    assert squat["work_s"] == pytest.approx(2 * 160)


def test_a_pinned_copy_stays_until_the_newer_version_is_taken(world: World) -> None:
    entry = put(world, 0)
    session = world.send("coach", "GET", f"/sessions/{world.session.pk}").json()
    document = {**session["document"], "title": "Ridge, longer"}
    document["blocks"][0]["rounds"] = 16
    saved = {"document": document, "base": session["etag"], "tab": "t"}
    world.send("coach", "PUT", f"/sessions/{world.session.pk}", saved)
    [kept] = week(world)["entries"]
    assert (kept["newer"], kept["title"], kept["load"]) == (True, "Ridge", entry["load"])
    world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", {"newest": True})
    [taken] = week(world)["entries"]
    assert (taken["newer"], taken["title"]) == (False, "Ridge, longer")
    assert taken["load"] > entry["load"]


def test_a_copy_has_its_movements_inside(world: World) -> None:
    entry = put(world, 0)
    document = Entry.objects.get(pk=entry["id"]).document
    assert [one["key"] for one in document["movements"]] == ["air-squat"]
    assert document["movements"][0]["patterns"]
    assert document["club"] == {"kept": [1, 2]}


def test_an_entry_is_moved_repeated_skipped_logged_and_taken_off(world: World) -> None:
    entry = put(world, 0)
    path = f"/plan/entries/{entry['id']}"
    world.send("coach", "PATCH", path, {"day": on(2), "time": "07:30", "group": world.group("rope team")})
    [moved] = week(world)["entries"]
    assert (moved["day"], moved["time"], moved["group"]["name"]) == (on(2), "07:30:00", "rope team")
    assert len(world.send("coach", "POST", f"{path}/again", {"weeks": 3}).json()) == 3
    assert len(week(world, 21)["entries"]) == 1
    world.send("coach", "POST", f"{path}/again", {"day": on(4)})
    assert len(week(world)["entries"]) == 2
    world.send("coach", "PATCH", path, {"skipped": True})
    assert week(world)["load"]["days"][2]["totals"]["load"] == 0
    world.send("coach", "PATCH", path, {"skipped": False, "logged_minutes": 50, "logged_effort": 6})
    day = week(world)["load"]["days"][2]
    assert (day["totals"]["load"], day["logged"]) == (300, True)
    assert world.send("coach", "DELETE", path).status_code == 204
    assert len(week(world)["entries"]) == 1


@pytest.mark.parametrize(
    ("path", "body", "place"),
    [
        ("/plan/entries", {"title": "Hike", "day": on(0)}, "minutes"),
        ("/plan/entries", {"title": " ", "day": on(0), "minutes": 5, "effort": 3}, "title"),
        ("/plan/entries", {"title": "Hike", "minutes": 5, "effort": 3}, "day"),
        ("/plan/entries", {"title": "Hike", "day": on(0), "minutes": 5, "effort": 11}, "effort"),
        (
            "/plan/entries",
            {"title": "Hike", "day": on(0), "minutes": 5, "effort": 3, "logged_effort": 3},
            "logged_effort",
        ),
        ("/plan/phases", {"begins": on(0), "weeks": 0, "kind": "build", "load_low": 1, "load_high": 2}, "weeks"),
        ("/plan/phases", {"begins": on(0), "weeks": 2, "kind": "soar", "load_low": 1, "load_high": 2}, "kind"),
        ("/plan/phases", {"begins": on(0), "weeks": 2, "kind": "build", "load_low": 3, "load_high": 2}, "load_low"),
    ],
)
def test_what_cannot_be_planned_is_refused_with_its_place(world: World, path: str, body: Any, place: str) -> None:
    answer = world.send("coach", "POST", path, body)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == place


OUT_OF_TIME = [
    ("GET", "/plan/week?day={}", None),
    ("GET", "/plan/season?day={}", None),
    ("GET", "/plan/beside?day=2026-12-07&other={}", None),
    ("GET", "/plan/week.ics?day={}", None),
    ("PUT", "/plan/days/{}", {"intent": "hard"}),
    ("POST", "/plan/entries", {"title": "Hike", "minutes": 5, "effort": 3, "day": "{}"}),
    ("POST", "/plan/phases", {"begins": "{}", "weeks": 1, "kind": "build", "load_low": 1, "load_high": 2}),
    ("POST", "/plan/level", {"day": "{}"}),
]


@pytest.mark.parametrize("day", ["0001-01-01", "9999-12-31", "1999-12-31", "2100-01-01"])
@pytest.mark.parametrize(("method", "path", "body"), OUT_OF_TIME, ids=[f"{m} {p}" for m, p, _ in OUT_OF_TIME])
def test_a_day_that_no_plan_lies_in_is_refused(world: World, method: str, path: str, body: Any, day: str) -> None:
    sent = None if body is None else {name: day if value == "{}" else value for name, value in body.items()}
    answer = world.send("coach", method, path.format(day), sent)
    assert answer.status_code == 422, answer.content
    [problem] = answer.json()["problems"]
    assert (problem["found"], problem["allowed"]) == (repr(day), "a day from 2000-01-01 to 2099-12-31")


@pytest.mark.parametrize("day", ["2000-01-01", "2099-12-31"])
def test_the_ends_of_time_can_be_planned(world: World, day: str) -> None:
    made = world.send(
        "coach", "POST", "/plan/entries", {"title": "Hike", "minutes": 5, "effort": 3, "day": day}
    ).json()
    assert [one["id"] for one in world.send("coach", "GET", f"/plan/week?day={day}").json()["entries"]] == [
        made["id"]
    ]
    assert world.send("coach", "GET", f"/plan/season?day={day}&weeks=53").status_code == 200
    assert world.send("coach", "POST", f"/plan/entries/{made['id']}/again", {"weeks": 52}).status_code == 201


def test_notes_are_for_those_who_plan_and_stay_with_their_day(world: World) -> None:
    entry = put(world, 0, notes=" second rope\nfor the lower pitch ")
    assert entry["notes"] == "second rope\nfor the lower pitch"
    [kept] = week(world)["entries"]
    assert kept["notes"] == entry["notes"]
    [seen] = week(world, who="athlete")["entries"]
    assert seen["notes"] == ""
    path = f"/plan/entries/{entry['id']}"
    [copy] = world.send("coach", "POST", f"{path}/again", {"day": on(2)}).json()
    assert copy["notes"] == ""
    assert next(one for one in week(world)["entries"] if one["id"] == copy["id"])["notes"] == ""
    long = world.send("coach", "PATCH", path, {"notes": "x" * 2001})
    assert (long.status_code, long.json()["problems"][0]["path"]) == (422, "notes")
    assert world.send("coach", "PATCH", path, {"notes": None}).json()["notes"] == ""


def test_phases_do_not_lie_over_each_other_and_days_have_intents(world: World) -> None:
    phase = {"begins": on(2), "weeks": 2, "kind": "build", "load_low": 900, "load_high": 1100}
    assert world.send("coach", "POST", "/plan/phases", phase).status_code == 204
    assert world.send("coach", "POST", "/plan/phases", {**phase, "begins": on(9)}).status_code == 422
    world.send("coach", "PUT", f"/plan/days/{on(1)}", {"intent": "hard"})
    world.send("coach", "PUT", f"/plan/days/{on(2)}", {"intent": "easy", "hall": False})
    made = week(world)
    assert (made["phase"]["week"], made["phase"]["weeks"], made["phase"]["begins"]) == (1, 2, on(0))
    assert made["phase"]["off"] == -900
    season = world.send("coach", "GET", f"/plan/season?day={on(-7)}&weeks=3").json()["weeks"]
    # No phase, or nothing planned: no word of a band.
    assert [one["off"] for one in season] == [None, None, None]
    assert [day["intended"] for day in made["days"]][:3] == [None, 750, 250]
    assert made["days"][2]["hall"] is False
    assert world.send("coach", "PUT", f"/plan/days/{on(1)}", {"intent": "wild"}).status_code == 422
    load = put(world, 0)["load"]
    season = world.send("coach", "GET", f"/plan/season?day={on(-7)}&weeks=3").json()["weeks"]
    assert [one["off"] for one in season] == [None, pytest.approx(load - 900, abs=0.01), None]


def test_a_persons_week_goes_by_attendance_the_squads_as_if_all_came(world: World) -> None:
    first, second, third = (put(world, day) for day in (0, 2, 4))
    person = str(world.planned.person.public_id)
    for entry, body in (
        (first, {"person": person, "came": False}),
        (second, {"person": person, "minutes": 30, "effort": 5}),
    ):
        answer = world.send("coach", "PUT", f"/plan/entries/{entry['id']}/attendance", body)
        assert answer.status_code == 204
    own = world.send("coach", "GET", f"/plan/week?day={on(0)}&person={person}").json()["load"]["days"]
    loads = [day["totals"]["load"] for day in own]
    assert loads[:5] == pytest.approx([0, 0, 150, 0, third["load"]], abs=0.01)
    assert week(world)["load"]["totals"]["load"] == pytest.approx(3 * third["load"], abs=0.01)
    season = world.send("coach", "GET", f"/plan/season?day={on(0)}&weeks=1&person={person}").json()["weeks"]
    assert season[0]["load"] == pytest.approx(150 + third["load"], abs=0.01)
    came = world.send("coach", "GET", f"/plan/entries/{first['id']}/attendance").json()
    assert {one["name"]: one["came"] for one in came} == {"Somebody": False, "Tamsin Arkwell": True}
    bad = world.send("coach", "PUT", f"/plan/entries/{first['id']}/attendance", {"person": person, "minutes": 5})
    assert bad.json()["problems"][0]["path"] == "effort"


def test_targets_of_the_squad_stand_in_its_weeks(world: World) -> None:
    put(world, 0)
    targets = {"squat": {"by": "minutes", "low": 10}, "pull": {"by": "share", "high": 0.2}}
    path = f"/squads/{world.squad.pk}/methods"
    assert world.send("head", "PATCH", path, {"methods": {"week_targets": targets}}).status_code == 200
    rows = {row["name"]: row for row in week(world)["rows"]}
    assert rows["squat"]["off"] == pytest.approx(160 / 60 - 10)
    assert (rows["pull"]["target"], rows["pull"]["off"]) == ("share", 0)
    for wrong in ({"wing": {"low": 1}}, {"squat": {"low": 3, "high": 2}}):
        assert world.send("head", "PATCH", path, {"methods": {"week_targets": wrong}}).status_code == 422


def test_who_does_not_plan_sees_what_is_for_all_and_for_themselves(world: World) -> None:
    own = Person.objects.create(squad=world.squad, name="Own", user=world.users["athlete"])
    other = Person.objects.create(squad=world.squad, name="Other")
    for person in (None, str(own.public_id), str(other.public_id)):
        put(world, 0, person=person)
    assert {one["person"] for one in week(world, who="athlete")["entries"]} == {None, str(own.public_id)}
    asked = world.send("athlete", "GET", f"/plan/week?day={on(0)}&person={other.public_id}").json()
    assert {one["person"] for one in asked["entries"]} == {None, str(own.public_id)}
    assert {one["person"] for one in week(world)["entries"]} == {None}
    season = world.send("athlete", "GET", f"/plan/season?day={on(0)}&weeks=1&person={other.public_id}").json()
    assert season["weeks"][0]["entries"] == 2


def test_a_demo_of_an_earlier_release_gets_its_plan_too(world: World) -> None:
    world.squad.name = "Elsewhere"
    world.squad.save()
    load_demo()
    squad = Squad.objects.get(name="Thornlow Ridge")
    squad.sessions.filter(title__in=["Ridge intervals", "Steep ground ladder"]).update(title="Renamed since")
    for _ in range(2):
        load_demo_plan(MONDAY)
        assert Entry.objects.filter(squad=squad, day__gte=MONDAY).count() == 7


def test_of_the_demos_own_week_what_is_over_is_rated(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    world.squad.name = "Elsewhere"
    world.squad.save()
    thursday = MONDAY + timedelta(days=3)
    monkeypatch.setattr("finetally.web.plan.demo.date", type("Thursday", (date,), {"today": lambda: thursday}))
    load_demo()
    load_demo_plan()
    entries = Entry.objects.filter(squad__name="Thornlow Ridge", day__gte=MONDAY)
    rated = {entry.day: entry.logged_effort is not None for entry in entries}
    assert rated == {day: day < thursday for day in rated}
    assert len(set(rated.values())) == 2


def test_a_calendar_reads_the_feed_with_the_same_sessions_and_times(world: World) -> None:
    world.squad.time_zone = "Europe/London"
    world.squad.save()
    today = date.today()
    body = {"session": str(world.session.pk), "day": today.isoformat()}
    timed = world.send("coach", "POST", "/plan/entries", {**body, "time": "19:15"}).json()
    whole = world.send("coach", "POST", "/plan/entries", body).json()
    link = world.send("coach", "POST", "/plan/links", {"name": "Squad plan"}).json()
    client = world.client(None)
    answer = client.get(link["path"])
    calendar = Calendar.from_ical(answer.content)
    events = {str(one["uid"]).partition("@")[0]: one for one in calendar.walk("VEVENT")}
    assert set(events) == {timed["id"], whole["id"]}
    start = events[timed["id"]].decoded("dtstart")
    assert start == datetime.combine(today, time(19, 15), tzinfo=ZoneInfo("Europe/London"))
    assert events[timed["id"]].decoded("duration") == timedelta(minutes=round(timed["minutes"]))
    assert events[whole["id"]].decoded("dtstart") == today
    assert calendar.walk("VTIMEZONE")
    assert "air squat" in str(events[timed["id"]]["description"])
    assert client.get(link["path"], headers={"If-None-Match": answer["ETag"]}).status_code == 304
    world.send("coach", "PATCH", f"/plan/entries/{timed['id']}", {"time": "20:00", "skipped": True})
    again = {
        str(one["uid"]).partition("@")[0]: one
        for one in Calendar.from_ical(client.get(link["path"]).content).walk("VEVENT")
    }
    assert int(again[timed["id"]]["sequence"]) > int(events[timed["id"]]["sequence"])
    assert str(again[timed["id"]]["status"]) == "CANCELLED"
    world.send("coach", "DELETE", f"/plan/links/{link['id']}")
    assert client.get(link["path"]).status_code == 404


def test_a_link_for_one_person_shows_no_one_elses(world: World) -> None:
    people = [Person.objects.create(squad=world.squad, name=name) for name in ("A", "B")]
    today = date.today().isoformat()
    made = [
        world.send(
            "coach", "POST", "/plan/entries", {"session": str(world.session.pk), "day": today, "person": one}
        ).json()
        for one in (None, str(people[0].public_id), str(people[1].public_id))
    ]
    link = world.send("coach", "POST", "/plan/links", {"person": str(people[0].public_id)}).json()
    found = {
        str(one["uid"]).partition("@")[0]
        for one in Calendar.from_ical(world.client(None).get(link["path"]).content).walk("VEVENT")
    }
    assert found == {made[0]["id"], made[1]["id"]}


def test_a_week_goes_out_as_files(world: World) -> None:
    put(world, 0, time="19:00")
    table = list(
        csv.reader(io.StringIO(world.send("coach", "GET", f"/plan/week.csv?day={on(0)}").content.decode()))
    )
    assert table[1][:3] == [on(0), "19:00", "Ridge"]
    made = week(world)
    assert ["in the week", "", "", "", "", "", str(round(made["load"]["totals"]["load"], 3)), ""] in table
    book = load_workbook(io.BytesIO(world.send("coach", "GET", f"/plan/week.xlsx?day={on(0)}").content))
    assert book.active["C2"].value == "Ridge"
    calendar = Calendar.from_ical(world.send("coach", "GET", f"/plan/week.ics?day={on(0)}").content)
    assert len(calendar.walk("VEVENT")) == 1


def test_a_week_stands_beside_another(world: World) -> None:
    entry = put(world, 0)
    put(world, 7)
    put(world, 9)
    made = world.send("coach", "GET", f"/plan/beside?day={on(7)}&other={on(0)}").json()
    assert made["deltas"]["load"] == pytest.approx(entry["load"], abs=0.01)
    assert made["deltas"]["row.squat"] == pytest.approx(160)


def test_a_year_of_forty_people_takes_few_queries(world: World) -> None:
    summary = Entry.objects.get(pk=put(world, 0)["id"]).summary
    people = [Person.objects.create(squad=world.squad, name=f"P{n}") for n in range(40)]
    Entry.objects.bulk_create(
        Entry(id=uuid.uuid4(), squad=world.squad, day=MONDAY + timedelta(weeks=n, days=day), title="Ridge", summary=summary, person=person)
        for person in people
        for n in range(52)
        for day in range(6)
    )  # fmt: skip
    for path in (
        f"/plan/season?day={on(0)}&weeks=52&person={people[3].public_id}",
        f"/plan/week?day={on(70)}&person={people[3].public_id}",
    ):
        client = world.client("coach")
        with CaptureQueriesContext(connection) as queries:
            assert client.get(f"/api{path}").status_code == 200
        assert len(queries) <= 14
    season = world.send("coach", "GET", f"/plan/season?day={on(0)}&weeks=52&person={people[3].public_id}").json()[
        "weeks"
    ]
    assert [one["entries"] for one in season] == [7, *[6] * 51]
    assert season[10]["acwr_coupled"]["value"] == pytest.approx(1)
    assert season[0]["acwr_coupled"]["why"] == "7 days of history; 28 are needed"


def test_a_text_that_is_older_than_the_rule_for_texts_breaks_no_week(world: World) -> None:
    entry = put(world, 0)
    item = {"entry": entry["id"], "title": "Hill\ud800", "what": "moves", "undone": False}
    Change.objects.create(squad=world.squad, items=[{**item, "day": on(0), "day_before": on(1)}])
    answer = world.send("coach", "GET", f"/plan/week?day={on(0)}")
    assert answer.status_code == 200
    assert [item["title"] for change in answer.json()["changes"] for item in change["items"]] == ["Hill?"]


def test_times_away_do_not_lie_over_each_other_and_leave_days_out_of_ratios(world: World) -> None:
    def add(first: int, last: int, **more: Any) -> Any:
        return world.send("coach", "POST", "/plan/away", {"first": on(first), "last": on(last), **more})

    assert add(28, 34, known=False).status_code == 204
    refused = add(34, 36)
    assert refused.status_code == 422
    assert refused.json()["problems"][0]["allowed"] == f"days beside those from {on(28)} to {on(34)}"
    assert add(37, 36).json()["problems"][0]["path"] == "last"
    for day in range(7, 42):
        if day % 7 in (0, 2, 4, 5) and not 28 <= day <= 34:
            body = {"title": "Hike", "minutes": 60, "effort": 3, "day": on(day)}
            assert world.send("coach", "POST", "/plan/entries", body).status_code == 201
    week = world.send("coach", "GET", f"/plan/week?day={on(35)}").json()
    assert week["load"]["acwr_coupled"]["value"] == pytest.approx(1)
    gone = read_week(member(world.users["coach"].pk), world.squad.pk, date.fromisoformat(on(28)))
    assert {day["away"] for day in gone.load["days"]} == {"unknown"}
    assert gone.rules.rest_days == set(range(7)), "a levelling puts nothing there"
    mine = next(one for one in world.send("coach", "GET", "/plan/away").json() if one["first"] == on(28))
    assert world.send("coach", "DELETE", f"/plan/away/{mine['id']}").status_code == 204
    week = world.send("coach", "GET", f"/plan/week?day={on(35)}").json()
    assert week["load"]["acwr_coupled"]["why"] == "0 training days in one of the four weeks; 4 are needed"
