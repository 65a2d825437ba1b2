"""What a movement gets where a dose is needed and none is known, and steps as they are added."""

from __future__ import annotations

from collections.abc import Mapping

from finetally.core.movements.library import Library
from finetally.core.session.parts import changed
from finetally.core.session.step import Step
from finetally.core.session.values import FieldValue

USUAL_REPS, USUAL_SECONDS, USUAL_METRES = 10, 30, 20
REST_BEFORE_NEW_S = 60
"""Rest that goes before a new block where none stands: sessions are not written without."""


def usual_dose(key: str, library: Library) -> Mapping[str, FieldValue]:
    """What a movement gets where a dose is needed and none is known: reps; metres or seconds without a pace."""
    movement = library.get(key)
    if movement is None or movement.pace_s:
        return {"reps": USUAL_REPS}
    return {"metres": USUAL_METRES} if movement.speed_mps else {"seconds": USUAL_SECONDS}


def usual_step(key: str, library: Library, *, dosed: bool) -> Step:
    """A step as it is added: its usual dose if the clock asks for one, and how a one-sided movement counts."""
    movement = library.get(key)
    step = Step(movement=key)
    if dosed:
        step = changed(step, **usual_dose(key, library))
    if movement is not None and movement.sides not in (None, "both"):
        step = changed(step, sides=movement.sides)
    return step
