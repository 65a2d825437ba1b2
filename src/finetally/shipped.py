"""The edge where shipped data files are read: the movement library."""

from __future__ import annotations

import hashlib
import json
from functools import cache
from importlib import resources

from finetally.core.movements.library import Library
from finetally.core.session.movement import MovementDef


def _text(name: str) -> str:
    return resources.files("finetally").joinpath(f"data/{name}.json").read_text("utf-8")


def everyday_aliases() -> dict[str, list[str]]:
    """Everyday names by movement; the file gives the reason with each group of them."""
    made: dict[str, list[str]] = {}
    for group in json.loads(_text("aliases")):
        for key, names in group["of"].items():
            made.setdefault(key, []).extend(names)
    return made


@cache
def shipped_library() -> Library:
    """The movements that ship with the product, with their everyday names."""
    more = everyday_aliases()
    entries = json.loads(_text("movements"))
    for entry in entries:
        if entry["key"] in more:
            entry["aliases"] = [*entry.get("aliases", ()), *more[entry["key"]]]
    return Library(MovementDef.model_validate(entry) for entry in entries)


@cache
def library_hash() -> str:
    """What the shipped movements are known by in the keys of kept figures."""
    return hashlib.sha256((_text("movements") + _text("aliases")).encode()).hexdigest()[:16]
