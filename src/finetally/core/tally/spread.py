"""Spread: per figure the smallest and largest of the plan and the four corners of the document's ranges."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, Literal

from finetally.core.methods.given import Given
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.session.reading import SCALAR_TYPES
from finetally.core.session.values import AmountRange, CountRange, DocumentObject, FieldValue
from finetally.core.tally.figure_types import Spread, TapeFigures
from finetally.core.tally.measure import measured, tally
from finetally.core.unfold.resolve import Corner, RangeEnd

REST_KEYS = frozenset(
    {
        "rest_s", "round_rest_s", "group_rest_s", "rest_after_s",
        "rest_between_s", "rest_between_repeats_s", "rotate_s",
    }
)  # fmt: skip
"""Keys whose ranges stand at the rests' end; all others are doses."""


def ranged(value: FieldValue, *, rest: bool = False) -> Iterator[Literal["doses", "rests"]]:
    """What ranges in a document, or a part of it, are about; once for each range."""
    if isinstance(value, CountRange | AmountRange):
        yield "rests" if rest else "doses"
    elif isinstance(value, DocumentObject):
        fields = value.__dict__
        for key in value.__pydantic_fields_set__:
            child = fields.get(key)
            if type(child) not in SCALAR_TYPES and isinstance(child, DocumentObject | list):
                yield from ranged(child, rest=key in REST_KEYS)
    elif isinstance(value, list):
        for child in value:
            if type(child) not in SCALAR_TYPES and isinstance(child, DocumentObject | list):
                yield from ranged(child, rest=rest)


def corners_of(session: Session) -> list[Corner]:
    """The corners that can differ from each other: four, two where only doses or only rests range, or none."""
    about = set(ranged(session))
    doses: tuple[RangeEnd, ...] = ("low", "high") if "doses" in about else ("plan",)
    rests: tuple[RangeEnd, ...] = ("low", "high") if "rests" in about else ("plan",)
    return [Corner(d, r) for d in doses for r in rests] if about else []


def numbers_of(value: Any) -> dict[str, float]:
    """Every number of nested figures by dotted name; lists by index from 0."""
    found: dict[str, float] = {}
    _collect(value, "", found)
    return found


def _collect(value: Any, prefix: str, into: dict[str, float]) -> None:
    items = value.items() if isinstance(value, dict) else enumerate(value)
    for key, child in items:
        kind = type(child)
        if kind is float or kind is int:
            into[f"{prefix}{key}"] = child
        elif kind is dict or kind is list:
            _collect(child, f"{prefix}{key}.", into)


def spread_of(
    session: Session, plan: TapeFigures, *, library: Library, methods: Methods, given: Given
) -> dict[str, Spread]:
    """Spread of every figure by dotted name (lists by index from 0); empty where the document has no range."""
    corners = corners_of(session)
    if not corners:
        return {}
    low = numbers_of(plan)
    high = dict(low)
    for corner in corners:
        made = measured(tally(session, library=library, methods=methods, given=given, corner=corner))
        for name, number in numbers_of(made).items():
            if number < low.setdefault(name, number):
                low[name] = number
            if number > high.setdefault(name, number):
                high[name] = number
    return {name: {"low": number, "high": high[name]} for name, number in low.items()}
