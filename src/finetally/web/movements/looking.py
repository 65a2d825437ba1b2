"""What is shown of movements: one with its chain and its use; what a file would change; names to be settled."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from django.http import Http404

from finetally.core.movements.chain import MovementChain, chain_of
from finetally.core.movements.changes import FieldChange, changed_fields
from finetally.core.session.movement import MovementDef
from finetally.shipped import shipped_library
from finetally.web.movements.own import FileKind, read_file
from finetally.web.movements.used import MovementUse, use_by_key
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.use_cases import squad_for

Fate = Literal["new", "changes", "same"]


@dataclass(frozen=True, slots=True)
class MovementLooked:
    """A movement as the squad has it. `over`: what an own definition changes of the one that ships."""

    movement: MovementDef
    own: bool
    ships: bool
    over: list[FieldChange]
    chain: MovementChain
    use: MovementUse


def look_at_movement(actor: Actor, squad_id: int | None, key: str) -> MovementLooked:
    """One movement with its chain and where it is used. Raises Http404 for one that nobody knows."""
    squad = squad_for(actor, squad_id, Right.LOOK)
    context = context_of(squad)
    movement = context.library.get(key)
    if movement is None:
        raise Http404
    own = key in context.own
    shipped = shipped_library().get(key)
    return MovementLooked(
        movement,
        own,
        shipped is not None,
        changed_fields(shipped, movement) if own and shipped is not None else [],
        chain_of(key, context.library),
        use_by_key(squad).get(key, MovementUse()),
    )


@dataclass(frozen=True, slots=True)
class MovementTaken:
    """What taking a definition in would do: what changes of what the squad has, and what it touches."""

    movement: MovementDef
    fate: Fate
    changes: list[FieldChange]
    use: MovementUse


def preview_movements(actor: Actor, squad_id: int | None, text: str, kind: FileKind) -> list[MovementTaken]:
    """What the movements of a file would change, nothing taken. Raises DocumentError with every fault."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    library = context_of(squad).library
    used = use_by_key(squad)
    found = []
    for one in read_file(text, kind):
        before, after = library.get(one.key), library.with_definitions([one])[one.key]
        changes = changed_fields(before, after)
        fate: Fate = "new" if before is None else "changes" if changes else "same"
        found.append(MovementTaken(after, fate, changes, used.get(one.key, MovementUse())))
    return found


@dataclass(frozen=True, slots=True)
class UnknownName:
    """A name that the squad's sessions use and nobody knows; the nearest movements by key."""

    key: str
    use: MovementUse
    nearest: list[str]


def unknown_names(actor: Actor, squad_id: int | None) -> list[UnknownName]:
    """The names to be settled, those that are used most first; for those who plan."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    library = context_of(squad).library
    found = [
        UnknownName(key, use, library.nearest(key))
        for key, use in use_by_key(squad).items()
        if key not in library and (use.sessions or use.planned)
    ]
    return sorted(found, key=lambda one: (-one.use.times, one.key))
