"""What differs between two versions of a session: parts added, removed, moved, and values changed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any, Literal

from typing_extensions import TypedDict

from finetally.core.session.problems import Path, path_text

MAX_DIFFERENCES = 300
"""Differences listed: more are not read by anyone."""


class Difference(TypedDict):
    """One difference. `path` is in the later document (in the earlier for what was removed)."""

    kind: Literal["added", "removed", "moved", "changed"]
    path: str
    what: str
    before: Any
    after: Any


def differences(before: Mapping[str, Any], after: Mapping[str, Any]) -> list[Difference]:
    """All differences, parts matched by id (by place where there is none); ids themselves are no difference."""
    found: list[Difference] = []
    for one in _objects((), before, after):
        found.append(one)
        if len(found) >= MAX_DIFFERENCES:
            break
    return found


def _name(value: Any) -> str:
    if isinstance(value, dict):
        for key in ("title", "section", "name", "movement", "label", "key"):
            if isinstance(value.get(key), str):
                return str(value[key])
        clock = value.get("clock")
        if isinstance(clock, dict):
            return str(clock.get("kind", "block"))
    return ""


def _objects(path: Path, before: Mapping[str, Any], after: Mapping[str, Any]) -> Iterator[Difference]:
    for key in [*before, *(key for key in after if key not in before)]:
        if key == "id":
            continue
        yield from _values((*path, key), before.get(key), after.get(key), _name(after) or _name(before))


def _values(path: Path, before: Any, after: Any, owner: str) -> Iterator[Difference]:
    if before == after and isinstance(before, bool) is isinstance(after, bool):
        return
    if isinstance(before, dict) and isinstance(after, dict):
        yield from _objects(path, before, after)
    elif _parts(before) and _parts(after):
        yield from _lists(path, before, after)
    else:
        label = f"{owner}: {path[-1]}" if owner else str(path[-1])
        yield {"kind": "changed", "path": path_text(path), "what": label, "before": before, "after": after}


def _parts(value: Any) -> bool:
    return isinstance(value, list) and bool(value) and all(isinstance(one, dict) for one in value)


def _lists(path: Path, before: Sequence[dict[str, Any]], after: Sequence[dict[str, Any]]) -> Iterator[Difference]:
    ids = all("id" in one for one in (*before, *after))
    old = {one["id"] if ids else index: (index, one) for index, one in enumerate(before)}
    new = {one["id"] if ids else index: (index, one) for index, one in enumerate(after)}
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
