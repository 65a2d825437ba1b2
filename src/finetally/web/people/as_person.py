"""A session as one person does it: what is known of them, and the options that their limits choose."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.shortcuts import get_object_or_404

from finetally.core.methods.given import Given
from finetally.core.people.limits import options_with
from finetally.core.session.reading import parse_session
from finetally.web.people.limits import limits_on, steps_for
from finetally.web.people.measures import given_of
from finetally.web.people.people import the_person
from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of


def as_person(actor: Actor, person_id: UUID, document: dict[str, Any], given: Given) -> Given:
    """What is known of the day, and of one person today; for those who plan, and the person. Three queries."""
    the_person(actor, person_id)
    person = get_object_or_404(
        Person.objects.select_related("squad", "learned_pace").prefetch_related("maxima"), public_id=person_id
    )
    session = parse_session(document)
    limited = steps_for(session, limits_on(person.squad, today_of(person.squad), person), person.squad)
    known = given_of(person, person.squad.methods_value().one_rm)
    options = options_with(session, given.options, limited) if limited else given.options
    return given.model_copy(update={"person": known, "options": options})
