"""Values on the wall: how much, how long, how far. Written in one way, whatever way they were typed."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from finetally.core.session.values import POUND_KG
from finetally.core.words import clock_text

MOST_DECIMALS = 20
"""Decimals that are written, and read (grammar.py): the last digit of a number of ordinary size."""


def number(value: float) -> str:
    """A number without needless zeros, never with an exponent: nobody writes one on a wall.

    What is smaller than can be written comes out as 0; the full form keeps it in its trailer.
    """
    if abs(value) < 1e6 and float(f"{value:g}") == value and "e" not in f"{value:g}":
        return f"{value:g}"
    text = f"{Decimal(repr(value)):f}"
    whole, point, decimals = text.partition(".")
    return f"{whole}{point}{decimals[:MOST_DECIMALS]}".rstrip("0").rstrip(".") if point else whole


def _is_number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool)


def count_text(value: Any) -> str | None:
    """A count, a range of it, a list, or a score; None for what is none of them."""
    if _is_number(value):
        return number(value) if value >= 0 else None
    if isinstance(value, list):
        good = len(value) > 1 and all(_is_number(one) and one >= 0 for one in value)
        # Two numbers with a stroke are two people, or two sides, to whoever reads a wall.
        return (" then " if len(value) == 2 else "/").join(number(one) for one in value) if good else None
    if not isinstance(value, dict):
        return None
    if set(value) <= {"low", "high", "plan"} and _is_number(value.get("low")) and _is_number(value.get("high")):
        text = f"{number(value['low'])}-{number(value['high'])}"
        return f"{text} (plan {number(value['plan'])})" if _is_number(value.get("plan")) else text
    source = value.get("from")
    if isinstance(source, dict) and _is_number(value.get("plan")):
        most = f", at most {number(value['cap'])}" if _is_number(value.get("cap")) else ""
        return f'{number(value["plan"])} ({source.get("take")} of "{source.get("block")}"{most})'
    return None


WIDE = 2.5
"""What goes further up than so many times its low end is more likely a ladder than a range."""


def reps_text(value: Any) -> str | None:
    """A count of reps; a range that could be a ladder is written out: `between 1 and 10`."""
    if (
        isinstance(value, dict)
        and set(value) == {"low", "high"}
        and _is_number(value["low"])
        and _is_number(value["high"])
    ):
        low, high = value["low"], value["high"]
        if low <= 1 or high > WIDE * low or high <= low:
            return f"between {number(low)} and {number(high)}"
    return count_text(value)


def time_text(value: Any, *, as_clock: bool = False) -> str | None:
    """Seconds as 45 s, from a minute on as 1:30 (`as_clock`: always so); ranges and lists in seconds."""
    if _is_number(value) and value >= (0 if as_clock else 60) and float(value).is_integer():
        return clock_text(value)
    text = count_text(value)
    return None if text is None else f"{text} s"


def _loads_text(loads: list[Any]) -> str | None:
    if not all(isinstance(one, dict) and set(one) == {"kg"} for one in loads):
        return None
    text = count_text([one["kg"] for one in loads])
    return None if text is None else f"{text} kg"


def load_text(load: Any) -> str | None:
    """2 x 12 kg, 35 lb, 75 %, 0.64 body weight; 16/20/24 kg by round."""
    if isinstance(load, list):
        return _loads_text(load)
    if not isinstance(load, dict):
        return None
    times = f"{number(load['count'])} x " if _is_number(load.get("count")) else ""
    if _is_number(load.get("kg")):
        if load.get("unit") == "lb":
            return f"{times}{number(round(load['kg'] / POUND_KG, 2))} lb"
        return f"{times}{number(load['kg'])} kg"
    if _is_number(load.get("pct_1rm")):
        return f"{times}{number(load['pct_1rm'])} %"
    if _is_number(load.get("bodyweight")):
        return f"{times}{number(load['bodyweight'])} body weight"
    return None


def pounds(value: float) -> dict[str, Any]:
    """A load typed in pounds, kept in kilograms to the gram."""
    return {"kg": round(value * POUND_KG, 3), "unit": "lb"}


def quoted(text: str) -> str | None:
    """A text in quotes; None for what quotes cannot hold: quotes, a line break, blanks at an end, nothing."""
    return f'"{text}"' if text and '"' not in text and "\n" not in text and text == text.strip() else None
