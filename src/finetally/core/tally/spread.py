"""Spread: per figure the smallest and largest of the plan and the four corners of the document's ranges."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Any

from finetally.core.methods.given import Given
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.session.values import AmountRange, CountRange, Part
from finetally.core.tally.measure import measured, tally
from finetally.core.tally.shapes import Measured, Spread
from finetally.core.unfold.resolve import CORNERS


def has_ranges(value: Any) -> bool:
    """Whether a range stands anywhere in a document or a part of it."""
    if isinstance(value, Part):
        if isinstance(value, CountRange | AmountRange):
            return True
        fields = value.__dict__
        children: Iterable[Any] = [fields.get(key) for key in value.model_fields_set]
    elif isinstance(value, list):
        children = value
    else:
        return False
    return any(isinstance(child, Part | list) and has_ranges(child) for child in children)


def _numbers(value: Any, name: str) -> Iterator[tuple[str, float]]:
    if isinstance(value, Mapping):
        for key, child in value.items():
            yield from _numbers(child, f"{name}.{key}" if name else str(key))
    elif isinstance(value, list):
        for index, child in enumerate(value):
            yield from _numbers(child, f"{name}.{index}")
    elif isinstance(value, int | float) and not isinstance(value, bool):
        yield name, value


def spread_of(
    session: Session, plan: Measured, *, library: Library, methods: Methods, given: Given
) -> dict[str, Spread]:
    """Spread of every figure by dotted name (lists by index from 0); empty where the document has no range."""
    if not has_ranges(session.blocks):
        return {}
    spread: dict[str, Spread] = {name: {"low": n, "high": n} for name, n in _numbers(plan, "")}
    for corner in CORNERS:
        made = measured(tally(session, library=library, methods=methods, given=given, corner=corner))
        for name, number in _numbers(made, ""):
            mine = spread.setdefault(name, {"low": number, "high": number})
            mine["low"] = min(mine["low"], number)
            mine["high"] = max(mine["high"], number)
    return spread
