"""Which squad an act is about; what can be done with its methods and what it is told of."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.db import transaction
from django.shortcuts import get_object_or_404
from pydantic import ValidationError

from finetally.core.checks.table import CHECKS
from finetally.core.methods.described import SAID_ELSEWHERE, SETTINGS_TOLD, out_of_bounds
from finetally.core.methods.value import Methods
from finetally.core.schools import SCHOOLS_TOLD
from finetally.core.session.problems import DocumentError, Problem, path_text, shown
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Act, Squad
from finetally.web.squads.record import record
from finetally.web.versions import require_version, version_of


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
        beyond = out_of_bounds({name: value for name, value in changes.items() if value is not None})
        if beyond:
            raise DocumentError(beyond)
        before = squad.methods_value()
        changed = _changed_methods(squad, changes)
        record(actor, squad.pk, Act.METHODS_CHANGED, what_changed(before, squad.methods_value(), sorted(changes)))
    return changed


def what_changed(before: Methods, after: Methods, names: Sequence[str]) -> str:
    """What was set, with what it was, as "Breathers, as a share of each bout: 0.1 → 0.2".

    Of targets and checks it is told only that they were set.
    """
    old, new = (one.model_dump(mode="json", by_alias=True) for one in (before, after))
    return "; ".join(
        f"{_LABELS[name]}: {_said(name, old[name])} → {_said(name, new[name])}"
        if name in _LABELS
        else SAID_ELSEWHERE.get(name, name)
        for name in names
    )


_LABELS = {one.key: one.label for one in SETTINGS_TOLD} | {one.key: one.label for one in SCHOOLS_TOLD}
_EMPTY = {one.key: one.empty for one in SETTINGS_TOLD if one.empty}
_VIEWS = {one.key: one.views for one in SCHOOLS_TOLD}


def _said(name: str, value: Any) -> str:
    """A setting's value: of a school the name of that side; of one that is left out what that means."""
    views = (view.label for view in _VIEWS.get(name, ()) if view.value == value)
    return next(views, "") or (_EMPTY.get(name, "nothing") if value is None else _short(value))


def _short(value: Any) -> str:
    if isinstance(value, dict):
        return "/".join(_short(one) for one in value.values())
    if isinstance(value, list):
        return "/".join(_short(one) for one in value)
    return f"{value:g}" if isinstance(value, float) else str(value)


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
