"""The log's files: out and in again with the same figures; recordings of watches."""

from __future__ import annotations

import json
from datetime import timedelta
from typing import Any

import pytest

from finetally.core.log.document import read_log
from finetally.core.log.learn import learn
from finetally.shipped import shipped_library
from finetally.web.floor.models import FloorRun
from finetally.web.log.models import LearnedPace, Result, WatchRecording
from finetally.web.plan.models import Entry
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.logbooks import (
    START,
    a_run,
    an_entry,
    made,
    page,
    rated,
    write,
)

# Watches.

TCX = """<?xml version="1.0"?>
<Database xmlns="http://example.invalid/v2"><Activities><Activity>
<Id>serial-77</Id><Lap><Track>
<Trackpoint><Time>2026-11-02T18:00:00Z</Time><Position><LatitudeDegrees>54.1</LatitudeDegrees></Position>
<HeartRateBpm><Value>120</Value></HeartRateBpm></Trackpoint>
<Trackpoint><Time>2026-11-02T18:00:10Z</Time><HeartRateBpm><Value>150</Value></HeartRateBpm></Trackpoint>
<Trackpoint><Time>2026-11-02T18:00:20Z</Time><HeartRateBpm><Value>160</Value></HeartRateBpm></Trackpoint>
</Track></Lap></Activity></Activities></Database>"""


def put_pulse(world: World, entry: Entry, kind: str, text: str, who: str = "coach", **more: Any) -> Any:
    body = {"person": str(world.known.own.public_id), "kind": kind, "text": text, **more}
    return world.send(who, "PUT", f"/log/entries/{entry.pk}/watch", body)


def test_of_a_watch_time_and_pulse_alone_are_kept(world: World) -> None:
    entry = an_entry(world)
    assert put_pulse(world, entry, "tcx", TCX).status_code == 422, "only where the squad asks for health"
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    made = put_pulse(world, entry, "tcx", TCX, max_hr=200, rest_hr=50).json()
    assert (made["figures"]["peak"], made["figures"]["mean"], made["figures"]["known_s"]) == (160, 135, 20)
    assert made["figures"]["above"] == {"60": 20, "70": 10, "80": 0, "90": 0}
    kept = str(list(WatchRecording.objects.values()))
    assert "54.1" not in kept
    assert "serial-77" not in kept
    assert page(world, entry, "athlete")["pulses"][0]["figures"]["peak"] == 160
    assert world.send("athlete", "DELETE", f"/log/watch/{made['id']}/curve").status_code == 204
    [told] = page(world, entry)["pulses"]
    assert (told["curve"], told["figures"]["peak"]) == (None, 160)


@pytest.mark.parametrize(
    ("kind", "text"),
    [
        ("csv", "t,pulse\n0,100"),
        ("csv", "time_s,hr\n0,100\nlater,110"),
        ("csv", "time_s,hr\n0,100"),
        ("csv", "time_s,hr\n0,100\n90000,110"),
        ("tcx", "<not xml"),
        ("tcx", '<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>'),
        ("tcx", TCX.replace("2026-11-02T18:00:10Z", "yesterday")),
    ],
    ids=["headings", "no number", "one reading", "over a day", "no xml", "entities", "no time"],
)
def test_what_is_no_recording_is_refused(world: World, kind: str, text: str) -> None:
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    answer = put_pulse(world, an_entry(world), kind, text)
    assert answer.status_code == 422, answer.content
    assert not WatchRecording.objects.exists()


# Out, and in again.


def taken_out(world: World, kind: str = "json", who: str = "coach", **more: Any) -> Any:
    asked = "&".join(f"{key}={value}" for key, value in more.items())
    answer = world.send(who, "GET", f"/log/file.{kind}?squad={world.squad.pk}&{asked}")
    assert answer.status_code == 200, answer.content
    return answer


def a_log(world: World) -> None:
    """Two sessions: one with an option and ratings, one run in which somebody came late."""
    person, other = world.known.own, world.planned.person
    before = an_entry(world, today_of(world.squad) - timedelta(days=8))
    write(world, before, made(person, 8, 2), made(other, 6, 0, options={"p": "knees"}))
    rated(world, before, person, 8)
    entry = an_entry(world)
    a_run(
        world, entry, START, {"t": 100, "do": "here", "person": str(other.public_id)},
        {"t": 700, "do": "stop"}, {"t": 700, "do": "note", "text": "secret", "person": str(other.public_id)},
    )  # fmt: skip
    write(world, entry, made(person, 7, 5))
    rated(world, entry, other, 4)
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})


def learned_rows() -> list[tuple[Any, ...]]:
    rows = LearnedPace.objects.order_by("person__name")
    return [
        (
            one.person.name,
            round(one.pace_factor, 4),
            round(one.spread, 4),
            one.scores,
            round(one.effort_offset, 3),
            one.ratings,
        )
        for one in rows
    ]


def test_a_log_goes_out_and_comes_in_again_with_the_same_figures(world: World) -> None:
    a_log(world)
    text = taken_out(world).content.decode()
    before = learned_rows()
    entries = Entry.objects.filter(title="Ridge pull").count()
    [minutes] = Entry.objects.filter(title="Ridge pull", logged_minutes__isnull=False).values_list(
        "logged_minutes", flat=True
    )
    assert "secret" not in text
    # What the command line makes of the file is what is kept here.
    log = read_log(json.loads(text))
    methods = context_of(world.squad).methods
    told = {person: one.figures() for person, one in learn(log, library=shipped_library(), methods=methods).items()}
    assert [(name, *told[name].values()) for name in sorted(told)] == before
    Entry.objects.filter(title="Ridge pull").delete()
    FloorRun.objects.filter(title="Ridge pull").delete()
    LearnedPace.objects.all().delete()
    answer = world.send("coach", "POST", "/log/file", {"text": text, "squad": world.squad.pk})
    assert (answer.status_code, answer.json()) == (200, {"sessions": 2})
    assert learned_rows() == before
    assert Entry.objects.filter(title="Ridge pull").count() == entries
    assert Entry.objects.filter(title="Ridge pull", logged_minutes=minutes).exists()
    # Brought again it makes nothing twice.
    world.send("coach", "POST", "/log/file", {"text": text, "squad": world.squad.pk})
    assert Entry.objects.filter(title="Ridge pull").count() == entries
    assert learned_rows() == before
    assert json.loads(taken_out(world).content)["entries"] == json.loads(text)["entries"]


def test_a_file_with_people_whom_nobody_knows_changes_nothing_and_tells_each(world: World) -> None:
    a_log(world)
    text = taken_out(world).content.decode().replace("Tamsin Arkwell", "Nobody Known")
    results = Result.objects.count()
    answer = world.send("coach", "POST", "/log/file", {"text": text, "squad": world.squad.pk})
    assert answer.status_code == 422
    assert {one["path"].rpartition(".")[2] for one in answer.json()["problems"]} == {"person"}
    assert Result.objects.count() == results


def test_one_persons_log_is_theirs_alone(world: World) -> None:
    a_log(world)
    own = taken_out(world, who="athlete", person=world.known.own.public_id)
    assert {one["person"] for one in json.loads(own.content)["entries"]} == {"Tamsin Arkwell"}
    assert "Somebody" not in own.content.decode()


def test_the_table_has_a_row_for_each_score_and_rating(world: World) -> None:
    a_log(world)
    lines = taken_out(world, "csv").content.decode().splitlines()
    assert lines[0].startswith("date,person,session,block")
    assert len(lines) == 1 + 3 + 2
    assert any(",8,2," in line and "Tamsin Arkwell" in line for line in lines)
    assert any("knees" in line for line in lines)
