"""What is dropped of check-ins by itself: links that have opened nothing for long, what was said long ago."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.db.models import Q
from django.utils import timezone

from finetally.web.checkin.models import CheckInDevice, CheckInLink, SaidOnce
from finetally.web.checkin.saying import WAITED

ENDED_KEPT = timedelta(days=30)


def prune() -> int:
    """Drop what the rule says: devices of links that are over at once. Returns how many rows."""
    now = timezone.now()
    over = Q(ended_at__isnull=False) | Q(expires_at__lt=now)
    with transaction.atomic():
        devices, _ = CheckInDevice.objects.filter(link__in=CheckInLink.objects.filter(over)).delete()
        old = Q(ended_at__lt=now - ENDED_KEPT) | Q(expires_at__lt=now - ENDED_KEPT)
        links, _ = CheckInLink.objects.filter(old).delete()
        said, _ = SaidOnce.objects.filter(at__lt=now - 2 * WAITED).delete()
    return devices + links + said
