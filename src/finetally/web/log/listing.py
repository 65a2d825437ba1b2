"""The log as a list: what waits to be logged, and what was, the latest first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from statistics import fmean
from typing import Any
from uuid import UUID

from django.db.models import Count, Max, Q, QuerySet

from finetally.web.log.models import LoggedEntry, LogNote, Rating, RatingWay, Result
from finetally.web.log.off_course import KindOff, kinds_off
from finetally.web.people.people import own_person
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import summary_from_json
from finetally.web.plan.week import entries_between, whose_plan
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for, squad_to_look_at

SHOWN_AT_ONCE = timedelta(weeks=8)
LAST_DONE_IN = timedelta(weeks=52)
WAITS_FOR = timedelta(weeks=4)
"""What was not logged for so long waits no more: nobody remembers it."""


@dataclass(frozen=True, slots=True)
class LogLine:
    """An entry of the log: what was planned and done of it, how it was rated by how many, what is to be looked at.

    `came`, `away`: how many of those who were noted; `notes`: how many there are; `disputed`: windows whose counts
    differ; `run_s`: how long its longest run was; `own_*`: of whoever looks, where they do not plan.
    """

    entry: Entry
    how: str
    planned_minutes: float
    planned_effort: float
    rated: float | None
    ratings: int
    away: int
    notes: int
    results: int
    disputed: int
    runs: int


@dataclass(frozen=True, slots=True)
class LogList:
    """The log of a squad from a day back. `earlier`: the day to go on from; None at the log's beginning.

    `off`: estimates that were off lately, for the squad as a whole; with the first page, for those who plan.
    """

    squad: Squad
    waiting: list[LogLine]
    lines: list[LogLine]
    earlier: date | None
    plans: bool
    off: list[KindOff]


def log_list(actor: Actor, squad_id: int | None, before: date | None = None) -> LogList:
    """Eight weeks of the log before a day (today's included without one). Eleven queries, however many entries."""
    squad = squad_to_look_at(actor, squad_id)
    plans = actor.may(squad.pk, Right.PLAN)
    own = None if plans else own_person(actor, squad)
    whose = whose_plan(actor, squad, None, None)
    today = today_of(squad)
    ends = before or today + timedelta(days=1)
    begins = ends - SHOWN_AT_ONCE
    found = entries_between(squad, begins, ends, whose) if not plans else _of_all(squad, begins, ends)
    shown = [
        one for one in found.filter(skipped=False).order_by("-day", "-time", "-created_at") if one.day <= today
    ]
    logged = [one for one in shown if one.logged_minutes is not None]
    waiting = [one for one in shown if one.logged_minutes is None and one.day >= today - WAITS_FOR] if plans else []
    counts = _Counts.of([*logged, *waiting], own)
    older = squad.entries.filter(day__lt=begins, logged_minutes__isnull=False).aggregate(last=Max("day"))["last"]
    return LogList(
        squad,
        [counts.line(one) for one in reversed(waiting)] if before is None else [],
        [counts.line(one) for one in logged],
        begins if older is not None else None,
        plans,
        kinds_off(squad) if plans and before is None else [],
    )


def _of_all(squad: Squad, begins: date, ends: date) -> QuerySet[Entry]:
    """For those who plan: also what is for one person."""
    found = squad.entries.filter(day__gte=begins, day__lt=ends).defer("document")
    return found.select_related("group", "person")


def last_done_by_movement(actor: Actor, squad_id: int | None) -> dict[str, int]:
    """How many days ago each movement was last logged, a year back. For those who plan. Two queries."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    today = today_of(squad)
    kept = LoggedEntry.objects.filter(
        entry__squad=squad,
        entry__day__gte=today - LAST_DONE_IN,
        entry__day__lte=today,
        entry__removed_at=None,
    ).order_by("entry__day")
    found: dict[str, int] = {}
    for day, movements in kept.values_list("entry__day", "movements"):
        days_ago = (today - day).days
        found.update((key, days_ago) for key, one in movements.items() if one.get("visits", 0))
    return found


@dataclass
class _Counts:
    """What lines tell of entries, asked for all of them at once."""

    how: dict[UUID, LoggedEntry] = field(default_factory=dict)
    ratings: dict[UUID, list[tuple[str, float]]] = field(default_factory=dict)
    notes: dict[UUID, int] = field(default_factory=dict)
    away: dict[UUID, int] = field(default_factory=dict)
    runs: dict[UUID, int] = field(default_factory=dict)
    results: dict[UUID, tuple[int, int]] = field(default_factory=dict)

    @classmethod
    def of(cls, entries: Sequence[Entry], own: Person | None) -> _Counts:
        """Six queries. `own`: whose alone is told."""
        keys = [one.pk for one in entries]
        mine = Q() if own is None else Q(person=own)
        made = cls()
        logged = LoggedEntry.objects.filter(entry__in=keys).only("entry_id", "how", "planned")
        made.how = {one.entry_id: one for one in logged}
        for key, way, effort in Rating.objects.filter(mine, entry__in=keys).values_list("entry", "way", "effort"):
            made.ratings.setdefault(key, []).append((way, effort))
        made.notes = _count(LogNote.objects.filter(mine, entry__in=keys))
        made.away = _count(Attendance.objects.filter(mine, entry__in=keys, came=False))
        made.runs = dict(
            Entry.objects.filter(pk__in=keys).annotate(n=Count("runs")).values_list("pk", "n")
        ) if own is None else {}  # fmt: skip
        counted = (
            Result.objects.filter(mine, entry__in=keys).order_by().values("entry")
            .annotate(count=Count("id", filter=Q(used=True)), aside=Count("id", filter=Q(disputed=True)))
            .values_list("entry", "count", "aside")
        )  # fmt: skip
        made.results = {key: (count, aside) for key, count, aside in counted}
        return made

    def line(self, entry: Entry) -> LogLine:
        """The line of one of them."""
        told = self.ratings.get(entry.pk, [])
        own = [effort for way, effort in told if way != RatingWay.GROUP] or [effort for _, effort in told]
        logged = self.how.get(entry.pk)
        planned = summary_from_json(entry.summary)
        results, aside = self.results.get(entry.pk, (0, 0))
        return LogLine(
            entry,
            logged.how if logged is not None else "",
            planned.minutes, planned.effort,
            fmean(own) if own else None, len(own),
            self.away.get(entry.pk, 0), self.notes.get(entry.pk, 0), results, aside, self.runs.get(entry.pk, 0),
        )  # fmt: skip


def _count(found: QuerySet[Any]) -> dict[UUID, int]:
    return dict(found.order_by().values("entry").annotate(n=Count("id")).values_list("entry", "n"))
