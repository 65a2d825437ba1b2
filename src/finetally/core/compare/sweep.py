"""Sweep: one format over a range of one number, to see where effort or density turns."""

from __future__ import annotations

from collections.abc import Sequence

from typing_extensions import TypedDict

from finetally.core.compare.columns import Column, column_of
from finetally.core.compare.recast import Recast, poured
from finetally.core.compare.side_by_side import Poured
from finetally.core.formats.shape import CannotMakeError, Params
from finetally.core.formats.table import BY_KEY
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library

MAX_POINTS = 12
"""Small multiples that can be read beside each other."""


class SweepPoint(TypedDict):
    """The format at one value of the number."""

    value: int
    column: Column


class NotSweptError(ValueError):
    """The number cannot be swept so; says why."""


def sweep_values(key: str, name: str, low: int, high: int, step: int) -> list[int]:
    """The values of a sweep. Raises NotSweptError outside the number's bounds, or for too many."""
    param = next((one for one in BY_KEY[key].params if one.name == name), None)
    if param is None or param.kind not in ("seconds", "count", "reps"):
        raise NotSweptError(f"{BY_KEY[key].name} has no number {name!r}")
    if step <= 0 or high < low:
        raise NotSweptError(f"{low} to {high} by {step} holds no values")
    if low < param.low or high > param.high:
        raise NotSweptError(f"{name} goes from {param.low:g} to {param.high:g}")
    values = list(range(low, high + 1, step))
    if len(values) > MAX_POINTS:
        raise NotSweptError(f"{len(values)} values; at most {MAX_POINTS} are shown beside each other")
    return values


def sweep(
    start: Poured,
    key: str,
    name: str,
    values: Sequence[int],
    fixed: Params,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
) -> list[SweepPoint]:
    """The format at each value of one number, the others fixed (else the plan's own, else usual).

    A value that cannot be says why.
    """
    points: list[SweepPoint] = []
    for value in values:
        params = {**start.own.get(key, {}), **fixed, name: value}
        try:
            entries = poured(start.ingredients, BY_KEY[key], params, start.ingredients.doses)
            made = Recast(key, params, tuple(entries))
        except CannotMakeError as no:
            made = Recast(key, params, why=str(no))
        except TypeError:
            made = Recast(key, params, why="a number of another kind than the format's")
        column = column_of(made, start.ingredients.definitions, library=library, methods=methods)
        points.append({"value": value, "column": column})
    return points
