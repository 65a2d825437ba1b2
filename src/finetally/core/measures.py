"""What masses and distances are told in: metric as documents keep them, or imperial. Nothing is figured in it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

from finetally.core.session.json_value import JsonObject
from finetally.core.session.values import POUND_KG

Units = Literal["metric", "imperial"]
"""What somebody reads and types masses and distances in."""

Measured = Literal["kg", "m"]
"""What a document keeps them in: kilograms, metres."""

YARD_M, MILE_M = 0.9144, 1609.344
"""Metres in a yard and in a mile (the international yard, 1959)."""

DECIMALS = 2
"""Of what is told: a gram of a pound, a centimetre of a yard, nobody lifts or walks."""


@dataclass(frozen=True, slots=True)
class UnitOfMeasure:
    """A unit by its sign, and how much of what documents keep one of it is."""

    sign: str
    each: float


UNIT_SYSTEMS: dict[Units, dict[Measured, tuple[UnitOfMeasure, ...]]] = {
    "metric": {"kg": (UnitOfMeasure("kg", 1),), "m": (UnitOfMeasure("m", 1),)},
    "imperial": {
        "kg": (UnitOfMeasure("lb", POUND_KG),),
        "m": (UnitOfMeasure("yd", YARD_M), UnitOfMeasure("mi", MILE_M)),
    },
}
"""The units that go together, of each measured thing from the smallest up.

Typed is always in the smallest; told in the largest that there is one whole of.
"""


def in_unit(value: float, unit: UnitOfMeasure) -> float:
    """A mass in kg or a distance in m as so many of a unit, with two decimals at most; as it stands in its own."""
    return value if unit.each == 1 else round(value / unit.each, DECIMALS)


def told_in(value: float, measured: Measured, units: Units) -> tuple[float, str]:
    """A mass in kg or a distance in m as somebody reads it: the number and its sign."""
    choices = UNIT_SYSTEMS[units][measured]
    chosen = next((one for one in reversed(choices) if value >= one.each), choices[0])
    return in_unit(value, chosen), chosen.sign


def published_measures() -> JsonObject:
    """The table as the pages read it: of each system and measured thing its units."""
    return {
        key: {of: [{"sign": one.sign, "each": one.each} for one in system[of]] for of in get_args(Measured)}
        for key, system in UNIT_SYSTEMS.items()
    }
