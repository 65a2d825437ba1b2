"""A new block put on each free day of a week: what it would clash with, and the load against the band."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from typing_extensions import TypedDict

from finetally.core.week.clash import Clash, clashes
from finetally.core.week.load import WEEK, is_hard
from finetally.core.week.plan import Rules
from finetally.core.week.planned_load import LoadSummary, PlannedLoad

NEW = "new"
"""The key of the planned load that is put there."""


class FreeDay(TypedDict):
    """A day of the week and why nothing is put there (None: it is free)."""

    day: str
    why: str | None


class Placed(TypedDict):
    """A block on a day: the day's and the week's load then, its clashes, and whether hard days would touch.

    `off`: how far the week is from its band (`Band.off`), None without one.
    """

    day: str
    day_load: float
    week_load: float
    off: float | None
    clashes: list[Clash]
    hard_beside_hard: bool


@dataclass(frozen=True, slots=True)
class WeekContext:
    """A week into which something is put: its first day, its entries, those near it on other days, its rules."""

    begins: date
    entries: Sequence[PlannedLoad]
    near: Sequence[PlannedLoad]
    rules: Rules
    today: date


def free_days(around: WeekContext) -> list[FreeDay]:
    """The seven days: free are those to come that are no rest days, in the hall, and have nothing on them yet."""
    taken = {entry.day for entry in around.entries}
    found: list[FreeDay] = []
    for number in range(WEEK):
        day = around.begins + timedelta(days=number)
        why = None
        if day < around.today:
            why = "over"
        elif number in around.rules.rest_days:
            why = "rest"
        elif number in around.rules.no_hall:
            why = "no hall"
        elif day in taken:
            why = "taken"
        found.append({"day": day.isoformat(), "why": why})
    return found


def placed(summary: LoadSummary, around: WeekContext) -> list[Placed]:
    """A load summary on each free day, in order of days."""
    week = sum(entry.summary.load for entry in around.entries) + summary.load
    return [
        _on(date.fromisoformat(one["day"]), summary, week, around)
        for one in free_days(around)
        if one["why"] is None
    ]


def _on(day: date, summary: LoadSummary, week: float, around: WeekContext) -> Placed:
    rules, there = around.rules, [*around.entries, *around.near]
    new = PlannedLoad(NEW, day, summary)
    found = [] if rules.clash_hours is None else clashes([*there, new], rules.clash_hours)
    own = [new, *(one for one in around.entries if one.day == day)]
    beside = [[one for one in there if one.day == day + timedelta(days=by)] for by in (-1, 1)]
    hard = [is_hard(one, rules.hard_effort, rules.hard_load) for one in (own, *beside)]
    return {
        "day": day.isoformat(),
        "day_load": summary.load + sum(entry.summary.load for entry in around.entries if entry.day == day),
        "week_load": week,
        "off": rules.band.off(week) if rules.band is not None else None,
        "clashes": [one for one in found if NEW in (one["first"], one["second"])],
        "hard_beside_hard": hard[0] and any(hard[1:]),
    }
