"""What can be done with the plan: entries, days, phases. Each use case holds permission, change and record."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any, get_args
from uuid import UUID

from django.db import transaction
from django.db.models import Q
from django.shortcuts import get_object_or_404

from finetally.core.session.cleaning import cleaned, one_line
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.week.plan import INTENT_PARTS, PhaseKind
from finetally.core.week.planned_load import other_training
from finetally.web.people.models import Group, GroupPlace
from finetally.web.plan.models import Attendance, Day, Entry, Phase
from finetally.web.plan.summaries import SummarisedDocument, inside, summarise, summary_json
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for
from finetally.web.training.models import Revision, Session
from finetally.web.training.use_cases import create_session, pin, read_session
from finetally.web.versions import require_version, version_of

PHASE_KINDS: tuple[str, ...] = get_args(PhaseKind)
MOST_REPEATS = 52
MOST_MINUTES = 24 * 60
MOST_LOAD = 100_000
"""Load of a week: ten times what a day and a night of the hardest effort would make."""


def wrong(place: str, found: str, allowed: str) -> DocumentError:
    """A refusal that names its place."""
    return DocumentError([Problem(place, found, allowed, "plan")])


def the_entry(actor: Actor, entry_id: UUID, right: Right = Right.PLAN) -> Entry:
    """One entry of the actor's squads."""
    entry = get_object_or_404(
        Entry.objects.filter(squad_id__in=actor.squads()).select_related("squad", "session", "person", "group"),
        pk=entry_id,
    )
    actor.require(entry.squad_id, right)
    return entry


def plan_session(actor: Actor, session_id: UUID, day: date, details: dict[str, Any]) -> Entry:
    """Put a session on a day: a copy of its present version, with its movements; that version is pinned."""
    session = read_session(actor, session_id)
    actor.require(session.squad_id, Right.PLAN)
    newest = _newest(session)
    with transaction.atomic():
        session, newest = _still_newest(actor, session_id, newest)
        entry = Entry(squad=session.squad, day=day, session=session)
        newest.put(entry)
        _detail(entry, details)
        entry.save()
        record(actor, entry.squad_id, Act.PLANNED, entry_named(entry))
    return entry


def entry_named(entry: Entry) -> str:
    """An entry as the history names it."""
    return f"{entry.title[:150]}, {entry.day.isoformat()}"


@dataclass(frozen=True, slots=True)
class _Newest:
    """A session's newest version, ready to be planned."""

    revision: Revision | None
    etag: str
    document: dict[str, Any]
    summarised: SummarisedDocument

    def put(self, entry: Entry) -> None:
        """Copy it into an entry, and pin it: what is planned is saved over no more."""
        entry.document = self.document
        self.summarised.put(entry)
        entry.title = one_line(str(self.document.get("title", "")))[:500]
        entry.revision = self.revision
        entry.changed = False
        pin(self.revision)


def _newest(session: Session) -> _Newest:
    """Figured before anything is locked: a long session takes seconds."""
    context = context_of(session.squad)
    document = inside(session.head.document if session.head else {}, context)
    return _Newest(session.head, session.head.etag if session.head else "", document, summarise(document, context))


def _still_newest(actor: Actor, session_id: UUID, newest: _Newest) -> tuple[Session, _Newest]:
    """The session as it is now; figured anew only where somebody saved it in between."""
    session = read_session(actor, session_id)
    same = (session.head.etag if session.head else "") == newest.etag
    return session, newest if same else _newest(session)


def plan_other(actor: Actor, squad_id: int | None, day: date, title: str, details: dict[str, Any]) -> Entry:
    """Put other training on a day: a hike, a match, with minutes and effort. Raises DocumentError."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    title = one_line(title)
    if not title:
        raise wrong("title", "no title", "a title")
    entry = Entry(squad=squad, day=day, title=title)
    _detail(entry, details)
    if entry.minutes is None or entry.effort is None:
        raise wrong("minutes", "no minutes or no effort", "both, for other training")
    entry.summary = summary_json(other_training(entry.minutes, entry.effort))
    with transaction.atomic():
        entry.save()
        record(actor, squad.pk, Act.PLANNED, entry_named(entry))
    return entry


def _detail(entry: Entry, details: dict[str, Any]) -> None:
    """Set what is given: time, group, person, lock, notes, minutes, effort, logged values. Raises DocumentError."""
    if "person" in details:
        person = details["person"]
        entry.person = None
        if person is not None:
            entry.person = get_object_or_404(Person, public_id=person, squad_id=entry.squad_id)
    if "group" in details:
        group = details["group"]
        entry.group = get_object_or_404(Group, pk=group, squad_id=entry.squad_id) if group is not None else None
    bounds = {"minutes": MOST_MINUTES, "effort": 10, "logged_minutes": MOST_MINUTES, "logged_effort": 10}
    for name in ("time", "locked", "skipped", "notes", *bounds):
        if name not in details:
            continue
        value = details[name]
        if isinstance(value, str):
            value = cleaned(value).strip() if name == "notes" else one_line(value)
        if name in bounds and value is not None and not 0 <= value <= bounds[name]:
            raise wrong(name, str(value), f"0 to {bounds[name]}")
        setattr(entry, name, value)
    if (entry.logged_minutes is None) is not (entry.logged_effort is None):
        raise wrong("logged_effort", "one of the two", "minutes and effort together, or neither")


def change_entry(actor: Actor, entry_id: UUID, version: int, details: dict[str, Any]) -> Entry:
    """Move, time, skip, lock or log an entry, say for whom it is; `newest` takes its session's newest version.

    `version`: the one that was seen. Raises ChangedError where the entry is another by now.
    """
    seen = the_entry(actor, entry_id)
    newest = _newest(seen.session) if details.get("newest") and seen.session is not None else None
    with transaction.atomic():
        entry = the_entry(actor, entry_id)
        require_version(entry.title, version, entry.sequence)
        if details.get("day") is not None:
            entry.day = details["day"]
        _detail(entry, details)
        if entry.document is None and entry.minutes is not None and entry.effort is not None:
            entry.summary = summary_json(other_training(entry.minutes, entry.effort))
        if newest is not None and entry.session_id is not None:
            _still_newest(actor, entry.session_id, newest)[1].put(entry)
        entry.save()
        record(actor, entry.squad_id, Act.ENTRY_CHANGED, entry_named(entry))
    return entry


def copy_entry(actor: Actor, entry_id: UUID, days: Sequence[date]) -> list[Entry]:
    """Copies of an entry on other days: planned anew, nothing of a log and no note goes with them."""
    entry = the_entry(actor, entry_id)
    made = []
    pin(entry.revision)
    for day in days:
        entry.pk, entry.day = None, day
        entry._state.adding = True
        entry.logged_minutes = entry.logged_effort = None
        entry.skipped, entry.notes = False, ""
        entry.save()
        made.append(get_object_or_404(Entry, pk=entry.pk))
        record(actor, entry.squad_id, Act.PLANNED, entry_named(entry))
        entry.pk = None
    return made


@dataclass(frozen=True, slots=True)
class Expected:
    """Somebody whom an entry is for. `own`: what was noted of their coming; `away`: they are known to be away."""

    person: Person
    own: Attendance | None
    away: bool

    @property
    def comes(self) -> bool:
        """Whether they came, as it was noted; else they are expected, unless they are away."""
        return self.own.came if self.own is not None else not self.away


def attendance_of(actor: Actor, entry_id: UUID) -> list[Expected]:
    """Everybody whom an entry is for, with what is known of their coming. For those who plan."""
    entry = the_entry(actor, entry_id)
    known = {one.person_id: one for one in entry.attendance.all()}
    away = set(
        entry.squad.away.filter(first__lte=entry.day, last__gte=entry.day).exclude(person=None)
        .values_list("person_id", flat=True)
    )  # fmt: skip
    return [Expected(person, known.get(person.pk), person.pk in away) for person in people_for(entry)]


def people_for(entry: Entry) -> list[Person]:
    """Everybody whom an entry is for: one person, those in its group on its day, or the squad."""
    if entry.person is not None:
        return [entry.person]
    people = entry.squad.people.all()
    if entry.group_id is not None:
        there = GroupPlace.objects.filter(
            Q(since=None) | Q(since__lte=entry.day), Q(until=None) | Q(until__gt=entry.day), group_id=entry.group_id
        )
        people = people.filter(places__in=there).distinct()
    return list(people)


def attend(
    actor: Actor,
    entry_id: UUID,
    person_id: UUID,
    version: str,
    *,
    came: bool,
    minutes: float | None,
    effort: float | None,
) -> Attendance:
    """Note that somebody came or was away, and what they did of it. Raises DocumentError, ChangedError."""
    entry = the_entry(actor, entry_id)
    person = get_object_or_404(Person, public_id=person_id, squad_id=entry.squad_id)
    if (minutes is None) is not (effort is None):
        raise wrong("effort", "one of the two", "minutes and effort together, or neither")
    for name, value, most in (("minutes", minutes, MOST_MINUTES), ("effort", effort, 10)):
        if value is not None and not 0 <= value <= most:
            raise wrong(name, str(value), f"0 to {most}")
    with transaction.atomic():
        own = entry.attendance.filter(person=person).first()
        require_version(f"{person.name} at {entry.title}", version, attendance_version(own))
        made, _ = Attendance.objects.update_or_create(
            entry=entry, person=person, defaults={"came": came, "minutes": minutes, "effort": effort}
        )
        record(actor, entry.squad_id, Act.ATTENDED, entry_named(entry), person)
    return made


def attendance_version(own: Attendance | None) -> str:
    """What a change of somebody's attendance names as seen."""
    return version_of(None if own is None else [own.came, own.minutes, own.effort])


def keep_as_session(actor: Actor, entry_id: UUID) -> Session:
    """What stands on the day as a session of its own: to be looked at and worked on, on the Bench.

    Raises DocumentError where there is no session.
    """
    entry = the_entry(actor, entry_id)
    if entry.document is None:
        raise wrong("entry", "other training", "an entry with a session")
    document = {**entry.document, "title": f"{entry.title[:480]}, {entry.day.day} {entry.day:%B}"}
    return create_session(actor, entry.squad_id, document)


def repeat_weekly(actor: Actor, entry_id: UUID, weeks: int) -> list[Entry]:
    """The entry again in each of so many weeks that follow.

    Raises DocumentError for a number of weeks out of bounds.
    """
    if not 1 <= weeks <= MOST_REPEATS:
        raise wrong("weeks", str(weeks), f"1 to {MOST_REPEATS}")
    day = the_entry(actor, entry_id).day
    with transaction.atomic():
        return copy_entry(actor, entry_id, [day + timedelta(weeks=n) for n in range(1, weeks + 1)])


def day_version(day: Day | None) -> str:
    """What a change of a day names as seen."""
    return version_of(None if day is None else [day.intent, day.share, day.hall])


def set_day(
    actor: Actor, squad_id: int | None, day: date, version: str, intent: str, share: float | None, *, hall: bool
) -> Day:
    """What a day is meant to be. Raises DocumentError, ChangedError."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    if intent and intent not in INTENT_PARTS:
        raise wrong("intent", repr(intent), ", ".join(INTENT_PARTS))
    if share is not None and not 0 <= share <= 1:
        raise wrong("share", str(share), "0 to 1")
    with transaction.atomic():
        require_version(f"{day:%A}", version, day_version(squad.days.filter(day=day).first()))
        made, _ = Day.objects.update_or_create(
            squad=squad, day=day, defaults={"intent": intent, "share": share, "hall": hall}
        )
        record(actor, squad.pk, Act.DAY_SET, day.isoformat())
    return made


def add_phase(
    actor: Actor, squad_id: int | None, begins: date, weeks: int, kind: str, low: float, high: float
) -> Phase:
    """A phase of several weeks, with the load each week is to come to; it may not lie over another.

    Raises DocumentError.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    if kind not in PHASE_KINDS:
        raise wrong("kind", repr(kind), ", ".join(PHASE_KINDS))
    if not 1 <= weeks <= MOST_REPEATS:
        raise wrong("weeks", str(weeks), f"1 to {MOST_REPEATS}")
    if not 0 <= low <= high <= MOST_LOAD:
        raise wrong("load_low", f"{low:g} to {high:g}", f"a low end at or under the high end, up to {MOST_LOAD}")
    begins = week_of(squad, begins)
    for other in squad.phases.all():
        if begins < other.begins + timedelta(weeks=other.weeks) and other.begins < begins + timedelta(weeks=weeks):
            raise wrong("begins", begins.isoformat(), f"weeks that are free of “{other.kind}” from {other.begins}")
    with transaction.atomic():
        made = Phase.objects.create(
            squad=squad, begins=begins, weeks=weeks, kind=kind, load_low=low, load_high=high
        )
        record(actor, squad.pk, Act.PHASE_ADDED, str(made))
    return made


def drop_phase(actor: Actor, phase_id: int) -> None:
    """Take a phase away."""
    phase = get_object_or_404(Phase, pk=phase_id, squad_id__in=actor.squads())
    actor.require(phase.squad_id, Right.PLAN)
    with transaction.atomic():
        record(actor, phase.squad_id, Act.PHASE_DROPPED, str(phase))
        phase.delete()


def week_of(squad: Squad, day: date) -> date:
    """The first day of the squad's week that a day lies in."""
    return day - timedelta(days=(day.weekday() - squad.week_start) % 7)
