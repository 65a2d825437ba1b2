"""Kit that is needed at the same time, by how many people do the same thing at once."""

from __future__ import annotations

from typing import NamedTuple

from finetally.core.session.clocks import Rotation
from finetally.core.tally.measure import Tally
from finetally.core.unfold.tape import LocatedBlock, PerformedVisit

FIXTURES = frozenset(
    {
        "box", "bench", "pull-up bar", "dip bars", "stairs", "cone", "rope", "suspension", "band",
        "skipping rope", "wheel", "stretcher",
    }
)  # fmt: skip
"""Kit that a step's kilograms are never about: they are of the other implement, or of what lies on it."""


class KitNeed(NamedTuple):
    """An implement, its weight where one is set, how many are needed at once, and a visit that needs them."""

    kit: str
    kg: float | None
    pieces: int
    visit: PerformedVisit


def people_at_once(of: LocatedBlock, people: int) -> int:
    """How many people do the same thing at the same time in a block: all, or as many as come to one station."""
    clock = of.block.clock
    return -(-people // len(clock.stations)) if isinstance(clock, Rotation) else people


def kit_needed(t: Tally, people: int | None = None) -> list[KitNeed]:
    """The most of each implement and weight that is out at once, in order of first use.

    `people`: how many are expected; unsaid as many as the session says, else one.
    """
    people = people or t.session.people or 1
    most: dict[tuple[str, float | None], KitNeed] = {}
    for visit in t.tape.visits:
        each = (visit.load.count or 1) if visit.load is not None else 1
        at_once = people_at_once(t.tape.blocks[visit.block], people)
        for name in sorted(visit.step.kit):
            weighed = visit.load is not None and name not in FIXTURES
            kg = visit.load.kg if visit.load is not None and weighed else None
            pieces = at_once * (each if weighed else 1)
            known = most.get((name, kg))
            if known is None or known.pieces < pieces:
                most[(name, kg)] = KitNeed(name, kg, pieces, visit)
    return list(most.values())
