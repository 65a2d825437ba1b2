"""The day that it is where a squad is."""

from __future__ import annotations

from datetime import date, datetime
from zoneinfo import ZoneInfo

from django.utils import timezone

from finetally.web.squads.models import Squad


def today_of(squad: Squad) -> date:
    """The day that it is where the squad is."""
    return day_of(squad, timezone.now())


def day_of(squad: Squad, at: datetime) -> date:
    """The day that it was where the squad is at a moment."""
    return at.astimezone(ZoneInfo(squad.time_zone)).date()
