"""What is dropped of accounts by itself: sign-ins that have ended, links that have opened nothing for long."""

from __future__ import annotations

from datetime import timedelta

from axes.models import AccessAttempt
from django.db import transaction
from django.utils import timezone

from finetally.web.accounts.models import Device, Invitation, Reset

LINKS_KEPT = timedelta(days=90)
"""Invitations and resets stay so long after they were good: who joined by which is told until then."""
ATTEMPTS_KEPT = timedelta(days=30)
"""How long wrong passwords are remembered."""


def prune() -> int:
    """Drop what the rule says. Returns how many rows."""
    now = timezone.now()
    with transaction.atomic():
        devices, _ = Device.objects.filter(expire_date__lt=now).delete()
        invitations, _ = Invitation.objects.filter(expires_at__lt=now - LINKS_KEPT).delete()
        resets, _ = Reset.objects.filter(expires_at__lt=now - LINKS_KEPT).delete()
        attempts, _ = AccessAttempt.objects.filter(attempt_time__lt=now - ATTEMPTS_KEPT).delete()
    return int(devices + invitations + resets + attempts)
