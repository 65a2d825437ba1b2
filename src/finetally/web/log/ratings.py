"""Ratings: how hard it was, 0 to 10, asked once; and what the group's effort becomes by them."""

from __future__ import annotations

from datetime import datetime, timedelta
from statistics import fmean
from uuid import UUID
from zoneinfo import ZoneInfo

from django.db import transaction
from django.utils import timezone

from finetally.web.log.asking import ask_to_work_out
from finetally.web.log.models import LoggedEntry, Rating, RatingWay
from finetally.web.log.seeing import looker_at, person_of
from finetally.web.plan.entries import entry_named, wrong
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import summary_from_json
from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Act, Person
from finetally.web.squads.record import record
from finetally.web.squads.today import day_of, today_of

EARLY = timedelta(minutes=10)
"""A rating sooner after the end is marked: how a session felt settles in the first minutes (Foster 2001)."""


def rate(
    actor: Actor,
    entry_id: UUID,
    person_id: UUID | None,
    effort: float | None,
    way: RatingWay,
    *,
    at: datetime | None = None,
) -> None:
    """Keep how hard somebody found it, or the group together (no person); no effort takes it back.

    Those whom an entry is for rate for themselves, on its day and the next; who plans, for all and at any later
    time. `at`: when it was said, where it was sent later (default: now). Raises DocumentError.
    """
    said = at or timezone.now()
    looker = looker_at(actor, entry_id)
    entry = looker.entry
    if effort is not None and not 0 <= effort <= 10:
        raise wrong("effort", f"{effort:g}", "0 to 10")
    if entry.day > today_of(entry.squad):
        raise wrong("entry", f"a session of {entry.day.isoformat()}", "one that has begun")
    person = person_of(looker, person_id)
    if not looker.plans:
        way = RatingWay.OWN
        if day_of(entry.squad, said) > entry.day + timedelta(days=1):
            raise wrong("entry", f"a session of {entry.day.isoformat()}", "a rating by the end of the next day")
    if person is None:
        way = RatingWay.GROUP
    with transaction.atomic():
        if effort is None:
            Rating.objects.filter(entry=entry, person=person).delete()
        else:
            ended = ended_at(entry)
            early = ended is not None and said < ended + EARLY
            Rating.objects.update_or_create(
                entry=entry, person=person,
                defaults={
                    "effort": effort, "way": way, "early": early, "user_id": actor.user_id, "key": "",
                    "estimated": None,
                },
            )  # fmt: skip
        if person is not None:
            _attended(entry, person, effort)
        refresh_effort(entry)
        record(actor, entry.squad_id, Act.RATED, entry_named(entry), person)
        ask_to_work_out(entry)


def ended_at(entry: Entry) -> datetime | None:
    """When an entry was over: its last run's end, else its time and minutes; None where neither is known."""
    run = entry.runs.exclude(ended_at=None).order_by("-ended_at").first()
    if run is not None:
        return run.ended_at
    if entry.time is None:
        return None
    begins = datetime.combine(entry.day, entry.time, tzinfo=ZoneInfo(entry.squad.time_zone))
    return begins + timedelta(minutes=minutes_of(entry))


def minutes_of(entry: Entry) -> float:
    """How long an entry was for all, else how long it is planned to be."""
    if entry.logged_minutes is not None:
        return entry.logged_minutes
    return entry.minutes if entry.minutes is not None else summary_from_json(entry.summary).minutes


def _attended(entry: Entry, person: Person, effort: float | None) -> None:
    """Who rated was there: their week takes their own effort, for as long as they were noted to be there."""
    own = Attendance.objects.filter(entry=entry, person=person).first()
    if effort is None:
        if own is not None and own.came:
            _not_rated(own)
        return
    minutes = own.minutes if own is not None and own.minutes is not None else minutes_of(entry)
    Attendance.objects.update_or_create(
        entry=entry, person=person, defaults={"came": True, "minutes": minutes, "effort": effort}
    )


def _not_rated(own: Attendance) -> None:
    """Take back what a rating told; what they said of coming, and which options they took, stays."""
    if not own.said and not own.options:
        own.delete()
        return
    own.minutes = own.effort = None
    own.save(update_fields=["minutes", "effort"])


def refresh_effort(entry: Entry) -> None:
    """Have a logged entry's effort follow its ratings: their mean, else the group's, else what was estimated."""
    logged = LoggedEntry.objects.filter(entry=entry).first()
    if logged is None or logged.effort_from == "typed" or entry.logged_minutes is None:
        return
    effort, source = effort_of(entry, logged.estimated)
    if (effort, source) == (entry.logged_effort, logged.effort_from):
        return
    entry.logged_effort, logged.effort_from = effort, source
    entry.save()
    logged.save(update_fields=["effort_from"])


def effort_of(entry: Entry, estimated: float | None) -> tuple[float, str]:
    """An entry's effort for all, and where it is from."""
    ratings = list(Rating.objects.filter(entry=entry))
    own = [one.effort for one in ratings if one.way != RatingWay.GROUP]
    if own:
        return round(fmean(own), 2), "ratings"
    if ratings:
        return ratings[0].effort, "group"
    planned = entry.effort if entry.effort is not None else summary_from_json(entry.summary).effort
    return (estimated if estimated is not None else planned), "estimate"
