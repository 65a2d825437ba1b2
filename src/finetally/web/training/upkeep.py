"""What is dropped of sessions, by rule and never by chance (docs/running.md, "What it keeps").

Nothing that somebody kept, that a plan or a file refers to, or that is in conflict is ever dropped.
"""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.db import models, transaction
from django.db.models import F
from django.utils import timezone

from finetally.web.training.models import Revision, RevisionKind, Summary

AUTOSAVES_KEPT = timedelta(days=90)
"""Autosaves that another version followed stay so long after their last save."""
SUMMARIES_KEPT = timedelta(days=180)
"""Figures of lists are made again where they are missing."""
DROPPED_AT_ONCE = 500
"""Rows that are dropped together: a moment's lock."""


def prune() -> int:
    """Drop what the rule says. Returns how many rows."""
    now = timezone.now()
    autosaves = Revision.objects.filter(
        kind=RevisionKind.AUTOSAVE, pinned=False, updated_at__lt=now - AUTOSAVES_KEPT
    ).exclude(pk=F("session__head_id"))
    summaries = Summary.objects.filter(made_at__lt=now - SUMMARIES_KEPT)
    return _dropped(Revision, autosaves) + _dropped(Summary, summaries)


def _dropped(model: type[Revision] | type[Summary], found: models.QuerySet[Any]) -> int:
    count = 0
    while keys := list(found.values_list("pk", flat=True)[:DROPPED_AT_ONCE]):
        with transaction.atomic():
            model.objects.filter(pk__in=keys).delete()
        count += len(keys)
    return count
