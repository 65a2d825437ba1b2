"""What can be done with a squad's settings, people and movements."""

from __future__ import annotations

from typing import Any, Literal

from django.db import transaction
from django.http import Http404
from django.shortcuts import get_object_or_404
from pydantic import ValidationError

from finetally.core.checks.table import CHECKS
from finetally.core.methods.value import Methods
from finetally.core.movements.exchange import (
    movements_csv,
    movements_json,
    read_movements_csv,
    read_movements_json,
)
from finetally.core.session.cleaning import one_line
from finetally.core.session.movement import MovementDef
from finetally.core.session.problems import DocumentError, Problem, path_text, shown
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Act, Squad, SquadMovement
from finetally.web.squads.record import record
from finetally.web.versions import ChangedError, require_version, version_of


def squad_for(actor: Actor, squad_id: int | None, right: Right) -> Squad:
    """The squad an act is about: the one named, else the first in which the actor has the right."""
    visible = actor.squads()
    if squad_id is None:
        allowed = actor.squads(right)
        squad_id = allowed[0] if allowed else (visible[0] if visible else None)
    squad = get_object_or_404(Squad, pk=squad_id if squad_id in visible else None)
    actor.require(squad.pk, right)
    return squad


def _known_squad(actor: Actor, squad_id: int | None, right: Right) -> Squad | None:
    """The same squad as `squad_for`, as the actor brought it; None where that one decides."""
    allowed = actor.squads(right)
    found = squad_id if squad_id is not None else (allowed[0] if allowed else None)
    return actor.known.get(found) if found in allowed else None


def squad_to_look_at(actor: Actor, squad_id: int | None) -> Squad:
    """As `squad_for` with the right to look, and without asking where the actor brought the squad."""
    return _known_squad(actor, squad_id, Right.LOOK) or squad_for(actor, squad_id, Right.LOOK)


def context_for(
    actor: Actor, squad_id: int | None, right: Right, methods: dict[str, Any] | None = None
) -> FiguringContext:
    """What a squad's figures are made with; `methods` are tried for this answer alone. Raises DocumentError."""
    squad = _known_squad(actor, squad_id, right) or squad_for(actor, squad_id, right)
    try:
        return context_of(squad, methods)
    except ValidationError as error:
        raise DocumentError(_methods_problems(error)) from None


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


def import_movements(
    actor: Actor, squad_id: int | None, text: str, kind: Literal["csv", "json"], *, replace: bool = False
) -> list[str]:
    """Take the movements of a file into the squad's library; all of them or none.

    Raises DocumentError; ChangedError where the squad has other definitions of some and `replace` does not say so.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    movements = read_movements_csv(text) if kind == "csv" else read_movements_json(text)
    with transaction.atomic():
        own = dict(squad.movements.values_list("key", "definition"))
        others = [
            one.key for one in movements
            if one.key in own and own[one.key] != one.model_dump(mode="json", exclude_unset=True)
        ]  # fmt: skip
        if others and not replace:
            raise ChangedError(f"the squad's own definition of {', '.join(others[:5])}")
        _put(squad, movements)
        record(actor, squad.pk, Act.MOVEMENTS_CHANGED, ", ".join(movement.key for movement in movements))
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


def export_movements(actor: Actor, squad_id: int | None, kind: Literal["csv", "json"]) -> str:
    """All movements that a squad works with, as a file."""
    movements = movements_of(actor, squad_id).library.values()
    return movements_csv(movements) if kind == "csv" else movements_json(movements)


def _methods_problems(error: ValidationError) -> list[Problem]:
    return [
        Problem(path_text(("methods", *one["loc"])), shown(one["input"]), one["msg"].lower(), one["type"])
        for one in error.errors(include_url=False)
    ]


def methods_version(squad: Squad) -> str:
    """What a change of a squad's methods names as seen."""
    return version_of(squad.methods)


def change_methods(actor: Actor, squad_id: int, version: str, changes: dict[str, Any]) -> Squad:
    """Set some of a squad's methods; None takes one back to its default. Raises DocumentError, ChangedError."""
    with transaction.atomic():
        squad = squad_for(actor, squad_id, Right.HEAD)
        require_version("the squad's methods", version, methods_version(squad))
        changed = _changed_methods(squad, changes)
        record(actor, squad.pk, Act.METHODS_CHANGED, ", ".join(sorted(changes)))
    return changed


def _changed_methods(squad: Squad, changes: dict[str, Any]) -> Squad:
    wanted = {name: value for name, value in {**squad.methods, **changes}.items() if value is not None}
    try:
        Methods.model_validate(wanted)
    except ValidationError as error:
        raise DocumentError(_methods_problems(error)) from None
    for code in wanted.get("muted_checks", []):
        _known_check(code)
    squad.methods = wanted
    squad.save()
    return squad


def _known_check(code: str) -> None:
    codes = [check.code for check in CHECKS]
    if code not in codes:
        raise DocumentError([Problem("muted_checks", repr(code), ", ".join(codes), "check")])


def muted_checks(actor: Actor, squad_id: int) -> list[str]:
    """The checks that a squad is not told of."""
    return list(squad_for(actor, squad_id, Right.LOOK).methods_value().muted_checks)


def mute_check(actor: Actor, squad_id: int, code: str, *, muted: bool) -> list[str]:
    """Tell a squad of a check no more, or again; gives those that are muted then. Raises DocumentError."""
    _known_check(code)
    with transaction.atomic():
        squad = squad_for(actor, squad_id, Right.HEAD)
        others = [one for one in squad.methods_value().muted_checks if one != code]
        codes = [*others, code] if muted else others
        squad.methods = {**squad.methods, "muted_checks": codes}
        squad.save()
        record(actor, squad.pk, Act.CHECK_MUTED if muted else Act.CHECK_HEARD, code)
    return codes
