"""A block made over into another format, or with other parameters, keeping its movements and the coach's words."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from typing import TypeVar

from finetally.core.formats.doses import usual_dose
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.shape import OWN_WORDS
from finetally.core.formats.table import BY_KEY, make
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Rotation, Station
from finetally.core.session.document import Block, BlockOrSection, Section
from finetally.core.session.parts import changed, set_values, steps_of_entry, without
from finetally.core.session.rules import DOSE_KEYS
from finetally.core.session.step import Step
from finetally.core.session.values import FieldValue

P = TypeVar("P", Block, Section, Step, Station)

FORMAT_STEP_KEYS = (*DOSE_KEYS, "grow", "fill", "chain")
KEPT_BLOCK_KEYS = (*OWN_WORDS, "rest_after_s")


def remade(
    entry: BlockOrSection, key: str, params: Mapping[str, FieldValue], *, library: Library
) -> list[BlockOrSection]:
    """The entries of format `key` with this entry's movements. Its ids, title, part, effort and rests stay.

    Doses stay where the new format takes doses; where it sets windows or doses itself they go. Raises
    CannotMakeError if the format cannot hold the movements, KeyError for a format that there is not.
    """
    chosen = BY_KEY[key]
    made = make(key, [_fitted(step, chosen, library) for step in steps_of_entry(entry)], params)
    made[0] = with_words(
        made[0], set_values(entry, [name for name in KEPT_BLOCK_KEYS if name in type(entry).model_fields])
    )
    if entry.id is not None:
        made[0] = changed(made[0], id=entry.id)
    return without_twins(made)


def with_words(entry: BlockOrSection, words: Mapping[str, FieldValue]) -> BlockOrSection:
    """The entry with words on it; on a section's first block."""
    if isinstance(entry, Section):
        first, *rest = entry.blocks
        return changed(entry, blocks=[changed(first, **words), *rest])
    return changed(entry, **words)


def _fitted(step: Step, chosen: AnyFormat, library: Library) -> Step:
    bare = without(step, *FORMAT_STEP_KEYS)
    if chosen.dose in ("window", "made"):
        return bare
    there = {name: value for name, value in set_values(step, DOSE_KEYS).items() if not _is_list_or_none(value)}
    return changed(bare, **(there or usual_dose(step.movement, library)))


def _is_list_or_none(value: FieldValue) -> bool:
    return value is None or isinstance(value, list)


def without_twins(entries: Sequence[BlockOrSection], taken: Collection[str] = ()) -> list[BlockOrSection]:
    """The entries with each id once: a step that stands in them several times keeps its id the first time.

    Ids that are `taken` elsewhere go too.
    """
    seen = set(taken)

    def once(part: P) -> P:
        if part.id is not None and part.id in seen:
            return without(part, "id")
        if part.id is not None:
            seen.add(part.id)
        return part

    def block_once(block: Block) -> Block:
        block = once(block)
        if block.steps is not None:
            block = changed(block, steps=[once(step) for step in block.steps])
        if isinstance(block.clock, Rotation):
            stations = [
                changed(once(one), steps=[once(step) for step in one.steps]) for one in block.clock.stations
            ]
            block = changed(block, clock=changed(block.clock, stations=stations))
        return block

    return [
        changed(once(entry), blocks=[block_once(block) for block in entry.blocks])
        if isinstance(entry, Section)
        else block_once(entry)
        for entry in entries
    ]
