"""Exits: the figures as if the session ended before a block that is marked so, cool-down kept."""

from __future__ import annotations

from finetally.core.methods.given import Given
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.tally.measure import tally
from finetally.core.tally.shapes import ExitFigures
from finetally.core.unfold.resolve import PLAN, Resolver
from finetally.core.unfold.unfold import blocks_of, passes_of


def exits_of(session: Session, *, library: Library, methods: Methods, given: Given) -> list[ExitFigures]:
    """One entry for each block with `optional: exit`, in order; at its first pass where it has several."""
    blocks = blocks_of(session)
    if all(of.block.optional != "exit" for of in blocks):
        return []
    exits: list[ExitFigures] = []
    seen: set[int] = set()
    for index, planned in enumerate(passes_of(session, Resolver(PLAN, given.scores))):
        if blocks[planned.block].block.optional != "exit" or planned.block in seen or index == 0:
            continue
        seen.add(planned.block)
        cut = tally(session, library=library, methods=methods, given=given, end_before=index)
        exits.append({"before": blocks[planned.block].ident, **cut.whole.figures(methods), "load": cut.load})
    return exits
