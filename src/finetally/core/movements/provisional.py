"""Movements that nobody knows yet: what is taken of them until somebody tells what they are."""

from __future__ import annotations

from finetally.core.session.movement import MovementDef


def provisional_movement(key: str, met: float) -> MovementDef:
    """An unknown movement: standing, both sides, no kit, no pattern, `met` multiples of rest.

    It has no pace and no speed, so that windows estimate no reps of it; a dose in reps or metres takes those of
    `methods.unknown`.
    """
    return MovementDef(key=key, name=key, position="standing", met=met)
