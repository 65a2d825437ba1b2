"""What a squad's figures are made with: its methods, and the shipped movements with its own on top."""

from __future__ import annotations

import hashlib
import json
import logging
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from pydantic import ValidationError

from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.movement import MovementDef
from finetally.shipped import library_hash, shipped_library
from finetally.web.squads.models import Squad, SquadMovement

log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class House:
    """Methods, library, and what the library is known by in the keys of kept figures."""

    methods: Methods
    library: Library
    library_key: str
    own: frozenset[str]


def _readable(own: list[Any]) -> Iterator[MovementDef]:
    """The definitions that can be read; one that a newer rule refuses takes away nothing but itself."""
    for one in own:
        try:
            yield MovementDef.model_validate(one)
        except ValidationError:
            log.warning("a movement of a squad cannot be read and is left out")


@lru_cache(maxsize=64)
def _library(own: str) -> tuple[Library, str]:
    if own == "[]":
        return shipped_library(), library_hash()
    definitions = list(_readable(json.loads(own)))
    key = hashlib.sha256((library_hash() + own).encode()).hexdigest()[:16]
    return shipped_library().with_definitions(definitions), key


def _house(methods: Methods, own: list[dict[str, Any]]) -> House:
    library, key = _library(json.dumps(own, sort_keys=True))
    return House(methods, library, key, frozenset(one["key"] for one in own))


def house_of(squad: Squad, methods: dict[str, Any] | None = None) -> House:
    """A squad's house; `methods` are settings tried in its place, for this answer only. One query at most.

    Raises ValidationError for tried settings that are wrong; kept ones that are out of bounds are left out.
    """
    own = _own_movements(squad)
    kept = squad.methods_value()
    if methods:
        changed = kept.model_dump(by_alias=True, exclude_unset=True)
        kept = Methods.model_validate({**changed, **methods})
    return _house(kept, json.loads(own))


def _own_movements(squad: Squad) -> str:
    """A squad's own movements, as JSON; held by their number and newest change where those are known."""
    if squad.movements_state is None:
        return _asked(squad.pk)
    return _own_of(squad.pk, squad.movements_state)


@lru_cache(maxsize=64)
def _own_of(squad_id: int, state: tuple[int, str]) -> str:
    return "[]" if state[0] == 0 else _asked(squad_id)


def _asked(squad_id: int) -> str:
    definitions = SquadMovement.objects.filter(squad_id=squad_id).values_list("definition", flat=True)
    return json.dumps(list(definitions), sort_keys=True)


def houses_of(squads: Iterable[Squad]) -> dict[int, House]:
    """Houses of several squads by id. One query."""
    known = {squad.pk: squad for squad in squads}
    own: dict[int, list[dict[str, Any]]] = {pk: [] for pk in known}
    for squad_id, definition in SquadMovement.objects.filter(squad_id__in=known).values_list(
        "squad_id", "definition"
    ):
        own[squad_id].append(definition)
    return {pk: _house(squad.methods_value(), own[pk]) for pk, squad in known.items()}
