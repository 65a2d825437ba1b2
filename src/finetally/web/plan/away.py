"""When the whole squad is away: a camp, a holiday."""

from __future__ import annotations

from datetime import date

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.web.plan.entries import wrong
from finetally.web.plan.models import Away
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.use_cases import squad_for

MAX_DAYS = 366
"""Days of one time away."""
MAX_PERIODS = 200
"""Times away of a squad."""


def times_away(actor: Actor, squad_id: int | None) -> list[Away]:
    """All of a squad's times away, in order."""
    return list(squad_for(actor, squad_id, Right.LOOK).away.all())


def add_away(actor: Actor, squad_id: int | None, first: date, last: date, *, known: bool) -> Away:
    """Say that the squad is away. `known`: it rests then. Raises DocumentError for days that lie over others."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    if not 0 <= (last - first).days < MAX_DAYS:
        raise wrong("last", last.isoformat(), f"a day from {first} on, {MAX_DAYS} days at most")
    with transaction.atomic():
        other = squad.away.filter(first__lte=last, last__gte=first).first()
        if other is not None:
            raise wrong("first", first.isoformat(), f"days beside those from {other.first} to {other.last}")
        if squad.away.count() >= MAX_PERIODS:
            raise wrong("first", f"{MAX_PERIODS} times away", "fewer: take one away first")
        return Away.objects.create(squad=squad, first=first, last=last, known=known)


def drop_away(actor: Actor, away_id: int) -> None:
    """Take a time away back."""
    away = get_object_or_404(Away, pk=away_id, squad_id__in=actor.squads())
    actor.require(away.squad_id, Right.PLAN)
    away.delete()
