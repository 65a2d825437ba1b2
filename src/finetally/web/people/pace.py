"""Whose pace it is that predictions go by, and where it is from."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from finetally.core.learn.learned import SPREAD_PRIOR
from finetally.core.methods.value import Methods
from finetally.web.people.measures import learned_of
from finetally.web.squads.models import Person

PaceSource = Literal["set", "learned", "squad"]


@dataclass(frozen=True, slots=True)
class PaceInUse:
    """The factor that a person's predictions go by, its spread, where it is from, from how many scores."""

    pace_factor: float
    spread: float
    source: PaceSource
    scores: int


def pace_in_use(person: Person | None, methods: Methods) -> PaceInUse:
    """Whose pace predictions go by: one that was set, one that was learned and is used, else the squad's.

    A spread is learned with a pace: to another one belongs what is assumed before anything is known.
    """
    kept = getattr(person, "learned_pace", None)
    scores = kept.scores if kept is not None else 0
    if person is not None and person.pace_factor is not None:
        return PaceInUse(person.pace_factor, SPREAD_PRIOR, "set", scores)
    used = learned_of(person) if person is not None else None
    if used is not None and used.counts:
        return PaceInUse(used.pace_factor, used.spread, "learned", scores)
    return PaceInUse(methods.pace_factor, SPREAD_PRIOR, "squad", scores)
