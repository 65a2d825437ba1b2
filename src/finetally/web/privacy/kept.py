"""All that is kept about one person, as JSON: what they, a guardian or a head coach take out as a file."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db.models import QuerySet

from finetally.web.accounts.own import units_of
from finetally.web.accounts.second_factor import factor_of
from finetally.web.checkin.models import CheckInLink
from finetally.web.log.models import LearnedPace, Result
from finetally.web.people.measures import given_of
from finetally.web.people.models import Limit
from finetally.web.people.people import is_self, known_people, the_person
from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.history import by_whom
from finetally.web.squads.models import Act, Person, Record
from finetally.web.squads.record import record

PERSON_FILE_VERSION = 1


def the_person_themselves(actor: Actor, person_id: UUID) -> Person:
    """One person, for head coaches of the squad and for the person; to others it is refused, or does not exist."""
    person = the_person(actor, person_id)
    if not is_self(actor, person):
        actor.require(person.squad_id, Right.HEAD)
    return person


def export_person(actor: Actor, person_id: UUID) -> dict[str, Any]:
    """Everything about one person. Written into the history."""
    person = the_person_themselves(actor, person_id)
    record(actor, person.squad_id, Act.EXPORTED, "all that is kept of them", person)
    return kept_of(person)


def kept_of(person: Person) -> dict[str, Any]:
    """Everything that the database says of a person, in the squad's words and units: kg, MET, minutes, ISO days."""
    whole = known_people(person.squad).get(pk=person.pk)
    return {
        "fine_tally_person": PERSON_FILE_VERSION,
        "id": str(person.public_id),
        "squad": person.squad.name,
        "name": person.name,
        "short_name": person.short_name,
        "account": person.user.get_username() if person.user is not None else None,
        "units": units_of(person.user_id) if person.user is not None else None,
        "second_factor": person.user is not None and factor_of(person.user) is not None,
        "under_age": person.under_age,
        "named_beside_scores_since": _day(person.named_on),
        "guardian": {"name": person.guardian or None, "agreed_on": _day(person.guardian_on)},
        "groups": [
            {"group": one.group.name, "from": _day(one.since), "until": _day(one.until)}
            for one in person.places.select_related("group")
        ],
        "measures": {
            **given_of(whole, person.squad.methods_value().one_rm).model_dump(mode="json"),
            "capacity": {
                "test": person.capacity_test, "result": person.capacity_result, "on": _day(person.capacity_on)
            },
            "sets": [
                {"movement": one.movement, "kg": one.kg, "reps": one.reps, "on": _day(one.day)}
                for one in person.maxima.all()
            ],
        },
        "limits": [limit_kept(one) for one in person.limits.all()],
        "away": [
            {"from": _day(one.first), "to": _day(one.last), "rest": one.known} for one in person.away.all()
        ],
        "sessions": [_attended(one) for one in _attendance(person)],
        "planned_for_them_alone": [
            {"on": _day(one.day), "title": one.title, "notes": one.notes} for one in _own_entries(person)
        ],
        "calendar_links": [one.name for one in person.link_set.filter(revoked_at=None)],
        "on_the_floor": [
            {"on": _day(one.run.day), "title": one.run.title, **one.event}
            for one in person.floor_events.select_related("run").defer("run__document")
        ],
        "scores": [_score(one) for one in _results(person)],
        "ratings": [
            {"on": _day(one.entry.day), "title": one.entry.title, "effort": one.effort, "estimated": one.estimated}
            for one in person.ratings.select_related("entry").defer("entry__document").order_by("entry__day")
        ],
        "notes": [
            {
                "on": _day(one.entry.day), "kind": one.kind, "text": one.text, "place": one.place or None,
                "side": one.side or None, "level": one.level, "lifted_on": _day(one.lifted_on),
            }
            for one in person.log_notes.select_related("entry").defer("entry__document").order_by("entry__day")
        ],
        "pulse": [
            {"on": _day(one.entry.day), "title": one.entry.title, **one.figures, "curve": one.curve}
            for one in person.recordings.select_related("entry").defer("entry__document").order_by("entry__day")
        ],
        "freshness": [{"on": _day(one.day), "value": one.value} for one in person.freshness.all()],
        "checkin_links": [_link(one) for one in person.checkin_links.prefetch_related("devices")],
        "learned": _learned(person),
        "history": [_recorded(one) for one in _records(person)],
    }  # fmt: skip


def _link(one: CheckInLink) -> dict[str, Any]:
    return {
        "made_at": one.made_at.isoformat(), "until": one.expires_at.isoformat(),
        "ended_at": one.ended_at.isoformat() if one.ended_at is not None else None,
        "devices": [{"is": each.called, "last_used": each.used_at.isoformat()} for each in one.devices.all()],
    }  # fmt: skip


def _results(person: Person) -> QuerySet[Result]:
    return person.results.select_related("entry").defer("entry__document").order_by("entry__day", "id")


def _score(one: Result) -> dict[str, Any]:
    return {
        "on": _day(one.entry.day), "title": one.entry.title, "block": one.block, "pass": one.section_pass,
        "index": one.index, **one.score, "unfinished": one.unfinished or None, "options": one.options,
        "sets": one.sets, "told": one.way, "used": one.used, "pace_factor": one.factor,
    }  # fmt: skip


def _learned(person: Person) -> dict[str, Any] | None:
    kept: LearnedPace | None = getattr(person, "learned_pace", None)
    return {**kept.value.figures(), "as_of": _day(kept.as_of), "use": kept.use} if kept is not None else None


def limit_kept(one: Limit) -> dict[str, Any]:
    """A limit as it is taken out."""
    return {
        "joint": one.joint or None, "movement": one.movement or None, "side": one.side, "from": _day(one.first),
        "to": _day(one.last), "note": one.note,
    }  # fmt: skip


def _day(day: Any) -> str | None:
    return day.isoformat() if day is not None else None


def _attendance(person: Person) -> QuerySet[Attendance]:
    return person.attendance.select_related("entry").defer("entry__document").order_by("entry__day")


def _attended(one: Attendance) -> dict[str, Any]:
    return {
        "on": _day(one.entry.day), "title": one.entry.title, "came": one.came, "minutes": one.minutes,
        "effort": one.effort, "said": one.said or None, "options": one.options,
    }  # fmt: skip


def _own_entries(person: Person) -> QuerySet[Entry]:
    return Entry.with_removed.filter(person=person).defer("document").order_by("day")


def _records(person: Person) -> QuerySet[Record]:
    done_to = Record.objects.filter(squad=person.squad, person=person)
    if person.user_id is None:
        return done_to.select_related("user")
    return (done_to | Record.objects.filter(squad=person.squad, user_id=person.user_id)).select_related("user")


def _recorded(one: Record) -> dict[str, Any]:
    return {
        "at": one.at.isoformat(), "by": by_whom(one),
        "what": Act(one.act).label.replace("%s", one.about or (one.person.name if one.person else "")),
    }  # fmt: skip
