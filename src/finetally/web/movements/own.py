"""What can be done with a squad's own movements: define, call by other words, remove, take out as a file."""

from __future__ import annotations

from typing import Literal

from django.db import transaction
from django.http import Http404
from django.shortcuts import get_object_or_404

from finetally.core.movements.exchange import (
    movements_csv,
    movements_json,
    read_movements_csv,
    read_movements_json,
)
from finetally.core.session.cleaning import one_line
from finetally.core.session.movement import MovementDef
from finetally.web.movements.used import definitions_changed
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Act, Squad, SquadMovement
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for
from finetally.web.versions import ChangedError, require_version

FileKind = Literal["csv", "json"]


def movements_of(actor: Actor, squad_id: int | None) -> FiguringContext:
    """The movements that a squad works with."""
    return context_of(squad_for(actor, squad_id, Right.LOOK))


def _put(squad: Squad, movements: list[MovementDef]) -> None:
    with transaction.atomic():
        for movement in movements:
            definition = movement.model_dump(mode="json", exclude_unset=True)
            SquadMovement.objects.update_or_create(
                squad=squad, key=movement.key, defaults={"definition": definition}
            )


def read_file(text: str, kind: FileKind) -> list[MovementDef]:
    """The movements of a file. Raises DocumentError with the place of every fault."""
    return read_movements_csv(text) if kind == "csv" else read_movements_json(text)


def import_movements(
    actor: Actor,
    squad_id: int | None,
    text: str,
    kind: FileKind,
    *,
    replace: bool = False,
    version: str | None = None,
) -> list[str]:
    """Take the movements of a file into the squad's library; all of them or none.

    `version`: that of the squad's movements as they were seen, where it matters. Raises DocumentError; ChangedError
    where they are others by now, or the squad has other definitions of some and `replace` does not say so.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    movements = read_file(text, kind)
    with transaction.atomic():
        if version is not None:
            squad.refresh_from_db(fields=["movements_version"])
            require_version("the squad's movements", version, context_of(squad).library_key)
        own = dict(squad.movements.values_list("key", "definition"))
        others = [
            one.key for one in movements
            if one.key in own and own[one.key] != one.model_dump(mode="json", exclude_unset=True)
        ]  # fmt: skip
        if others and not replace:
            raise ChangedError(f"the squad's own definition of {', '.join(others[:5])}")
        _put(squad, movements)
        record(actor, squad.pk, Act.MOVEMENTS_CHANGED, ", ".join(movement.key for movement in movements))
        definitions_changed(squad, {movement.key for movement in movements})
    return [movement.key for movement in movements]


def call_movement(actor: Actor, squad_id: int | None, key: str, words: str) -> None:
    """Let a movement of the squad's library be called by these words too, from now on.

    Raises Http404 for a movement that nobody knows.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    if key not in context_of(squad).library:
        raise Http404("no such movement")
    with transaction.atomic():
        own = squad.movements.filter(key=key).first()
        definition = dict(own.definition) if own is not None else {"key": key}
        names = [*(definition.get("aliases") or ()), one_line(words)]
        definition["aliases"] = list(dict.fromkeys(names))[-MOST_NAMES:]
        _put(squad, [MovementDef.model_validate(definition)])
        record(actor, squad.pk, Act.MOVEMENTS_CHANGED, key)


MOST_NAMES = 50
"""Names that a squad gives one movement; the oldest go first."""


def remove_movement(actor: Actor, squad_id: int | None, key: str) -> None:
    """Take a movement of the squad's own away; what ships under that key stands again. Plans keep theirs."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    with transaction.atomic():
        get_object_or_404(SquadMovement, squad=squad, key=key).delete()
        record(actor, squad.pk, Act.MOVEMENTS_CHANGED, key)
        definitions_changed(squad, {key})


def export_movements(actor: Actor, squad_id: int | None, kind: FileKind) -> str:
    """All movements that a squad works with, as a file."""
    movements = movements_of(actor, squad_id).library.values()
    return movements_csv(movements) if kind == "csv" else movements_json(movements)
