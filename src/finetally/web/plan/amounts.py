"""What entries come to: figured when they are made or changed, kept beside them, read back as bouts."""

from __future__ import annotations

import hashlib
import json
from collections import OrderedDict
from collections.abc import Iterable
from dataclasses import replace
from datetime import UTC, date, datetime, time
from typing import Any
from zoneinfo import ZoneInfo

from pydantic import TypeAdapter

from finetally.core import CORE_VERSION
from finetally.core.edits.edit import Edit
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.alternatives import Alternative, alternatives_of
from finetally.core.week.bout import Amount, Bout, Work, amount_of, other_training
from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.house import House

EDITS: TypeAdapter[tuple[Edit, ...]] = TypeAdapter(tuple[Edit, ...])
PLAIN = ("load", "effort", "minutes", "work_s", "reps", "volume_kg", "landings", "hard_sets", "left_s", "right_s")


def as_kept(amount: Amount) -> dict[str, Any]:
    """An amount as it is kept: numbers to 3 places, work as [seconds, hard sets]."""
    made: dict[str, Any] = {name: round(getattr(amount, name), 3) for name in PLAIN}
    made["patterns"] = {name: round(seconds, 1) for name, seconds in amount.patterns.items()}
    for part in ("main", "joints"):
        made[part] = {
            name: [round(work.seconds, 1), work.hard_sets] for name, work in getattr(amount, part).items()
        }
    return made


def from_kept(kept: dict[str, Any]) -> Amount:
    """An amount that was kept."""
    work = {
        part: {name: Work(seconds, sets) for name, (seconds, sets) in kept.get(part, {}).items()}
        for part in ("main", "joints")
    }
    return Amount(**{name: kept.get(name, 0) for name in PLAIN}, patterns=kept.get("patterns", {}), **work)


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


def figured_amount(document: dict[str, Any], house: House) -> dict[str, Any]:
    """What a session's document comes to. Raises DocumentError."""
    return as_kept(amount_of(tally(parse_session(document), library=house.library, methods=house.methods)))


def start_of(day: date, at: time | None, zone: str) -> datetime | None:
    """The moment an entry starts; a local time that the clocks leap over is read after the leap."""
    return None if at is None else datetime.combine(day, at, tzinfo=ZoneInfo(zone)).astimezone(UTC)


def bout_of(entry: Entry, zone: str, own: Attendance | None = None) -> Bout:
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
        amount = Amount(
            **{
                **{name: getattr(amount, name) for name in PLAIN},
                "load": done.load,
                "effort": done.effort,
                "minutes": done.minutes,
            },
            patterns=amount.patterns,
            main=amount.main,
            joints=amount.joints,
        )
    return Bout(str(entry.pk), entry.day, amount, start_of(entry.day, entry.time, zone), entry.title, logged)


MOST_HELD = 512
"""Sessions whose versions a process holds: a season's."""
_versions: OrderedDict[str, list[Alternative]] = OrderedDict()


def versions_of(documents: Iterable[dict[str, Any]], house: House) -> list[list[Alternative]]:
    """Versions of sessions for the leveller, held by the hash of everything they were made from.

    Looking at a proposal writes nothing: they are made again after a start.
    """
    found = []
    for document in documents:
        key = _key(document, house)
        # Read once: another thread may let go of it in between.
        versions = _versions.get(key)
        if versions is None:
            made = alternatives_of(document, library=house.library, methods=house.methods)
            # To the places that amounts are kept with, so that a version weighs what it will once taken.
            versions = [replace(one, amount=from_kept(as_kept(one.amount)), document={}) for one in made]
            _versions[key] = versions
            while len(_versions) > MOST_HELD:
                _versions.popitem(last=False)
        found.append(versions)
    return found


def _key(document: dict[str, Any], house: House) -> str:
    methods = house.methods.model_dump(mode="json", by_alias=True)
    parts = ["versions", document, methods, house.library_key, CORE_VERSION]
    return hashlib.sha256(json.dumps(parts, sort_keys=True).encode()).hexdigest()
