"""Values that are taken from a block's score: which blocks take one, and up to which value it matters."""

from __future__ import annotations

from collections.abc import Iterator

from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.unfold.tape import LocatedBlock


def _taken(value: JsonValue) -> Iterator[tuple[str, JsonObject]]:
    """The values anywhere in a document, or a part of it, that are taken from a score, each with its block's id."""
    stack = [value]
    while stack:
        here = stack.pop()
        if isinstance(here, dict):
            source = here.get("from")
            if isinstance(source, dict):
                yield str(source.get("block")), here
            stack.extend(here.values())
        elif isinstance(here, list):
            stack.extend(here)


def values_from(value: JsonValue, block: str) -> Iterator[JsonObject]:
    """The values anywhere in a document, or a part of it, that are taken from a block's score."""
    return (here for source, here in _taken(value) if source == block)


def blocks_taken_from(value: JsonValue) -> set[str]:
    """The blocks, by id, whose score some value anywhere in a document is taken from."""
    return {source for source, _ in _taken(value)}


def takes_from(session: JsonObject, of: LocatedBlock, block: str) -> bool:
    """Whether a block takes a value from another's score, itself or by how often its section comes."""
    here: JsonValue = session
    for part in of.path:
        if isinstance(here, dict) and "section" in here and any(values_from(here.get("times"), block)):
            return True
        here = here[part] if isinstance(here, dict | list) else None  # type: ignore[index]
    return any(values_from(here, block))


def caps_from(session: JsonObject, block: str, default: int) -> dict[str, int]:
    """What is taken of a block's score (rounds, reps, rung), and its largest cap; `default` where it has none."""
    caps: dict[str, int] = {}
    for value in values_from(session, block):
        source, cap = value["from"], value.get("cap")
        take = str(source.get("take")) if isinstance(source, dict) else ""
        caps[take] = max(caps.get(take, 0), int(cap) if isinstance(cap, int | float) else default)
    return caps
