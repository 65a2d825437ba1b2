"""One level of an explanation: a figure's value, the operator, and its terms."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from typing import Literal

from typing_extensions import TypedDict

from finetally.core.tally.effort import scaled
from finetally.core.unfold.pace import whole_units
from finetally.core.unfold.tape import Identity

Operator = Literal["sum", "product", "ratio", "rms", "max", "floor", "lookup", "given"]
TermUnit = Literal["s", "min", "reps", "kg", "m", "share", "effort", "load", "count", "s·capacity", "ratio"]


Scale = Sequence[tuple[float, float]]
"""Points of the methods' effort scale: a share of capacity, and the effort it is felt as."""


class NamedValue(TypedDict):
    """A number with its name and unit."""

    label: str
    value: float
    unit: TermUnit


class Term(NamedValue, total=False):
    """One term. `count` alike terms of `each` make `value`; `figure` can be asked again; `at` says where."""

    count: int
    each: float
    weight: float
    figure: str
    at: list[dict[str, Identity]]


class Explanation(TypedDict):
    """One level: applying `operator` to the terms gives `value`. `given` has no terms: it was typed or is data."""

    figure: str
    value: float
    unit: TermUnit
    operator: Operator
    terms: list[Term]
    note: str | None


class UnknownFigureError(KeyError):
    """There is no figure of that name in this session."""

    def __init__(self, figure: str) -> None:
        self.figure = figure
        super().__init__(figure)


MAX_ADDRESSES = 50
"""Addresses listed with one term; enough to light the windows, short enough to send."""


def node(
    figure: str,
    value: float,
    unit: TermUnit,
    operator: Operator,
    terms: Iterable[Term] = (),
    note: str | None = None,
) -> Explanation:
    """Make one level; `value` in `unit`, which `operator` gives of the terms."""
    return {
        "figure": figure,
        "value": value,
        "unit": unit,
        "operator": operator,
        "terms": list(terms),
        "note": note,
    }


def term(
    label: str,
    value: float,
    unit: TermUnit,
    figure: str | None = None,
    *,
    weight: float | None = None,
    at: Sequence[dict[str, Identity]] = (),
) -> Term:
    """Make one term: `value` in `unit`; of `at` the first MAX_ADDRESSES stay; `figure` can be asked for."""
    made: Term = {"label": label, "value": value, "unit": unit}
    if figure is not None:
        made["figure"] = figure
    if weight is not None:
        made["weight"] = weight
    if at:
        made["at"] = list(at[:MAX_ADDRESSES])
    return made


def grouped(items: Iterable[tuple[str, float, dict[str, Identity], str | None]], unit: TermUnit) -> list[Term]:
    """Alike terms (same label and value) as one, in order of first appearance: "8 × 20 s".

    `items` are label, value in `unit`, address, and the figure to ask again (the first of a group stands for all).
    """
    groups: dict[tuple[str, float], Term] = {}
    for label, value, at, figure in items:
        key = (label, round(value, 6))
        found = groups.get(key)
        if found is None:
            found = groups[key] = term(label, 0.0, unit, figure)
            found["count"], found["each"], found["at"] = 0, value, []
        found["count"] += 1
        found["value"] += value
        if len(found["at"]) < MAX_ADDRESSES:
            found["at"].append(at)
    return list(groups.values())


def evaluate(explanation: Explanation, scale: Scale) -> float:
    """Apply an explanation's operator to its terms; equals its value. `scale` is the methods' effort scale.

    ratio: first ÷ second. floor: whole reps of first ÷ second, times the third if there is one. rms: weighted
    by `weight`. lookup: effort on the scale for the first term.
    """
    values = [t["value"] for t in explanation["terms"]]
    return _OPERATORS[explanation["operator"]](values, explanation, scale)


def _rms(values: list[float], explanation: Explanation, _: Scale) -> float:
    weights = [t.get("weight", 1.0) for t in explanation["terms"]]
    total = sum(weights)
    return math.sqrt(sum(w * v * v for w, v in zip(weights, values, strict=True)) / total) if total else 0.0


_OPERATORS: dict[str, Callable[[list[float], Explanation, Scale], float]] = {
    "sum": lambda v, e, s: sum(v),
    "product": lambda v, e, s: math.prod(v),
    "ratio": lambda v, e, s: v[0] / v[1],
    "rms": _rms,
    "max": lambda v, e, s: max(v, default=0.0),
    "floor": lambda v, e, s: whole_units(v[0] / v[1]) * (v[2] if len(v) > 2 else 1),
    "lookup": lambda v, e, s: scaled(v[0], s),
    "given": lambda v, e, s: e["value"],
}
