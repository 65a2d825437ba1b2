"""Where a document names movements: how often each, and the same document with another movement in one's place."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping

from finetally.core.session.json_value import JsonObject, JsonValue

NAMING_KEYS = ("movement", "rest_as")
"""Keys of a document whose value names a movement."""


def movements_named(document: Mapping[str, JsonValue]) -> Counter[str]:
    """How often the blocks of a document name each movement: in steps, their options, and as rest."""
    found: Counter[str] = Counter()
    waiting: list[JsonValue] = [document.get("blocks")]
    while waiting:
        value = waiting.pop()
        if isinstance(value, list):
            waiting.extend(value)
        elif isinstance(value, dict):
            found.update(named for key in NAMING_KEYS if isinstance(named := value.get(key), str))
            waiting.extend(value.values())
    return found


def defined_in(document: Mapping[str, JsonValue]) -> set[str]:
    """The movements that a document defines itself, by key."""
    own = document.get("movements")
    definitions = own if isinstance(own, list) else []
    return {key for one in definitions if isinstance(one, dict) and isinstance(key := one.get("key"), str)}


def with_another(document: Mapping[str, JsonValue], old: str, new: str) -> JsonObject:
    """The document with one movement where its blocks named another; all else as it was."""
    return {name: _with(value, old, new) if name == "blocks" else value for name, value in document.items()}


def _with(value: JsonValue, old: str, new: str) -> JsonValue:
    if isinstance(value, list):
        return [_with(one, old, new) for one in value]
    if not isinstance(value, dict):
        return value
    return {
        key: new if key in NAMING_KEYS and one == old else _with(one, old, new) for key, one in value.items()
    }  # fmt: skip
