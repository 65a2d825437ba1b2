"""Defaults, ranges, per-round lists and values from a score become plain numbers here, and nowhere else."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Literal, NamedTuple

from finetally.core.methods.given import Score
from finetally.core.session.problems import Path, refuse
from finetally.core.session.values import (
    FAILURE_PLAN,
    AmountRange,
    CountRange,
    FromScore,
    PerRoundValue,
    ScalarValue,
    ToFailure,
)

RangeEnd = Literal["plan", "low", "high"]


class Corner(NamedTuple):
    """At which end all doses (everything but rests) and all rests of the document stand together."""

    doses: RangeEnd
    rests: RangeEnd


AT_PLAN = Corner("plan", "plan")


def planned_value(value: CountRange | AmountRange, *, counts_work: bool) -> float:
    """The planned value of a range: as given; the low end for counts of rounds; else the middle.

    The middle of reps is rounded down to whole ones, of seconds and metres down to 5, but never below the low
    end (12 to 14 s is planned at 12, not at 10).
    """
    if value.plan is not None:
        return value.plan
    if counts_work:
        return value.low
    middle = (value.low + value.high) / 2
    if isinstance(value, CountRange):
        return math.floor(middle)
    return max(value.low, math.floor(middle / 5) * 5)


class Resolver:
    """Resolves values at one corner of the document's ranges, with the scores that are known."""

    def __init__(self, corner: Corner, scores: Mapping[str, Score]) -> None:
        self._corner = corner
        self._scores = scores

    @property
    def at_plan(self) -> bool:
        """Whether ranges stand where they are planned."""
        return self._corner == AT_PLAN

    def _one(self, value: ScalarValue, default: float, *, rest: bool, counts_work: bool) -> float:
        if value is None:
            return default
        if isinstance(value, int | float):
            return value
        if isinstance(value, FromScore):
            return self._scored(value)
        if isinstance(value, ToFailure):
            return FAILURE_PLAN if value.plan is None else value.plan
        end = self._corner.rests if rest else self._corner.doses
        if end == "low":
            return value.low
        if end == "high":
            return value.high
        return planned_value(value, counts_work=counts_work)

    def _scored(self, value: FromScore) -> float:
        score = self._scores.get(value.source.block)
        known = getattr(score, value.source.take) if score is not None else None
        number: int = value.plan if known is None else known
        return number if value.cap is None else min(number, value.cap)

    def count(self, value: ScalarValue, default: int = 1) -> int:
        """Rounds, laps, times, repeats, periods; at least 1."""
        return max(1, int(self._one(value, default, rest=False, counts_work=True)))

    def dose(self, value: ScalarValue, default: float = 0) -> float:
        """Seconds, metres or reps outside a per-round list."""
        return self._one(value, default, rest=False, counts_work=False)

    def rest(self, value: ScalarValue, default: float = 0) -> float:
        """Seconds of a rest outside a per-round list."""
        return self._one(value, default, rest=True, counts_work=False)

    def dose_in(self, value: PerRoundValue, round_: int, path: Path, key: str) -> float:
        """A dose that may be a per-round list, at `key` of `path`; `round_` counts from 0."""
        if type(value) is int or type(value) is float:
            return value
        return self._per_round(value, round_, path, key, rest=False)

    def rest_in(self, value: PerRoundValue, round_: int, path: Path, key: str) -> float:
        """A rest that may be a per-round list, at `key` of `path`; `round_` counts from 0."""
        if type(value) is int or type(value) is float:
            return value
        return self._per_round(value, round_, path, key, rest=True)

    def _per_round(self, value: PerRoundValue, round_: int, path: Path, key: str, *, rest: bool) -> float:
        if isinstance(value, Sequence):
            if round_ >= len(value):
                raise refuse(
                    (*path, key), f"a list of {len(value)}", f"a value for round {round_ + 1}", "list_length"
                )
            return value[round_]
        return self._one(value, 0, rest=rest, counts_work=False)
