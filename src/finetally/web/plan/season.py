"""Seasons: weeks in a row, and one week beside another."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID

from typing_extensions import TypedDict

from finetally.core.week.balance import week_rows
from finetally.core.week.clash import clashes
from finetally.core.week.load import WEEK, LoadGauge, week_load
from finetally.web.plan.entries import week_of, wrong
from finetally.web.plan.models import Phase
from finetally.web.plan.week import (
    BEFORE,
    PlannedWeek,
    away_of,
    planned_loads_between,
    read_week,
    whose_plan,
)
from finetally.web.squads.actor import Actor
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_to_look_at

MOST_WEEKS = 53


class SeasonWeek(TypedDict):
    """A week of a season: loads of its days, rows in seconds, figures, clashes, the phase it lies in.

    `off`: how far its load is from the phase's band (`Band.off`); None without a phase or without anything planned.
    """

    begins: str
    days: list[float]
    rows: dict[str, float]
    load: float
    monotony: LoadGauge
    change: LoadGauge
    acwr_coupled: LoadGauge
    acwr_uncoupled: LoadGauge
    acwr_ewma: LoadGauge
    usual: LoadGauge
    logged: int
    clashes: int
    entries: int
    hard_days: int
    phase: str | None
    low: float | None
    high: float | None
    off: float | None


@dataclass(frozen=True, slots=True)
class WeekComparison:
    """A week, another one, and by how much each figure of the first differs from the other."""

    week: PlannedWeek
    other: PlannedWeek
    deltas: dict[str, float]


def read_season(
    actor: Actor,
    squad_id: int | None,
    day: date,
    weeks: int,
    person: UUID | None = None,
    group: int | None = None,
) -> list[SeasonWeek]:
    """So many weeks from the one that a day lies in; of the squad as if all came, of a group, or of one person.

    A few queries, however many weeks. Raises DocumentError for a number of weeks out of bounds.
    """
    if not 1 <= weeks <= MOST_WEEKS:
        raise wrong("weeks", str(weeks), f"1 to {MOST_WEEKS}")
    squad = squad_to_look_at(actor, squad_id)
    whose = whose_plan(actor, squad, person, group)
    begins = week_of(squad, day)
    ends = begins + timedelta(weeks=weeks)
    planned_loads = planned_loads_between(squad, begins - BEFORE, ends, whose)
    history_from = min((planned_load.day for planned_load in planned_loads), default=None)
    methods = squad.methods_value()
    phases = list(squad.phases.all())
    today, away = today_of(squad), away_of(squad, whose.person)
    season: list[SeasonWeek] = []
    for number in range(weeks):
        first = begins + timedelta(weeks=number)
        near = [
            planned_load
            for planned_load in planned_loads
            if first - BEFORE <= planned_load.day < first + timedelta(days=WEEK)
        ]
        own = [planned_load for planned_load in near if planned_load.day >= first]
        load = week_load(
            near, first, history_from=max(history_from, first - BEFORE) if history_from else None,
            hard_effort=methods.hard_day_effort, hard_load=methods.hard_day_load, today=today, away=away,
        )  # fmt: skip
        phase = _phase_of(phases, first)
        season.append(
            {
                "begins": first.isoformat(),
                "days": [one["totals"]["load"] for one in load["days"]],
                "rows": {row["name"]: row["work_s"] for row in week_rows(own, first)},
                "load": load["totals"]["load"],
                "monotony": load["monotony"],
                "change": load["change"],
                "acwr_coupled": load["acwr_coupled"],
                "acwr_uncoupled": load["acwr_uncoupled"],
                "acwr_ewma": load["acwr_ewma"],
                "usual": load["usual"],
                "logged": load["logged"],
                "clashes": len(clashes(own, methods.clash_hours)),
                "entries": len(own),
                "hard_days": sum(one["hard"] for one in load["days"]),
                "phase": phase.kind if phase else None,
                "low": phase.load_low if phase else None,
                "high": phase.load_high if phase else None,
                "off": phase.band.off(load["totals"]["load"]) if phase and own else None,
            }
        )
    return season


def _phase_of(phases: list[Phase], first: date) -> Phase | None:
    return next((one for one in phases if one.begins <= first < one.begins + timedelta(weeks=one.weeks)), None)


def compare_weeks(actor: Actor, squad_id: int | None, day: date, other: date) -> WeekComparison:
    """A week held against another one."""
    week, held = read_week(actor, squad_id, day), read_week(actor, squad_id, other)
    mine, theirs = _numbers(week), _numbers(held)
    deltas = {name: mine[name] - theirs[name] for name in mine if name in theirs}
    return WeekComparison(week, held, deltas)


def _numbers(week: PlannedWeek) -> dict[str, float]:
    numbers = dict(week.load["totals"])
    numbers.update({f"row.{row['name']}": row["work_s"] for row in week.rows})
    numbers["clashes"] = float(len(week.clashes))
    for name in ("monotony", "strain"):
        value = week.load[name]["value"]
        if value is not None:
            numbers[name] = value
    return numbers
