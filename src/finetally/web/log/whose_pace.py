"""At whose pace something is figured: one person's, or of a squad the slowest, the middle and the quickest."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Literal
from uuid import UUID

from finetally.core.methods.value import Methods
from finetally.web.people.pace import PaceInUse, pace_in_use
from finetally.web.people.people import known_people, read_person
from finetally.web.squads.actor import Actor, Right
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


FEWEST_FOR_SPAN = 5
"""People of whom there must be so many before whoever does not plan is told of the slowest and the quickest."""
ROUNDED = 2
"""Decimals of a pace in a span that is told to whoever does not plan: more would tell whose it is."""


def told_span(people: Sequence[Person], methods: Methods, *, plans: bool) -> dict[OfGroup, PaceInUse]:
    """The span as it may be told: to those who plan all of it, to others rounded, and of few people none."""
    span = span_of(people, methods)
    if plans:
        return span
    if len(people) < FEWEST_FOR_SPAN:
        return {}
    return {
        whom: replace(pace, pace_factor=round(pace.pace_factor, ROUNDED), spread=round(pace.spread, ROUNDED))
        for whom, pace in span.items()
    }


def at_pace_of(actor: Actor, squad: Squad, whose: PaceOf, context: FiguringContext) -> FiguringContext:
    """A context with somebody's pace in the place of the squad's own.

    Of a person for those who plan and the person; of the squad's span for whoever may look, as far as it is told.
    """
    if isinstance(whose, UUID):
        pace: PaceInUse | None = pace_in_use(read_person(actor, whose), context.methods)
    else:
        plans = actor.may(squad.pk, Right.PLAN)
        pace = told_span(list(known_people(squad)), context.methods, plans=plans).get(whose)
    if pace is None:
        return context
    return replace(context, methods=context.methods.model_copy(update={"pace_factor": pace.pace_factor}))
