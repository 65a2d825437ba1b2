"""Maxima and capacity of somebody: from sets and tests, each with where it is from; and as figures take them."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.core.learn.learned import Learned
from finetally.core.methods.given import PersonGiven
from finetally.core.methods.one_rep_max import MOST_REPS, RepSchool, maximum_of_set
from finetally.core.people.field_tests import capacity_met
from finetally.core.session.problems import DocumentError, refuse, shown
from finetally.web.people.models import Maximum
from finetally.web.people.people import YOUNG, the_person
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Act, Person
from finetally.web.squads.record import record

MOST_KG = 1_000
LEAST_REPS_OF_THE_YOUNG = 5
"""Reps that a set of somebody under age must have: no maxima from tests, only estimates."""
MOST_SETS = 400
"""Sets that are kept of one person."""


def given_of(person: Person, school: RepSchool) -> PersonGiven:
    """What is known about somebody, as figures take it: what was set goes before what was learned.

    One query each where the maxima, or what was learned, did not come with the person.
    """
    used = learned_of(person)
    pace, offset = person.pace_factor, person.effort_offset
    if used is not None:
        pace = pace if pace is not None or not used.counts else used.pace_factor
        offset = offset or used.effort_offset
    return PersonGiven(
        one_rm=newest_maxima(person.maxima.all(), school),
        body_kg=person.body_kg,
        capacity_met=person.capacity_met,
        pace_factor=pace,
        effort_offset=offset,
    )


def learned_of(person: Person) -> Learned | None:
    """What somebody's log teaches, where it is used: by the squad's habit, or as a coach said of this person."""
    kept = getattr(person, "learned_pace", None)
    if kept is None or kept.use == "no" or (kept.use != "yes" and person.squad.learning != "auto"):
        return None
    value: Learned = kept.value
    return value


def newest_maxima(sets: Iterable[Maximum], school: RepSchool) -> dict[str, float]:
    """One-rep maxima in kg by movement: of each movement's newest set (those without a day are the oldest)."""
    newest: dict[str, Maximum] = {}
    for one in sets:
        held = newest.get(one.movement)
        if held is None or (one.day or date.min, one.pk) > (held.day or date.min, held.pk):
            newest[one.movement] = one
    return {key: maximum_of_set(one.kg, one.reps, school) for key, one in newest.items()}


def add_maximum(actor: Actor, person_id: UUID, movement: str, kg: float, reps: int, day: date) -> Maximum:
    """Keep a set of so many reps to the last possible one; one rep is a measured maximum. Raises DocumentError."""
    with transaction.atomic():
        person = the_person(actor, person_id)
        actor.require(person.squad_id, Right.PLAN)
        _refuse_set(person, movement, kg, reps)
        made = Maximum.objects.create(person=person, movement=movement, kg=kg, reps=reps, day=day)
        record(actor, person.squad_id, Act.PERSON_CHANGED, person=person)
    return made


def _refuse_set(person: Person, movement: str, kg: float, reps: int) -> None:
    if movement not in context_of(person.squad).library:
        raise refuse(("movement",), shown(movement), "a movement that the squad knows", "movement")
    if not 0 < kg <= MOST_KG:
        raise refuse(("kg",), f"{kg:g}", f"more than 0, up to {MOST_KG}", "bounds")
    if not 1 <= reps <= MOST_REPS:
        raise refuse(("reps",), str(reps), f"1 to {MOST_REPS}", "bounds")
    if person.under_age and reps < LEAST_REPS_OF_THE_YOUNG:
        says = f"Under age no maxima are tested: sets of {LEAST_REPS_OF_THE_YOUNG} reps and more make an estimate."
        raise refuse(("reps",), str(reps), says, "cannot_under_age")
    if person.maxima.count() >= MOST_SETS:
        raise refuse(("movement",), f"{MOST_SETS} sets", "fewer: take an old one away first", "too_many")


def drop_maximum(actor: Actor, maximum_id: int) -> None:
    """Take a set away."""
    with transaction.atomic():
        found = Maximum.objects.filter(person__squad_id__in=actor.squads()).select_related("person")
        one = get_object_or_404(found, pk=maximum_id)
        actor.require(one.person.squad_id, Right.PLAN)
        one.delete()
        record(actor, one.person.squad_id, Act.PERSON_CHANGED, person=one.person)


def set_capacity(actor: Actor, person_id: UUID, test: str, result: float | None, day: date | None) -> Person:
    """Keep somebody's capacity as a test and its result; no result: nothing is known. Raises DocumentError."""
    with transaction.atomic():
        person = the_person(actor, person_id)
        actor.require(person.squad_id, Right.PLAN)
        if result is None:
            person.capacity_met = person.capacity_result = person.capacity_on = None
            person.capacity_test = ""
        else:
            met = capacity_met(test, result)
            if not isinstance(met, float):
                raise DocumentError(met)
            if person.keeps_little:
                raise refuse(("result",), f"{result:g}", YOUNG, "cannot_under_age")
            person.capacity_met, person.capacity_test = met, test
            person.capacity_result, person.capacity_on = result, day
        person.save()
        record(actor, person.squad_id, Act.PERSON_CHANGED, person=person)
    return person
