"""Edits on a session document: set, insert, remove, move. Each gives back the edit that undoes it.

A path is a list of keys and ids: `["b2", "clock", "rest_s"]` is the key `rest_s` of the clock of the block
with id b2. Ids find their carrier wherever it has been moved to; an empty path is the document itself.
"""

from __future__ import annotations

import copy
from collections.abc import Iterable, Sequence
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.problems import PathPart


class EditError(ValueError):
    """An edit that does not fit the document: its path, and why."""

    def __init__(self, path: Sequence[PathPart], why: str) -> None:
        self.path = list(path)
        self.why = why
        super().__init__(f"{'/'.join(map(str, path)) or '(document)'}: {why}")


class _Edit(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)

    path: list[PathPart] = Field(max_length=24)


class SetEdit(_Edit):
    """Set the key at the end of `path` to `value`; with `unset` the key is taken away."""

    op: Literal["set"] = "set"
    value: JsonValue = None
    unset: bool = False


class InsertEdit(_Edit):
    """Insert `value` into the list at `path`, before what is now at `index`."""

    op: Literal["insert"] = "insert"
    index: int = Field(ge=0)
    value: JsonValue


class RemoveEdit(_Edit):
    """Remove what is at `index` of the list at `path`."""

    op: Literal["remove"] = "remove"
    index: int = Field(ge=0)


class MoveEdit(_Edit):
    """Move what is at `index` of the list at `path` into the list at `to_path` (default: the same).

    `to_index` counts after it was taken out.
    """

    op: Literal["move"] = "move"
    index: int = Field(ge=0)
    to_index: int = Field(ge=0)
    to_path: list[PathPart] | None = None


Edit = Annotated[SetEdit | InsertEdit | RemoveEdit | MoveEdit, Field(discriminator="op")]


EDIT_LIST: TypeAdapter[list[Edit]] = TypeAdapter(list[Edit])
"""Reads edits from JSON, and writes them."""


def edit_json(edit: Edit) -> JsonObject:
    """An edit as JSON has it: its kind, and what was said of it."""
    return {"op": edit.op, **edit.model_dump(mode="json", exclude_unset=True)}


def _child(value: JsonValue, part: PathPart, path: Sequence[PathPart]) -> JsonValue:
    if isinstance(value, list):
        if isinstance(part, int) and 0 <= part < len(value):
            return value[part]
        for item in value:
            if isinstance(item, dict) and item.get("id") == part:
                return item
    elif isinstance(value, dict) and isinstance(part, str) and part in value:
        return value[part]
    raise EditError(path, f"nothing at {part!r}")


def _by_id(value: JsonValue, identity: PathPart) -> JsonObject | None:
    """The object with an id, anywhere in the document; None if there is none."""
    stack = [value]
    while stack:
        here = stack.pop()
        if isinstance(here, dict):
            if here.get("id") == identity:
                return here
            stack.extend(here.values())
        elif isinstance(here, list):
            stack.extend(here)
    return None


def _find(document: JsonObject, path: Sequence[PathPart]) -> JsonValue:
    if not path:
        return document
    here: JsonValue = document
    rest = list(path)
    if isinstance(path[0], str) and path[0] not in document:
        found = _by_id(document.get("blocks"), path[0])
        if found is None:
            raise EditError(path, f"no part with id {path[0]!r}")
        here, rest = found, rest[1:]
    for part in rest:
        here = _child(here, part, path)
    return here


def _path_of(document: JsonObject, target: JsonValue, path: Sequence[PathPart]) -> list[PathPart]:
    """Where an object or list stands now: at `path` if that still leads to it, else its keys and indices.

    An edit may move what a place counts on: an index before it, or an id that it goes by.
    """
    try:
        if _find(document, path) is target:
            return list(path)
    except EditError:
        pass
    stack: list[tuple[JsonValue, tuple[PathPart, ...]]] = [(document, ())]
    while stack:
        here, path = stack.pop()
        if here is target:
            return list(path)
        children: Iterable[tuple[PathPart, JsonValue]] = (
            here.items() if isinstance(here, dict) else enumerate(here) if isinstance(here, list) else ()
        )
        stack.extend((child, (*path, key)) for key, child in children if isinstance(child, dict | list))
    raise EditError(path, "nothing there any more")


def _holds(value: JsonValue, target: JsonValue) -> bool:
    """Whether a list is somewhere inside a value."""
    stack = [value]
    while stack:
        here = stack.pop()
        if here is target:
            return True
        if isinstance(here, dict | list):
            stack.extend(here.values() if isinstance(here, dict) else here)
    return False


def _list(document: JsonObject, path: Sequence[PathPart]) -> list[JsonValue]:
    found = _find(document, path)
    if not isinstance(found, list):
        raise EditError(path, "not a list")
    return found


def _at(items: list[JsonValue], index: int, path: Sequence[PathPart], *, end: bool) -> None:
    if index > len(items) - (0 if end else 1):
        raise EditError(path, f"index {index} of a list of {len(items)}")


def _apply(document: JsonObject, edit: SetEdit | InsertEdit | RemoveEdit | MoveEdit) -> Edit:
    """Apply to a document that may be changed; returns the inverse."""
    if isinstance(edit, SetEdit):
        return _set(document, edit)
    items = _list(document, edit.path)
    if isinstance(edit, InsertEdit):
        _at(items, edit.index, edit.path, end=True)
        items.insert(edit.index, copy.deepcopy(edit.value))
        return RemoveEdit(path=_path_of(document, items, edit.path), index=edit.index)
    _at(items, edit.index, edit.path, end=False)
    if isinstance(edit, RemoveEdit):
        taken = items.pop(edit.index)
        return InsertEdit(path=_path_of(document, items, edit.path), index=edit.index, value=taken)
    target_path = edit.to_path if edit.to_path is not None else edit.path
    target = _list(document, target_path)
    if _holds(items[edit.index], target):
        raise EditError(target_path, "inside of what is moved")
    taken = items.pop(edit.index)
    if edit.to_index > len(target):
        items.insert(edit.index, taken)
        raise EditError(target_path, f"index {edit.to_index} of a list of {len(target)}")
    target.insert(edit.to_index, taken)
    back = _path_of(document, items, edit.path) if target is not items else None
    path = _path_of(document, target, target_path)
    return MoveEdit(path=path, index=edit.to_index, to_index=edit.index, to_path=back)


def _set(document: JsonObject, edit: SetEdit) -> Edit:
    if not edit.path:
        raise EditError(edit.path, "a key to set")
    *parent_path, key = edit.path
    parent = _find(document, parent_path)
    if isinstance(parent, list):
        if not isinstance(key, int) or edit.unset:
            raise EditError(edit.path, "an index to set")
        _at(parent, key, edit.path, end=False)
        before = parent[key]
        parent[key] = copy.deepcopy(edit.value)
        return SetEdit(path=[*_path_of(document, parent, parent_path), key], value=before)
    if not isinstance(parent, dict) or not isinstance(key, str):
        raise EditError(edit.path, "not an object")
    there, before = key in parent, parent.get(key)
    if edit.unset:
        parent.pop(key, None)
    else:
        parent[key] = copy.deepcopy(edit.value)
    back = [*_path_of(document, parent, parent_path), key]
    return SetEdit(path=back, value=before) if there else SetEdit(path=back, unset=True)


def apply_edits(document: JsonObject, edits: Sequence[Edit]) -> tuple[JsonObject, list[Edit]]:
    """Apply edits in order to a copy. Returns the new document and the edits that undo it, in their order.

    Raises EditError (and changes nothing) if one does not fit. The result is not validated: that is the
    reader's work, so that an edit may pass through a state that is not yet whole.
    """
    made = copy.deepcopy(document)
    inverses: list[Edit] = []
    for edit in edits:
        inverses.append(_apply(made, edit))
    inverses.reverse()
    return made, inverses
