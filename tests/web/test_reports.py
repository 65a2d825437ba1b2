"""Reports of pain and hurt reach the coach before the next training, and nobody else."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest
from django.utils import timezone

from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.log.models import LogNote
from finetally.web.log.reports import kinds_by_person, open_reports
from finetally.web.plan.models import Entry
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.own_phones import entry_of_today, made_link, opened, said


def told(world: World) -> list[dict[str, Any]]:
    answer = world.send("coach", "GET", f"/reports?squad={world.squad.pk}")
    assert answer.status_code == 200, answer.content
    found: list[dict[str, Any]] = answer.json()
    return found


def note(world: World, **more: Any) -> LogNote:
    entry, person = world.logbook.entry, world.planned.person
    return LogNote.objects.create(**{"entry": entry, "person": person, "kind": "pain", "text": "left knee", **more})


def test_a_note_of_pain_is_told_until_it_is_resolved(world: World) -> None:
    made = note(world)
    (report,) = told(world)
    assert (report["name"], report["kind"], report["title"]) == ("Somebody", "pain", "Window")
    # What hurts stands in the log, not here.
    assert "knee" not in str(report)
    assert world.send("coach", "POST", f"/log/notes/{made.pk}/lift").status_code < 300
    assert told(world) == []


def test_what_an_athlete_says_by_their_own_link_is_told_at_once(world: World) -> None:
    assert world.logbook.entry.pk  # the squad asks for notes of health
    entry = entry_of_today(world)
    phone, _ = opened(made_link(world, world.known.own))
    said(
        phone, {"entry": str(entry.pk), "what": "note", "kind": "pain", "text": "calf", "place": "calf", "level": 4}
    )
    assert [(one["name"], one["kind"], one["entry"]) for one in told(world)] == [("Tamsin", "pain", str(entry.pk))]


@pytest.mark.parametrize("more", [{"kind": "form"}, {"person": None}, {"emptied": True}])
def test_other_notes_are_no_report(world: World, more: dict[str, Any]) -> None:
    note(world, **more)
    assert told(world) == []


def test_what_was_said_long_ago_is_told_no_more(world: World) -> None:
    Entry.objects.filter(pk=world.logbook.entry.pk).update(day=today_of(world.squad) - timedelta(days=29))
    note(world)
    assert told(world) == []


def test_a_report_is_for_those_who_plan(world: World) -> None:
    note(world)
    assert world.send("athlete", "GET", f"/reports?squad={world.squad.pk}").status_code == 403
    assert world.send("stranger", "GET", f"/reports?squad={world.squad.pk}").status_code == 404


def test_the_start_page_marks_who_reported_pain(world: World) -> None:
    note(world)
    entry = world.logbook.entry
    people = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()["people"]
    assert {one["name"]: one["reports"] for one in people} == {"Somebody": ["pain"], "Tamsin": []}


def hurt(world: World, day: date, person: Person) -> None:
    run = FloorRun.objects.create(
        squad=world.squad, day=day, title="Ridge", document={}, begun_at=timezone.now(), entry=None
    )
    event = {"t": 60, "do": "away", "why": "hurt"}
    FloorEvent.objects.create(run=run, device="a-phone", number=0, event=event, person=person)


def test_who_was_hurt_is_marked_that_day_and_in_the_next_session(world: World) -> None:
    squad, person = world.squad, world.planned.person
    Entry.objects.filter(squad=squad).delete()
    monday = date(2030, 3, 4)

    def session(day: int) -> None:
        Entry.objects.create(squad=squad, day=monday + timedelta(days=day), title="Ridge", document={}, summary={})

    session(0)
    session(2)
    session(4)
    hurt(world, monday, person)
    marked = [bool(kinds_by_person(squad, monday + timedelta(days=day))) for day in range(5)]
    assert marked == [True, True, True, False, False]
    (report,) = open_reports(squad, monday)
    assert (report.kind, report.title, report.entry) == ("hurt", "Ridge", None)


def test_who_only_left_is_not_marked(world: World) -> None:
    hurt(world, today_of(world.squad), world.planned.person)
    FloorEvent.objects.filter(event__why="hurt").update(event={"t": 60, "do": "away", "why": "left"})
    assert told(world) == []
