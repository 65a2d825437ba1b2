"""Entries of a document that is not validated, or of which a part stands alone: blocks, and sections of blocks."""

from __future__ import annotations

from typing import Any


def blocks_in(entry: dict[str, Any]) -> list[dict[str, Any]]:
    """The blocks of an entry: a section's, or the block itself.

    Only the key `section` makes a section: a key `blocks` of a block is a foreign one, and may be anything.
    """
    return list(entry["blocks"]) if "section" in entry else [entry]
