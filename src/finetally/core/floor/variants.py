"""Values from a score, laid out ahead: what a run without a network does with each score that may be made."""

from __future__ import annotations

from dataclasses import dataclass

from finetally.core.floor.document import Run
from finetally.core.floor.from_score import caps_from, takes_from
from finetally.core.floor.queue import Layout
from finetally.core.floor.sheet import Sheet, sheet
from finetally.core.methods.given import Score
from finetally.core.movements.library import Library

MOST_VARIANTS = 60
"""Layouts sent along with one sheet: one score up to 59 rounds, or two up to 29."""

MOST_VARIANT_BEATS = 5_000
"""Beats of all of them together: what a phone takes over a weak network."""


@dataclass(frozen=True, slots=True)
class Variant:
    """What follows where a block, by number, scores `value` of `take` (rounds, reps or rung)."""

    block: int
    take: str
    value: int
    layout: Layout
    sheet: Sheet


def variants_of(run: Run, laid: Sheet, *, library: Library) -> list[Variant]:
    """A layout for every value that a score may give, from 0 to its cap.

    Blocks of whose score two values are taken have none, nor what would be too much: they need the server.
    """
    found: list[Variant] = []
    for number, of in enumerate(laid.tape.blocks):
        ident = of.block.id
        if ident is None:
            continue
        depending = [other for other in laid.tape.blocks if takes_from(run.session, other, ident)]
        caps = caps_from(run.session, ident, MOST_VARIANTS - 1)
        if not depending or len(caps) != 1:
            continue
        ((take, cap),) = caps.items()
        if len(found) + cap + 1 > MOST_VARIANTS:
            continue
        changed = {other.ident for other in depending}
        for value in range(cap + 1):
            score = Score.model_validate({take: value})
            given = run.given.model_copy(update={"scores": {**run.given.scores, ident: score}})
            made = sheet(laid.session, library=library, methods=run.methods, given=given, apart=run.apart)
            names = frozenset(b.passage for b in made.beats if made.tape.blocks[b.block].ident in changed)
            order = list(dict.fromkeys(beat.passage for beat in made.beats))
            found.append(Variant(number, take, value, Layout(order, names, made.beats), made))
    beats = sum(beat.passage in one.layout.changed for one in found for beat in one.layout.beats)
    return found if beats <= MOST_VARIANT_BEATS else []
