"""The edge where shipped data files are read: the movement library."""

from __future__ import annotations

import hashlib
import json
from functools import cache
from importlib import resources

from finetally.core.movements.library import Library
from finetally.core.session.movement import MovementDef


def _text() -> str:
    return resources.files("finetally").joinpath("data/movements.json").read_text("utf-8")


@cache
def shipped_library() -> Library:
    """The movements that ship with the product."""
    return Library(MovementDef.model_validate(entry) for entry in json.loads(_text()))


@cache
def library_hash() -> str:
    """What the shipped movements are known by in the keys of kept figures."""
    return hashlib.sha256(_text().encode()).hexdigest()[:16]
