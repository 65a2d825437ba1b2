"""What a squad's figures are made with: its methods, and the shipped movements with its own on top."""

from __future__ import annotations

import hashlib
import json
import logging
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from pydantic import ValidationError

from finetally.core.methods.given import Given
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.movement import MovementDef
from finetally.shipped import library_hash, shipped_library
from finetally.web.squads.models import Squad, SquadMovement

log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class FiguringContext:
    """Methods, library, what the library is known by in the keys of kept figures; how many there are of each."""

    methods: Methods
    library: Library
    library_key: str
    own: frozenset[str]
    kit: Mapping[str, int] = field(default_factory=dict)

    def given(self, given: Given) -> Given:
        """What is known about the day, with the squad's kit where nothing is said of kit."""
        return given if given.kit or not self.kit else given.model_copy(update={"kit": dict(self.kit)})


def _readable(own: list[Any]) -> Iterator[MovementDef]:
    """The definitions that can be read; one that a newer rule refuses takes away nothing but itself."""
    for one in own:
        try:
            yield MovementDef.model_validate(one)
        except ValidationError:
            log.warning("a movement of a squad cannot be read and is left out")


@lru_cache(maxsize=64)
def _library(own: str) -> tuple[Library, str, frozenset[str]]:
    """The movements of a squad whose own are these, what they are known by, and which are its own."""
    if own == NONE:
        return shipped_library(), library_hash(), frozenset()
    kept = json.loads(own)
    key = hashlib.sha256((library_hash() + own).encode()).hexdigest()[:16]
    return shipped_library().with_definitions(list(_readable(kept))), key, frozenset(one["key"] for one in kept)


NONE = "[]"


def context_of(squad: Squad, methods: dict[str, Any] | None = None) -> FiguringContext:
    """A squad's context; `methods` are settings tried in its place, for this answer only. One query at most.

    Raises ValidationError for tried settings that are wrong; kept ones that are out of bounds are left out.
    """
    kept = squad.methods_value()
    if methods:
        changed = kept.model_dump(by_alias=True, exclude_unset=True)
        kept = Methods.model_validate({**changed, **methods})
    return FiguringContext(kept, *_library(_own_movements(squad.pk, squad.movements_version)), kit=squad.kit)


@lru_cache(maxsize=64)
def _own_movements(squad_id: int, version: str) -> str:
    """A squad's own movements, as JSON; held by their version. Who never had any is not asked for them."""
    if not version:
        return NONE
    definitions = SquadMovement.objects.filter(squad_id=squad_id).values_list("definition", flat=True)
    return json.dumps(list(definitions), sort_keys=True)


def contexts_of(squads: Iterable[Squad]) -> dict[int, FiguringContext]:
    """Figuring contexts of several squads by id. One query for each whose movements are not held yet."""
    return {squad.pk: context_of(squad) for squad in squads}
