"""Capacity from a field test: oxygen uptake in ml/kg/min by its formula, and in MET (÷ 3.5)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal, get_args

from finetally.core.session.problems import Problem

FieldTestKey = Literal["met", "uptake", "twelve-minute-run", "shuttle-20-m"]
FIELD_TEST_KEYS: tuple[FieldTestKey, ...] = get_args(FieldTestKey)

ML_A_MET = 3.5
"""Millilitres of oxygen per kilogram and minute that are one MET."""


@dataclass(frozen=True, slots=True)
class FieldTest:
    """A way to know somebody's capacity: what is put in (`result`, its unit and bounds) and where it is from.

    `uptake`: from the result to ml/kg/min.
    """

    key: FieldTestKey
    label: str
    result: str
    unit: str
    low: float
    high: float
    source: str
    uptake: Callable[[float], float]


def _shuttle_kmh(level: float) -> float:
    """Speed of a level of the 20 m shuttle with stages of a minute: 8.5 km/h in the first, 0.5 more in each."""
    return 8.5 + 0.5 * (level - 1)


FIELD_TESTS: tuple[FieldTest, ...] = (
    FieldTest(
        "met", "known, in MET", "capacity", "MET", 3, 30, "as it was told; 1 MET = 3.5 ml/kg/min",
        lambda met: met * ML_A_MET,
    ),
    FieldTest(
        "uptake", "measured uptake", "uptake", "ml/kg/min", 10, 100, "as it was measured (a laboratory)",
        lambda uptake: uptake,
    ),
    FieldTest(
        "twelve-minute-run", "12-minute run", "distance", "m", 800, 5000,
        "Cooper 1968: (metres − 504.9) ÷ 44.73", lambda metres: (metres - 504.9) / 44.73,
    ),
    FieldTest(
        "shuttle-20-m", "20 m shuttle, levels of a minute", "last whole level", "level", 1, 23,
        "Léger 1988, adults: 6.0 × km/h − 24.4; level 1 is 8.5 km/h, each next 0.5 more",
        lambda level: 6.0 * _shuttle_kmh(level) - 24.4,
    ),
)  # fmt: skip


def field_test(key: str) -> FieldTest | None:
    """The test of that key, if there is one."""
    return next((one for one in FIELD_TESTS if one.key == key), None)


def capacity_met(key: str, result: float) -> float | list[Problem]:
    """Capacity in MET from a test's result; what is wrong with it instead, if anything is."""
    test = field_test(key)
    if test is None:
        return [Problem("test", repr(key), ", ".join(FIELD_TEST_KEYS), "field_test")]
    if not test.low <= result <= test.high:
        return [
            Problem("result", f"{result:g} {test.unit}", f"{test.low:g} to {test.high:g} {test.unit}", "bounds")
        ]
    return test.uptake(result) / ML_A_MET
