"""When the whole squad is away (a camp, a holiday), or somebody of it."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.web.people.people import the_person
from finetally.web.plan.entries import wrong
from finetally.web.plan.models import Away
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for

MAX_DAYS = 366
"""Days of one time away."""
MAX_PERIODS = 200
"""Times away of a squad, and of one person."""


def times_away(actor: Actor, squad_id: int | None) -> list[Away]:
    """All times that a whole squad is away, in order."""
    return list(squad_for(actor, squad_id, Right.LOOK).away.filter(person=None))


def add_away(
    actor: Actor, squad_id: int | None, first: date, last: date, *, known: bool, person: UUID | None = None
) -> Away:
    """Say that the squad, or somebody of it, is away. `known`: that is rest.

    The squad's for those who plan, a person's for them and the person. Raises DocumentError for days that lie over
    others.
    """
    whose = the_person(actor, person) if person is not None else None
    squad = whose.squad if whose is not None else squad_for(actor, squad_id, Right.PLAN)
    if not 0 <= (last - first).days < MAX_DAYS:
        raise wrong("last", last.isoformat(), f"a day from {first} on, {MAX_DAYS} days at most")
    with transaction.atomic():
        other = squad.away.filter(person=whose, first__lte=last, last__gte=first).first()
        if other is not None:
            raise wrong("first", first.isoformat(), f"days beside those from {other.first} to {other.last}")
        if squad.away.filter(person=whose).count() >= MAX_PERIODS:
            raise wrong("first", f"{MAX_PERIODS} times away", "fewer: take one away first")
        made = Away.objects.create(squad=squad, person=whose, first=first, last=last, known=known)
        record(actor, squad.pk, Act.AWAY_ADDED, f"{first} to {last}", whose)
    return made


def drop_away(actor: Actor, away_id: int) -> None:
    """Take a time away back."""
    away = get_object_or_404(Away.objects.select_related("person"), pk=away_id, squad_id__in=actor.squads())
    if away.person is not None:
        the_person(actor, away.person.public_id)
    else:
        actor.require(away.squad_id, Right.PLAN)
    with transaction.atomic():
        record(actor, away.squad_id, Act.AWAY_DROPPED, f"{away.first} to {away.last}", away.person)
        away.delete()
