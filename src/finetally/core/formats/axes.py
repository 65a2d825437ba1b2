"""Search axes: values of a format's free numbers in an order in which time, work, reps and load only grow."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from finetally.core.formats.params import FormatParams
from finetally.core.session.values import FieldValue

DOSE_FACTOR = "×dose"
"""A name on an axis that is no parameter of the format: doses are taken so many times."""

ParamValues = Mapping[str, FieldValue]
Axis = Sequence[ParamValues]


@dataclass(frozen=True, slots=True)
class PlanHints:
    """What the plan has that a format may keep: rounds, a window and its rest; its own parameters, or a shape's.

    `own` says what is not free: an axis turns only numbers that are free, and other values of `own` stay.
    """

    rounds: int | None = None
    work_s: float | None = None
    rest_s: float | None = None
    own: FormatParams | None = None


NO_HINTS = PlanHints()


def along(name: str, values: Iterable[FieldValue], **fixed: FieldValue) -> Axis:
    """One number along its values, others fixed."""
    return [{**fixed, name: value} for value in values]


def axes(name: str, values: Iterable[FieldValue], **others: Sequence[FieldValue]) -> list[Axis]:
    """An axis for every combination of the few values of other numbers, usual ones first."""
    line = list(values)
    combined = itertools.product(*others.values())
    return [along(name, line, **dict(zip(others, chosen, strict=True))) for chosen in combined]


def magnitude(values: ParamValues) -> float:
    """About how much a place of an axis is beside the others of it, in no unit: what ladders hold grows with their square."""
    if "end" in values:
        return max(number_of(values, "start"), number_of(values, "end")) ** 2
    for top, by in (("top_s", "by_s"), ("slot_s", "by_s")):
        if top in values:
            return number_of(values, top) * (number_of(values, top) + number_of(values, by))
    for name in ("window_s", "rounds", "sets", DOSE_FACTOR):
        if name in values:
            # Where a window is turned, rounds are the few values of the other number, and so for sets and reps.
            return number_of(values, name)
    return 0.0


def number_of(values: ParamValues, name: str, default: float = 0.0) -> float:
    """A number of a place on an axis; the default where it is not set, or no number."""
    value = values.get(name)
    return float(value) if isinstance(value, int | float) else default


def rounds_at(values: ParamValues) -> int | None:
    """How often each movement comes up at a place of an axis: its rounds or sets; None where neither is turned."""
    value = values.get("rounds", values.get("sets"))
    return value if isinstance(value, int) else None
