"""The free numbers of a format: what a recast turns to fill it, in lanes along which the work only grows."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from typing import Any

from finetally.core.formats.shape import Lane, Params, Tiers

DOSE_FACTOR = "×dose"
"""A key of a lane that is no parameter of the format: doses are taken so many times."""

LONGEST_S = 3600


def size_of(free: Params) -> float:
    """About how much a place of a lane is, beside the others of it: what ladders hold grows with their square."""
    for top, by in (("end", "by"), ("top_s", "by_s"), ("slot_s", "by_s")):
        if top in free:
            return float(free[top] * (free[top] + free[by]))
    for name in ("window_s", "rounds", "sets", DOSE_FACTOR):
        if name in free:
            # Where a window is turned, rounds are the few values of the other number, and so for sets and reps.
            return float(free[name])
    return 0.0


def lane(name: str, low: int, high: int, step: int = 1, **also: Sequence[Any]) -> Callable[[int], Tiers]:
    """One number from `low` to `high`; `also`: the few values of another, each a lane of its own, usual one first."""

    def made(steps: int) -> Tiers:
        return [[_along(name, low, high, step, other) for other in _combined(also)]]

    return made


def _combined(also: dict[str, Sequence[Any]]) -> list[Params]:
    return [dict(zip(also, values, strict=True)) for values in itertools.product(*also.values())]


def _along(name: str, low: int, high: int, step: int, fixed: Params) -> Lane:
    return [{**fixed, name: value} for value in range(low, high + 1, step)]


def by_need(name: str, low: int, high: int, **need: Sequence[Any]) -> Callable[[int], Tiers]:
    """As `lane`, but the other number is not free: its first value with which everything fits is taken."""

    def made(steps: int) -> Tiers:
        return [[_along(name, low, high, 1, other)] for other in _combined(need)]

    return made


def ladders(steps: int) -> Tiers:
    """From one step of the ladder up to a top; in twos, ones or fives. Without a cap: all of it is done."""
    return [
        [
            [{"start": by, "end": by * rungs, "by": by, "back": False, "cap_s": None} for rungs in range(2, 41)]
            for by in (2, 1, 5)
        ]
    ]


def countdowns(steps: int) -> Tiers:
    """Tops whose windows share out evenly among the pairs; down by 10 s or by 5."""
    pairs = max(1, steps // 2)
    return [[[{"top_s": top, "by_s": by} for top in range(by * pairs, 301, by * pairs)] for by in (10, 5)]]


def slots(steps: int) -> Tiers:
    """Slots of two windows or more, rising by 5 s."""
    return [[[{"slot_s": slot, "by_s": 5} for slot in range(10, 121, 5)]]]


def doses(steps: int) -> Tiers:
    """Every dose taken a quarter, a half, … up to ten times."""
    return [[[{DOSE_FACTOR: quarters / 4} for quarters in range(1, 41)]]]
