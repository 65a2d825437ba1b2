"""Differences of figures: what a change, an option or a person makes of every number."""

from __future__ import annotations

from typing import Any

from finetally.core.tally.spread import numbers_of


def deltas(before: dict[str, Any], after: dict[str, Any]) -> dict[str, float]:
    """By dotted name, `after` less `before`, for every number that differs; a number on one side counts from 0."""
    old, new = numbers_of(before), numbers_of(after)
    names = [*new, *(name for name in old if name not in new)]
    made = {name: new.get(name, 0.0) - old.get(name, 0.0) for name in names}
    return {name: value for name, value in made.items() if abs(value) > 1e-9}
