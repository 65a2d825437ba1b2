"""The plan as an iCalendar: one event an entry, with the wall form in it (RFC 5545)."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

from finetally.core.board.writer import write_wall
from finetally.core.movements.library import Library
from finetally.core.session.cleaning import one_line
from finetally.core.session.problems import DocumentError
from finetally.web.plan.models import Entry
from finetally.web.squads.models import Squad

PRODUCT = "-//Fine Tally//plan//EN"
DOMAIN = "fine-tally"


def calendar_of(squad: Squad, name: str, entries: Iterable[Entry], library: Library) -> bytes:
    """A calendar of entries: stable UIDs, SEQUENCE, local times with their VTIMEZONE, whole days without a time.

    A skipped entry is a cancelled event, so that calendars take it out.
    """
    calendar = Calendar()
    calendar.add("prodid", PRODUCT)
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", one_line(name))
    for entry in entries:
        calendar.add_component(_event(entry, squad, library))
    calendar.add_missing_timezones()
    return bytes(calendar.to_ical())


def _event(entry: Entry, squad: Squad, library: Library) -> Event:
    event = Event()
    event.add("uid", f"{entry.pk}@{DOMAIN}")
    event.add("sequence", entry.sequence)
    event.add("dtstamp", entry.updated_at.astimezone(UTC))
    event.add("last-modified", entry.updated_at.astimezone(UTC))
    event.add("summary", one_line(f"{entry.title} ({entry.group.name})" if entry.group else entry.title))
    minutes = max(1, round(float(entry.summary.get("minutes") or 0)))
    if entry.time is None:
        event.add("dtstart", entry.day)
        event.add("dtend", entry.day + timedelta(days=1))
    else:
        start = datetime.combine(entry.day, entry.time, tzinfo=ZoneInfo(squad.time_zone))
        event.add("dtstart", start)
        event.add("duration", timedelta(minutes=minutes))
    event.add("status", "CANCELLED" if entry.skipped else "CONFIRMED")
    event.add("description", _description(entry, minutes, library))
    return event


def _description(entry: Entry, minutes: int, library: Library) -> str:
    head = f"{minutes} min, effort {float(entry.summary.get('effort') or 0):.1f}"
    if entry.document is None:
        return head
    try:
        return f"{head}\n\n{write_wall(entry.document, library=library)}"
    except DocumentError:
        # A feed is read again and again by itself: one session that cannot be read must not take away the others.
        return head
