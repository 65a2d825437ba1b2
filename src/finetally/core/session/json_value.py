"""JSON: what stands in a file before it is read into models, and what models are written as."""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import JsonValue

JsonObject = dict[str, JsonValue]


def objects(value: JsonValue) -> Iterator[JsonObject]:
    """The objects of a list; nothing of what is no list."""
    if isinstance(value, list):
        yield from (one for one in value if isinstance(one, dict))


__all__ = ["JsonObject", "JsonValue", "objects"]
