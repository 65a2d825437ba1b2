"""Sweep: one format over a range of one number, to see where effort or density turns."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from typing_extensions import TypedDict

from finetally.core.compare.columns import Column, column_of
from finetally.core.compare.pouring import not_carried, pour_into
from finetally.core.compare.recast import Recast
from finetally.core.compare.refusal import Cause
from finetally.core.compare.side_by_side import ComparisonStart
from finetally.core.formats.params import CannotMakeError, param_spec, read_params
from finetally.core.formats.table import BY_KEY
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.values import FieldValue

MAX_POINTS = 12
"""Small multiples that can be read beside each other."""


class SweepPoint(TypedDict):
    """The format at one value of the number."""

    value: int
    column: Column


class Turn(TypedDict):
    """A value at which a row turns: its figure there, and whether it rose before (and falls from there on)."""

    row: str
    value: int
    figure: float
    from_rising: bool


class NotSweptError(ValueError):
    """The number cannot be swept so; says why."""


USUAL_SWEEPS = {"seconds": (15, 60, 5), "count": (1, 8, 1), "reps": (2, 20, 2)}
"""From, to and step that a sweep begins with, by what is counted: what fits on a page."""


class SweepRange(TypedDict):
    """Where a sweep of a number begins and ends, and by what step."""

    low: int
    high: int
    step: int


def usual_sweep(key: str, name: str) -> SweepRange | None:
    """A first range of a format's number: the usual one within its bounds; None for what cannot be swept."""
    one = param_spec(BY_KEY[key].params, name)
    usual = USUAL_SWEEPS.get(one.unit)
    if usual is None:
        return None
    low, high, step = max(math.ceil(one.low), usual[0]), usual[1], usual[2]
    if low <= high:
        return {"low": low, "high": min(math.floor(one.high), high), "step": step}
    # A number whose least value is beyond the usual range: from there on, in eight steps.
    high = min(math.floor(one.high), low * 8)
    return {"low": low, "high": high, "step": max(1, math.ceil((high - low) / 8))}


def sweep_values(key: str, name: str, low: int, high: int, step: int) -> list[int]:
    """The values of a sweep. Raises NotSweptError outside the number's bounds, or for too many."""
    chosen = BY_KEY[key]
    if name not in chosen.params.model_fields:
        raise NotSweptError(f"{chosen.name} has no number {name!r}")
    one = param_spec(chosen.params, name)
    if one.unit not in ("seconds", "count", "reps"):
        raise NotSweptError(f"{chosen.name} has no number {name!r}")
    if step <= 0 or high < low:
        raise NotSweptError(f"{low} to {high} by {step} holds no values")
    if low < one.low or high > one.high:
        raise NotSweptError(f"{name} goes from {one.low:g} to {one.high:g}")
    values = list(range(low, high + 1, step))
    if len(values) > MAX_POINTS:
        raise NotSweptError(f"{len(values)} values; at most {MAX_POINTS} are shown beside each other")
    return values


def sweep(
    start: ComparisonStart,
    key: str,
    name: str,
    values: Sequence[int],
    fixed: Mapping[str, FieldValue],
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
) -> list[SweepPoint]:
    """The format at each value of one number, the others fixed (else the plan's own, else usual).

    A value that cannot be says why.
    """
    chosen = BY_KEY[key]
    own = start.own_params(key)
    base = {} if own is None else dict(own)
    points: list[SweepPoint] = []
    for value in values:
        try:
            params = read_params(chosen.params, {**base, **fixed, name: value}, chosen.name)
            entries = pour_into(start.ingredients, chosen, params, start.ingredients.doses)
            made = Recast(key, params, tuple(entries), losses=not_carried(start.ingredients, chosen, params))
        except CannotMakeError as no:
            made = Recast(key, causes=(Cause("cannot", str(no)),))
        column = column_of(made, chosen, start.ingredients, library=library, methods=methods)
        points.append({"value": value, "column": column})
    return points


TURNING_ROWS = ("effort", "density", "above-80", "load")


def turns_of(points: Sequence[SweepPoint]) -> list[Turn]:
    """Where a row turns: of each that rises and falls (or the other way), the value at which it does.

    Steps of less than 1 % of the row's span are no turn.
    """
    found: list[Turn] = []
    for row in TURNING_ROWS:
        line = [(one["value"], v) for one in points if (v := one["column"]["values"].get(row)) is not None]
        if len(line) < 3:
            continue
        span = max(v for _, v in line) - min(v for _, v in line)
        rising: bool | None = None
        top = line[0]
        for at, value in line[1:]:
            if abs(value - top[1]) <= span / 100:
                continue
            if rising is not None and (value > top[1]) is not rising:
                found.append({"row": row, "value": top[0], "figure": top[1], "from_rising": rising})
            rising, top = value > top[1], (at, value)
    return found
