"""What a block is by its numbers, and what a coach's own label claims it is."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from typing_extensions import TypedDict

from finetally.core.formats.format import AnyFormat
from finetally.core.formats.table import FORMATS, Recognised, recognise
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.json_value import JsonObject


class FormatFit(TypedDict):
    """A format that fits a block, with the parameters that make it."""

    key: str
    params: JsonObject


class BlockFormat(TypedDict):
    """What a block of the file is by its numbers: the derived name, and every named format that fits."""

    name: str
    fits: list[FormatFit]


def format_of(block: Block) -> BlockFormat:
    """The derived name of a block and the formats that fit it, most specific first. Not to be changed: it is held."""
    return _format_of(block.model_dump_json(by_alias=True, exclude_unset=True))


@lru_cache(maxsize=2_048)
def _format_of(text: str) -> BlockFormat:
    """Of a block as JSON: while one types, the other blocks stay what they are."""
    block = Block.model_validate_json(text)
    found = recognise([block])
    return {
        "name": _name(found, block),
        "fits": [{"key": one.format.key, "params": one.params.told()} for one in found],
    }


def name_of(entry: BlockOrSection) -> str:
    """The derived name of a block: its most specific format's, else its clock's."""
    return _name(recognise([entry]), entry)


def _name(found: Sequence[Recognised], entry: BlockOrSection) -> str:
    if found:
        return found[0].format.name
    return entry.clock.called if isinstance(entry, Block) else "Blocks"


def claimed(label: str) -> list[AnyFormat]:
    """Formats that a coach's own label claims, by name or by the trade's word."""
    text = label.lower()
    return [one for one in FORMATS if any(word in text for word in one.claims)]
