"""What of the plan is deleted in the end: entries that were removed, and not restored within 30 days."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.utils import timezone

from finetally.web.plan.models import Entry

RESTORABLE_FOR = timedelta(days=30)
"""So long a removed entry can be restored."""


def prune() -> int:
    """Delete entries that were removed over 30 days ago, with all that hangs on them. Returns how many rows."""
    with transaction.atomic():
        return Entry.with_removed.filter(removed_at__lt=timezone.now() - RESTORABLE_FOR).delete()[0]
