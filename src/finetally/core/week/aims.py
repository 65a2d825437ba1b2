"""What a levelled week is to come to: each aim once, in whole numbers, for the solver and for whoever checks it.

Loads are whole thousandths and seconds whole tenths, as they are kept: nothing is rounded on the way.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from finetally.core.week.balance import Target, row_seconds
from finetally.core.week.load import WEEK
from finetally.core.week.plan import Rules, intended
from finetally.core.week.planned_load import LoadSummary

LOAD_SCALE = 1_000
"""Whole units in a load of 1."""
TIME_SCALE = 10
"""Whole units in a second."""
SHARE_SCALE = 10_000
INTENT_OFF = 0.25
"""A day's intent is met within so much of its intended load (and a rest day by no load at all)."""
VARIED = "monotony under 2"
BOUND_EPS = 1e-6

AimKind = Literal["band", "intent", "target", "monotony"]


def load_units(summary: LoadSummary) -> int:
    """A load in whole thousandths."""
    return round(summary.load * LOAD_SCALE)


def row_units(summary: LoadSummary, row: str | None = None) -> int:
    """Work of a row of the stave (None: of all rows) in whole tenths of a second."""
    seconds = row_seconds(summary.patterns)
    of = seconds.values() if row is None else (seconds[row],)
    return sum(round(one * TIME_SCALE) for one in of)


@dataclass(frozen=True, slots=True)
class Aim:
    """One aim. `low`, `high`: bounds of a load, or of a row's seconds or share, in whole units; None: open."""

    name: str
    kind: AimKind
    day: int | None = None
    low: int | None = None
    high: int | None = None
    row: str | None = None
    share: bool = False


def aims_of(rules: Rules, planned: Sequence[int]) -> list[Aim]:
    """The aims of a week whose days carry `planned` loads now (in whole units). Days gone by have none."""
    aims: list[Aim] = []
    total = sum(planned) / LOAD_SCALE
    if rules.band is not None:
        total = rules.band.middle
        aims.append(Aim("load in the band", "band", None, *_bounds(rules.band.low, rules.band.high)))
    days = intended(rules, total, [load / LOAD_SCALE for load in planned])
    for day, wanted in days.items():
        if day in rules.gone_days:
            continue
        bounds = _bounds(wanted * (1 - INTENT_OFF), wanted * (1 + INTENT_OFF)) if wanted > 0 else (0, 0)
        aims.append(Aim(f"intent of day {day + 1}", "intent", day, *bounds))
    aims += [_target_aim(target) for target in rules.targets]
    if rules.monotony_under:
        aims.append(Aim(VARIED, "monotony"))
    return aims


def _bounds(low: float, high: float) -> tuple[int, int]:
    return math.ceil(low * LOAD_SCALE - BOUND_EPS), math.floor(high * LOAD_SCALE + BOUND_EPS)


def _target_aim(target: Target) -> Aim:
    units = 60 * TIME_SCALE if target.by == "minutes" else SHARE_SCALE
    low = None if target.low is None else math.ceil(target.low * units - BOUND_EPS)
    high = None if target.high is None else math.floor(target.high * units + BOUND_EPS)
    return Aim(f"target of {target.row}", "target", None, low, high, target.row, target.by == "share")


def is_met(aim: Aim, summaries: Sequence[tuple[int, LoadSummary]]) -> bool:
    """Whether a week meets an aim. `summaries`: the day (0 to 6) of each entry, and what it comes to."""
    if aim.kind == "target":
        value = sum(row_units(one, aim.row) for _, one in summaries)
        unit = 1
        if aim.share:
            # A share of nothing is none: it meets no lower bound.
            unit = sum(row_units(one) for _, one in summaries)
            value *= SHARE_SCALE
            if unit == 0:
                return not aim.low
        return (aim.low is None or value >= aim.low * unit) and (aim.high is None or value <= aim.high * unit)
    days = [0] * WEEK
    for day, summary in summaries:
        days[day] += load_units(summary)
    if aim.kind == "monotony":
        return varied(days)
    value = sum(days) if aim.day is None else days[aim.day]
    return (aim.low is None or value >= aim.low) and (aim.high is None or value <= aim.high)


def varied(days: Sequence[int]) -> bool:
    """Monotony under 2 where all seven days count: 17·S² < 98·Q, with S the sum of the days, Q that of squares.

    From mean ÷ sample SD: mean = S/7, SD² = (Q - S²/7)/6. Of a week without load it is not.
    """
    return 17 * sum(days) ** 2 < 98 * sum(load * load for load in days)
