"""What differs between two versions of a session: parts added, removed, moved, and values changed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

from typing_extensions import TypedDict

from finetally.core.session.json_value import JsonObject, JsonValue, objects
from finetally.core.session.problems import Path, path_text

MAX_DIFFERENCES = 300
"""Differences listed: more are not read by anyone."""


class Difference(TypedDict):
    """One difference. `path` is in the later document (in the earlier for what was removed)."""

    kind: Literal["added", "removed", "moved", "changed"]
    path: str
    what: str
    before: JsonValue
    after: JsonValue


def differences(before: Mapping[str, JsonValue], after: Mapping[str, JsonValue]) -> list[Difference]:
    """All differences, parts matched by id (by place where there is none); ids themselves are no difference."""
    found: list[Difference] = []
    for one in _objects((), before, after):
        found.append(one)
        if len(found) >= MAX_DIFFERENCES:
            break
    return found


def _name(part: Mapping[str, JsonValue]) -> str:
    for key in ("title", "section", "name", "movement", "label", "key"):
        if isinstance(part.get(key), str):
            return str(part[key])
    clock = part.get("clock")
    return str(clock.get("kind", "block")) if isinstance(clock, dict) else ""


def _objects(path: Path, before: Mapping[str, JsonValue], after: Mapping[str, JsonValue]) -> Iterator[Difference]:
    for key in [*before, *(key for key in after if key not in before)]:
        if key == "id":
            continue
        yield from _values((*path, key), before.get(key), after.get(key), _name(after) or _name(before))


def _values(path: Path, before: JsonValue, after: JsonValue, owner: str) -> Iterator[Difference]:
    if before == after and isinstance(before, bool) is isinstance(after, bool):
        return
    if isinstance(before, dict) and isinstance(after, dict):
        yield from _objects(path, before, after)
    elif _parts(before) and _parts(after):
        yield from _lists(path, [*objects(before)], [*objects(after)])
    else:
        label = f"{owner}: {path[-1]}" if owner else str(path[-1])
        yield {"kind": "changed", "path": path_text(path), "what": label, "before": before, "after": after}


def _parts(value: JsonValue) -> bool:
    return isinstance(value, list) and bool(value) and all(isinstance(one, dict) for one in value)


def _lists(path: Path, before: Sequence[JsonObject], after: Sequence[JsonObject]) -> Iterator[Difference]:
    ids = all("id" in one for one in (*before, *after))
    old = {str(one["id"]) if ids else index: (index, one) for index, one in enumerate(before)}
    new = {str(one["id"]) if ids else index: (index, one) for index, one in enumerate(after)}
    for key, (index, one) in old.items():
        if key not in new:
            yield {
                "kind": "removed",
                "path": path_text((*path, index)),
                "what": _name(one),
                "before": one,
                "after": None,
            }
    stayed = [key for key in new if key in old]
    order = [key for key in old if key in new]
    for key, (index, one) in new.items():
        where = (*path, index)
        if key not in old:
            yield {"kind": "added", "path": path_text(where), "what": _name(one), "before": None, "after": one}
            continue
        if order.index(key) != stayed.index(key):
            yield {
                "kind": "moved", "path": path_text(where), "what": _name(one),
                "before": order.index(key) + 1, "after": stayed.index(key) + 1,
            }  # fmt: skip
        yield from _objects(where, old[key][1], one)
