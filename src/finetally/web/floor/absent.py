"""Who was not there, as runs and attendance of the day have it."""

from __future__ import annotations

from collections.abc import Iterable

from finetally.web.floor.models import FloorRun
from finetally.web.plan.models import Attendance, Entry


def absent_in_runs(entry: Entry) -> set[int]:
    """The keys of people who were ticked as absent, and came to no run of an entry. Two queries at most."""
    return _away_at_end_of(entry.runs.all(), only_from_start=True)


def gone_before(entry: Entry) -> set[int]:
    """The keys of people who were absent from, or left, an earlier session of the entry's day. A query for each.

    Who missed the first session is not expected at the second.
    """
    earlier = [one for one in entry.squad.entries.filter(day=entry.day).exclude(pk=entry.pk) if _before(one, entry)]
    if not earlier:
        return set()
    noted = Attendance.objects.filter(entry__in=earlier, came=False).exclude(person=None)
    runs = FloorRun.objects.filter(entry__in=earlier)
    return {key for key in noted.values_list("person_id", flat=True) if key is not None} | _away_at_end_of(runs)


def _before(one: Entry, other: Entry) -> bool:
    if one.time is not None and other.time is not None:
        return one.time < other.time
    return one.created_at < other.created_at


def _away_at_end_of(runs: Iterable[FloorRun], *, only_from_start: bool = False) -> set[int]:
    """Who was absent at the end of each run; `only_from_start`: only those absent from its start."""
    away: dict[int, bool] = {}
    for run in runs:
        here: dict[int, bool] = {}
        events = run.events.filter(event__do__in=("here", "away")).exclude(person=None)
        for event in sorted(events, key=lambda one: float(one.event["t"])):
            if event.person_id is not None:
                is_away = event.event["do"] == "away" and not (only_from_start and float(event.event["t"]) > 0)
                here[event.person_id] = is_away
        for person, is_away in here.items():
            away[person] = away.get(person, True) and is_away
    return {person for person, is_away in away.items() if is_away}
