"""A recast put to use: as edits of the session it came from, or as a session of its own."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from finetally.core.edits.edit import Edit, InsertEdit, RemoveEdit, apply_edits
from finetally.core.formats.remake import without_twins
from finetally.core.session.clocks import Rotation
from finetally.core.session.document import Block, BlockOrSection, Section, Session
from finetally.core.session.ids import with_ids
from finetally.core.session.json_value import objects
from finetally.core.session.parts import as_written, blocks_of_entry, changed, set_values, steps_of_entry

Source = list[int | str]
"""Where the compared entries stand: numbers (from 0) or ids of entries of the session's `blocks`."""


def entries_at(session: Session, source: Source) -> list[int]:
    """Numbers of the entries that a source names, in order. Raises LookupError with what is not there."""
    blocks = session.blocks
    numbers = []
    for one in source:
        if isinstance(one, int) and not isinstance(one, bool):
            if not 0 <= one < len(blocks):
                raise LookupError(f"there is no block {one + 1}")
            numbers.append(one)
            continue
        found = next((n for n, entry in enumerate(blocks) if _has(entry, one)), None)
        if found is None:
            raise LookupError(f"there is no block with the id {one!r}")
        numbers.append(found)
    return sorted(set(numbers))


def _has(entry: BlockOrSection, identity: str | int) -> bool:
    return entry.id == identity or any(block.id == identity for block in blocks_of_entry(entry))


def is_main(block: Block) -> bool:
    """Whether a block is of the main part, as it is where nothing is said."""
    return block.part in (None, "main")


def main_part(session: Session) -> list[int]:
    """The entries of the main part: blocks, and sections with a main block in them."""
    return [
        number
        for number, entry in enumerate(session.blocks)
        if any(is_main(block) for block in blocks_of_entry(entry))
    ]


def use_edits(
    session: Session, source: Source, entries: Sequence[BlockOrSection], how: Literal["replace", "insert"]
) -> list[Edit]:
    """Edits that put `entries` in the place of the source's, or after them. The last rest of the source stays.

    Every part gets an id; one that stands elsewhere in the session is given anew, so that each is there once.
    """
    numbers = entries_at(session, source)
    stays = [entry for n, entry in enumerate(session.blocks) if how == "insert" or n not in numbers]
    made = without_twins(entries, {name for entry in stays for name in _ids(entry)})
    edits: list[Edit] = []
    at = numbers[-1] + 1
    if how == "replace":
        made[-1] = _with_rest_of(session.blocks[numbers[-1]], made[-1])
        edits.extend(RemoveEdit(path=["blocks"], index=number) for number in reversed(numbers))
        at = numbers[0]
    inserts: list[Edit] = [
        InsertEdit(path=["blocks"], index=at + n, value=as_written(entry)) for n, entry in enumerate(made)
    ]
    after, _ = apply_edits(as_written(session), [*edits, *inserts])
    named = [*objects(with_ids(after)["blocks"])]
    edits.extend(InsertEdit(path=["blocks"], index=at + n, value=named[at + n]) for n in range(len(made)))
    return edits


def _with_rest_of(old: BlockOrSection, new: BlockOrSection) -> BlockOrSection:
    """The rest before what follows belongs to the session, not to the format."""
    if isinstance(old, Section) or isinstance(new, Section):
        return new
    return changed(new, **set_values(old, ["rest_after_s"]))


def _ids(entry: BlockOrSection) -> Iterator[str]:
    """The ids of an entry, of its blocks, stations and steps."""
    blocks = blocks_of_entry(entry)
    stations = [one for block in blocks if isinstance(block.clock, Rotation) for one in block.clock.stations]
    for part in (entry, *blocks, *stations, *steps_of_entry(entry)):
        if part.id is not None:
            yield part.id
