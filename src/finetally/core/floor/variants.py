"""Values from a score, laid out ahead: what a run without a network does with each score that may be made."""

from __future__ import annotations

from dataclasses import dataclass

from finetally.core.floor.document import Run
from finetally.core.floor.queue import Layout
from finetally.core.floor.replay import takes_from
from finetally.core.floor.sheet import Sheet, sheet
from finetally.core.methods.given import Score
from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonValue

MOST_VARIANTS = 60
"""Layouts sent along with one sheet: a score up to sixty rounds, or two up to thirty."""

MOST_VARIANT_BEATS = 5_000
"""Beats of all of them together: what a phone takes over a weak network."""

Take = str


@dataclass(frozen=True, slots=True)
class Variant:
    """What follows where a block, by number, scores `value` of `take` (rounds, reps or rung)."""

    block: int
    take: Take
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
        caps = _caps(run.session, ident)
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


def _caps(session: JsonValue, block: str) -> dict[Take, int]:
    """What is taken of a block's score, and up to which value it makes a difference."""
    caps: dict[Take, int] = {}
    stack: list[JsonValue] = [session]
    while stack:
        here = stack.pop()
        if isinstance(here, dict):
            source = here.get("from")
            if isinstance(source, dict) and source.get("block") == block:
                take, cap = str(source.get("take")), here.get("cap")
                most = int(cap) if isinstance(cap, int | float) else MOST_VARIANTS
                caps[take] = max(caps.get(take, 0), most)
            stack.extend(here.values())
        elif isinstance(here, list):
            stack.extend(here)
    return caps
