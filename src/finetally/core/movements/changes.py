"""What another definition of a movement changes, field by field, as it is shown before it is taken."""

from __future__ import annotations

from typing_extensions import TypedDict

from finetally.core.movements.exchange import COLUMNS, cell_text
from finetally.core.session.movement import MovementDef


class FieldChange(TypedDict):
    """A field of a definition that changes: what it was, what it becomes, as in a table ('' for nothing)."""

    field: str
    was: str
    becomes: str


def changed_fields(before: MovementDef | None, after: MovementDef | None) -> list[FieldChange]:
    """What changes from one definition to another (None: there is none), in the order of a table's columns."""
    old, new = _cells(before), _cells(after)
    return [
        {"field": name, "was": old.get(name, ""), "becomes": new.get(name, "")}
        for name in COLUMNS
        if name != "key" and old.get(name, "") != new.get(name, "")
    ]


def _cells(movement: MovementDef | None) -> dict[str, str]:
    if movement is None:
        return {}
    written = movement.model_dump(mode="json", exclude_unset=True)
    return {name: cell_text(name, written.get(name)) for name in COLUMNS}
