"""Who did what in a squad, as head coaches read it; kept for a year."""

from __future__ import annotations

from datetime import timedelta

from django.utils import timezone

from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Record
from finetally.web.squads.use_cases import squad_for

HISTORY_KEPT = timedelta(days=365)
RECORDS_AT_ONCE = 100
"""Records of one answer."""


def history(actor: Actor, squad_id: int, before: int | None = None) -> list[Record]:
    """A page of a squad's history, the latest first; `before`: older than the record of that number."""
    squad = squad_for(actor, squad_id, Right.HEAD)
    found = squad.records.filter(at__gte=timezone.now() - HISTORY_KEPT).select_related("user", "person")
    return list((found.filter(pk__lt=before) if before is not None else found)[:RECORDS_AT_ONCE])


def history_of(actor: Actor, squad_id: int, act: Act) -> list[Record]:
    """The latest of one kind of act, for those who plan."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    found = squad.records.filter(act=act, at__gte=timezone.now() - HISTORY_KEPT).select_related("user", "person")
    return list(found[:RECORDS_AT_ONCE])


def by_whom(one: Record) -> str | None:
    """Who did it: the account, or the person whose own link it was; None for one that is gone."""
    if one.own:
        return one.person.name if one.person is not None else None
    return str(one.user.get_username()) if one.user is not None else None


def forget_history() -> int:
    """Drop what is older than is kept. Returns how many."""
    return Record.objects.filter(at__lt=timezone.now() - HISTORY_KEPT).delete()[0]
