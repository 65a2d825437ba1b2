"""Why a format does not fit: causes, each of which is really in the way, and the words for them."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from finetally.core.compare.bounds_kept import Breach
from finetally.core.formats.bounds import Bound, Measure
from finetally.core.words import clock_text

CauseKind = Literal[
    "count", "heavy", "too-hard", "no-reps", "uncalled", "no-pace", "overflow", "cap", "bound", "least", "reach",
    "few-reps", "left", "cannot",
]  # fmt: skip
Name = Callable[[str], str]
"""A movement's name by its key."""


@dataclass(frozen=True, slots=True)
class Cause:
    """One thing that is in the way: its kind, the words, the bound that is not kept, the movements it is about.

    `weight`: how far off it is, so that of several ways to fail the nearest is told; less is nearer.
    """

    kind: CauseKind
    text: str
    measure: Measure | None = None
    movements: tuple[str, ...] = ()
    weight: float = 0.0


HOW_FAR = {"least": 0, "bound": 1, "reach": 2, "cap": 3, "overflow": 4}
"""How far from fitting a kind of cause is: less time missing first, what does not hold its doses last."""


def nearest(failures: Sequence[Sequence[Cause]]) -> tuple[Cause, ...]:
    """Of several ways to fail the one that is nearest to fitting."""

    def far(causes: tuple[Cause, ...]) -> tuple[float, ...]:
        """To be compared alone: how far its worst cause is, how many there are, their weights together."""
        worst = max(HOW_FAR.get(one.kind, 5) for one in causes)
        return worst, len(causes), sum(one.weight for one in causes)

    return min(map(tuple, failures), key=far) if failures else ()


def _number(value: float) -> str:
    return f"{math.ceil(value * 10 - 1e-6) / 10:g}"


def _percent(value: float, *, up: bool) -> str:
    """A share, rounded away from the bound that it breaks."""
    return f"{math.ceil(value * 100 - 1e-6) if up else math.floor(value * 100 + 1e-6):d} %"


def bound_text(bound: Bound, value: float, movement: str) -> str:
    """What a bound asks for and what it would be, in words; `value` in the bound's unit."""
    high, low = bound.high or 0, bound.low or 0
    over = bound.high is not None and value > bound.high
    limit = high if over else low
    side = "at most" if over else "at least"
    of = f" of {movement}" if movement else ""
    texts = {
        "movements": f"it would be {value:g} movements; {side} {limit:g}",
        "length": f"it would take {clock_text(value)} for this; {side} {clock_text(limit)}",
        "window": f"it would be {clock_text(value)}{of} without a rest; {side} {clock_text(limit)}",
        "shortest": f"it would be {clock_text(value)}{of} at a time; {side} {clock_text(limit)}",
        "dose": f"it would be {_number(value)}{of} at a time; {side} {limit:g}",
        "rounds": f"it would be {_number(value)} times{of}; {side} {limit:g}",
        "in-a-row": f"it would be {_number(value)}{of} in a row; {side} {limit:g}",
        "loaded-in-a-row": f"it would be {_number(value)}{of} in a row with a load; {side} {limit:g}",
        "possible": f"it would be more{of} in a row than that load leaves possible",
        "heavy-rest": f"heavy sets{of} would be {clock_text(min(value, 86_400))} apart; {side} {clock_text(limit)}",
        "filled": f"a start would be {_percent(value, up=over)} work{of}; {side} {limit * 100:.0f} %",
        "left": f"{value * 100:.0f} % would be left over; {side} {limit * 100:.0f} %",
    }
    return f"{texts[bound.measure]} ({bound.why})"


def of_breach(breach: Breach, name: Name) -> Cause:
    """The cause that a bound is."""
    bound = breach.bound
    movement = name(breach.movement) if breach.movement else ""
    limit = bound.high if breach.over else bound.low
    off = abs(breach.value - (limit or 0)) / max(1.0, abs(limit or 0))
    movements = (breach.movement,) if breach.movement else ()
    return Cause("bound", bound_text(bound, breach.value, movement), bound.measure, movements, off)
