"""A file with many squads of ten people and three years of training each, as real ones would have left it.

One squad is made of the demo's: what its seven weeks were logged as, again and again over three years. The others are copies
of it, row by row in SQL, with keys of their own. Beside the tests, not part of them.
"""

from __future__ import annotations

import copy
import itertools
import uuid
from collections.abc import Iterator
from datetime import timedelta
from typing import Any

from django.contrib.auth import get_user_model
from django.db import connection, models, transaction

from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.log.models import LearnedPace, LoggedEntry, LoggedRun, LogNote, Rating, Result
from finetally.web.people.models import Limit, Maximum
from finetally.web.plan.models import Attendance, Day, Entry, Phase
from finetally.web.squads.models import Membership, Person, Role, Squad
from finetally.web.squads.today import today_of
from finetally.web.training.demo import SQUAD
from finetally.web.training.models import Revision, Session

PEOPLE, WEEKS = 10, 156
VERSIONS = 20
"""Kept versions of each session."""
COPIED: tuple[type[models.Model], ...] = (
    Squad, Person, Maximum, Limit, Session, Revision, Entry, Attendance, Day, Phase, FloorRun, FloorEvent, LoggedEntry,
    LoggedRun, Result, Rating, LogNote, LearnedPace,
)  # fmt: skip
"""Tables of which every squad has its own rows."""
APART = 10_000_000
"""Between the keys of one squad and the next."""


def three_years() -> Squad:
    """Make the demo squad one with ten people and three years behind it; returns it."""
    squad = Squad.objects.get(name=SQUAD)
    with transaction.atomic():
        squad.people.filter(pk__in=[one.pk for one in squad.people.order_by("pk")[PEOPLE:]]).delete()
        squad.people.update(user=None)
        for session in squad.sessions.select_related("head"):
            _versions(session)
        _years_back(squad)
    return squad


def _versions(session: Session) -> None:
    head = session.head
    assert head is not None
    for number in range(VERSIONS - 1):
        Revision.objects.create(
            session=session,
            author=head.author,
            kind="kept",
            document={**head.document, "note": f"version {number}"},
        )


def _years_back(squad: Squad) -> None:
    logged = list(squad.entries.filter(logged_as__isnull=False).select_related("logged_as").order_by("day"))
    first = min(one.day for one in logged)
    weeks = (max(one.day for one in logged) - first).days // 7 + 1
    everybody = list(squad.people.all())
    for back in range(1, WEEKS // weeks + 1):
        for entry in logged:
            _again(entry, timedelta(weeks=weeks * back), everybody)


def _again(entry: Entry, back: timedelta, everybody: list[Person]) -> None:
    """An entry as it was so long before, with its log; of the one that was run, its run too."""
    made = _copied(entry, day=entry.day - back, id=uuid.uuid4())
    run = entry.runs.first()
    again = None
    if run is not None:
        again = _copied(run, id=uuid.uuid4(), entry=made, day=made.day, begun_at=run.begun_at - back)
        FloorEvent.objects.bulk_create(_fresh(one, run=again) for one in run.events.all())
        for one in LoggedRun.objects.filter(run=run):
            _copied(one, run=again)
    _copied(entry.logged_as, entry=made, run=again)
    scores, felt = list(entry.results.filter(used=True)), list(entry.ratings.exclude(person=None))
    for rows, kind in ((scores, Result), (felt, Rating)):
        pairs = zip(everybody, itertools.cycle(rows), strict=False) if rows else ()
        more = {"run": again} if kind is Result else {}
        kind.objects.bulk_create(_fresh(one, entry=made, person=person, **more) for person, one in pairs)  # type: ignore[attr-defined]
    if felt:
        Attendance.objects.bulk_create(
            Attendance(entry=made, person=person, minutes=40, effort=7) for person in everybody
        )


def _fresh(row: Any, **changed: Any) -> Any:
    made = copy.copy(row)
    made._state = copy.copy(row._state)
    made._state.adding, made._state.fields_cache = True, {}
    made.pk = None
    for name, value in changed.items():
        setattr(made, name, value)
    return made


def _copied(row: Any, **changed: Any) -> Any:
    made = _fresh(row, **changed)
    models.Model.save(made, force_insert=True)
    return made


def more_squads(first: int, before: int) -> Iterator[int]:
    """Copies of the first squad, numbers `first` up to `before`, each with a head coach; yields each number."""
    source = Squad.objects.order_by("pk")[0]
    for number in range(first, before):
        with transaction.atomic(), connection.cursor() as cursor:
            cursor.execute("PRAGMA defer_foreign_keys = ON")
            for model in COPIED:
                cursor.execute(*_copying(model, source, number))
            user = get_user_model().objects.create(username=f"coach{number}")
            squad_id = source.pk + number * APART
            Membership.objects.create(user=user, squad_id=squad_id, role=Role.HEAD_COACH)
        yield number


def _copying(model: type[models.Model], source: Squad, number: int) -> tuple[str, list[Any]]:
    """The statement that copies one squad's rows of a table, keys moved on by the squad's number."""
    table, columns = model._meta.db_table, []
    for one in model._meta.concrete_fields:
        target = one.related_model._meta.pk if one.is_relation and one.related_model in COPIED else one
        key = one.primary_key or one.unique or (one.is_relation and one.related_model in COPIED)
        if not key or target is None:
            columns.append(f'"{one.column}"')
        elif isinstance(target, models.UUIDField):
            columns.append(f"'feed{number:04x}' || substr(\"{one.column}\", 9)")
        else:
            columns.append(f'"{one.column}" + {number * APART}')
    names = ", ".join(f'"{one.column}"' for one in model._meta.concrete_fields)
    # Rows of the first squad have the small keys; what stands under a UUID is known by whom it belongs to.
    return (
        f'INSERT INTO "{table}" ({names}) SELECT {", ".join(columns)} FROM "{table}" WHERE {_of(model, source)}',
        [],
    )


def _of(model: type[models.Model], source: Squad) -> str:
    if model is Squad:
        return f"id = {source.pk}"
    fields = {one.name: one for one in model._meta.concrete_fields}
    if "squad" in fields:
        return f"squad_id = {source.pk}"
    for name in ("entry", "run", "session", "person"):
        if name in fields and fields[name].related_model in COPIED:
            other: Any = fields[name].related_model
            keys = f'SELECT "{other._meta.pk.column}" FROM "{other._meta.db_table}" WHERE {_of(other, source)}'
            return f'"{fields[name].column}" IN ({keys})'
    raise LookupError(f"{model} belongs to no squad")


def last_day(squad: Squad) -> Any:
    """A Monday in the middle of the years."""
    return today_of(squad) - timedelta(weeks=WEEKS // 2)
