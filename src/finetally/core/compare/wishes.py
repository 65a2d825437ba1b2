"""A reasoned pick: columns ranked by what the coach says matters, with every number that the rank stands on."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from typing_extensions import TypedDict

from finetally.core.compare.frontier import badness
from finetally.core.compare.rows import ROWS

Way = Literal["at-most", "at-least", "low", "high", "even"]
RowValues = Mapping[str, float | None]
USUAL_WEIGHT = 3
EVEN_ENOUGH = 0.05
"""A hard wish for even sides is kept within this distance from half and half."""
SCORE_EPS = 1e-9


@dataclass(frozen=True, slots=True)
class Wish:
    """What matters: a row, which way, a bound for at-most and at-least; hard, or soft with a weight."""

    row: str
    way: Way
    value: float | None = None
    hard: bool = False
    weight: float = USUAL_WEIGHT


@dataclass(frozen=True, slots=True)
class NamedWish:
    """A wish as coaches say it."""

    key: str
    label: str
    wish: Wish


NAMED_WISHES: tuple[NamedWish, ...] = (
    NamedWish("effort-cap", "effort at most", Wish("effort", "at-most", 7)),
    NamedWish("no-landings", "no landings", Wish("landings", "at-most", 0, hard=True)),
    NamedWish("even-sides", "even sides", Wish("left-right", "even")),
    NamedWish("even-push-pull", "even push and pull", Wish("push-pull", "even")),
    NamedWish("most-work", "most work", Wish("work", "high")),
    NamedWish("within", "done within", Wish("timetable", "at-most", 1200, hard=True)),
    NamedWish("short-rests", "short rests, for conditioning", Wish("density", "high")),
    NamedWish("room-for-load", "long rests, room for load", Wish("work-to-rest", "low")),
    NamedWish("low-load", "least load", Wish("load", "low")),
    NamedWish("most-volume", "most volume load", Wish("volume", "high")),
    NamedWish("few-changes", "little time on change-overs", Wish("change", "low")),
    NamedWish("no-checks", "nothing the checks object to", Wish("checks", "low")),
)


@dataclass(frozen=True, slots=True)
class Matter:
    """What may matter to a coach, in a ready sentence, and the wishes that it comes to."""

    key: str
    sentence: str
    wishes: tuple[Wish, ...]


MATTERS: tuple[Matter, ...] = (
    Matter(
        "conditioning", "conditioning, with short rests",
        (Wish("density", "high", weight=5), Wish("work", "high", weight=3)),
    ),
    Matter(
        "strength", "strength, with room for load",
        (Wish("work-to-rest", "low", weight=5), Wish("volume", "high", weight=3)),
    ),
    Matter(
        "clean-reps", "many clean reps",
        (Wish("reps-per-min", "high", weight=4), Wish("above-80", "low"), Wish("effort", "at-most", 7)),
    ),
    Matter(
        "low-impact", "low impact",
        (Wish("landings", "at-most", 0, hard=True), Wish("landings", "low"), Wish("effort", "at-most", 6)),
    ),
    Matter(
        "even-sides", "even sides",
        (Wish("left-right", "even", weight=5), Wish("push-pull", "even", weight=2)),
    ),
    Matter(
        "little-room", "small space and little kit",
        (Wish("change", "low", weight=5), Wish("kit", "low", weight=5)),
    ),
)  # fmt: skip
"""Ready sentences for the question of which format; in the order in which they are offered."""


class WishResult(TypedDict):
    """How a column does by one wish: its value, whether the wish is met, and 0 to 1 for its score.

    `endless`: the value has no end (and is None): there was nothing to divide by.
    """

    wish: int
    value: float | None
    endless: bool
    met: bool
    score: float


class Reason(TypedDict):
    """A row in which the first differs from another column: the two values."""

    row: str
    first: float
    other: float


class Ranked(TypedDict):
    """A column's rank (from 1), its score 0 to 1, the hard wishes it breaks, and the judgements behind that.

    `first_better`, `first_worse`: in which rows the first of all does better, and in which worse.
    """

    column: int
    rank: int
    score: float
    breaks: list[int]
    judged: list[WishResult]
    first_better: list[Reason]
    first_worse: list[Reason]


class Pick(TypedDict):
    """All columns in order; and of the first what it gains and costs against the base."""

    ranked: list[Ranked]
    gains: list[Reason]
    costs: list[Reason]


def _distance(value: float, wish: Wish) -> float:
    """How far from what is wished for, less being better; 0 where a bound is kept."""
    if wish.way == "at-most":
        return max(0.0, value - (wish.value or 0))
    if wish.way == "at-least":
        return max(0.0, (wish.value or 0) - value)
    if wish.way == "even":
        return abs(value - 0.5)
    return -value if wish.way == "high" else value


def _met(value: float | None, distance: float, wish: Wish, best: float | None) -> bool:
    if value is None:
        # No left or right at all is even; nothing else is met by a figure that is not there.
        return wish.way == "even"
    if wish.way in ("at-most", "at-least"):
        return distance <= SCORE_EPS
    if wish.way == "even":
        return abs(value - 0.5) <= EVEN_ENOUGH + SCORE_EPS
    return best is not None and distance <= best + SCORE_EPS


def _judge(columns: Sequence[RowValues], number: int, wish: Wish) -> list[WishResult]:
    values = [column.get(wish.row) for column in columns]
    distances = _finite([_distance(v, wish) for v in values if v is not None])
    best, worst = min(distances, default=None), max(distances, default=None)
    judged: list[WishResult] = []
    at = iter(distances)
    for value in values:
        if value is None:
            score, distance = (1.0 if wish.way == "even" else 0.0), 0.0
        else:
            # The best of the columns has 1, the worst 0. Of a bound 1 is to keep it, whatever the others do.
            low = 0.0 if wish.way in ("at-most", "at-least") else (best or 0.0)
            span = (worst or 0.0) - low
            distance = next(at)
            score = 1.0 if span <= SCORE_EPS else 1 - (distance - low) / span
        endless = value is not None and math.isinf(value)
        judged.append(
            {
                "wish": number,
                "value": None if endless else value,
                "endless": endless,
                "met": _met(value, distance, wish, best),
                "score": score,
            }
        )
    return judged


def _finite(distances: Sequence[float]) -> list[float]:
    """Distances in which one without end stands as far beyond the others as they reach."""
    there = [one for one in distances if not math.isinf(one)] or [0.0]
    beyond = max(1.0, max(there) - min(there))
    ends = {math.inf: max(there) + beyond, -math.inf: min(there) - beyond}
    return [ends.get(one, one) for one in distances]


def pick(columns: Sequence[RowValues | None], wishes: Sequence[Wish], base: int = 0) -> Pick:
    """Rank columns by wishes. Deterministic; equal columns stay in their order.

    `columns` has None for one that cannot be; a value may be infinite. Fewer broken hard wishes come first, then
    the mean of the soft wishes' scores by their weights (1 with none). Raises KeyError for a row that there is not.
    """
    for wish in wishes:
        ROWS[wish.row]
    there = [number for number, column in enumerate(columns) if column is not None]
    values: list[RowValues] = [columns[number] or {} for number in there]
    judged = [_judge(values, number, wish) for number, wish in enumerate(wishes)]
    soft = [number for number, wish in enumerate(wishes) if not wish.hard and wish.weight > 0]
    weights = sum(wishes[number].weight for number in soft)
    ranked: list[Ranked] = []
    for place, column in enumerate(there):
        mine = [of_wish[place] for of_wish in judged]
        score = sum(wishes[n].weight * mine[n]["score"] for n in soft) / weights if weights else 1.0
        breaks = [n for n, wish in enumerate(wishes) if wish.hard and not mine[n]["met"]]
        ranked.append(
            {
                "column": column, "rank": 0, "score": score, "breaks": breaks, "judged": mine,
                "first_better": [], "first_worse": [],
            }
        )  # fmt: skip
    ranked.sort(key=lambda one: (len(one["breaks"]), -round(one["score"], 9), one["column"]))
    for place, one in enumerate(ranked):
        one["rank"] = place + 1
        if place:
            first = columns[ranked[0]["column"]]
            one["first_better"], one["first_worse"] = _against(first, columns[one["column"]])
    gains, costs = _against(columns[ranked[0]["column"]], columns[base]) if ranked else ([], [])
    return {"ranked": ranked, "gains": gains, "costs": costs}


REASON_ROWS = (
    "work",
    "density",
    "load",
    "effort",
    "above-80",
    "landings",
    "push-pull",
    "left-right",
    "change",
    "total",
)
"""Rows that a pick is reasoned with: those that say the same thing twice are left out."""
WORTH_TELLING = 0.02


def _against(first: RowValues | None, other: RowValues | None) -> tuple[list[Reason], list[Reason]]:
    """In which rows the first does better, and in which worse; equal distances from even are neither."""
    gains: list[Reason] = []
    costs: list[Reason] = []
    for key in REASON_ROWS:
        a, b = (first or {}).get(key), (other or {}).get(key)
        if a is None or b is None or abs(a - b) <= WORTH_TELLING * max(abs(a), abs(b), SCORE_EPS):
            continue
        sense = ROWS[key].sense
        off = badness(a, sense) - badness(b, sense)
        if abs(off) > SCORE_EPS:
            (gains if off < 0 else costs).append({"row": key, "first": a, "other": b})
    return gains, costs
