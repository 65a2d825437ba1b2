"""Which movement a bare name means with its dose: `row` with kilograms is no machine."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import NamedTuple

from finetally.core.movements.library import Library
from finetally.core.movements.names import NOT_COUNTED, EverydayNames, canonical

HEAVY_KG = 30
"""A squat or thruster that is only called so has a barbell from here on (house assumption)."""

HEAVIER = MappingProxyType(
    {
        "squat": "barbell-back-squat",
        "thruster": "barbell-thruster",
        "push press": "barbell-push-press",
        "bent over row": "barbell-row",
        "bent row": "barbell-row",
    }
)
"""What a bare name is with a load that no pair of dumbbells has."""


class SaidDose(NamedTuple):
    """What is written beside a name, as in a step: reps, seconds, metres, loads (a list by round), sides."""

    reps: object = None
    seconds: object = None
    metres: object = None
    load: object = None
    sides: object = None


def is_heavy(load: object) -> bool:
    """Whether a load (the last of a list) is one that no pair of dumbbells has."""
    last = load[-1] if isinstance(load, list) and load else load
    if not isinstance(last, Mapping) or last.get("count"):
        return False
    kilograms = last.get("kg")
    return "pct_1rm" in last or (isinstance(kilograms, int | float) and kilograms >= HEAVY_KG)


def movement_by_dose(words: str, dose: SaidDose, *, names: EverydayNames, library: Library) -> str | None:
    """The movement that a bare name means with this dose; None where the dose changes nothing.

    >>> movement_by_dose("squat", SaidDose(reps=5, load={"kg": 80}), names=names, library=library)
    'barbell-back-squat'
    """
    text = words.lower().strip()
    plain = " ".join(word for word in canonical(words) if word not in NOT_COUNTED)
    if text == "rows" and isinstance(dose.reps, int | dict) and dose.load is None:
        # Reps of rows without a load: a machine has none to count.
        return names.find("bent row")
    if plain == "row" and dose.metres is None and dose.seconds is None and isinstance(dose.load, Mapping):
        # Nobody loads a rowing machine with kilograms.
        barbell = is_heavy(dose.load) and "barbell-row" in library
        return "barbell-row" if barbell else names.find("bent row")
    if plain in HEAVIER and is_heavy(dose.load) and HEAVIER[plain] in library:
        return HEAVIER[plain]
    if dose.sides == "each" and plain == "dumbbell row" and "bell-row" in library:
        return "bell-row"
    return None
