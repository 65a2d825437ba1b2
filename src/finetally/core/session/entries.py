"""Entries of a document that is not validated, or of which a part stands alone: blocks, and sections of blocks."""

from __future__ import annotations

from typing import Any


def blocks_in(entry: dict[str, Any]) -> list[dict[str, Any]]:
    """The blocks of an entry: a section's, or the block itself.

    Only the key `section` makes a section: a key `blocks` of a block is a foreign one, and may be anything.
    """
    return list(entry["blocks"]) if "section" in entry else [entry]


def steps_in(entry: dict[str, Any]) -> list[dict[str, Any]]:
    """The steps of an entry: of a section's blocks or a rotation's stations one after the other."""
    if "section" in entry:
        return [step for block in entry["blocks"] for step in steps_in(block)]
    clock = entry.get("clock", {})
    if clock.get("kind") == "rotation":
        return [step for station in clock.get("stations", []) for step in station["steps"]]
    return list(entry.get("steps") or [])
