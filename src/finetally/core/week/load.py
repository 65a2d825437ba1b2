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

from finetally.core.week.planned_load import LoadSummary, PlannedLoad

WEEK = 7
CHRONIC = 28
TRAINING_DAYS_A_WEEK = 4
LOGGED_WEEKS = 4
FORGOTTEN = 14
"""After so many days in a row of which nothing is known the history begins anew."""
LOAD_EPS = 1e-9

Currency = Literal[
    "load", "work-min", "reps-called", "reps-paced", "reps-estimated", "reps-mixed", "volume-kg", "hard-sets",
    "landings-low", "landings-medium", "landings-high", "landings-mixed",
]  # fmt: skip
CURRENCIES: tuple[Currency, ...] = get_args(Currency)
"""Reps of different kinds and landings of different grades are never one number; "mixed": from older releases."""

CAUTION = (
    "A gauge of change, not a prediction of injury; how much it tells is disputed (Lolli 2019; Impellizzeri 2020)."
)


class LoadGauge(TypedDict):
    """A figure with the numbers that it was made of; `value` None and `why` where there is none."""

    value: float | None
    why: str | None
    terms: dict[str, float]


class DayLoad(TypedDict):
    """A day: its total in each currency, its highest effort, whether it is hard; its entries, how many are logged.

    `away`: the squad is away, for rest or for what is not known. What stands on the day counts all the same.
    """

    day: str
    away: Literal["rest", "unknown"] | None
    totals: dict[str, float]
    effort: float
    hard: bool
    entries: int
    logged: int


class WeekLoad(TypedDict):
    """Seven days from `begins`, in one currency where nothing else is said.

    `entries`: how many there are, and how many of them are logged. `usual`: the week's total over the mean of the
    last four logged weeks before it, with the least and the most of them.
    """

    begins: str
    days: list[DayLoad]
    totals: dict[str, float]
    entries: int
    logged: int
    monotony: LoadGauge
    strain: LoadGauge
    change: LoadGauge
    acwr_coupled: LoadGauge
    acwr_uncoupled: LoadGauge
    acwr_ewma: LoadGauge
    usual: LoadGauge
    caution: str


def in_currency(summary: LoadSummary, currency: Currency) -> float:
    """What a load summary is in a currency."""
    family, _, kind = currency.partition("-")
    if family == "reps":
        return float(summary.reps.get(kind, 0))
    if family == "landings":
        return float(summary.landings.get(kind, 0))
    return {
        "load": summary.load,
        "work-min": summary.work_s / 60,
        "volume-kg": summary.volume_kg,
        "hard-sets": float(summary.hard_sets),
    }[currency]


def daily(entries: Sequence[PlannedLoad], first: date, days: int, currency: Currency = "load") -> list[float]:
    """Totals of so many days from `first`; 0 for a day without a planned load."""
    totals = [0.0] * days
    for entry in entries:
        index = (entry.day - first).days
        if 0 <= index < days:
            totals[index] += in_currency(entry.summary, currency)
    return totals


def _none(why: str, terms: Mapping[str, float] | None = None) -> LoadGauge:
    return {"value": None, "why": why, "terms": dict(terms or {})}


def _is(value: float, **terms: float) -> LoadGauge:
    return {"value": value, "why": None, "terms": terms}


def monotony(seven: Sequence[float]) -> LoadGauge:
    """Mean ÷ sample standard deviation of seven daily totals, rest days 0."""
    mean = statistics.fmean(seven)
    if mean <= LOAD_EPS:
        return _none("nothing is planned in this week")
    spread = statistics.stdev(seven)
    if spread <= LOAD_EPS * max(1.0, mean):
        return _none("all seven days are equal: there is no spread to divide by", {"mean": mean, "spread": 0.0})
    return _is(mean / spread, mean=mean, spread=spread)


def strain(seven: Sequence[float]) -> LoadGauge:
    """Week's total × monotony; `seven`: the load of each day (effort × minutes)."""
    of = monotony(seven)
    if of["value"] is None:
        return _none(str(of["why"]))
    total = math.fsum(seven)
    return _is(total * of["value"], total=total, monotony=of["value"])


def change(seven: Sequence[float], before: Sequence[float]) -> LoadGauge:
    """This week's total less last week's, as a share of last week's."""
    this, last = math.fsum(seven), math.fsum(before)
    if last <= LOAD_EPS:
        return _none("last week holds no load to compare with", {"this week": this})
    return _is(this / last - 1, **{"this week": this, "last week": last})


@dataclass(frozen=True, slots=True)
class AwayPeriod:
    """Days on which the whole squad was away, both ends included. `known`: it was rest; else nothing is known."""

    first: date
    last: date
    known: bool

    def holds(self, day: date) -> bool:
        """Whether a day is one of them."""
        return self.first <= day <= self.last


@dataclass(frozen=True, slots=True)
class LoadHistory:
    """Days in a row that end with the one asked for: their totals, and their planned loads as (gone by, logged).

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
            trained = sum(load > LOAD_EPS for load in self.totals[-CHRONIC + week * WEEK :][:WEEK])
            if trained < TRAINING_DAYS_A_WEEK:
                return f"{trained} training days in one of the four weeks; {TRAINING_DAYS_A_WEEK} are needed"
        return half_logged(self.gone, self.logged)


def half_logged(gone: int, logged: int) -> str | None:
    """Why what is gone by says too little: under half of it is logged. None if it says enough."""
    if 2 * logged >= gone:
        return None
    return f"{logged} of {gone} entries of the days gone by are logged; half are needed"


def acwr_coupled(history: LoadHistory) -> LoadGauge:
    """Mean of the last 7 days ÷ mean of the last 28, the 7 among them."""
    why = history.why_not()
    if why is not None:
        return _none(why)
    acute, chronic = statistics.fmean(history.totals[-WEEK:]), statistics.fmean(history.totals[-CHRONIC:])
    return _is(acute / chronic, **{"7 days": acute, "28 days": chronic})


def acwr_uncoupled(history: LoadHistory) -> LoadGauge:
    """Mean of the last 7 days ÷ mean of the 21 days before them."""
    why = history.why_not()
    if why is not None:
        return _none(why)
    acute, chronic = statistics.fmean(history.totals[-WEEK:]), statistics.fmean(history.totals[-CHRONIC:-WEEK])
    return _is(acute / chronic, **{"7 days": acute, "21 days before": chronic})


def acwr_ewma(history: LoadHistory) -> LoadGauge:
    """Exponentially weighted mean over 7 days ÷ over 28, from the first day of the history on; λ = 2/(N + 1)."""
    why = history.why_not()
    if why is not None:
        return _none(why)
    acute, chronic = _ewma(history.totals, WEEK), _ewma(history.totals, CHRONIC)
    return _is(acute / chronic, **{"7 days, weighted": acute, "28 days, weighted": chronic})


def _ewma(history: Sequence[float], days: int) -> float:
    share = 2 / (days + 1)
    value = history[0]
    for load in history[1:]:
        value = share * load + (1 - share) * value
    return value


def is_hard(entries: Sequence[PlannedLoad], hard_effort: float, hard_load: float | None) -> bool:
    """A hard day: a planned load of that effort, or the day's load above the squad's setting."""
    total = math.fsum(entry.summary.load for entry in entries)
    return any(entry.summary.effort >= hard_effort - LOAD_EPS for entry in entries) or (
        hard_load is not None and total > hard_load + LOAD_EPS
    )


def history_until(
    entries: Sequence[PlannedLoad],
    ends: date,
    *,
    history_from: date | None,
    today: date | None = None,
    away: Sequence[AwayPeriod] = (),
    currency: Currency = "load",
) -> LoadHistory:
    """The days from the first one known to before `ends`; the last 28 of them are what has to be logged.

    Days of which nothing is known are left out; after 14 of them in a row the history begins anew.
    """
    if history_from is None or history_from >= ends:
        return LoadHistory([])
    totals = daily(entries, history_from, (ends - history_from).days, currency)
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
    gone = [entry for entry in entries if today is not None and entry.day < today and entry.day in near]
    return LoadHistory(
        [totals[(day - history_from).days] for day in kept], len(gone), sum(one.logged for one in gone)
    )


def usual(entries: Sequence[PlannedLoad], begins: date, currency: Currency = "load") -> LoadGauge:
    """The week's total ÷ the mean of the last four logged weeks before it: of a week at least half is logged."""
    totals: list[float] = []
    weeks = max(((begins - entry.day).days for entry in entries), default=0) // WEEK + 1
    for back in range(1, weeks + 1):
        first = begins - timedelta(days=WEEK * back)
        own = [entry for entry in entries if first <= entry.day < first + timedelta(days=WEEK)]
        if own and 2 * sum(entry.logged for entry in own) >= len(own):
            totals.append(math.fsum(daily(own, first, WEEK, currency)))
        if len(totals) == LOGGED_WEEKS:
            break
    if not totals or math.fsum(totals) <= LOAD_EPS:
        return _none("no logged week before it to stand against")
    mean = statistics.fmean(totals)
    this = math.fsum(daily(entries, begins, WEEK, currency))
    terms = {
        "this week": this,
        "mean": mean,
        "least": min(totals),
        "most": max(totals),
        "weeks": float(len(totals)),
    }
    return _is(this / mean, **terms)


def week_load(
    entries: Sequence[PlannedLoad],
    begins: date,
    *,
    history_from: date | None,
    hard_effort: float,
    hard_load: float | None = None,
    currency: Currency = "load",
    today: date | None = None,
    away: Sequence[AwayPeriod] = (),
) -> WeekLoad:
    """The week of seven days from `begins`. `entries` may hold more days; `history_from`: the first day known.

    `today`: of what stands on days before it half has to be logged, or there is no ratio and no monotony (None: not
    asked for). `away`: the squad's times away.
    """
    ends = begins + timedelta(days=WEEK)
    seven = daily(entries, begins, WEEK, currency)
    before = daily(entries, begins - timedelta(days=WEEK), WEEK, currency)
    history = history_until(entries, ends, history_from=history_from, today=today, away=away, currency=currency)
    own = [entry for entry in entries if begins <= entry.day < ends]
    gone = [entry for entry in own if today is not None and entry.day < today]
    unsaid = half_logged(len(gone), sum(entry.logged for entry in gone))
    days = [_day(entries, begins + timedelta(days=n), hard_effort, hard_load, away) for n in range(WEEK)]
    return {
        "begins": begins.isoformat(),
        "days": days,
        "totals": {name: math.fsum(one["totals"][name] for one in days) for name in CURRENCIES},
        "entries": len(own),
        "logged": sum(entry.logged for entry in own),
        "monotony": monotony(seven) if unsaid is None else _none(unsaid),
        "strain": strain(seven) if unsaid is None else _none(unsaid),
        "change": change(seven, before),
        "acwr_coupled": acwr_coupled(history),
        "acwr_uncoupled": acwr_uncoupled(history),
        "acwr_ewma": acwr_ewma(history),
        "usual": usual(entries, begins, currency),
        "caution": CAUTION,
    }


def _day(
    entries: Sequence[PlannedLoad],
    day: date,
    hard_effort: float,
    hard_load: float | None,
    away: Sequence[AwayPeriod],
) -> DayLoad:
    own = [entry for entry in entries if entry.day == day]
    gone = next((one for one in away if one.holds(day)), None)
    return {
        "day": day.isoformat(),
        "away": None if gone is None else "rest" if gone.known else "unknown",
        "totals": {name: math.fsum(in_currency(entry.summary, name) for entry in own) for name in CURRENCIES},
        "effort": max((entry.summary.effort for entry in own), default=0.0),
        "hard": is_hard(own, hard_effort, hard_load),
        "entries": len(own),
        "logged": sum(entry.logged for entry in own),
    }
