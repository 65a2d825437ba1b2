"""Edits on a session document: set, insert, remove, move. Each gives back the edit that undoes it.

A place is a list of keys and ids: `["b2", "clock", "rest_s"]` is the key `rest_s` of the clock of the block
with id b2. Ids find their carrier wherever it has been moved to; an empty place is the document itself.
"""

from __future__ import annotations

import copy
from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

PlacePart = str | int
Document = dict[str, Any]


class EditError(ValueError):
    """An edit that does not fit the document: its place, and why."""

    def __init__(self, place: Sequence[PlacePart], why: str) -> None:
        self.place = list(place)
        self.why = why
        super().__init__(f"{'/'.join(map(str, place)) or '(document)'}: {why}")


class _Edit(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)

    place: list[PlacePart] = Field(max_length=24)


class SetEdit(_Edit):
    """Set the key at the end of `place` to `value`; with `unset` the key is taken away."""

    op: Literal["set"] = "set"
    value: Any = None
    unset: bool = False


class InsertEdit(_Edit):
    """Insert `value` into the list at `place`, before what is now at `index`."""

    op: Literal["insert"] = "insert"
    index: int = Field(ge=0)
    value: Any


class RemoveEdit(_Edit):
    """Remove what is at `index` of the list at `place`."""

    op: Literal["remove"] = "remove"
    index: int = Field(ge=0)


class MoveEdit(_Edit):
    """Move what is at `index` of the list at `place` into the list at `to_place` (default: the same).

    `to_index` counts after it was taken out.
    """

    op: Literal["move"] = "move"
    index: int = Field(ge=0)
    to_index: int = Field(ge=0)
    to_place: list[PlacePart] | None = None


Edit = Annotated[SetEdit | InsertEdit | RemoveEdit | MoveEdit, Field(discriminator="op")]


def _child(value: Any, part: PlacePart, place: Sequence[PlacePart]) -> Any:
    if isinstance(value, list):
        if isinstance(part, int) and 0 <= part < len(value):
            return value[part]
        for item in value:
            if isinstance(item, dict) and item.get("id") == part:
                return item
    elif isinstance(value, dict) and part in value:
        return value[part]
    raise EditError(place, f"nothing at {part!r}")


def _by_id(value: Any, identity: PlacePart) -> Any:
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


def _find(document: Document, place: Sequence[PlacePart]) -> Any:
    if not place:
        return document
    here: Any = document
    rest = list(place)
    if isinstance(place[0], str) and place[0] not in document:
        here = _by_id(document.get("blocks"), place[0])
        if here is None:
            raise EditError(place, f"no part with id {place[0]!r}")
        rest = rest[1:]
    for part in rest:
        here = _child(here, part, place)
    return here


def _place_of(document: Document, target: Any, place: Sequence[PlacePart]) -> list[PlacePart]:
    """Where an object or list stands now: at `place` if that still leads to it, else its keys and indices.

    An edit may move what a place counts on: an index before it, or an id that it goes by.
    """
    try:
        if _find(document, place) is target:
            return list(place)
    except EditError:
        pass
    stack: list[tuple[Any, tuple[PlacePart, ...]]] = [(document, ())]
    while stack:
        here, path = stack.pop()
        if here is target:
            return list(path)
        children: Any = (
            here.items() if isinstance(here, dict) else enumerate(here) if isinstance(here, list) else ()
        )
        stack.extend((child, (*path, key)) for key, child in children if isinstance(child, dict | list))
    raise EditError(place, "nothing there any more")


def _holds(value: Any, target: Any) -> bool:
    """Whether a list is somewhere inside a value."""
    stack = [value]
    while stack:
        here = stack.pop()
        if here is target:
            return True
        if isinstance(here, dict | list):
            stack.extend(here.values() if isinstance(here, dict) else here)
    return False


def _list(document: Document, place: Sequence[PlacePart]) -> list[Any]:
    found = _find(document, place)
    if not isinstance(found, list):
        raise EditError(place, "not a list")
    return found


def _at(items: list[Any], index: int, place: Sequence[PlacePart], *, end: bool) -> None:
    if index > len(items) - (0 if end else 1):
        raise EditError(place, f"index {index} of a list of {len(items)}")


def _apply(document: Document, edit: SetEdit | InsertEdit | RemoveEdit | MoveEdit) -> Edit:
    """Apply to a document that may be changed; returns the inverse."""
    if isinstance(edit, SetEdit):
        return _set(document, edit)
    items = _list(document, edit.place)
    if isinstance(edit, InsertEdit):
        _at(items, edit.index, edit.place, end=True)
        items.insert(edit.index, copy.deepcopy(edit.value))
        return RemoveEdit(place=_place_of(document, items, edit.place), index=edit.index)
    _at(items, edit.index, edit.place, end=False)
    if isinstance(edit, RemoveEdit):
        taken = items.pop(edit.index)
        return InsertEdit(place=_place_of(document, items, edit.place), index=edit.index, value=taken)
    target_place = edit.to_place if edit.to_place is not None else edit.place
    target = _list(document, target_place)
    if _holds(items[edit.index], target):
        raise EditError(target_place, "inside of what is moved")
    taken = items.pop(edit.index)
    if edit.to_index > len(target):
        items.insert(edit.index, taken)
        raise EditError(target_place, f"index {edit.to_index} of a list of {len(target)}")
    target.insert(edit.to_index, taken)
    back = _place_of(document, items, edit.place) if target is not items else None
    place = _place_of(document, target, target_place)
    return MoveEdit(place=place, index=edit.to_index, to_index=edit.index, to_place=back)


def _set(document: Document, edit: SetEdit) -> Edit:
    if not edit.place:
        raise EditError(edit.place, "a key to set")
    *parent_place, key = edit.place
    parent = _find(document, parent_place)
    if isinstance(parent, list):
        if not isinstance(key, int) or edit.unset:
            raise EditError(edit.place, "an index to set")
        _at(parent, key, edit.place, end=False)
        before = parent[key]
        parent[key] = copy.deepcopy(edit.value)
        return SetEdit(place=[*_place_of(document, parent, parent_place), key], value=before)
    if not isinstance(parent, dict) or not isinstance(key, str):
        raise EditError(edit.place, "not an object")
    undone = {"value": parent[key]} if key in parent else {"unset": True}
    if edit.unset:
        parent.pop(key, None)
    else:
        parent[key] = copy.deepcopy(edit.value)
    return SetEdit(place=[*_place_of(document, parent, parent_place), key], **undone)


def apply_edits(document: Document, edits: Sequence[Edit]) -> tuple[Document, list[Edit]]:
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
