"""The bounds in which coaches use a format: what is measured, from where to where, and why. Data."""

from __future__ import annotations

from typing import Literal, NamedTuple

Measure = Literal[
    "movements", "length", "window", "shortest", "rounds", "dose", "in-a-row", "loaded-in-a-row", "possible",
    "heavy-rest", "filled", "left",
]  # fmt: skip
"""What is measured on what was made (core/compare/within.py):

`movements`: how many there are. `length`: seconds in all. `window`: the longest work on one movement without rest or
another one, in seconds; `shortest`: the shortest. `rounds`: how often the movement comes up that comes up most.
`dose`: the most reps of one turn of a movement (a side), called or paced. `in-a-row`: the most reps of one unloaded
movement without rest or another one, called or paced; `loaded-in-a-row`: of a loaded one; `possible`: as a share of
those that a load leaves possible, where it is told in shares of the one-rep maximum. `heavy-rest`: the shortest rest
between two heavy sets of a movement, in seconds. `filled`: the share of a start that is work, of the fullest without
heavy sets. `left`: the share of what is held still that is left over.
What the plan itself asks for in a row of a movement is no breach.
"""


class Bound(NamedTuple):
    """A measure with the least and most that coaches use (None: open), and the reason."""

    measure: Measure
    low: float | None
    high: float | None
    why: str


LEFT = Bound("left", None, 1 / 3, "with more than a third left over it is another session")
BODY_IN_A_ROW = Bound("in-a-row", None, 30, "over 30 in a row the last ones are no clean reps")
LOADED_IN_A_ROW = Bound("loaded-in-a-row", None, 20, "over 20 in a row with a load the grip goes before the legs")
POSSIBLE = Bound("possible", None, 1, "nobody does more in a row at that share of the one-rep maximum")
HEAVY_REST = Bound(
    "heavy-rest", 90, None, "a heavy set wants a minute and a half of rest at least before the next one"
)
REPS = (BODY_IN_A_ROW, LOADED_IN_A_ROW, POSSIBLE)


def window(low: float, high: float, why: str) -> Bound:
    """Seconds of work on one movement."""
    return Bound("window", low, high, why)


def rounds(low: float, high: float, why: str) -> Bound:
    """How many times a movement comes up for each time it is among the ingredients."""
    return Bound("rounds", low, high, why)


def length(low: float, high: float, why: str) -> Bound:
    """Seconds in all."""
    return Bound("length", low, high, why)
