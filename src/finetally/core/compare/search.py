"""Searching along an axis: the last place whose value is not over what is held, in few attempts."""

from __future__ import annotations

import bisect
import math
from collections.abc import Callable, Sequence

from finetally.core.unfold.pace import TIME_EPS_S

OVER = math.inf
"""The value of a place that cannot be: more than anything."""


def last_within(
    value: Callable[[int], float], sizes: Sequence[float], target: float, rate: float | None = None
) -> int:
    """The last place whose value is not over `target`; -1 where that of the first is. Values only grow.

    They grow about as `sizes` do; `rate`, if it is known, is about how much a size comes to. Guesses along the line
    through what is known, halves where the line misleads: a few values where there are hundreds of places, and the
    same answer as trying every one.
    """
    low, high = -1, len(sizes)
    known, other = (0.0, 0.0), None
    below: tuple[float, float] | None = None
    attempts = 0
    while high - low > 1:
        attempts += 1
        if attempts == 1:
            guess = _at_rate(rate, target, sizes)
        elif attempts % 4 == 0 or (other is None and below is None):
            guess = (low + high) // 2
        else:
            guess = _along_line(known, other or below or known, target, sizes)
        guess = min(high - 1, max(low + 1, guess))
        found = value(guess)
        if found <= target + TIME_EPS_S:
            below, low, known = known, guess, (sizes[guess], found)
        else:
            high, other = guess, (sizes[guess], found) if found < OVER else None
    return low


def _at_rate(rate: float | None, target: float, sizes: Sequence[float]) -> int:
    """Where the target should be reached at a rate; where none is known, the first: the least to lay out."""
    if rate is None or rate <= 0:
        return 0
    return bisect.bisect_right(sizes, target / rate + TIME_EPS_S) - 1


def _along_line(one: tuple[float, float], other: tuple[float, float], target: float, sizes: Sequence[float]) -> int:
    """The last place that the line through two known ones (size and value) keeps within the target."""
    rise = (other[1] - one[1]) / (other[0] - one[0]) if other[0] != one[0] else 0.0
    if rise <= 0:
        return 0
    return bisect.bisect_right(sizes, one[0] + (target - one[1]) / rise + TIME_EPS_S) - 1
