"""Amounts age: what entries come to is figured anew when the methods or the core are others, and that is told.

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
from finetally.web.jobs.use_cases import Wanted, ask_by_itself
from finetally.web.jobs.work import Desk
from finetally.web.plan.amounts import documents_of, figured, methods_key
from finetally.web.plan.models import Entry
from finetally.web.plan.week import PlannedWeek
from finetally.web.squads.house import House, house_of
from finetally.web.squads.models import Squad
from finetally.web.training.figuring import keep_figures, without_figures
from finetally.web.training.models import Session

AT_ONCE = 50
"""Entries that are written together: a moment's lock."""
TOLD = timedelta(days=1)


@dataclass(frozen=True, slots=True)
class Refigured:
    """How many entries were figured anew, and when."""

    count: int
    at: datetime


def aged(squad: Squad, house: House) -> QuerySet[Entry]:
    """Entries with a session whose amount was figured with other methods or another core; none that are logged."""
    planned = squad.entries.filter(document__isnull=False, logged_minutes=None)
    return planned.exclude(figured_with=methods_key(house))


def aged_in(week: PlannedWeek) -> int:
    """How many entries of a week are aged."""
    key = methods_key(house_of(week.squad))
    return sum(
        one.figured_with != key and one.minutes is None and one.logged_minutes is None for one in week.entries
    )


def refigure(entries: Iterable[Entry], house: House) -> int:
    """Figure the amounts of entries anew. Returns how many; what was changed meanwhile is left as it is then.

    An entry that cannot be figured any more keeps what it came to, and is not tried again.
    """
    found = list(entries)
    count = 0
    for first in range(0, len(found), AT_ONCE):
        some = found[first : first + AT_ONCE]
        documents = documents_of(some)
        made = []
        for entry in some:
            try:
                made.append((entry, figured(documents[str(entry.pk)], house)))
            except DocumentError:
                Entry.objects.filter(pk=entry.pk).update(figured_with=methods_key(house))
        with transaction.atomic():
            for entry, one in made:
                # Not a change that somebody made: calendars and copies in hand stay as they are.
                same = Entry.objects.filter(pk=entry.pk, sequence=entry.sequence)
                count += same.update(amount=one.amount, figured_with=one.with_methods)
    return count


def methods_changed(squad: Squad) -> Job | None:
    """Have a squad's aged entries, and the figures of its list, made anew by the process for heavy work.

    None where there is nothing to do.
    """
    house = house_of(squad)
    if not aged(squad, house).exists() and not _unkept(squad, house):
        return None
    return ask_by_itself(squad, Wanted("refigure", {"with": methods_key(house)}, place=f"refigure {squad.pk}"))


def _unkept(squad: Squad, house: House) -> list[Session]:
    """Sessions whose figures lists would have to make at every look."""
    return without_figures(list(squad.sessions.all()), {squad.pk: house})


def everywhere() -> int:
    """After a start: have every squad's aged entries figured anew. Returns for how many squads."""
    return sum(methods_changed(squad) is not None for squad in Squad.objects.all())


def work(desk: Desk) -> None:
    """Figure anew what a squad's job asks for; see web/jobs/work.py."""
    squad = desk.job.squad
    house = house_of(squad)
    count = 0
    unkept = _unkept(squad, house)
    for first in range(0, len(unkept), AT_ONCE):
        if not desk.stopped:
            keep_figures(unkept[first : first + AT_ONCE], {squad.pk: house})
    waiting = list(aged(squad, house).defer("document"))
    for first in range(0, len(waiting), AT_ONCE):
        if desk.stopped:
            break
        count += refigure(waiting[first : first + AT_ONCE], house)
        desk.show(progress={"count": count})
    desk.show(progress={"count": count}, answer={"count": count})


def lately(squad: Squad) -> Refigured | None:
    """What was figured anew within a day, if anything."""
    since = timezone.now() - TOLD
    found = (
        squad.jobs.filter(kind="refigure", state=JobState.DONE, ended_at__gte=since).order_by("-ended_at").first()
    )
    if found is None or found.ended_at is None or not found.progress.get("count"):
        return None
    return Refigured(found.progress["count"], found.ended_at)
