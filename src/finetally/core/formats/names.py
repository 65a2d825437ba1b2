"""What a block is by its numbers, and what a coach's own label claims it is."""

from __future__ import annotations

import json
from collections.abc import Sequence
from functools import lru_cache
from types import MappingProxyType
from typing import Any

from typing_extensions import TypedDict

from finetally.core.formats.shape import Entry, Format, Params
from finetally.core.formats.table import FORMATS, Recognised, recognise
from finetally.core.session.document import Block

CLOCK_NAMES = MappingProxyType(
    {
        "intervals": "Intervals",
        "every": "Timed starts",
        "amrap": "Rounds against the clock",
        "task": "Work until done",
        "rotation": "Stations",
    }
)
"""What a block is called that fits no named format."""


class Fit(TypedDict):
    """A format that fits a block, with the parameters that make it."""

    key: str
    params: Params


class BlockFormat(TypedDict):
    """What a block of the file is by its numbers: the derived name, and every named format that fits."""

    name: str
    fits: list[Fit]


def entry_of(block: Block) -> Entry:
    """A block as the formats read it: the keys that were set, whole numbers as such (formats count with them)."""
    made: dict[str, Any] = _whole(block.model_dump(mode="json", by_alias=True, exclude_unset=True))
    return made


def _whole(value: Any) -> Any:
    if isinstance(value, float) and value.is_integer():
        return int(value)
    if isinstance(value, dict):
        return {key: _whole(child) for key, child in value.items()}
    return [_whole(child) for child in value] if isinstance(value, list) else value


def format_of(block: Block) -> BlockFormat:
    """The derived name of a block and the formats that fit it, most specific first. Not to be changed: it is held."""
    return _format_of(block.model_dump_json(by_alias=True, exclude_unset=True))


@lru_cache(maxsize=2_048)
def _format_of(text: str) -> BlockFormat:
    """Of a block as JSON: while one types, the other blocks stay what they are."""
    entry = _whole(json.loads(text))
    found = recognise([entry])
    return {
        "name": _name(found, entry),
        "fits": [{"key": one.format.key, "params": one.params} for one in found],
    }


def name_of(entry: Entry) -> str:
    """The derived name of a block: its most specific format's, else its clock's."""
    return _name(recognise([entry]), entry)


def _name(found: Sequence[Recognised], entry: Entry) -> str:
    if found:
        return found[0].format.name
    return CLOCK_NAMES.get(entry.get("clock", {}).get("kind", ""), "Blocks")


def claimed(label: str) -> list[Format]:
    """Formats that a coach's own label claims, by name or by the trade's word."""
    text = label.lower()
    return [one for one in FORMATS if any(word in text for word in one.claims)]
