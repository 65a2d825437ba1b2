"""Entries of a document that is not validated yet: blocks, and sections of blocks."""

from __future__ import annotations

from finetally.core.session.json_value import JsonObject, objects


def blocks_in(entry: JsonObject) -> list[JsonObject]:
    """The blocks of an entry: a section's, or the block itself.

    Only the key `section` makes a section: a key `blocks` of a block is a foreign one, and may be anything.
    """
    return [*objects(entry.get("blocks"))] if "section" in entry else [entry]
