"""Which movements each side has for itself, however a time is told."""

from __future__ import annotations

from finetally.core.session.movement import MovementDef


def one_sided_hold(movement: MovementDef | None, words: str) -> bool:
    """Whether a movement is a stretch or hold of one side; of one that nobody knows, what ends in `stretch`."""
    if movement is None:
        return words.lower().endswith(("stretch", "stretches"))
    return movement.sides == "each" and (set(movement.patterns) == {"mobility"} or movement.pace_s is None)
