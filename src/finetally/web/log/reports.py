"""Reports of pain, dizziness and hurt that coaches must see before the next training; for those who plan."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID

from finetally.core.log.notes import HEALTH_KINDS
from finetally.web.floor.models import FloorEvent
from finetally.web.log.models import LogNote
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

REPORTED_FOR = timedelta(days=28)
"""A report that nobody resolved is shown for so long (house assumption: four weeks)."""


@dataclass(frozen=True, slots=True)
class HealthReport:
    """What somebody reported, or that they were hurt in a run: of what kind, on which day, at which entry.

    `entry`, `title`: None and empty where the entry was deleted meanwhile.
    """

    person: Person
    kind: str
    day: date
    entry: UUID | None
    title: str


def list_reports(actor: Actor, squad_id: int | None) -> list[HealthReport]:
    """The open reports of a squad today, newest first; for those who plan."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    return open_reports(squad, today_of(squad))


def open_reports(squad: Squad, day: date) -> list[HealthReport]:
    """What is open on a day, newest first, each person and kind of a day once. Three queries.

    A note is open until it is resolved. Somebody hurt in a run stays marked for the rest of the day, and in the
    session after it, also where nobody wrote a note.
    """
    found = [*_of_notes(squad, day), *_of_runs(squad, day)]
    once = {(one.person.pk, one.kind, one.day): one for one in reversed(found)}
    return sorted(once.values(), key=lambda one: (one.day, one.person.on_the_wall), reverse=True)


def _of_notes(squad: Squad, day: date) -> Iterable[HealthReport]:
    notes = LogNote.objects.filter(
        entry__squad=squad, kind__in=HEALTH_KINDS, lifted_on=None, emptied=False, entry__day__lte=day,
        entry__day__gte=day - REPORTED_FOR, entry__removed_at=None,
    ).exclude(person=None).select_related("person", "entry")  # fmt: skip
    for note in notes.defer("entry__document"):
        if note.person is not None:
            yield HealthReport(note.person, note.kind, note.entry.day, note.entry_id, note.entry.title)


def _of_runs(squad: Squad, day: date) -> Iterable[HealthReport]:
    """Who was taken out hurt, since the squad's last session before the day."""
    before = squad.entries.filter(day__lt=day, skipped=False, document__isnull=False).order_by("-day")
    since = before.values_list("day", flat=True).first() or day
    events = FloorEvent.objects.filter(
        run__squad=squad, run__day__gte=max(since, day - REPORTED_FOR), run__day__lte=day,
        event__do="away", event__why="hurt", run__entry__removed_at=None,
    ).exclude(person=None).select_related("person", "run")  # fmt: skip
    for event in events.defer("run__document", "run__given", "run__methods"):
        if event.person is not None:
            yield HealthReport(event.person, "hurt", event.run.day, event.run.entry_id, event.run.title)


def kinds_by_person(squad: Squad, day: date) -> dict[int, list[str]]:
    """What is open of each person on a day, by their key: kinds alone, for the marks beside names."""
    found: dict[int, list[str]] = {}
    for one in open_reports(squad, day):
        kinds = found.setdefault(one.person.pk, [])
        if one.kind not in kinds:
            kinds.append(one.kind)
    return found
