"""Blocks and steps as frozen models: read alone, changed, and gone through."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import TypeVar

from finetally.core.session.clocks import InnerClock, Rotation
from finetally.core.session.document import Block, BlockOrSection, Section, Session
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.movement import MovementDef
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Step
from finetally.core.session.values import DocumentObject, FieldValue

P = TypeVar("P", bound=DocumentObject)
_ALONE = "blocks[0]"


def parse_entry(value: JsonValue) -> BlockOrSection:
    """A block or a section of a document, validated as in a session that holds nothing else.

    Raises DocumentError; places are told from the entry (`clock.work_s`).
    """
    try:
        return parse_entries([value])[0]
    except DocumentError as error:
        raise DocumentError(_of_entry(problem) for problem in error.problems) from None


def parse_entries(values: Iterable[JsonValue]) -> list[BlockOrSection]:
    """Blocks and sections, validated as a session that holds nothing else.

    Raises DocumentError; places are told from the list (`blocks[1].clock`).
    """
    return parse_session({"fine_tally": 1, "title": "-", "blocks": [*values]}).blocks


def _of_entry(problem: Problem) -> Problem:
    path = problem.path.removeprefix(_ALONE).removeprefix(".") if problem.path.startswith(_ALONE) else problem.path
    return Problem(path, problem.found, problem.allowed, problem.code)


def parse_block(value: JsonValue) -> Block:
    """A block, as `parse_entry`. Raises DocumentError, for a section too."""
    entry = parse_entry(value)
    if isinstance(entry, Section):
        raise DocumentError([Problem("section", "a section", "a block", "block")])
    return entry


def as_written(part: DocumentObject) -> JsonObject:
    """A part as it stands in a document: only the keys that were set."""
    return part.model_dump(mode="json", by_alias=True, exclude_unset=True)


def written(part: DocumentObject) -> JsonObject:
    """As `as_written`, with whole numbers as such: 20.0 is 20."""
    return {key: _whole(value) for key, value in as_written(part).items()}


def _whole(value: JsonValue) -> JsonValue:
    if type(value) is float:
        return int(value) if value.is_integer() else value
    if isinstance(value, dict):
        return {key: _whole(child) for key, child in value.items()}
    return [_whole(child) for child in value] if isinstance(value, list) else value


def changed(part: P, /, **values: FieldValue) -> P:
    """The part with other values, which are taken as they are (see `DocumentObject` for what may stand where)."""
    return part.model_copy(update=values)


def without(part: P, *names: str) -> P:
    """The part with these keys unset."""
    there = [name for name in names if name in part.model_fields_set]
    if not there:
        return part
    made = part.model_copy(update=dict.fromkeys(there))
    made.model_fields_set.difference_update(there)
    return made


def set_values(part: DocumentObject, names: Sequence[str]) -> dict[str, FieldValue]:
    """Those of the named keys that are set, with their values."""
    return {name: getattr(part, name) for name in names if name in part.model_fields_set}


def blocks_of_entry(entry: BlockOrSection) -> list[Block]:
    """The blocks of a section, or the block itself."""
    return entry.blocks if isinstance(entry, Section) else [entry]


def steps_of_entry(entry: BlockOrSection) -> list[Step]:
    """The steps of a block, of its stations, or of a section's blocks, one after the other."""
    return [step for block in blocks_of_entry(entry) for step in steps_of_block(block)]


def work_clock(block: Block) -> InnerClock:
    """The clock that a block's work runs on: the inner one in a rotation."""
    return block.clock.inner if isinstance(block.clock, Rotation) else block.clock


def steps_of_block(block: Block) -> Iterator[Step]:
    """The steps of a block, or of its stations one after the other."""
    if isinstance(block.clock, Rotation):
        for station in block.clock.stations:
            yield from station.steps
    else:
        yield from block.steps or ()


def session_of(
    entries: Sequence[BlockOrSection],
    definitions: Sequence[MovementDef] = (),
    *,
    title: str = "-",
    people: int | None = None,
    stands_alone: bool = False,
) -> Session:
    """A session of entries that were validated before; its own rules (ids, lengths) are not looked at again."""
    made = Session(fine_tally=1, title=title, blocks=list(entries))
    if definitions:
        made = changed(made, movements=list(definitions))
    if people is not None:
        made = changed(made, people=people)
    return changed(made, stands_alone=True) if stands_alone else made


def slot_count(steps: Sequence[Step]) -> int:
    """How many slots steps make under starts: `chain` puts the next step into the same one."""
    return sum(1 for step in steps[:-1] if not step.chain) + 1
