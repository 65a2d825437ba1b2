"""The frontier of a trade-off: the marks that no other one beats in both figures."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.tally.figure_table import Sense


def badness(value: float, sense: Sense) -> float:
    """A figure, in its unit, so that less is better: even splits (0 to 1) by their distance from a half."""
    if sense == "even":
        return abs(value - 0.5)
    return -value if sense == "more" else value


def frontier(points: Sequence[tuple[float | None, float | None]], x: Sense, y: Sense) -> list[int]:
    """Numbers of the points on the frontier, in order of x; a point without one of its figures is never on it."""
    known = [
        (badness(a, x), badness(b, y), number)
        for number, (a, b) in enumerate(points)
        if a is not None and b is not None
    ]
    on = [
        one
        for one in known
        if not any(
            other[0] <= one[0] and other[1] <= one[1] and (other[0] < one[0] or other[1] < one[1])
            for other in known
        )
    ]
    return [number for _, _, number in sorted(on)]
