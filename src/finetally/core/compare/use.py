"""A recast put to use: as edits of the session it came from, or as a session of its own."""

from __future__ import annotations

import copy
from collections.abc import Sequence
from typing import Any, Literal

from finetally.core.edits.edit import Edit, InsertEdit, RemoveEdit, apply_edits
from finetally.core.session.entries import blocks_in, steps_in
from finetally.core.session.ids import with_ids

EntryJson = dict[str, Any]
"""An entry of a document, as edits put it."""

Source = list[int | str]
"""Where the compared entries stand: numbers (from 0) or ids of entries of the session's `blocks`."""


def entries_at(document: dict[str, Any], source: Source) -> list[int]:
    """Numbers of the entries that a source names, in order. Raises LookupError with what is not there."""
    blocks = document.get("blocks", [])
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


def _has(entry: EntryJson, identity: str | int) -> bool:
    return entry.get("id") == identity or any(block.get("id") == identity for block in blocks_in(entry))


def main_part(document: dict[str, Any]) -> list[int]:
    """The entries of the main part: blocks, and sections with a main block in them."""
    return [
        number
        for number, entry in enumerate(document.get("blocks", []))
        if any(block.get("part", "main") == "main" for block in blocks_in(entry))
    ]


def use_edits(
    document: dict[str, Any], source: Source, entries: Sequence[EntryJson], how: Literal["replace", "insert"]
) -> list[Edit]:
    """Edits that put `entries` in the place of the source's, or after them. The last rest of the source stays.

    Every part gets an id; one that stands elsewhere in the session is given anew, so that each is there once.
    """
    numbers = entries_at(document, source)
    blocks: list[EntryJson] = document["blocks"]
    taken = set(_ids([entry for n, entry in enumerate(blocks) if how == "insert" or n not in numbers]))
    made = [_without(copy.deepcopy(entry), taken) for entry in entries]
    edits: list[Edit] = []
    at = numbers[-1] + 1
    if how == "replace":
        _keep_rest(blocks[numbers[-1]], made[-1])
        edits.extend(RemoveEdit(path=["blocks"], index=number) for number in reversed(numbers))
        at = numbers[0]
    inserts: list[Edit] = [InsertEdit(path=["blocks"], index=at + n, value=entry) for n, entry in enumerate(made)]
    after, _ = apply_edits(document, [*edits, *inserts])
    named = with_ids(after)["blocks"]
    edits.extend(InsertEdit(path=["blocks"], index=at + n, value=named[at + n]) for n in range(len(made)))
    return edits


def _keep_rest(old: EntryJson, new: EntryJson) -> None:
    """The rest before what follows belongs to the session, not to the format."""
    if "section" not in old and "section" not in new and "rest_after_s" in old:
        new["rest_after_s"] = copy.deepcopy(old["rest_after_s"])


def _own(entry: EntryJson) -> list[EntryJson]:
    """The entry, and the blocks in it if it is a section."""
    return [entry, *blocks_in(entry)] if "section" in entry else [entry]


def _ids(entries: Sequence[EntryJson]) -> list[str]:
    found = []
    for entry in entries:
        carriers = [*_own(entry), *steps_in(entry)]
        carriers += [s for block in blocks_in(entry) for s in block.get("clock", {}).get("stations", [])]
        found += [one["id"] for one in carriers if "id" in one]
    return found


def _without(entry: EntryJson, taken: set[str]) -> EntryJson:
    carriers = [*_own(entry), *steps_in(entry)]
    for one in carriers:
        if one.get("id") in taken:
            del one["id"]
    return entry
