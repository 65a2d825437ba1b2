"""Formats of a comparison put on the free days of a week of the squad."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta

from typing_extensions import TypedDict

from finetally.core.compare.columns import Column
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.load import WEEK
from finetally.core.week.placing import FreeDay, Placed, WeekContext, free_days, placed
from finetally.core.week.planned_load import summary_of
from finetally.web.plan.week import PlannedWeek, read_week
from finetally.web.squads.actor import Actor
from finetally.web.squads.figuring_context import FiguringContext
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_to_look_at


class PlacedFormat(TypedDict):
    """A column of the comparison, its load, and what it makes on each free day."""

    key: str
    name: str
    load: float
    days: list[Placed]


class Placing(TypedDict):
    """The week that is looked at, its load as planned and its band, its days, and every format on each free one.

    `titles`: what the entries are called that a clash names.
    """

    begins: str
    planned_load: float
    low: float | None
    high: float | None
    days: list[FreeDay]
    formats: list[PlacedFormat]
    titles: dict[str, str]


def place(
    actor: Actor, squad_id: int | None, day: date | None, columns: Sequence[Column], context: FiguringContext
) -> Placing:
    """Each column's block on each free day of the week of `day`.

    Where no day is named: of this week, or of the next one if nothing is free in this.
    """
    squad = squad_to_look_at(actor, squad_id)
    week = read_week(actor, squad.pk, day or today_of(squad))
    around = _around(week)
    if day is None and not any(one["why"] is None for one in free_days(around)):
        week = read_week(actor, squad.pk, week.begins + timedelta(days=WEEK))
        around = _around(week)
    formats: list[PlacedFormat] = []
    for column in columns:
        if column["document"] is None:
            continue
        t = tally(parse_session(column["document"]), library=context.library, methods=context.methods)
        days = placed(summary_of(t), around)
        formats.append({"key": column["key"], "name": column["name"], "load": t.load, "days": days})
    band = week.rules.band
    return {
        "begins": week.begins.isoformat(),
        "planned_load": sum(planned_load.summary.load for planned_load in week.planned_loads),
        "low": band.low if band is not None else None,
        "high": band.high if band is not None else None,
        "days": free_days(around),
        "formats": formats,
        "titles": {planned_load.key: planned_load.title for planned_load in (*week.planned_loads, *week.around)},
    }


def _around(week: PlannedWeek) -> WeekContext:
    return WeekContext(week.begins, week.planned_loads, week.around, week.rules, today_of(week.squad))
