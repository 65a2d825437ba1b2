"""What entries come to: figured when they are made or changed, kept beside them, read back as bouts."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, time
from typing import Any, NamedTuple
from uuid import UUID
from zoneinfo import ZoneInfo

from pydantic import TypeAdapter

from finetally.core import CORE_VERSION
from finetally.core.edits.edit import Edit
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.bout import Amount, Bout, Work, amount_of, other_training
from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.house import House
from finetally.web.versions import version_of

EDITS: TypeAdapter[tuple[Edit, ...]] = TypeAdapter(tuple[Edit, ...])
PLAIN = ("load", "effort", "minutes", "work_s", "volume_kg", "hard_sets", "left_s", "right_s")
KINDS = ("reps", "landings")
KEPT_VERSION = 2
"""Of the form that amounts are kept in. 1 (it was not written down) added up reps and landings of all kinds."""


def as_kept(amount: Amount) -> dict[str, Any]:
    """An amount as it is kept: numbers to 3 places, work as [seconds, hard sets]."""
    made: dict[str, Any] = {"v": KEPT_VERSION, **{name: round(getattr(amount, name), 3) for name in PLAIN}}
    made.update({name: dict(getattr(amount, name)) for name in KINDS})
    made["patterns"] = {name: round(seconds, 1) for name, seconds in amount.patterns.items()}
    for part in ("main", "joints"):
        made[part] = {
            name: [round(work.seconds, 1), work.hard_sets] for name, work in getattr(amount, part).items()
        }
    return made


def from_kept(kept: dict[str, Any]) -> Amount:
    """An amount that was kept, in this form or an older one."""
    fields: dict[str, Any] = {name: kept.get(name, 0) for name in PLAIN}
    fields["patterns"] = kept.get("patterns", {})
    for name in KINDS:
        found = kept.get(name) or {}
        fields[name] = {"mixed": found} if found and kept.get("v", 1) < KEPT_VERSION else found
    for part in ("main", "joints"):
        fields[part] = {name: Work(seconds, sets) for name, (seconds, sets) in kept.get(part, {}).items()}
    return Amount(**fields)


def inside(document: dict[str, Any], house: House) -> dict[str, Any]:
    """A document with its movements' definitions inside: what was planned stays so, whatever the library does."""
    session = parse_session(document)
    full = house.library.with_definitions(session.movements)
    own = {one["key"]: one for one in document.get("movements") or []}
    keys = sorted(_keys(document["blocks"]))
    definitions = [
        own.get(key) or full[key].model_dump(mode="json", exclude_unset=True) for key in keys if key in full
    ]
    return {**document, "movements": [*definitions, *(one for key, one in own.items() if key not in keys)]}


def _keys(value: Any) -> set[str]:
    """Every movement that a document's blocks name."""
    if isinstance(value, list):
        return set().union(*(_keys(one) for one in value)) if value else set()
    if not isinstance(value, dict):
        return set()
    found = {value[name] for name in ("movement", "rest_as") if isinstance(value.get(name), str)}
    return found.union(*(_keys(child) for child in value.values()))


@dataclass(frozen=True, slots=True)
class Figured:
    """What a session's document comes to, and the name of the methods and core that it was figured with."""

    amount: dict[str, Any]
    with_methods: str

    def put(self, entry: Entry) -> None:
        """Set it on an entry, which is not kept by that."""
        entry.amount, entry.figured_with = self.amount, self.with_methods


def methods_key(house: House) -> str:
    """The name of what amounts are figured with beside the document (which holds its movements): methods, core."""
    return version_of(house.methods.of_figures(), CORE_VERSION)


def figured(document: dict[str, Any], house: House) -> Figured:
    """What a session's document comes to. Raises DocumentError."""
    made = amount_of(tally(parse_session(document), library=house.library, methods=house.methods))
    return Figured(as_kept(made), methods_key(house))


def documents_of(entries: Iterable[Entry]) -> dict[str, dict[str, Any]]:
    """The documents of entries that have one, by entry. One query."""
    found = Entry.objects.filter(pk__in=[one.pk for one in entries]).values_list("pk", "document")
    return {str(pk): document for pk, document in found if document is not None}


def state_of(entry: Entry, house: House) -> str:
    """What an edit of an entry is made on: its last change, what it comes to, and what edits are figured with."""
    return version_of(entry.sequence, entry.amount, entry.figured_with, methods_key(house), house.library_key)


def start_of(day: date, at: time | None, zone: str) -> datetime | None:
    """The moment an entry starts; a local time that the clocks leap over is read after the leap."""
    return None if at is None else datetime.combine(day, at, tzinfo=ZoneInfo(zone)).astimezone(UTC)


class Counted(NamedTuple):
    """What of an entry says what it gives to its day: the names of its fields."""

    pk: UUID
    day: date
    time: time | None
    title: str
    amount: dict[str, Any]
    logged_minutes: float | None
    logged_effort: float | None


def bout_of(entry: Entry | Counted, zone: str, own: Attendance | None = None) -> Bout:
    """An entry as the week sees it: logged minutes and effort take the place of what was planned.

    `own`: what one person did of it, in that person's week; it goes before what was logged for all.
    """
    amount = from_kept(entry.amount)
    minutes, effort = entry.logged_minutes, entry.logged_effort
    if own is not None and own.minutes is not None and own.effort is not None:
        minutes, effort = own.minutes, own.effort
    logged = minutes is not None and effort is not None
    if logged:
        done = other_training(minutes or 0, effort or 0)
        amount = replace(amount, load=done.load, effort=done.effort, minutes=done.minutes)
    return Bout(str(entry.pk), entry.day, amount, start_of(entry.day, entry.time, zone), entry.title, logged)
