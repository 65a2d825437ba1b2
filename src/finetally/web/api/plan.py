"""The plan over the API: weeks, entries, days, phases."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from datetime import time as time_of_day
from typing import Any
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.week.balance import WeekBeam, WeekRow
from finetally.core.week.clash import Clash
from finetally.core.week.load import WeekLoad
from finetally.web.api.days import PlanDay
from finetally.web.api.figures import json_answer
from finetally.web.api.request import ActorRequest
from finetally.web.plan import entries, levelling, removing
from finetally.web.plan.models import Change, Day, Entry, Phase
from finetally.web.plan.refigure import Refigured, aged_in, lately
from finetally.web.plan.summaries import summary_from_json
from finetally.web.plan.week import PlannedWeek, read_week
from finetally.web.problems import ProblemOut
from finetally.web.squads.actor import Right
from finetally.web.squads.use_cases import methods_version

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 409: ProblemOut, 422: ProblemOut}


class GroupName(Schema):
    """A group of the squad: its number, name and mark."""

    id: int
    name: str
    mark: str


class EntryOut(Schema):
    """An entry of the plan, with what it comes to. `newer`: its session has a newer version than its copy.

    `changed`: the copy was changed for this day. `notes`: empty for those who do not plan.
    """

    id: UUID
    day: date
    time: time_of_day | None
    title: str
    session: UUID | None
    newer: bool
    changed: bool
    minutes: float
    effort: float
    load: float
    group: GroupName | None
    person: UUID | None
    locked: bool
    skipped: bool
    logged: bool
    notes: str
    version: int


class DayOut(Schema):
    """A day of a week: its intent and own share, the load it is to carry (if anything says so), the hall."""

    day: date
    intent: str
    share: float | None
    hall: bool
    intended: float | None
    version: str


class PhaseOut(Schema):
    """A phase, which of its weeks this is, from 1, and how far this week's load is from its band (`Band.off`)."""

    id: int
    kind: str
    begins: date
    weeks: int
    week: int
    load_low: float
    load_high: float
    off: float


class ItemOut(Schema):
    """One edit that was taken."""

    entry: str
    title: str
    what: str
    day: date | None
    undone: bool


class ChangeOut(Schema):
    """Edits taken together."""

    id: int
    items: list[ItemOut]


class RefiguredOut(Schema):
    """Entries of the squad that were figured anew lately, after its methods or the release changed."""

    count: int
    at: datetime


class WeekOut(Schema):
    """A week: what stands on its days and what that makes. `aged`: how many entries are yet to be figured anew."""

    squad: int
    begins: date
    hard_effort: float
    entries: list[EntryOut]
    days: list[DayOut]
    phase: PhaseOut | None
    load: WeekLoad
    rows: list[WeekRow]
    beams: list[WeekBeam]
    clashes: list[Clash]
    changes: list[ChangeOut]
    methods_version: str
    aged: int
    refigured: RefiguredOut | None


class Details(Schema):
    """What can be set of an entry; what is not sent stays as it is."""

    day: PlanDay | None = None
    time: time_of_day | None = None
    group: int | None = None
    person: UUID | None = None
    locked: bool | None = None
    skipped: bool | None = None
    notes: str | None = Field(None, max_length=2000)
    minutes: float | None = None
    effort: float | None = None
    logged_minutes: float | None = None
    logged_effort: float | None = None
    newest: bool | None = None

    def given(self) -> dict[str, Any]:
        """What was sent; words and switches that were sent as nothing are empty."""
        sent = self.model_dump(exclude_unset=True)
        empty = {"notes": "", "locked": False, "skipped": False}
        return {name: empty.get(name, value) if value is None else value for name, value in sent.items()}


class ChangeIn(Details):
    """What is set of an entry, and the version of it that was seen."""

    version: int

    def given(self) -> dict[str, Any]:
        """As `Details`, without the version."""
        return {name: value for name, value in super().given().items() if name != "version"}


class EntryIn(Details):
    """A session to put on a day, or other training with a title, minutes and effort."""

    session: UUID | None = None
    title: str = Field("", max_length=500)
    squad: int | None = None


class DayIn(Schema):
    """What a day is meant to be, and the version of it that was seen."""

    version: str = Field(max_length=64)
    intent: str = Field("", max_length=10)
    share: float | None = None
    hall: bool = True
    squad: int | None = None


class PhaseIn(Schema):
    """Several weeks with the load each is to come to."""

    begins: PlanDay
    weeks: int
    kind: str = Field(max_length=10)
    load_low: float
    load_high: float
    squad: int | None = None


class RepeatIn(Schema):
    """How many weeks on an entry is repeated, or the day it is copied to."""

    weeks: int | None = None
    day: PlanDay | None = None


def entry_out(one: Entry, *, noted: bool = False) -> EntryOut:
    """An entry as it is shown; with its notes to those who plan."""
    summary = summary_from_json(one.summary)
    logged = one.logged_minutes is not None and one.logged_effort is not None
    minutes, effort = (one.logged_minutes, one.logged_effort) if logged else (summary.minutes, summary.effort)
    return EntryOut(
        id=one.pk, day=one.day, time=one.time, title=one.title, session=one.session_id, newer=one.is_behind,
        changed=one.changed,
        minutes=minutes or 0, effort=effort or 0, load=(minutes or 0) * (effort or 0) if logged else summary.load,
        group=_group(one), person=one.for_person, locked=one.locked, skipped=one.skipped, logged=logged,
        notes=one.notes if noted else "", version=one.sequence,
    )  # fmt: skip


def _group(one: Entry) -> GroupName | None:
    return None if one.group is None else GroupName(id=one.group.pk, name=one.group.name, mark=one.group.mark)


def change_out(one: Change) -> ChangeOut:
    """A change as it is shown."""
    return ChangeOut(
        id=one.pk, items=[ItemOut(**{name: item.get(name) for name in ItemOut.model_fields}) for item in one.items]
    )


def _week(request: ActorRequest, week: PlannedWeek) -> WeekOut:
    days = [week.begins + timedelta(days=n) for n in range(7)]
    ids = [str(one.pk) for one in week.entries]
    plans = request.auth.may(week.squad.pk, Right.PLAN)
    return WeekOut(
        squad=week.squad.pk,
        begins=week.begins,
        hard_effort=week.rules.hard_effort,
        entries=[entry_out(one, noted=plans) for one in week.entries],
        days=[_day(day, week.days.get(day), week.intended.get(n)) for n, day in enumerate(days)],
        phase=_phase(week.phase, week.begins, week.load["totals"]["load"]) if week.phase is not None else None,
        load=week.load,
        rows=list(week.rows),
        beams=list(week.beams),
        clashes=list(week.clashes),
        methods_version=methods_version(week.squad),
        aged=aged_in(week),
        refigured=_refigured(lately(week.squad)),
        changes=[change_out(one) for one in levelling.latest_changes(request.auth, week.squad.pk, ids)],
    )


def _refigured(one: Refigured | None) -> RefiguredOut | None:
    return RefiguredOut(count=one.count, at=one.at) if one is not None else None


def _day(day: date, planned: Day | None, intended: float | None) -> DayOut:
    version = entries.day_version(planned)
    if planned is None:
        return DayOut(day=day, intent="", share=None, hall=True, intended=intended, version=version)
    return DayOut(
        day=day, intent=planned.intent, share=planned.share, hall=planned.hall, intended=intended, version=version
    )


def _phase(phase: Phase, begins: date, load: float) -> PhaseOut:
    return PhaseOut(
        id=phase.pk,
        kind=phase.kind,
        begins=phase.begins,
        weeks=phase.weeks,
        week=(begins - phase.begins).days // 7 + 1,
        load_low=phase.load_low,
        load_high=phase.load_high,
        off=phase.band.off(load),
    )


@router.get("/week", response={200: WeekOut, **REFUSALS}, operation_id="week")
def week(
    request: ActorRequest,
    day: PlanDay,
    squad: int | None = None,
    person: UUID | None = None,
    group: int | None = None,
) -> HttpResponse:
    """The week that `day` lies in: entries, days, load, rows and clashes, for the whole squad as if all came.

    With `group` what is for all and for it; with `person` what is for them, with their own minutes where those were
    noted.
    """
    return json_answer(_week(request, read_week(request.auth, squad, day, person, group)))


@router.post("/entries", response={201: EntryOut, **REFUSALS}, operation_id="plan_entry")
def plan_entry(request: ActorRequest, data: EntryIn) -> Status[EntryOut]:
    """Put a kept session on a day, or other training by its title, `minutes` and `effort` (0 to 10)."""
    details = {
        name: value for name, value in data.given().items() if name not in ("session", "title", "squad", "day")
    }
    if data.day is None:
        raise entries.wrong("day", "no day", "a day")
    if data.session is not None:
        made = entries.plan_session(request.auth, data.session, data.day, details)
    else:
        made = entries.plan_other(request.auth, data.squad, data.day, data.title, details)
    return Status(201, entry_out(made, noted=True))


@router.patch("/entries/{entry_id}", response={200: EntryOut, **REFUSALS}, operation_id="change_entry")
def change_entry(request: ActorRequest, entry_id: UUID, data: ChangeIn) -> EntryOut:
    """Change what is sent of an entry: its day, time, group, lock, what was logged; `newest` takes the
    session's newest version. 409 where the entry is another by now than `version`.
    """
    return entry_out(entries.change_entry(request.auth, entry_id, data.version, data.given()), noted=True)


@router.post("/entries/{entry_id}/again", response={201: list[EntryOut], **REFUSALS}, operation_id="repeat_entry")
def repeat_entry(request: ActorRequest, entry_id: UUID, data: RepeatIn) -> Status[list[EntryOut]]:
    """Copy an entry to `day`, or to the same weekday of the next `weeks` weeks."""
    if data.day is not None:
        made = entries.copy_entry(request.auth, entry_id, [data.day])
    else:
        made = entries.repeat_weekly(request.auth, entry_id, data.weeks or 0)
    return Status(201, [entry_out(one) for one in made])


class KeptOut(Schema):
    """The session that was made."""

    id: UUID


@router.post("/entries/{entry_id}/session", response={201: KeptOut, **REFUSALS}, operation_id="keep_entry")
def keep_entry(request: ActorRequest, entry_id: UUID) -> Status[KeptOut]:
    """Make a session of its own of what stands on the day, with the changes that the day made to it."""
    return Status(201, KeptOut(id=entries.keep_as_session(request.auth, entry_id).pk))


@router.delete("/entries/{entry_id}", response={204: None, **REFUSALS}, operation_id="drop_entry")
def drop_entry(request: ActorRequest, entry_id: UUID, version: int) -> Status[None]:
    """Remove an entry from the plan; restorable for 30 days. 409 where it is another by now than `version`."""
    removing.drop_entry(request.auth, entry_id, version)
    return Status(204, None)


class RemovedOut(Schema):
    """An entry that was removed and can be restored.

    `logged`: it was in the log; `left`: days until it is deleted.
    """

    id: UUID
    day: date
    title: str
    logged: bool
    left: int


@router.get("/removed", response={200: list[RemovedOut], **REFUSALS}, operation_id="removed_entries")
def removed_entries(request: ActorRequest, squad: int | None = None) -> list[RemovedOut]:
    """Entries that were removed in the last 30 days, the latest first. For those who plan."""
    return [
        RemovedOut(id=one.pk, day=one.day, title=one.title, logged=one.logged_minutes is not None, left=left)
        for one, left in removing.removed_entries(request.auth, squad)
    ]


@router.get("/entries/{entry_id}/noted", response={200: dict[str, int], **REFUSALS}, operation_id="noted_of_entry")
def noted_of_entry(request: ActorRequest, entry_id: UUID) -> dict[str, int]:
    """How much was noted of an entry and would be removed with it: its log, scores, ratings, notes, runs, and who
    was there.
    """
    return removing.noted_of(request.auth, entry_id)


@router.post("/entries/{entry_id}/restore", response={200: EntryOut, **REFUSALS}, operation_id="restore_entry")
def restore_entry(request: ActorRequest, entry_id: UUID) -> EntryOut:
    """Put a removed entry back on the plan, with all that was noted of it."""
    return entry_out(removing.restore_entry(request.auth, entry_id))


@router.put("/days/{day}", response={204: None, **REFUSALS}, operation_id="set_day")
def set_day(request: ActorRequest, day: PlanDay, data: DayIn) -> Status[None]:
    """Set what a day is meant to be, its share of the week's load and whether there is a hall. 409 where it
    changed.
    """
    entries.set_day(request.auth, data.squad, day, data.version, data.intent, data.share, hall=data.hall)
    return Status(204, None)


@router.post("/phases", response={204: None, **REFUSALS}, operation_id="add_phase")
def add_phase(request: ActorRequest, data: PhaseIn) -> Status[None]:
    """Give several weeks in a row a kind, and a band that the load of each is to lie in; it may not
    lie over another phase.
    """
    entries.add_phase(request.auth, data.squad, data.begins, data.weeks, data.kind, data.load_low, data.load_high)
    return Status(204, None)


@router.delete("/phases/{phase_id}", response={204: None, **REFUSALS}, operation_id="drop_phase")
def drop_phase(request: ActorRequest, phase_id: int) -> Status[None]:
    """Remove a phase; the days and entries in it stay."""
    entries.drop_phase(request.auth, phase_id)
    return Status(204, None)
