"""Kit that is needed at the same time, by how many people do the same thing at once."""

from __future__ import annotations

from typing import NamedTuple

from finetally.core.session.clocks import Rotation
from finetally.core.tally.measure import Tally
from finetally.core.unfold.tape import BlockOf, Done

FIXTURES = frozenset(
    {
        "box", "bench", "pull-up bar", "dip bars", "stairs", "cone", "rope", "suspension", "band",
        "skipping rope", "wheel", "stretcher",
    }
)  # fmt: skip
"""Kit that a step's kilograms are never about: they are of the other implement, or of what lies on it."""


class Needed(NamedTuple):
    """An implement, its weight where one is set, how many are needed at once, and a visit that needs them."""

    kit: str
    kg: float | None
    pieces: int
    visit: Done


def people_at_once(of: BlockOf, people: int) -> int:
    """How many people do the same thing at the same time in a block: all, or as many as come to one station."""
    clock = of.block.clock
    return -(-people // len(clock.stations)) if isinstance(clock, Rotation) else people


def kit_needed(t: Tally) -> list[Needed]:
    """The most of each implement and weight that is out at once, in order of first use; one person if unsaid."""
    people = t.session.people or 1
    most: dict[tuple[str, float | None], Needed] = {}
    for done in t.tape.visits:
        each = (done.load.count or 1) if done.load is not None else 1
        at_once = people_at_once(t.tape.blocks[done.block], people)
        for name in sorted(done.step.kit):
            weighed = done.load is not None and name not in FIXTURES
            kg = done.load.kg if done.load is not None and weighed else None
            pieces = at_once * (each if weighed else 1)
            known = most.get((name, kg))
            if known is None or known.pieces < pieces:
                most[(name, kg)] = Needed(name, kg, pieces, done)
    return list(most.values())
