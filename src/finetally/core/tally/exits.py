"""Exits: the figures as if the session ended before a block that is marked so, cool-down kept."""

from __future__ import annotations

from finetally.core.methods.given import Given
from finetally.core.session.document import Session
from finetally.core.tally.figure_types import ExitFigures
from finetally.core.tally.measure import Tally
from finetally.core.unfold.resolve import AT_PLAN, Resolver
from finetally.core.unfold.tape import Identity
from finetally.core.unfold.unfold import blocks_of, passes_of


def exit_places(session: Session, given: Given) -> list[tuple[Identity, int]]:
    """The blocks marked as exits, by id, with the entry of the plan that the session would end before."""
    blocks = blocks_of(session)
    if all(of.block.optional != "exit" for of in blocks):
        return []
    places: list[tuple[Identity, int]] = []
    seen: set[int] = set()
    for index, planned in enumerate(passes_of(session, Resolver(AT_PLAN, given.scores))):
        if blocks[planned.block].block.optional == "exit" and planned.block not in seen and index > 0:
            seen.add(planned.block)
            places.append((blocks[planned.block].ident, index))
    return places


def exits_of(t: Tally) -> list[ExitFigures]:
    """One entry for each block with `optional: exit`, in order; at its first pass where it has several."""
    exits: list[ExitFigures] = []
    for before, index in exit_places(t.session, t.given):
        cut = t.ended_before(index)
        exits.append({"before": before, **cut.whole.figures(t.methods), "load": cut.load})
    return exits
