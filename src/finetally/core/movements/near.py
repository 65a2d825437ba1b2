"""What could stand in a movement's place: its own chain first, then what works the same pattern."""

from __future__ import annotations

from finetally.core.movements.library import Library
from finetally.core.movements.patterns import MAIN_SHARE
from finetally.core.session.movement import MovementDef, keys_listed


def near_to(key: str, library: Library) -> list[str]:
    """Keys of the movements that could stand in the place of one, nearest first; none for one that is not known.

    First its kit swaps and what is easier or harder than it, then what works the pattern that it works most, in the
    same position before others; among equals the shorter name, then the order of names.
    """
    movement = library.get(key)
    if movement is None:
        return []
    chain = _chain(movement)
    ranks = {one: _rank(other, movement, chain) for one, other in library.items() if one != key}
    names = {one: library[one].name or one for one, rank in ranks.items() if rank is not None}
    return sorted(names, key=lambda one: (ranks[one], len(names[one]), names[one]))


def _chain(movement: MovementDef) -> frozenset[str]:
    linked = (movement.kit_swaps, movement.easier, movement.harder)
    return frozenset(one for keys in linked for one in keys_listed(keys))


def _rank(other: MovementDef, movement: MovementDef, chain: frozenset[str]) -> int | None:
    if other.key in chain:
        return 0
    if not movement.patterns:
        return None
    most, _ = max(movement.patterns.items(), key=lambda one: one[1])
    if (other.patterns or {}).get(most, 0) < MAIN_SHARE:
        return None
    return 1 if other.position == movement.position else 2
