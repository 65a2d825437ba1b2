"""The one-rep maximum and the reps that are possible at a share of it (Epley 1985; Brzycki 1993)."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Literal

RepSchool = Literal["epley", "brzycki"]


def possible_reps(share: float, formula: str) -> float:
    """Reps that are possible at a share of the one-rep maximum. Epley 1985, or Brzycki 1993."""
    return 37 - 36 * share if formula == "brzycki" else 30 * (1 / share - 1)


MOST_REPS = 12
"""Reps of a set that a maximum is estimated from: beyond them both formulas were not meant, and part widely."""

_OF_SET: Mapping[RepSchool, Callable[[float, int], float]] = {
    "epley": lambda kg, reps: kg * (1 + reps / 30),
    "brzycki": lambda kg, reps: kg * 36 / (37 - reps),
}


def maximum_of_set(kg: float, reps: int, formula: RepSchool) -> float:
    """The one-rep maximum, in kg, that a set of `reps` (1 to MOST_REPS) to the last possible rep speaks for.

    The inverse of `possible_reps`. One rep is no estimate but the maximum itself. Raises ValueError for reps that
    are out of bounds.
    """
    if not 1 <= reps <= MOST_REPS:
        raise ValueError(f"a set of {reps} reps; 1 to {MOST_REPS}")
    return kg if reps == 1 else _OF_SET[formula](kg, reps)
