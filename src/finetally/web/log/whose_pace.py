"""At whose pace something is figured: one person's, or of a squad the slowest, the middle and the quickest."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Literal
from uuid import UUID

from finetally.core.methods.value import Methods
from finetally.web.people.pace import PaceInUse, pace_in_use
from finetally.web.people.people import known_people, read_person
from finetally.web.squads.actor import Actor
from finetally.web.squads.figuring_context import FiguringContext
from finetally.web.squads.models import Person, Squad

OfGroup = Literal["slowest", "middle", "quickest"]
PaceOf = UUID | OfGroup


def span_of(people: Iterable[Person], methods: Methods) -> dict[OfGroup, PaceInUse]:
    """The paces of the slowest, the middle (of two the slower) and the quickest; empty without people."""
    paces = sorted((pace_in_use(one, methods) for one in people), key=lambda one: one.pace_factor)
    if not paces:
        return {}
    return {"slowest": paces[-1], "middle": paces[len(paces) // 2], "quickest": paces[0]}


def at_pace_of(actor: Actor, squad: Squad, whose: PaceOf, context: FiguringContext) -> FiguringContext:
    """A context with somebody's pace in the place of the squad's own.

    Of a person for those who plan and the person; of the squad's span for whoever may look: it names nobody.
    """
    if isinstance(whose, UUID):
        pace: PaceInUse | None = pace_in_use(read_person(actor, whose), context.methods)
    else:
        pace = span_of(known_people(squad), context.methods).get(whose)
    if pace is None:
        return context
    return replace(context, methods=context.methods.model_copy(update={"pace_factor": pace.pace_factor}))
