"""The log's files: out and in again with the same figures; recordings of watches."""

from __future__ import annotations

import contextlib
import json
from datetime import timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.db import OperationalError

from finetally.core.log.document import read_log
from finetally.core.log.learn import learn
from finetally.shipped import shipped_library
from finetally.web.floor.models import FloorRun
from finetally.web.jobs.upkeep import queue_forgotten, tidy_after_end
from finetally.web.jobs.work import work_on
from finetally.web.log.models import LearnedPace, LogPart, Result, WatchRecording
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
    assert answer.status_code == 200, answer
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


def bring(world: World, text: str, who: str = "coach", **more: Any) -> Any:
    """Bring a file of one part; the job that it became."""
    body = {"file": str(uuid4()), "text": text, "squad": world.squad.pk, **more}
    answer = world.send(who, "POST", "/log/file", body)
    assert answer.status_code == 202, answer.content
    return answer.json()


def answered(world: World, job: Any) -> Any:
    return world.send("coach", "GET", f"/jobs/{job['id']}/answer").json()


def test_a_log_goes_out_and_comes_in_again_with_the_same_figures(world: World) -> None:
    a_log(world)
    text = taken_out(world).getvalue().decode()
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
    job = bring(world, text)
    assert (job["state"], answered(world, job)) == ("done", {"sessions": 2})
    assert not LogPart.objects.exists()
    assert learned_rows() == before
    assert Entry.objects.filter(title="Ridge pull").count() == entries
    assert Entry.objects.filter(title="Ridge pull", logged_minutes=minutes).exists()
    # Brought again it makes nothing twice.
    bring(world, text)
    assert Entry.objects.filter(title="Ridge pull").count() == entries
    assert learned_rows() == before
    assert json.loads(taken_out(world).getvalue())["entries"] == json.loads(text)["entries"]


def test_a_file_with_people_whom_nobody_knows_changes_nothing_and_tells_each(world: World) -> None:
    a_log(world)
    text = taken_out(world).getvalue().decode().replace("Tamsin Arkwell", "Nobody Known")
    results = Result.objects.count()
    job = bring(world, text)
    assert job["state"] == "refused"
    assert {one["path"].rpartition(".")[2] for one in job["problems"]} == {"person"}
    assert not LogPart.objects.exists(), "of a refused file nothing stays"
    assert Result.objects.count() == results


def test_a_file_comes_in_parts_cut_anywhere_and_a_part_twice_counts_once(world: World) -> None:
    a_log(world)
    text = "\ufeff" + taken_out(world).getvalue().decode()
    Entry.objects.filter(title="Ridge pull").delete()
    file = str(uuid4())
    parts = [text[at : at + 700] for at in range(0, len(text), 700)]
    for number, part in enumerate(parts[:-1]):
        for _ in range(2):
            body = {"file": file, "number": number, "text": part, "squad": world.squad.pk}
            answer = world.send("coach", "POST", "/log/file/parts", body)
    assert answer.json() == {"characters": 700 * (len(parts) - 1)}
    # Nobody else adds to it.
    assert world.send("head", "POST", "/log/file/parts", body).status_code == 422
    missing = {"file": file, "number": len(parts), "text": "", "squad": world.squad.pk}
    assert world.send("coach", "POST", "/log/file", missing).status_code == 422
    LogPart.objects.filter(file=file, number=len(parts)).delete()
    job = bring(world, parts[-1], file=file, number=len(parts) - 1)
    assert answered(world, job) == {"sessions": 2}


def test_nothing_is_figured_while_the_log_is_written(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    a_log(world)
    text = taken_out(world).getvalue().decode()
    Entry.objects.filter(title="Ridge pull").delete()
    FloorRun.objects.filter(title="Ridge pull").delete()
    steps: list[str] = []
    from finetally.web.log import brought

    def told(name: str) -> None:
        work = getattr(brought, name)
        monkeypatch.setattr(brought, name, lambda *all_of_it: (steps.append(name), work(*all_of_it))[1])

    told("figure_log")
    told("keep_log")
    bring(world, text)
    assert steps == ["figure_log", "figure_log", "keep_log", "keep_log"]


@pytest.mark.parametrize("how", ["killed", "disk full"])
def test_a_log_that_was_broken_off_is_brought_by_a_later_look(
    world: World, monkeypatch: pytest.MonkeyPatch, settings: Any, how: str
) -> None:
    a_log(world)
    text = taken_out(world).getvalue().decode()
    before = learned_rows()
    Entry.objects.filter(title="Ridge pull").delete()
    FloorRun.objects.filter(title="Ridge pull").delete()
    from finetally.web.log import brought

    work, kept = brought.keep_log, []

    def ends(*all_of_it: Any) -> Any:
        if kept:
            # As nothing else ends it here: a kill is no exception that anybody catches.
            raise KeyboardInterrupt if how == "killed" else OperationalError("database or disk is full")
        kept.append(work(*all_of_it))
        return kept[0]

    monkeypatch.setattr(brought, "keep_log", ends)
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.dummy.DummyBackend"}}
    job = bring(world, text)
    with pytest.raises(KeyboardInterrupt) if how == "killed" else contextlib.nullcontext():
        work_on.call(job["id"])
    assert LogPart.objects.exists()
    assert Entry.objects.filter(title="Ridge pull").count() == 1
    monkeypatch.setattr(brought, "keep_log", work)
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.immediate.ImmediateBackend"}}
    tidy_after_end() if how == "killed" else queue_forgotten()
    assert answered(world, job) == {"sessions": 2}
    assert learned_rows() == before
    assert Entry.objects.filter(title="Ridge pull").count() == 2


def test_a_file_has_bounds_and_is_no_other_json(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    deep = '{"fine_tally_log": 1, "as_of": "2026-11-24", "entries": [' + "[" * 500
    twice = json.dumps(ENTRY_OF_FILE)[:-1] + ', "date": "2026-11-21"}'
    for text, code in (
        ("[" * 300_000, "too_deep"), ("", "not_json"), ("{", "not_json"), ("[1, 2]", "missing"), ('{"entries": [1e999]}', "not_json"), (deep, "too_deep"),
        ('{"fine_tally_log": 1, "as_of": "2026-11-24", "entries": {}}', "list_type"),
        ('{"fine_tally_log": 1, "as_of": "2026-11-24", "more": 1}', "extra_forbidden"),
        ('{"fine_tally_log": 1, "as_of": "2026-11-24", "entries": [' + twice + "]}", "duplicate_key"),
    ):  # fmt: skip
        assert bring(world, text)["problems"][0]["code"] == code, text[:70]
    monkeypatch.setattr("finetally.web.log.incoming.MOST_LOG_CHARACTERS", 50)
    body = {"file": str(uuid4()), "text": "x" * 51, "squad": world.squad.pk}
    assert world.send("coach", "POST", "/log/file", body).status_code == 413
    assert not LogPart.objects.exists()


def test_one_persons_log_is_theirs_alone(world: World) -> None:
    a_log(world)
    own = taken_out(world, who="athlete", person=world.known.own.public_id)
    assert {one["person"] for one in json.loads(own.getvalue())["entries"]} == {"Tamsin Arkwell"}
    assert "Somebody" not in own.getvalue().decode()


def test_the_table_has_a_row_for_each_score_and_rating(world: World) -> None:
    a_log(world)
    lines = taken_out(world, "csv").getvalue().decode().splitlines()
    assert lines[0].startswith("date,person,session,block")
    assert len(lines) == 1 + 3 + 2
    assert any(",8,2," in line and "Tamsin Arkwell" in line for line in lines)
    assert any("knees" in line for line in lines)


ENTRY_OF_FILE: dict[str, Any] = {
    "date": "2026-11-20", "person": "Tamsin Arkwell",
    "session": {"fine_tally": 1, "title": "x", "blocks": [
        {"clock": {"kind": "amrap", "window_s": 60}, "steps": [{"movement": "burpee", "reps": 5}]},
    ]},
}  # fmt: skip
ODD_ENTRIES: dict[str, dict[str, Any]] = {
    "date": {"date": "0001-01-01"},
    "scores[0].block": {"scores": [{"block": 9999, "rounds": 3}]},
    "scores[0]": {"scores": [{"block": 0, "rounds": 3, "time_s": 40}]},
    "run": {"run": {"events": 7}},
    "run.events": {"run": {"events": [7, "stop"]}},
    "run.events[0]": {"run": {"events": [{"t": "soon", "do": "start"}]}},
    "run.until": {"run": {"until": 1e300}},
}


@pytest.mark.parametrize("place", ODD_ENTRIES)
def test_an_odd_log_is_refused_with_its_place(world: World, place: str) -> None:
    log = {"fine_tally_log": 1, "as_of": "2026-11-24", "entries": [{**ENTRY_OF_FILE, **ODD_ENTRIES[place]}]}
    job = bring(world, json.dumps(log))
    assert job["state"] == "refused"
    assert job["problems"][0]["path"].startswith(f"entries[0].{place.partition('[')[0]}")


ODD_TCX = "<T><Trackpoint><Time>{0}</Time><HeartRateBpm><Value>{1}</Value></HeartRateBpm></Trackpoint>{2}</T>"
NEXT = (
    "<Trackpoint><Time>2026-11-20T10:00:05+01:00</Time><HeartRateBpm><Value>90</Value></HeartRateBpm></Trackpoint>"
)
ODD_RECORDINGS = {
    "a cell without end": ("csv", 'time_s,hr\n0,90\n"' + "x" * 200_000),
    "line ends within": ("csv", "time_s,hr\n0,90\r1,91\r2,92"),
    "no numbers": ("csv", "time_s,hr\nnan,inf\n1e400,90"),
    "far apart": ("csv", "time_s,hr\n-1e308,90\n1e308,91"),
    "two kinds of time": ("tcx", ODD_TCX.format("2026-11-20T09:00:00", "90", NEXT)),
    "another alphabet": (
        "tcx",
        "<?xml version='1.0' encoding='klingon'?>" + ODD_TCX.format("2026-11-20T09:00:00Z", "90", NEXT),
    ),
    "no time": ("tcx", ODD_TCX.format("noon", "90", NEXT)),
    "no pulse": ("tcx", ODD_TCX.format("2026-11-20T09:00:00Z", "quick", NEXT)),
    "no watch": ("tcx", "<!DOCTYPE x [<!ENTITY a 'b'>]><x>&a;</x>"),
}


@pytest.mark.parametrize("case", ODD_RECORDINGS)
def test_an_odd_recording_is_refused_in_words(world: World, case: str) -> None:
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    kind, text = ODD_RECORDINGS[case]
    body = {
        "person": str(world.known.own.public_id), "kind": kind, "text": text, "max_hr": 190, "rest_hr": 60,
    }  # fmt: skip
    answer = world.send("coach", "PUT", f"/log/entries/{world.logbook.entry.pk}/watch", body)
    assert answer.status_code == 422, answer.content
