"""What the wall does not say: the difference between a document and what its wall text reads as.

A patch is laid over a document read from a text that may have been edited since: parts are aligned by what
they are, and nothing that the coach changed in the text is overwritten.
"""

from __future__ import annotations

import copy
import difflib

from finetally.core.session.json_value import JsonObject, JsonValue, objects

Patch = JsonObject
"""`set` and `was` (values by key), `unset` (keys), `in` (patches of objects by key), `at` with `is` (patches of
the items of a list by index, and what each item was), or `to` with `from` (a whole value)."""

MAX_MATCHED = 2_000
"""Items of one list that are aligned: longer lists are matched by their places alone."""


def _same(a: JsonValue, b: JsonValue) -> bool:
    if isinstance(a, bool) or isinstance(b, bool):
        return a is b
    if isinstance(a, dict) and isinstance(b, dict):
        return a.keys() == b.keys() and all(_same(a[key], b[key]) for key in a)
    if isinstance(a, list) and isinstance(b, list):
        return len(a) == len(b) and all(_same(x, y) for x, y in zip(a, b, strict=True))
    return bool(a == b)


def unsaid(said: JsonValue, meant: JsonValue) -> Patch | None:
    """The patch that makes `meant` of `said`; None if they are the same."""
    if _same(said, meant):
        return None
    if isinstance(said, dict) and isinstance(meant, dict):
        return _of_objects(said, meant)
    old, new = [*objects(said)], [*objects(meant)]
    if isinstance(said, list) and isinstance(meant, list) and len(old) == len(new) == len(said) == len(meant):
        pairs = enumerate(zip(old, new, strict=True))
        parts: JsonObject = {str(i): patch for i, (a, b) in pairs if (patch := unsaid(a, b)) is not None}
        return {"at": parts, "is": [label(one) for one in old]}
    return {"to": meant, "from": said}


def _of_objects(said: JsonObject, meant: JsonObject) -> Patch:
    new: JsonObject = {}
    was: JsonObject = {}
    inside: JsonObject = {}
    for key in meant:
        if key not in said:
            new[key] = meant[key]
            continue
        patch = unsaid(said[key], meant[key])
        if patch is None:
            continue
        if "to" in patch:
            new[key], was[key] = meant[key], said[key]
        else:
            inside[key] = patch
    gone: list[JsonValue] = [key for key in said if key not in meant]
    parts: JsonObject = {"set": new, "was": was, "in": inside, "unset": gone}
    return {name: part for name, part in parts.items() if part}


def label(item: JsonObject) -> str:
    """What a part is known by when it may have moved: its movement, its name, or its steps' movements."""
    for key in ("movement", "name", "section", "label", "key"):
        if isinstance(item.get(key), str) and item[key]:
            return str(item[key])
    clock = item.get("clock")
    if isinstance(item.get("steps"), list) or not isinstance(clock, dict):
        steps = [*objects(item.get("steps"))]
    else:
        steps = [step for station in objects(clock.get("stations")) for step in objects(station.get("steps"))]
    return " ".join(str(step.get("movement")) for step in steps)


def laid_over(read: JsonObject, patch: Patch | None) -> JsonObject:
    """The document that was read, with the patch laid over what still is what it was."""
    made = copy.deepcopy(read)
    if patch is not None:
        _over_object(made, patch)
    return made


def _over_object(here: JsonObject, patch: Patch) -> None:
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
    for gone in unset if isinstance(unset, list) else ():
        if isinstance(gone, str):
            here.pop(gone, None)


def _over_list(here: list[JsonValue], patch: Patch) -> None:
    labels = patch.get("is")
    places = _aligned([str(one) for one in labels] if isinstance(labels, list) else [], here)
    for index, inner in _object(patch.get("at")).items():
        place = places.get(int(index)) if index.isdigit() else None
        part = None if place is None else here[place]
        if isinstance(part, dict):
            _over_object(part, _object(inner))


def _aligned(before: list[str], here: list[JsonValue]) -> dict[int, int]:
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


def _object(value: JsonValue) -> JsonObject:
    return value if isinstance(value, dict) else {}
