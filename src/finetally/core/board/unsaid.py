"""What the wall does not say: the difference between a document and what its wall text reads as.

A patch is laid over a document read from a text that may have been edited since: parts are aligned by what
they are, and nothing that the coach changed in the text is overwritten.
"""

from __future__ import annotations

import copy
import difflib
from typing import Any

Patch = dict[str, Any]
"""`set` and `was` (values by key), `unset` (keys), `in` (patches of objects by key), `at` with `is` (patches of
the items of a list by index, and what each item was), or `to` with `from` (a whole value)."""

MAX_MATCHED = 2_000
"""Items of one list that are aligned: longer lists are matched by their places alone."""


def _same(a: Any, b: Any) -> bool:
    if isinstance(a, bool) or isinstance(b, bool):
        return a is b
    if isinstance(a, dict) and isinstance(b, dict):
        return a.keys() == b.keys() and all(_same(a[key], b[key]) for key in a)
    if isinstance(a, list) and isinstance(b, list):
        return len(a) == len(b) and all(_same(x, y) for x, y in zip(a, b, strict=True))
    return bool(a == b)


def unsaid(said: Any, meant: Any) -> Patch | None:
    """The patch that makes `meant` of `said`; None if they are the same."""
    if _same(said, meant):
        return None
    if isinstance(said, dict) and isinstance(meant, dict):
        return _of_objects(said, meant)
    both_lists = isinstance(said, list) and isinstance(meant, list) and len(said) == len(meant)
    if both_lists and all(isinstance(one, dict) for one in (*said, *meant)):
        pairs = enumerate(zip(said, meant, strict=True))
        parts = {str(i): patch for i, (a, b) in pairs if (patch := unsaid(a, b)) is not None}
        return {"at": parts, "is": [label(one) for one in said]}
    return {"to": meant, "from": said}


def _of_objects(said: dict[str, Any], meant: dict[str, Any]) -> Patch:
    made: Patch = {}
    for key in meant:
        if key not in said:
            made.setdefault("set", {})[key] = meant[key]
            continue
        patch = unsaid(said[key], meant[key])
        if patch is None:
            continue
        if "to" in patch:
            made.setdefault("set", {})[key] = meant[key]
            made.setdefault("was", {})[key] = said[key]
        else:
            made.setdefault("in", {})[key] = patch
    gone = [key for key in said if key not in meant]
    if gone:
        made["unset"] = gone
    return made


def label(item: dict[str, Any]) -> str:
    """What a part is known by when it may have moved: its movement, its name, or its steps' movements."""
    for key in ("movement", "name", "section", "label", "key"):
        if isinstance(item.get(key), str) and item[key]:
            return str(item[key])
    steps = item.get("steps")
    if not isinstance(steps, list):
        clock = item.get("clock")
        stations = clock.get("stations", []) if isinstance(clock, dict) else []
        steps = [s for one in stations if isinstance(one, dict) for s in one.get("steps", [])]
    return " ".join(str(step.get("movement")) for step in steps if isinstance(step, dict))


def laid_over(read: Any, patch: Patch | None) -> Any:
    """The document that was read, with the patch laid over what still is what it was."""
    made = copy.deepcopy(read)
    if patch is not None and isinstance(made, dict):
        _over_object(made, patch)
    return made


def _over_object(here: dict[str, Any], patch: Patch) -> None:
    was = _object(patch.get("was"))
    for key, value in _object(patch.get("set")).items():
        if key in was:
            if key in here and _same(here[key], was[key]):
                here[key] = copy.deepcopy(value)
        elif key not in here:
            here[key] = copy.deepcopy(value)
    for key, inner in _object(patch.get("in")).items():
        child = here.get(key)
        if isinstance(child, dict):
            _over_object(child, _object(inner))
        elif isinstance(child, list):
            _over_list(child, _object(inner))
    unset = patch.get("unset")
    for key in unset if isinstance(unset, list) else ():
        if isinstance(key, str):
            here.pop(key, None)


def _over_list(here: list[Any], patch: Patch) -> None:
    labels = patch.get("is")
    places = _aligned([str(one) for one in labels] if isinstance(labels, list) else [], here)
    for index, inner in _object(patch.get("at")).items():
        place = places.get(int(index)) if index.isdigit() else None
        if place is not None and isinstance(here[place], dict):
            _over_object(here[place], _object(inner))


def _aligned(before: list[str], here: list[Any]) -> dict[int, int]:
    """Which item each of the earlier ones has become: alike ones in order, then equal runs between them."""
    after = [label(one) if isinstance(one, dict) else "" for one in here]
    if before == after or max(len(before), len(after)) > MAX_MATCHED:
        return {index: index for index in range(min(len(before), len(after)))}
    places: dict[int, int] = {}
    matcher = difflib.SequenceMatcher(None, before, after, autojunk=False)
    for kind, first, last, to_first, to_last in matcher.get_opcodes():
        if kind == "equal" or (kind == "replace" and last - first == to_last - to_first):
            places.update({first + step: to_first + step for step in range(last - first)})
    left = [index for index in range(len(before)) if index not in places]
    taken = set(places.values())
    for index in left:
        for place, text in enumerate(after):
            if place not in taken and text == before[index]:
                places[index] = place
                taken.add(place)
                break
    return places


def _object(value: Any) -> dict[str, Any]:
    return value if isinstance(value, dict) else {}
