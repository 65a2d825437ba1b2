"""Values on the wall: how much, how long, how far. Written in one way, whatever way they were typed."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal

from finetally.core.measures import UNIT_SYSTEMS, Measured, Units, in_unit, told_in
from finetally.core.session.step import Load
from finetally.core.session.values import AmountRange, CountRange, FromScore, PerRoundValue, ToFailure
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


TYPED_IN: dict[str, Units] = {"kg": "metric", "lb": "imperial"}
"""What a load was typed in, by the unit that it says."""


def measured_text(value: float, measured: Measured, units: Units | None) -> str:
    """16 kg, or 35.27 lb: in `units`; None is as documents keep it."""
    told, sign = told_in(value, measured, units or "metric")
    return f"{number(told)} {sign}"


def count_text(value: PerRoundValue) -> str | None:
    """A count, a range of it, a list, or a score; None for what is none of them."""
    if value is None or isinstance(value, ToFailure):
        return None
    if isinstance(value, int | float):
        return number(value)
    if isinstance(value, Sequence):
        # Two numbers with a stroke are two people, or two sides, to whoever reads a wall.
        return (" then " if len(value) == 2 else "/").join(map(number, value)) if len(value) > 1 else None
    if isinstance(value, FromScore):
        most = "" if value.cap is None else f", at most {number(value.cap)}"
        return f'{number(value.plan)} ({value.source.take} of "{value.source.block}"{most})'
    text = f"{number(value.low)}-{number(value.high)}"
    return text if value.plan is None else f"{text} (plan {number(value.plan)})"


WIDE = 2.5
"""What goes further up than so many times its low end is more likely a ladder than a range."""


def reps_text(value: PerRoundValue) -> str | None:
    """A count of reps; a range that could be a ladder is written out: `between 1 and 10`."""
    if isinstance(value, CountRange) and value.plan is None and _could_be_a_ladder(value):
        return f"between {number(value.low)} and {number(value.high)}"
    return count_text(value)


def _could_be_a_ladder(value: CountRange) -> bool:
    return value.low <= 1 or value.high > WIDE * value.low or value.high <= value.low


def time_text(value: PerRoundValue, *, as_clock: bool = False) -> str | None:
    """Seconds as 45 s, from a minute on as 1:30 (`as_clock`: always so); ranges and lists in seconds."""
    if isinstance(value, int | float) and value >= (0 if as_clock else 60) and float(value).is_integer():
        return clock_text(value)
    text = count_text(value)
    return None if text is None else f"{text} s"


def metres_text(value: PerRoundValue, units: Units | None = None) -> str | None:
    """How far: 40 m, 10/20/30 m, or 43.74 yd in `units`."""
    if isinstance(value, int | float):
        return measured_text(value, "m", units)
    # What is several distances is told in one unit, as a list of them is typed.
    smallest = UNIT_SYSTEMS[units or "metric"]["m"][0]
    if isinstance(value, Sequence):
        text = count_text([in_unit(one, smallest) for one in value])
    elif isinstance(value, AmountRange):
        told = ((name, getattr(value, name)) for name in ("low", "high", "plan"))
        ends = {name: in_unit(one, smallest) for name, one in told if one is not None}
        text = count_text(value.model_copy(update=ends))
    else:
        text, smallest = count_text(value), UNIT_SYSTEMS["metric"]["m"][0]
    return None if text is None else f"{text} {smallest.sign}"


def _loads_text(loads: Sequence[Load], units: Units | None) -> str | None:
    smallest = UNIT_SYSTEMS[units or "metric"]["kg"][0]
    kilograms = [
        in_unit(one.kg, smallest) for one in loads if one.kg is not None and one.model_fields_set == {"kg"}
    ]
    text = count_text(kilograms) if len(kilograms) == len(loads) else None
    return None if text is None else f"{text} {smallest.sign}"


def load_text(load: Load | Sequence[Load] | None, units: Units | None = None) -> str | None:
    """2 x 12 kg, 35 lb, 75 %, 0.64 body weight; 16/20/24 kg by round. What was typed in a unit keeps it.

    `units`: what other masses are told in; None is the wall's own way, which is read again.
    """
    if load is None:
        return None
    if not isinstance(load, Load):
        return _loads_text(load, units)
    times = "" if load.count is None else f"{number(load.count)} x "
    if load.kg is not None:
        return f"{times}{measured_text(load.kg, 'kg', TYPED_IN[load.unit] if load.unit else units)}"
    if load.pct_1rm is not None:
        return f"{times}{number(load.pct_1rm)} %"
    if load.bodyweight is not None:
        return f"{times}{number(load.bodyweight)} body weight"
    return None


def quoted(text: str) -> str | None:
    """A text in quotes; None for what quotes cannot hold: quotes, a line break, blanks at an end, nothing."""
    return f'"{text}"' if text and '"' not in text and "\n" not in text and text == text.strip() else None
