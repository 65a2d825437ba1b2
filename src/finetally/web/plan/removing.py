"""Entries that are taken off the plan, with all that was noted of them: 30 days restorable, then deleted."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from finetally.web.log.asking import ask_to_work_out_all
from finetally.web.plan.entries import entry_named, the_entry
from finetally.web.plan.models import Entry
from finetally.web.plan.upkeep import RESTORABLE_FOR
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for
from finetally.web.versions import require_version

MOST_REMOVED_SHOWN = 100


def drop_entry(actor: Actor, entry_id: UUID, version: int) -> None:
    """Remove an entry from the plan, as it was seen; its session stays. It can be restored for 30 days."""
    with transaction.atomic():
        entry = the_entry(actor, entry_id)
        require_version(entry.title, version, entry.sequence)
        record(actor, entry.squad_id, Act.ENTRY_DROPPED, entry_named(entry))
        entry.removed_at = timezone.now()
        entry.save()
        _learn_anew(entry)


def restore_entry(actor: Actor, entry_id: UUID) -> Entry:
    """Put a removed entry back where it was, with its log, scores and attendance. 404 once it was deleted."""
    with transaction.atomic():
        found = Entry.with_removed.filter(squad_id__in=actor.squads()).exclude(removed_at=None)
        entry = get_object_or_404(found.select_related("squad", "session", "person", "group"), pk=entry_id)
        actor.require(entry.squad_id, Right.PLAN)
        entry.removed_at = None
        entry.save()
        record(actor, entry.squad_id, Act.ENTRY_RESTORED, entry_named(entry))
        _learn_anew(entry)
    return entry


def _learn_anew(entry: Entry) -> None:
    """Scores that went, or came back, change what is known of people's pace."""
    if entry.results.exists() or entry.ratings.exists():
        ask_to_work_out_all(entry.squad)


NOTED = ("results", "ratings", "log_notes", "runs", "attendance", "recordings")
"""What hangs on an entry and is removed with it."""


def noted_of(actor: Actor, entry_id: UUID) -> dict[str, int]:
    """How much was noted of an entry: by kind, and whether it is logged (1 or 0). For those who plan."""
    entry = the_entry(actor, entry_id)
    found = {kind: getattr(entry, kind).count() for kind in NOTED}
    return {"logged": int(entry.logged_minutes is not None), **found}


def removed_entries(actor: Actor, squad_id: int | None) -> list[tuple[Entry, int]]:
    """Entries that were removed and can be restored, the latest first, with the days that are left for it."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    found = Entry.with_removed.filter(squad=squad, removed_at__gt=timezone.now() - RESTORABLE_FOR)
    return [
        (one, max(0, (one.removed_at + RESTORABLE_FOR - timezone.now()).days))
        for one in found.defer("document").order_by("-removed_at")[:MOST_REMOVED_SHOWN]
        if one.removed_at is not None
    ]
