"""A person's pace and effort as their scores and ratings have them, with how sure that is."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

from typing_extensions import TypedDict

from finetally.core.learn.pace import QUICKEST, SLOWEST
from finetally.core.methods.value import DEFAULT_METHODS, Methods

SPREAD_PRIOR = 0.10
"""Spread of the logarithm of pace from day to day that is assumed before anything is known (docs/methods.md)."""
SPREAD_PRIOR_WEIGHT = 4
"""How many scores that assumption weighs as much as."""
OFFSET_PRIOR_WEIGHT = 8
"""How many ratings the estimate as it is weighs as much as."""
EIGHT_IN_TEN = 1.28
"""Standard deviations to either side within which 8 of 10 lie."""
COUNTS_FROM = 4
"""Scores from which on a learned pace counts."""


@dataclass(frozen=True, slots=True)
class PaceSeen:
    """The pace factor of one score, and its day."""

    day: date
    factor: float

    @property
    def to_check(self) -> bool:
        """Whether it is as quick or slow as is looked for: a score to check, and not learned from."""
        return self.factor <= QUICKEST or self.factor >= SLOWEST


@dataclass(frozen=True, slots=True)
class EffortSeen:
    """One rating (0 to 10) with what was estimated of the session as done, without offset, and its day."""

    day: date
    rated: float
    estimated: float


class LearnedFigures(TypedDict):
    """What is learned of a person: factor on all paces, its spread (of the logarithm), what is added to effort."""

    pace_factor: float
    spread: float
    scores: int
    effort_offset: float
    ratings: int


class LearnedTerm(TypedDict):
    """One score or rating with its weight in what is learned: `value` a pace factor, or rated − estimated."""

    day: str
    value: float
    weight: float


class LearnedWhy(TypedDict):
    """The arithmetic of what is learned.

    pace: exp(Σ weight · ln value / (Σ weight + `pace_prior`)); effort: Σ weight · value / (Σ weight +
    `effort_prior`).
    """

    pace: list[LearnedTerm]
    pace_prior: float
    effort: list[LearnedTerm]
    effort_prior: float


@dataclass(frozen=True, slots=True)
class Learned:
    """What scores and ratings teach: a factor on all paces (1: as planned), its spread, an offset of effort."""

    pace_factor: float
    spread: float
    scores: int
    effort_offset: float
    ratings: int

    @property
    def counts(self) -> bool:
        """Whether there are scores enough for the pace to be used."""
        return self.scores >= COUNTS_FROM

    def figures(self) -> LearnedFigures:
        """As it is published: factor and spread to 4 places, the offset to 3."""
        return {
            "pace_factor": round(self.pace_factor, 4),
            "spread": round(self.spread, 4),
            "scores": self.scores,
            "effort_offset": round(self.effort_offset, 3) + 0.0,
            "ratings": self.ratings,
        }


NOTHING_LEARNED = Learned(1.0, SPREAD_PRIOR, 0, 0.0, 0)


def paces_between(pace_factor: float, spread: float) -> tuple[float, float]:
    """The factors between which 8 of 10 sessions should lie, the quicker (smaller) one first."""
    away = math.exp(EIGHT_IN_TEN * spread)
    return pace_factor / away, pace_factor * away


def weight_of(day: date, as_of: date, methods: Methods) -> float:
    """How much a day counts: 1 on `as_of`, half for each `learn_half_life_d` days before it."""
    return float(0.5 ** ((as_of - day).days / methods.learn_half_life_d))


def learned(
    paces: Iterable[PaceSeen], efforts: Iterable[EffortSeen], *, as_of: date, methods: Methods = DEFAULT_METHODS
) -> Learned:
    """What one person's scores and ratings up to `as_of` teach.

    pace_factor = exp(Σ w ln f / (Σ w + learn_prior)), drawn toward 1 while there is little to go by;
    spread = √((4 · 0.10² + Σ w (ln f − ln pace_factor)²) / (4 + Σ w));
    effort_offset = Σ w (rated − estimated) / (Σ w + 8). Source: docs/log.md.
    """
    seen = [(weight_of(one.day, as_of, methods), math.log(one.factor)) for one in _until(paces, as_of)]
    weights = sum(weight for weight, _ in seen)
    middle = sum(weight * log for weight, log in seen) / (weights + methods.learn_prior)
    squares = sum(weight * (log - middle) ** 2 for weight, log in seen)
    assumed = SPREAD_PRIOR_WEIGHT * SPREAD_PRIOR**2
    rated = [(weight_of(one.day, as_of, methods), one) for one in efforts if one.day <= as_of]
    above = sum(weight * (one.rated - one.estimated) for weight, one in rated)
    return Learned(
        math.exp(middle),
        math.sqrt((assumed + squares) / (SPREAD_PRIOR_WEIGHT + weights)),
        len(seen),
        above / (sum(weight for weight, _ in rated) + OFFSET_PRIOR_WEIGHT),
        len(rated),
    )


def _until(paces: Iterable[PaceSeen], as_of: date) -> list[PaceSeen]:
    """Those that are learned from."""
    return [one for one in paces if one.day <= as_of and not one.to_check]


def why_learned(
    paces: Sequence[PaceSeen], efforts: Sequence[EffortSeen], *, as_of: date, methods: Methods = DEFAULT_METHODS
) -> LearnedWhy:
    """The arithmetic behind `learned`, term by term, the newest first."""
    newest = sorted(_until(paces, as_of), key=lambda one: one.day, reverse=True)
    rated = sorted((one for one in efforts if one.day <= as_of), key=lambda one: one.day, reverse=True)
    return {
        "pace": [_term(one.day, one.factor, as_of, methods) for one in newest],
        "pace_prior": methods.learn_prior,
        "effort": [_term(one.day, one.rated - one.estimated, as_of, methods) for one in rated],
        "effort_prior": OFFSET_PRIOR_WEIGHT,
    }


def _term(day: date, value: float, as_of: date, methods: Methods) -> LearnedTerm:
    return {"day": day.isoformat(), "value": value, "weight": weight_of(day, as_of, methods)}
