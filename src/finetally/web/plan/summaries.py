"""What entries come to: figured when they are made or changed, kept beside them, read back as planned loads."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, time
from types import MappingProxyType
from typing import Any, NamedTuple
from uuid import UUID
from zoneinfo import ZoneInfo

from finetally.core import CORE_VERSION
from finetally.core.movements.used import movements_named
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.planned_load import LoadSummary, PatternLoad, PlannedLoad, other_training, summary_of
from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.figuring_context import FiguringContext
from finetally.web.versions import version_of

SCALAR_FIELDS = ("load", "effort", "minutes", "work_s", "volume_kg", "hard_sets", "left_s", "right_s")
KIND_FIELDS = ("reps", "landings")
KEPT_VERSION = 2
"""Of the form that summaries are kept in. 1 (it was not written down) added up reps and landings of all kinds."""


def summary_json(summary: LoadSummary) -> dict[str, Any]:
    """A load summary as it is kept: numbers to 3 places, work as [seconds, hard sets]."""
    made: dict[str, Any] = {"v": KEPT_VERSION, **{name: round(getattr(summary, name), 3) for name in SCALAR_FIELDS}}
    made.update({name: dict(getattr(summary, name)) for name in KIND_FIELDS})
    made["patterns"] = {name: round(seconds, 1) for name, seconds in summary.patterns.items()}
    for part in ("main", "joints"):
        made[part] = {
            name: [round(work.seconds, 1), work.hard_sets] for name, work in getattr(summary, part).items()
        }
    return made


def summary_from_json(kept: dict[str, Any]) -> LoadSummary:
    """A load summary that was kept, in this form or an older one."""
    fields: dict[str, Any] = {name: kept.get(name, 0) for name in SCALAR_FIELDS}
    fields["patterns"] = kept.get("patterns", {})
    for name in KIND_FIELDS:
        found = kept.get(name) or {}
        fields[name] = {"mixed": found} if found and kept.get("v", 1) < KEPT_VERSION else found
    for part in ("main", "joints"):
        fields[part] = {name: PatternLoad(seconds, sets) for name, (seconds, sets) in kept.get(part, {}).items()}
    return LoadSummary(**fields)


def inside(document: dict[str, Any], context: FiguringContext) -> dict[str, Any]:
    """A document with its movements' definitions inside: what was planned stays so, whatever the library does."""
    session = parse_session(document)
    full = context.library.with_definitions(session.movements)
    own = {one["key"]: one for one in document.get("movements") or []}
    keys = sorted(movements_named(document))
    definitions = [
        own.get(key) or full[key].model_dump(mode="json", exclude_unset=True) for key in keys if key in full
    ]
    return {**document, "movements": [*definitions, *(one for key, one in own.items() if key not in keys)]}


@dataclass(frozen=True, slots=True)
class SummarisedDocument:
    """What a session's document comes to, and the name of the methods and core that it was figured with."""

    summary: dict[str, Any]
    with_methods: str

    def put(self, entry: Entry) -> None:
        """Set it on an entry, which is not kept by that."""
        entry.summary, entry.figured_with = self.summary, self.with_methods


def methods_key(context: FiguringContext) -> str:
    """The name of what summaries are figured with beside the document (it holds its movements): methods, core."""
    return version_of(context.methods.of_figures(), CORE_VERSION)


def summarise(document: dict[str, Any], context: FiguringContext) -> SummarisedDocument:
    """What a session's document comes to. Raises DocumentError."""
    made = summary_of(tally(parse_session(document), library=context.library, methods=context.methods))
    return SummarisedDocument(summary_json(made), methods_key(context))


def documents_of(entries: Iterable[Entry]) -> dict[str, dict[str, Any]]:
    """The documents of entries that have one, by entry. One query."""
    found = Entry.objects.filter(pk__in=[one.pk for one in entries]).values_list("pk", "document")
    return {str(pk): document for pk, document in found if document is not None}


def state_of(entry: Entry, context: FiguringContext) -> str:
    """What an edit of an entry is made on: its last change, what it comes to, and what edits are figured with."""
    return version_of(entry.sequence, entry.summary, entry.figured_with, methods_key(context), context.library_key)


def start_of(day: date, at: time | None, zone: str) -> datetime | None:
    """The moment an entry starts; a local time that the clocks leap over is read after the leap."""
    return None if at is None else datetime.combine(day, at, tzinfo=ZoneInfo(zone)).astimezone(UTC)


class LoadFields(NamedTuple):
    """What of an entry says what it gives to its day: the names of its fields."""

    pk: UUID
    day: date
    time: time | None
    title: str
    summary: dict[str, Any]
    logged_minutes: float | None
    logged_effort: float | None
    logged_as__summary: dict[str, Any] | None = None
    group_id: int | None = None


def planned_load_of(
    entry: Entry | LoadFields,
    zone: str,
    own: Attendance | None = None,
    members: Mapping[int, frozenset[str]] = MappingProxyType({}),
) -> PlannedLoad:
    """An entry as the week sees it: logged minutes and effort take the place of what was planned.

    `own`: what one person did of it, in that person's week; it goes before what was logged for all. `members`: who
    is in the groups that entries are for.
    """
    minutes, effort = entry.logged_minutes, entry.logged_effort
    as_done = getattr(entry, "logged_as__summary", None) if minutes is not None else None
    summary = summary_from_json(as_done or entry.summary)
    if own is not None and own.minutes is not None and own.effort is not None:
        minutes, effort = own.minutes, own.effort
    logged = minutes is not None and effort is not None
    if logged:
        done = other_training(minutes or 0, effort or 0)
        summary = replace(summary, load=done.load, effort=done.effort, minutes=done.minutes)
    people = None if entry.group_id is None else members.get(entry.group_id)
    starts = start_of(entry.day, entry.time, zone)
    return PlannedLoad(str(entry.pk), entry.day, summary, starts, entry.title, logged, people)
