"""Limits of people, and what a session's steps become for them on a day.

Everybody of the squad is told the option that somebody takes; why is told to those who plan and to the person.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import get_args
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.core.people.limits import Joint, LimitedStep, LimitSide, limited_steps, options_with, step_paths
from finetally.core.session.cleaning import one_line
from finetally.core.session.document import Session
from finetally.core.session.problems import refuse, shown
from finetally.web.people.models import Limit
from finetally.web.people.people import holding_on, is_self, the_person
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of

JOINTS: tuple[str, ...] = get_args(Joint)
LIMIT_SIDES: tuple[str, ...] = get_args(LimitSide)
LONGEST_NOTE = 500
MOST_LIMITS = 50
"""Limits of one person, ended ones among them."""


@dataclass(frozen=True, slots=True)
class LimitWish:
    """A limit as it is asked for: a joint or a movement (one of both), a side, days, a note."""

    joint: str
    movement: str
    side: str
    first: date
    last: date | None
    note: str


def add_limit(actor: Actor, person_id: UUID, wish: LimitWish) -> Limit:
    """Have somebody spared something. For those who plan, and for the person. Raises DocumentError."""
    with transaction.atomic():
        person = the_person(actor, person_id)
        _refuse(person, wish)
        # The note is the head coach's and the person's: whoever may not read it may not write one either.
        note = one_line(wish.note) if reads_notes(actor, person) else ""
        made = Limit.objects.create(
            person=person, joint=wish.joint, movement=wish.movement, side=wish.side, first=wish.first,
            last=wish.last, note=note, set_by_id=actor.user_id,
        )  # fmt: skip
        record(actor, person.squad_id, Act.LIMIT_SET, person=person)
    return made


def _refuse(person: Person, wish: LimitWish) -> None:
    if bool(wish.joint) is bool(wish.movement):
        raise refuse(("joint",), "both or none", "a joint or a movement", "limit")
    if wish.joint and wish.joint not in JOINTS:
        raise refuse(("joint",), shown(wish.joint), ", ".join(JOINTS), "joint")
    if wish.movement and wish.movement not in context_of(person.squad).library:
        raise refuse(("movement",), shown(wish.movement), "a movement that the squad knows", "movement")
    if wish.side not in LIMIT_SIDES:
        raise refuse(("side",), shown(wish.side), ", ".join(LIMIT_SIDES), "side")
    if wish.last is not None and wish.last < wish.first:
        raise refuse(("last",), wish.last.isoformat(), f"a day from {wish.first} on", "bounds")
    if len(one_line(wish.note)) > LONGEST_NOTE:
        raise refuse(("note",), f"{len(wish.note)} characters", f"up to {LONGEST_NOTE}", "too_long")
    if person.limits.count() >= MOST_LIMITS:
        raise refuse(("joint",), f"{MOST_LIMITS} limits", "fewer: remove an old one first", "too_many")


def reads_notes(actor: Actor, person: Person) -> bool:
    """Whether the actor reads the notes of somebody's limits: head coaches, and the person."""
    return actor.may(person.squad_id, Right.HEAD) or is_self(actor, person)


def _the_limit(actor: Actor, limit_id: int) -> Limit:
    found = Limit.objects.filter(person__squad_id__in=actor.squads())
    limit = get_object_or_404(found.select_related("person__squad"), pk=limit_id)
    the_person(actor, limit.person.public_id)
    return limit


def end_limit(actor: Actor, limit_id: int) -> None:
    """Have a limit hold no more from today on; one that never held is removed."""
    with transaction.atomic():
        limit = _the_limit(actor, limit_id)
        today = today_of(limit.person.squad)
        yesterday = date.fromordinal(today.toordinal() - 1)
        if limit.first >= today:
            limit.delete()
        else:
            limit.last = min(limit.last or yesterday, yesterday)
            limit.save()
        record(actor, limit.person.squad_id, Act.LIMIT_ENDED, person=limit.person)


@dataclass(frozen=True, slots=True)
class Otherwise:
    """What somebody does otherwise in a session. `why`: the limits behind it, for those who may know; else None."""

    person: Person
    step: LimitedStep
    why: tuple[Limit, ...] | None


def limits_on(squad: Squad, day: date, person: Person | None = None) -> list[Limit]:
    """The limits of a squad, or of one person, that hold on a day. One query."""
    found = Limit.objects.filter(holding_on(day), person__squad=squad).select_related("person")
    return list(found if person is None else found.filter(person=person))


def limits_by_person(squad: Squad, day: date) -> dict[int, list[Limit]]:
    """The limits of a squad that hold on a day, by the key of whom they are of. One query."""
    found: dict[int, list[Limit]] = {}
    for one in limits_on(squad, day):
        found.setdefault(one.person_id, []).append(one)
    return found


def steps_for(session: Session, limits: Iterable[Limit], squad: Squad) -> list[LimitedStep]:
    """What the limits of one person make of a session's steps."""
    return limited_steps(session, [one.spared() for one in limits], context_of(squad).library)


def options_by_limits(session: Session, limits: Iterable[Limit], squad: Squad) -> dict[str, str]:
    """The options, by step id, that the limits of one person choose in a session."""
    chosen = options_with(session, {}, steps_for(session, limits, squad))
    return chosen if isinstance(chosen, dict) else {}


def otherwise(actor: Actor, squad: Squad, session: Session, day: date) -> list[Otherwise]:
    """Who of a squad does what otherwise in a session on a day, in the order of its steps.

    Steps that nothing spares are told to those who plan and to the person alone: there is no option to see.
    """
    actor.require(squad.pk, Right.LOOK)
    plans = actor.may(squad.pk, Right.PLAN)
    found = []
    for limits in limits_by_person(squad, day).values():
        person = limits[0].person
        knows = plans or is_self(actor, person)
        for step in steps_for(session, limits, squad):
            if step.option is not None or knows:
                why = tuple(one for one in limits if one.pk in step.limits) if knows else None
                found.append(Otherwise(person, step, why))
    order = {path: number for number, path in enumerate(step_paths(session))}
    return sorted(found, key=lambda one: (order[one.step.path], one.person.name))
