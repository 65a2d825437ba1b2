"""The day that it is where a squad is."""

from __future__ import annotations

from datetime import date
from zoneinfo import ZoneInfo

from django.utils import timezone

from finetally.web.squads.models import Squad


def today_of(squad: Squad) -> date:
    """The day that it is where the squad is."""
    return timezone.now().astimezone(ZoneInfo(squad.time_zone)).date()
