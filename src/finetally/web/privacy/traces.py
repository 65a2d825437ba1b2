"""Where somebody's name stands in a squad's texts (titles, notes, documents, their versions); taking it out."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Model, Q, QuerySet, TextField
from django.db.models.functions import Cast

from finetally.core.session.json_value import JsonValue
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.log.models import LogNote
from finetally.web.plan.models import Entry
from finetally.web.squads.models import Person, Squad, SquadMovement
from finetally.web.training.models import Revision, Session

TAKEN_OUT = "…"
"""What stands in a name's place."""
AROUND = 30
"""Characters that are shown before and after a name."""
MOST_SHOWN = 200


@dataclass(frozen=True, slots=True)
class Trace:
    """A place where a name stands. `title`: of what; `says`: the words around it.

    `kind`: entry, session, version, run, event of a run, note of the log, squad (its name and its words for an
    emergency), group, calendar link, shape, or movement.
    """

    kind: str
    title: str
    says: str


class NameFinder:
    """Finds a person's names as whole words: the full one in any case, the short one as written or in capitals."""

    def __init__(self, person: Person) -> None:
        self.names = [one for one in dict.fromkeys((person.name, person.on_the_wall)) if len(one) > 2]
        short = re.escape(person.on_the_wall)
        words = rf"(?i:{re.escape(person.name)})|{short}|{short.upper()}"
        self._found = re.compile(rf"(?<!\w)(?:{words})(?!\w)") if self.names else None

    def around(self, text: str) -> str | None:
        """The first place in a text, with the words around it."""
        found = self._found.search(text) if self._found is not None else None
        if found is None:
            return None
        first, last = max(0, found.start() - AROUND), found.end() + AROUND
        return f"{'…' if first else ''}{text[first:last]}{'…' if last < len(text) else ''}"

    def without(self, value: JsonValue) -> JsonValue:
        """The same JSON value with the names taken out of every text; keys stay."""
        if isinstance(value, str):
            return self._found.sub(TAKEN_OUT, value) if self._found is not None else value
        if isinstance(value, list):
            return [self.without(one) for one in value]
        if isinstance(value, dict):
            return {key: self.without(one) for key, one in value.items()}
        return value

    def may_hold(self, *fields: str) -> Q:
        """Rows whose text fields, or JSON under `…_text`, may hold a name: the database's first look."""
        wanted = Q()
        for name in self.names:
            for field in fields:
                # JSON is kept with its other letters escaped.
                kept = json.dumps(name)[1:-1] if field.endswith("_text") else name
                wanted |= Q(**{f"{field}__icontains": kept})
        return wanted


def _texts(value: JsonValue) -> Iterator[str]:
    if isinstance(value, str):
        yield value
    elif isinstance(value, list):
        for one in value:
            yield from _texts(one)
    elif isinstance(value, dict):
        for one in value.values():
            yield from _texts(one)


_Rows = tuple[str, str, QuerySet[Any], tuple[str, ...]]
"""Kind, the title's path, rows that may hold a name, the fields to look through."""


def _rows(squad: Squad, finder: NameFinder) -> Iterator[_Rows]:
    if not finder.names:
        return
    as_text = Cast("document", TextField())
    entries = Entry.with_removed.filter(squad=squad, person=None).annotate(document_text=as_text)
    yield "entry", "title", entries.filter(finder.may_hold("title", "notes", "document_text")), (
        "title", "notes", "document",
    )  # fmt: skip
    sessions = Session.objects.filter(squad=squad).annotate(tags_text=Cast("tags", TextField()))
    yield "session", "title", sessions.filter(finder.may_hold("title", "tags_text")), ("title", "tags")
    runs = FloorRun.objects.filter(squad=squad).annotate(document_text=as_text)
    yield (
        "run",
        "title",
        runs.filter(finder.may_hold("title", "name", "document_text")),
        ("title", "name", "document"),
    )
    events = FloorEvent.objects.filter(run__squad=squad, person=None).select_related("run")
    events = events.annotate(event_text=Cast("event", TextField()))
    yield "event", "run.title", events.filter(finder.may_hold("event_text")), ("event",)
    notes = LogNote.objects.filter(entry__squad=squad).exclude(person__name=finder.names[0])
    notes = notes.select_related("entry").defer("entry__document")
    yield "note", "entry.title", notes.filter(finder.may_hold("text")), ("text",)
    versions = (
        Revision.objects.filter(session__squad=squad).select_related("session").annotate(document_text=as_text)
    )
    yield "version", "session.title", versions.filter(finder.may_hold("document_text")), ("document",)
    yield from _names_given(squad, finder)


def _names_given(squad: Squad, finder: NameFinder) -> Iterator[_Rows]:
    """The same of what a squad gave names to, and of its own words."""
    words = ("name", "emergency", "health_why")
    yield "squad", "name", Squad.objects.filter(finder.may_hold(*words), pk=squad.pk), words
    for kind, named in (("group", squad.groups), ("calendar link", squad.links), ("shape", squad.shapes)):
        yield kind, "name", named.filter(finder.may_hold("name")), ("name",)
    movements = squad.movements.annotate(definition_text=Cast("definition", TextField()))
    yield "movement", "key", movements.filter(finder.may_hold("definition_text")), ("key", "definition")


def traces_of(person: Person) -> list[Trace]:
    """Where a person's names stand in texts that others keep, up to MOST_SHOWN places."""
    finder = NameFinder(person)
    found: list[Trace] = []
    for kind, title, rows, fields in _rows(person.squad, finder):
        for row in rows.iterator(chunk_size=20):
            texts = (text for field in fields for text in _texts(getattr(row, field)))
            says = next(filter(None, map(finder.around, texts)), None)
            if says is not None:
                found.append(Trace(kind, _title(row, title), says))
            if len(found) >= MOST_SHOWN:
                return found
    return found


def _title(row: Model, path: str) -> str:
    value: Any = row
    for part in path.split("."):
        value = getattr(value, part)
    return str(value)


def take_out_names(person: Person) -> int:
    """Take a person's names out of all texts of the squad; returns from how many. Call it in a transaction."""
    finder = NameFinder(person)
    changed = 0
    for _, _, rows, fields in _rows(person.squad, finder):
        for row in rows.iterator(chunk_size=20):
            new = {field: finder.without(getattr(row, field)) for field in fields}
            if any(new[field] != getattr(row, field) for field in fields):
                _write(row, new)
                changed += 1
    return changed


def _write(row: Any, new: dict[str, Any]) -> None:
    """Keep a row with its names taken out."""
    if isinstance(row, SquadMovement):
        for field, value in new.items():
            setattr(row, field, value)
        row.save()
        return
    # Past the models' own `save`: nobody changed the plan, and a version stays the version it was.
    rows = getattr(type(row), "with_removed", type(row).objects).filter(pk=row.pk)
    try:
        with transaction.atomic():
            rows.update(**new)
    except IntegrityError:
        # Another one has this name already.
        rows.update(**{**new, "name": f"{new['name']} {row.pk}"})
