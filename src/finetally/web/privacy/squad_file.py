"""A squad's own export: one JSON of its plan, sessions and log; what is about health only where it is asked for."""

from __future__ import annotations

import json
from typing import Any

from django.utils import timezone

from finetally.core.session.problems import refuse
from finetally.web.floor.models import FloorRun
from finetally.web.jobs.models import Job
from finetally.web.jobs.use_cases import JobRequest, ask
from finetally.web.jobs.work import JobHandle
from finetally.web.log.models import LogNote, Rating, Result, WatchRecording
from finetally.web.people.measures import given_of
from finetally.web.people.models import Freshness
from finetally.web.people.people import known_people
from finetally.web.plan.models import Attendance, Entry
from finetally.web.privacy.kept import limit_kept
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for

SQUAD_FILE_VERSION = 1


def ask_for_squad_file(actor: Actor, squad_id: int, *, health: bool) -> Job:
    """Put the export into the queue; for head coaches. Written into the history."""
    squad = squad_for(actor, squad_id, Right.HEAD)
    record(actor, squad.pk, Act.EXPORTED, "the squad with health" if health else "the squad without health")
    # The moment makes two exports two jobs: what was asked for earlier shows an earlier squad.
    asked = {"health": health, "at": timezone.now().isoformat()}
    return ask(actor, squad.pk, JobRequest("squad-file", asked))


def squad_file_job(handle: JobHandle) -> None:
    """Write the file that a job asks for; see web/jobs/work.py."""
    squad = handle.job.squad
    # Asked again: the right may be gone since.
    if not handle.asker().may(squad.pk, Right.HEAD):
        raise refuse(("job",), "an export", "one that a head coach of the squad asks for", "cannot_head")
    body = json.dumps(squad_kept(squad, health=handle.job.asked["health"]), ensure_ascii=False, indent=1)
    handle.show(file=body.encode("utf-8", "replace"), file_name="squad.json", file_type="application/json")


def squad_kept(squad: Squad, *, health: bool) -> dict[str, Any]:
    """Everything of a squad; of people's bodies only with `health`."""
    sessions = squad.sessions.select_related("head")
    entries = squad.entries.select_related("group", "person")
    return {
        "fine_tally_squad": SQUAD_FILE_VERSION,
        "name": squad.name,
        "time_zone": squad.time_zone,
        "week_start": squad.week_start,
        "kit": squad.kit,
        "emergency": squad.emergency,
        "methods": squad.methods,
        "movements": list(squad.movements.values_list("definition", flat=True)),
        "groups": [{"name": one.name, "mark": one.mark} for one in squad.groups.filter(ended_on=None)],
        "people": [_person(one, health) for one in known_people(squad)],
        "sessions": [one.head.document for one in sessions if one.head is not None],
        "plan": [_entry(one, health) for one in entries],
        "days": [
            {"day": one.day.isoformat(), "intent": one.intent, "share": one.share, "hall": one.hall}
            for one in squad.days.order_by("day")
        ],
        "phases": [
            {
                "begins": one.begins.isoformat(), "weeks": one.weeks, "kind": one.kind,
                "load": [one.load_low, one.load_high],
            }
            for one in squad.phases.all()
        ],
        "away": [
            {"from": one.first.isoformat(), "to": one.last.isoformat(), "rest": one.known}
            for one in squad.away.filter(person=None)
        ],
        "runs": [_run(one, health) for one in squad.runs.prefetch_related("events__person")],
        "log": [_attended(one, health) for one in _attendance(squad)],
        "results": [_result(one) for one in _of_log(Result, squad)],
        "ratings": [_rating(one) for one in _of_log(Rating, squad)] if health else [],
        "pulse": [
            {"entry": str(one.entry_id), "person": _whose(one), **one.figures}
            for one in _of_log(WatchRecording, squad)
        ] if health else [],
        "notes": [_note(one) for one in _of_log(LogNote, squad)] if health else [],
        "freshness": [
            {"person": _whose(one), "day": one.day.isoformat(), "value": one.value}
            for one in Freshness.objects.filter(person__squad=squad).select_related("person")
        ] if health else [],
        "reading_habits": [
            {"rule": one.rule, "reading": one.reading, "times": one.times} for one in squad.reading_habits.all()
        ],
    }  # fmt: skip


def _person(person: Person, health: bool) -> dict[str, Any]:
    told: dict[str, Any] = {
        "id": str(person.public_id),
        "name": person.name,
        "short_name": person.short_name,
        "groups": [one.group.name for one in person.present_places],  # type: ignore[attr-defined]
    }
    if health:
        told["measures"] = given_of(person, person.squad.methods_value().one_rm).model_dump(mode="json")
        told["limits"] = [limit_kept(one) for one in person.limits.all()]
    return told


def _entry(one: Entry, health: bool) -> dict[str, Any]:
    return {
        "id": str(one.pk), "day": one.day.isoformat(), "time": one.time.isoformat() if one.time else None,
        "title": one.title, "group": one.group.name if one.group is not None else None,
        "person": str(one.for_person) if one.person_id is not None else None, "skipped": one.skipped,
        "minutes": one.minutes, "effort": one.effort, "summary": one.summary, "document": one.document,
        "logged": {"minutes": one.logged_minutes, "effort": one.logged_effort},
        **({"notes": one.notes} if health else {}),
    }  # fmt: skip


def _run(one: FloorRun, health: bool) -> dict[str, Any]:
    """A run with its events: those of people, and notes, only with `health`."""
    events = [
        {**event.event, **({"person": str(event.person.public_id)} if event.person is not None else {})}
        for event in one.events.all()
        if health or (event.person is None and event.event["do"] != "note")
    ]
    return {
        "id": str(one.pk), "entry": str(one.entry_id) if one.entry_id else None, "title": one.title,
        "begun_at": one.begun_at.isoformat(), "apart": one.apart, "hold": one.hold, "events": events,
    }  # fmt: skip


def _of_log(model: Any, squad: Squad) -> Any:
    return (
        model.objects.filter(entry__squad=squad, entry__removed_at=None)
        .select_related("person")
        .order_by("entry__day", "id")
    )


def _whose(one: Any) -> str | None:
    return str(one.person.public_id) if one.person is not None else None


def _result(one: Result) -> dict[str, Any]:
    return {
        "entry": str(one.entry_id), "person": _whose(one), "whose": one.whose, "block": one.block,
        "pass": one.section_pass, "index": one.index, "score": one.score, "unfinished": one.unfinished,
        "options": one.options, "sets": one.sets, "told": one.way, "used": one.used,
    }  # fmt: skip


def _rating(one: Rating) -> dict[str, Any]:
    return {"entry": str(one.entry_id), "person": _whose(one), "effort": one.effort, "told": one.way}


def _note(one: LogNote) -> dict[str, Any]:
    return {
        "entry": str(one.entry_id), "person": _whose(one), "kind": one.kind, "text": one.text, "place": one.place,
        "side": one.side, "level": one.level,
    }  # fmt: skip


def _attendance(squad: Squad) -> Any:
    return (
        Attendance.objects.filter(entry__squad=squad, entry__removed_at=None)
        .select_related("person")
        .order_by("entry__day", "id")
    )


def _attended(one: Attendance, health: bool) -> dict[str, Any]:
    return {
        "entry": str(one.entry_id), "person": str(one.person.public_id) if one.person is not None else None,
        "came": one.came, "minutes": one.minutes, "said": one.said or None, "options": one.options,
        **({"effort": one.effort} if health else {}),
    }  # fmt: skip
