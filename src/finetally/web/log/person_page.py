"""One person over time: scores of the same shape, ratings, what they did by week and movement, what was noted."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, timedelta
from typing import Any, Literal
from uuid import UUID

from django.db.models import QuerySet

from finetally.core.learn.pace import better
from finetally.core.log.movements import DoneDensity, density_of, with_counted
from finetally.web.log.learning import LearnedHere, learned_here
from finetally.web.log.models import LoggedEntry, LogNote, Rating, RatingWay, Result
from finetally.web.people.people import read_person
from finetally.web.plan.entries import week_of
from finetally.web.plan.week import Whose, planned_loads_between
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of

LOOKED_BACK_ON = timedelta(weeks=53)
FRESH_FOR = timedelta(weeks=4)
REP_KINDS: tuple[Literal["counted", "called", "paced", "estimated"], ...] = (
    "counted",
    "called",
    "paced",
    "estimated",
)
"""How reps are known; kinds are never added up."""


@dataclass(frozen=True, slots=True)
class ScorePoint:
    """A score of somebody in a window of a shape, with its pace factor."""

    entry: UUID
    on: date
    score: Mapping[str, Any]
    factor: float | None


@dataclass
class ScoreLine:
    """Scores of the same shape, in order of time; `title`: what the last one's session was called."""

    title: str
    points: list[ScorePoint]
    best: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class RatedPoint:
    """A rating against what was estimated."""

    entry: UUID
    on: date
    title: str
    rated: float
    estimated: float | None


@dataclass
class WeekDone:
    """A week of somebody: minutes and load, seconds of work, reps by how they are known, sets, kilograms; landings
    by grade; sets by row of the stave, of what each mostly is. `figured_minutes`: those whose work is known.
    """

    begins: date
    minutes: float = 0.0
    load: float = 0.0
    work_s: float = 0.0
    figured_minutes: float = 0.0
    sessions: int = 0
    sets: int = 0
    reps: dict[str, int] = field(default_factory=dict)
    kg: float = 0.0
    landings: dict[str, int] = field(default_factory=dict)
    rows: dict[str, int] = field(default_factory=dict)

    @property
    def density(self) -> DoneDensity | None:
        """How dense sessions were; of other training no work is known, and its minutes play no part."""
        return density_of(self.figured_minutes, self.work_s, sum(self.reps.values()), self.kg)


@dataclass
class MovementSum:
    """What somebody did of a movement in the time that is looked at; `last`: the day it was last done."""

    key: str
    last: date
    sessions: int = 0
    sets: int = 0
    reps: dict[str, int] = field(default_factory=dict)
    kg: float = 0.0
    landings: int = 0


@dataclass(frozen=True, slots=True)
class PersonPage:
    """What the log tells of somebody, a year back."""

    person: Person
    learned: LearnedHere
    lines: list[ScoreLine]
    rated: list[RatedPoint]
    weeks: list[WeekDone]
    movements: list[MovementSum]
    notes: list[LogNote]
    plans: bool
    fresh: list[tuple[date, int]] = field(default_factory=list)


def person_page(actor: Actor, person_id: UUID) -> PersonPage:
    """A person's page, for those who plan and the person. Some fifteen queries, however long the log."""
    person = read_person(actor, person_id)
    squad = person.squad
    today = today_of(squad)
    since = today - LOOKED_BACK_ON
    results = Result.objects.filter(
        person=person, used=True, unfinished="", entry__day__gte=since, entry__day__lte=today,
        entry__removed_at=None,
    ).exclude(shape="")  # fmt: skip
    ratings = Rating.objects.filter(person=person, entry__day__gte=since, entry__removed_at=None)
    ratings = ratings.exclude(way=RatingWay.GROUP)
    rated = ratings.order_by("entry__day").values_list("entry", "entry__day", "entry__title", "effort", "estimated")
    weeks, movements = _done(person, since, today)
    return PersonPage(
        person,
        learned_here(person),
        _lines(results),
        [RatedPoint(*row) for row in rated],
        weeks,
        movements,
        list(person.log_notes.filter(entry__removed_at=None).select_related("entry").defer("entry__document")),
        actor.may(squad.pk, Right.PLAN),
        list(person.freshness.filter(day__gt=today - FRESH_FOR).order_by("day").values_list("day", "value")),
    )


def _counted(person: Person, since: date) -> dict[str, dict[str, list[Mapping[str, Any]]]]:
    """What somebody's scores say was done, by entry and block: one for each score. One query."""
    results = Result.objects.filter(person=person, used=True, unfinished="", entry__day__gte=since)
    results = results.filter(entry__removed_at=None)
    found: dict[str, dict[str, list[Mapping[str, Any]]]] = {}
    for entry, block, counted in results.exclude(counted={}).values_list("entry", "block", "counted"):
        found.setdefault(str(entry), {}).setdefault(str(block), []).append(counted)
    return found


def _lines(results: QuerySet[Result]) -> list[ScoreLine]:
    """Scores by shape; those that came most often first. One query, of the few fields that are shown."""
    lines: dict[str, ScoreLine] = {}
    rows = results.order_by("entry__day", "id").values_list(
        "shape", "entry__title", "entry", "entry__day", "score", "factor"
    )
    for shape, title, entry, day, score, factor in rows:
        if not score:
            continue
        point = ScorePoint(entry, day, score, factor)
        line = lines.get(shape)
        if line is None:
            lines[shape] = ScoreLine(title, [point], score)
            continue
        line.points.append(point)
        line.title, line.best = title, better(line.best, score)
    return sorted(lines.values(), key=lambda line: len(line.points), reverse=True)


def _done(person: Person, since: date, today: date) -> tuple[list[WeekDone], list[MovementSum]]:
    """What was logged of the entries that somebody came to, by week and by movement. Four queries."""
    squad = person.squad
    weeks: dict[date, WeekDone] = {}
    movements: dict[str, MovementSum] = {}
    loads = planned_loads_between(squad, since, today + timedelta(days=1), Whose(person=person.pk))
    done = [one for one in loads if one.logged]
    kept = LoggedEntry.objects.filter(entry__in=[one.key for one in done])
    counted = _counted(person, since)
    by_entry = {
        str(key): with_counted(found, blocks, counted.get(str(key), {}))
        for key, found, blocks in kept.values_list("entry", "movements", "blocks")
    }
    for one in done:
        begins = week_of(squad, one.day)
        week = weeks.setdefault(begins, WeekDone(begins))
        week.minutes += one.summary.minutes
        week.load += one.summary.load
        week.sessions += 1
        week.work_s += one.summary.work_s
        week.figured_minutes += one.summary.minutes if one.summary.work_s else 0.0
        for grade, count in one.summary.landings.items():
            week.landings[grade] = week.landings.get(grade, 0) + count
        for key, figures in by_entry.get(one.key, {}).items():
            movement = movements.setdefault(key, MovementSum(key, one.day))
            movement.last = max(movement.last, one.day)
            movement.sessions += 1
            movement.sets += figures["visits"]
            movement.landings += figures["landings"]
            movement.kg += figures["kg"]
            week.sets += figures["visits"]
            week.kg += figures["kg"]
            if figures["row"] and figures["visits"]:
                week.rows[figures["row"]] = week.rows.get(figures["row"], 0) + figures["visits"]
            for kind in REP_KINDS:
                movement.reps[kind] = movement.reps.get(kind, 0) + figures[kind]
                week.reps[kind] = week.reps.get(kind, 0) + figures[kind]
    ordered = sorted(movements.values(), key=lambda one: (-sum(one.reps.values()), one.key))
    return [weeks[key] for key in sorted(weeks)], ordered
