"""Load summaries age: they are figured anew when the methods or the core are others, and that is told.

What is logged is never figured anew.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from finetally.core.session.problems import DocumentError
from finetally.web.jobs.models import Job, JobState
from finetally.web.jobs.use_cases import JobRequest, ask_by_itself
from finetally.web.jobs.work import JobHandle
from finetally.web.plan.models import Entry
from finetally.web.plan.summaries import documents_of, methods_key, summarise
from finetally.web.plan.week import PlannedWeek
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Squad
from finetally.web.training.figuring import keep_figures, without_figures
from finetally.web.training.models import Session

WRITTEN_AT_ONCE = 50
"""Entries that are written together: a moment's lock."""
TOLD_FOR = timedelta(days=1)


@dataclass(frozen=True, slots=True)
class Refigured:
    """How many entries were figured anew, and when."""

    count: int
    at: datetime


def aged(squad: Squad, context: FiguringContext) -> QuerySet[Entry]:
    """Entries with a session whose summary was figured with other methods or another core; none that are logged."""
    planned = squad.entries.filter(document__isnull=False, logged_minutes=None)
    return planned.exclude(figured_with=methods_key(context))


def aged_in(week: PlannedWeek) -> int:
    """How many entries of a week are aged."""
    key = methods_key(context_of(week.squad))
    return sum(
        one.figured_with != key and one.minutes is None and one.logged_minutes is None for one in week.entries
    )


def refigure(entries: Iterable[Entry], context: FiguringContext) -> int:
    """Figure the summaries of entries anew. Returns how many; what was changed meanwhile is left as it is then.

    An entry that cannot be figured any more keeps what it came to, and is not tried again.
    """
    found = list(entries)
    count = 0
    for first in range(0, len(found), WRITTEN_AT_ONCE):
        some = found[first : first + WRITTEN_AT_ONCE]
        documents = documents_of(some)
        made = []
        for entry in some:
            try:
                made.append((entry, summarise(documents[str(entry.pk)], context)))
            except DocumentError:
                Entry.objects.filter(pk=entry.pk).update(figured_with=methods_key(context))
        with transaction.atomic():
            for entry, one in made:
                # Not a change that somebody made: calendars and copies in hand stay as they are.
                same = Entry.objects.filter(pk=entry.pk, sequence=entry.sequence)
                count += same.update(summary=one.summary, figured_with=one.with_methods)
    return count


def methods_changed(squad: Squad) -> Job | None:
    """Have a squad's aged entries, and the figures of its list, made anew by the process for heavy work.

    None where there is nothing to do.
    """
    context = context_of(squad)
    if not aged(squad, context).exists() and not _unkept(squad, context):
        return None
    return ask_by_itself(
        squad, JobRequest("refigure", {"with": methods_key(context)}, lock_name=f"refigure {squad.pk}")
    )


@dataclass(frozen=True, slots=True)
class Reach:
    """What other methods make figured anew: sessions of the Bench, planned entries; logged ones stay."""

    sessions: int
    planned: int
    logged: int


def reach_of(squad: Squad) -> Reach:
    """What a change of a squad's methods reaches. Three queries."""
    entries = squad.entries.filter(document__isnull=False)
    logged = entries.exclude(logged_minutes=None).count()
    return Reach(squad.sessions.count(), entries.count() - logged, logged)


def _unkept(squad: Squad, context: FiguringContext) -> list[Session]:
    """Sessions whose figures lists would have to make at every look."""
    return without_figures(list(squad.sessions.all()), {squad.pk: context})


def everywhere() -> int:
    """After a start: have every squad's aged entries figured anew. Returns for how many squads."""
    return sum(methods_changed(squad) is not None for squad in Squad.objects.all())


def refigure_job(handle: JobHandle) -> None:
    """Figure anew what a squad's job asks for; see web/jobs/work.py."""
    squad = handle.job.squad
    context = context_of(squad)
    count = 0
    unkept = _unkept(squad, context)
    for first in range(0, len(unkept), WRITTEN_AT_ONCE):
        if not handle.stopped:
            keep_figures(unkept[first : first + WRITTEN_AT_ONCE], {squad.pk: context})
    waiting = list(aged(squad, context).defer("document"))
    for first in range(0, len(waiting), WRITTEN_AT_ONCE):
        if handle.stopped:
            break
        count += refigure(waiting[first : first + WRITTEN_AT_ONCE], context)
        handle.show(progress={"count": count})
    handle.show(progress={"count": count}, answer={"count": count})


def lately(squad: Squad) -> Refigured | None:
    """What was figured anew within a day, if anything."""
    since = timezone.now() - TOLD_FOR
    found = (
        squad.jobs.filter(kind="refigure", state=JobState.DONE, ended_at__gte=since).order_by("-ended_at").first()
    )
    if found is None or found.ended_at is None or not found.progress.get("count"):
        return None
    return Refigured(found.progress["count"], found.ended_at)
