"""Load over days: daily and weekly totals, monotony, strain, change, ratios; and why, where there is no figure.

Session load = effort × minutes (Foster 2001). Monotony = mean ÷ sample SD of seven daily loads, strain = total ×
monotony (Foster 1998). Exponentially weighted means: λ = 2/(N + 1) (Williams 2017). Ratios of 7 to 28 days are
gauges of change, not predictions of injury, and disputed (Lolli 2019; Impellizzeri 2020).
"""

from __future__ import annotations

import math
import statistics
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal, get_args

from typing_extensions import TypedDict

from finetally.core.week.bout import Amount, Bout

WEEK = 7
CHRONIC = 28
TRAINING_DAYS_A_WEEK = 4
LOGGED_WEEKS = 4
FORGOTTEN = 14
"""After so many days in a row of which nothing is known the history begins anew."""
EPS = 1e-9

Currency = Literal[
    "load", "work-min", "reps-called", "reps-paced", "reps-estimated", "reps-mixed", "volume-kg", "hard-sets",
    "landings-low", "landings-medium", "landings-high", "landings-mixed",
]  # fmt: skip
CURRENCIES: tuple[Currency, ...] = get_args(Currency)
"""Reps of different kinds and landings of different grades are never one number; "mixed": from older releases."""

CAUTION = (
    "A gauge of change, not a prediction of injury; how much it tells is disputed (Lolli 2019; Impellizzeri 2020)."
)


class Figure(TypedDict):
    """A figure with the numbers that it was made of; `value` None and `why` where there is none."""

    value: float | None
    why: str | None
    terms: dict[str, float]


class DayLoad(TypedDict):
    """A day: its total in each currency, its highest effort, whether it is hard; its bouts, how many are logged.

    `away`: the squad is away, for rest or for what is not known. What stands on the day counts all the same.
    """

    day: str
    away: Literal["rest", "unknown"] | None
    totals: dict[str, float]
    effort: float
    hard: bool
    bouts: int
    logged: int


class WeekLoad(TypedDict):
    """Seven days from `begins`, in one currency where nothing else is said.

    `bouts`: how many there are, and how many of them are logged. `usual`: the week's total over the mean of the
    last four logged weeks before it, with the least and the most of them.
    """

    begins: str
    days: list[DayLoad]
    totals: dict[str, float]
    bouts: int
    logged: int
    monotony: Figure
    strain: Figure
    change: Figure
    coupled: Figure
    uncoupled: Figure
    weighted: Figure
    usual: Figure
    caution: str


def in_currency(amount: Amount, currency: Currency) -> float:
    """What an amount is in a currency."""
    family, _, kind = currency.partition("-")
    if family == "reps":
        return float(amount.reps.get(kind, 0))
    if family == "landings":
        return float(amount.landings.get(kind, 0))
    return {
        "load": amount.load,
        "work-min": amount.work_s / 60,
        "volume-kg": amount.volume_kg,
        "hard-sets": float(amount.hard_sets),
    }[currency]


def daily(bouts: Sequence[Bout], first: date, days: int, currency: Currency = "load") -> list[float]:
    """Totals of so many days from `first`; 0 for a day without a bout."""
    totals = [0.0] * days
    for bout in bouts:
        index = (bout.day - first).days
        if 0 <= index < days:
            totals[index] += in_currency(bout.amount, currency)
    return totals


def _none(why: str, terms: Mapping[str, float] | None = None) -> Figure:
    return {"value": None, "why": why, "terms": dict(terms or {})}


def _is(value: float, **terms: float) -> Figure:
    return {"value": value, "why": None, "terms": terms}


def monotony(seven: Sequence[float]) -> Figure:
    """Mean ÷ sample standard deviation of seven daily totals, rest days 0."""
    mean = statistics.fmean(seven)
    if mean <= EPS:
        return _none("nothing is planned in this week")
    spread = statistics.stdev(seven)
    if spread <= EPS * max(1.0, mean):
        return _none("all seven days are equal: there is no spread to divide by", {"mean": mean, "spread": 0.0})
    return _is(mean / spread, mean=mean, spread=spread)


def strain(seven: Sequence[float]) -> Figure:
    """Week's total × monotony."""
    of = monotony(seven)
    if of["value"] is None:
        return _none(str(of["why"]))
    total = math.fsum(seven)
    return _is(total * of["value"], total=total, monotony=of["value"])


def change(seven: Sequence[float], before: Sequence[float]) -> Figure:
    """This week's total less last week's, as a share of last week's."""
    this, last = math.fsum(seven), math.fsum(before)
    if last <= EPS:
        return _none("last week holds no load to compare with", {"this week": this})
    return _is(this / last - 1, **{"this week": this, "last week": last})


@dataclass(frozen=True, slots=True)
class Away:
    """Days on which the whole squad was away, both ends included. `known`: it was rest; else nothing is known."""

    first: date
    last: date
    known: bool

    def holds(self, day: date) -> bool:
        """Whether a day is one of them."""
        return self.first <= day <= self.last


@dataclass(frozen=True, slots=True)
class Past:
    """Days in a row that end with the one asked for: their totals, and their bouts as (gone by, logged).

    Days of which nothing is known are left out.
    """

    totals: Sequence[float]
    gone: int = 0
    logged: int = 0

    def why_not(self) -> str | None:
        """Why 28 days do not carry a ratio; None if they do."""
        if len(self.totals) < CHRONIC:
            return f"{len(self.totals)} days of history; {CHRONIC} are needed"
        for week in range(CHRONIC // WEEK):
            trained = sum(load > EPS for load in self.totals[-CHRONIC + week * WEEK :][:WEEK])
            if trained < TRAINING_DAYS_A_WEEK:
                return f"{trained} training days in one of the four weeks; {TRAINING_DAYS_A_WEEK} are needed"
        return half_logged(self.gone, self.logged)


def half_logged(gone: int, logged: int) -> str | None:
    """Why what is gone by says too little: under half of it is logged. None if it says enough."""
    if 2 * logged >= gone:
        return None
    return f"{logged} of {gone} entries of the days gone by are logged; half are needed"


def coupled(past: Past) -> Figure:
    """Mean of the last 7 days ÷ mean of the last 28, the 7 among them."""
    why = past.why_not()
    if why is not None:
        return _none(why)
    acute, chronic = statistics.fmean(past.totals[-WEEK:]), statistics.fmean(past.totals[-CHRONIC:])
    return _is(acute / chronic, **{"7 days": acute, "28 days": chronic})


def uncoupled(past: Past) -> Figure:
    """Mean of the last 7 days ÷ mean of the 21 days before them."""
    why = past.why_not()
    if why is not None:
        return _none(why)
    acute, chronic = statistics.fmean(past.totals[-WEEK:]), statistics.fmean(past.totals[-CHRONIC:-WEEK])
    return _is(acute / chronic, **{"7 days": acute, "21 days before": chronic})


def weighted(past: Past) -> Figure:
    """Exponentially weighted mean over 7 days ÷ over 28, from the first day of the history on; λ = 2/(N + 1)."""
    why = past.why_not()
    if why is not None:
        return _none(why)
    acute, chronic = _weighted_mean(past.totals, WEEK), _weighted_mean(past.totals, CHRONIC)
    return _is(acute / chronic, **{"7 days, weighted": acute, "28 days, weighted": chronic})


def _weighted_mean(past: Sequence[float], days: int) -> float:
    share = 2 / (days + 1)
    value = past[0]
    for load in past[1:]:
        value = share * load + (1 - share) * value
    return value


def is_hard(bouts: Sequence[Bout], hard_effort: float, hard_load: float | None) -> bool:
    """A hard day: a bout of that effort, or the day's load above the squad's setting."""
    total = math.fsum(bout.amount.load for bout in bouts)
    return any(bout.amount.effort >= hard_effort - EPS for bout in bouts) or (
        hard_load is not None and total > hard_load + EPS
    )


def past_until(
    bouts: Sequence[Bout],
    ends: date,
    *,
    history_from: date | None,
    today: date | None = None,
    away: Sequence[Away] = (),
    currency: Currency = "load",
) -> Past:
    """The days from the first one known to before `ends`; the last 28 of them are what has to be logged.

    Days of which nothing is known are left out; after 14 of them in a row the history begins anew.
    """
    if history_from is None or history_from >= ends:
        return Past([])
    totals = daily(bouts, history_from, (ends - history_from).days, currency)
    kept: list[date] = []
    unknown = 0
    for number in range(len(totals)):
        day = history_from + timedelta(days=number)
        if any(not one.known and one.holds(day) for one in away):
            unknown += 1
            if unknown >= FORGOTTEN:
                kept = []
        else:
            unknown = 0
            kept.append(day)
    near = set(kept[-CHRONIC:])
    gone = [bout for bout in bouts if today is not None and bout.day < today and bout.day in near]
    return Past([totals[(day - history_from).days] for day in kept], len(gone), sum(one.logged for one in gone))


def usual(bouts: Sequence[Bout], begins: date, currency: Currency = "load") -> Figure:
    """The week's total ÷ the mean of the last four logged weeks before it: of a week at least half is logged."""
    totals: list[float] = []
    weeks = max(((begins - bout.day).days for bout in bouts), default=0) // WEEK + 1
    for back in range(1, weeks + 1):
        first = begins - timedelta(days=WEEK * back)
        own = [bout for bout in bouts if first <= bout.day < first + timedelta(days=WEEK)]
        if own and 2 * sum(bout.logged for bout in own) >= len(own):
            totals.append(math.fsum(daily(own, first, WEEK, currency)))
        if len(totals) == LOGGED_WEEKS:
            break
    if not totals or math.fsum(totals) <= EPS:
        return _none("no logged week before it to stand against")
    mean = statistics.fmean(totals)
    this = math.fsum(daily(bouts, begins, WEEK, currency))
    terms = {
        "this week": this,
        "mean": mean,
        "least": min(totals),
        "most": max(totals),
        "weeks": float(len(totals)),
    }
    return _is(this / mean, **terms)


def week_load(
    bouts: Sequence[Bout],
    begins: date,
    *,
    history_from: date | None,
    hard_effort: float,
    hard_load: float | None = None,
    currency: Currency = "load",
    today: date | None = None,
    away: Sequence[Away] = (),
) -> WeekLoad:
    """The week of seven days from `begins`. `bouts` may hold more days; `history_from`: the first day known.

    `today`: of what stands on days before it half has to be logged, or there is no ratio and no monotony (None: not
    asked for). `away`: the squad's times away.
    """
    ends = begins + timedelta(days=WEEK)
    seven = daily(bouts, begins, WEEK, currency)
    before = daily(bouts, begins - timedelta(days=WEEK), WEEK, currency)
    past = past_until(bouts, ends, history_from=history_from, today=today, away=away, currency=currency)
    own = [bout for bout in bouts if begins <= bout.day < ends]
    gone = [bout for bout in own if today is not None and bout.day < today]
    unsaid = half_logged(len(gone), sum(bout.logged for bout in gone))
    days = [_day(bouts, begins + timedelta(days=n), hard_effort, hard_load, away) for n in range(WEEK)]
    return {
        "begins": begins.isoformat(),
        "days": days,
        "totals": {name: math.fsum(one["totals"][name] for one in days) for name in CURRENCIES},
        "bouts": len(own),
        "logged": sum(bout.logged for bout in own),
        "monotony": monotony(seven) if unsaid is None else _none(unsaid),
        "strain": strain(seven) if unsaid is None else _none(unsaid),
        "change": change(seven, before),
        "coupled": coupled(past),
        "uncoupled": uncoupled(past),
        "weighted": weighted(past),
        "usual": usual(bouts, begins, currency),
        "caution": CAUTION,
    }


def _day(
    bouts: Sequence[Bout], day: date, hard_effort: float, hard_load: float | None, away: Sequence[Away]
) -> DayLoad:
    own = [bout for bout in bouts if bout.day == day]
    gone = next((one for one in away if one.holds(day)), None)
    return {
        "day": day.isoformat(),
        "away": None if gone is None else "rest" if gone.known else "unknown",
        "totals": {name: math.fsum(in_currency(bout.amount, name) for bout in own) for name in CURRENCIES},
        "effort": max((bout.amount.effort for bout in own), default=0.0),
        "hard": is_hard(own, hard_effort, hard_load),
        "bouts": len(own),
        "logged": sum(bout.logged for bout in own),
    }
