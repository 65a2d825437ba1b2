"""A squad's log as one file: in the open form (docs/log.schema.json), or a row for each score and rating (CSV)."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from typing import Any, BinaryIO
from uuid import UUID

from finetally.core.log.left_out import without_blocks
from finetally.core.session.problems import DocumentError, refuse
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.unfold.unfold import blocks_of
from finetally.sheets.cells import Cell, csv_text
from finetally.web.floor.models import FloorRun
from finetally.web.floor.runs import lasted
from finetally.web.log.given_here import scores_before
from finetally.web.log.incoming import MOST_LOG_CHARACTERS
from finetally.web.log.models import Rating, RatingWay, Result
from finetally.web.log.windows import windows_of
from finetally.web.people.people import the_person
from finetally.web.plan.models import Entry
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

HEADINGS: list[Cell] = [
    "date", "person", "session", "block", "pass", "index", "rounds", "reps", "rung", "time_s", "stopped at",
    "options", "rated", "told",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class LogRange:
    """What of the log is taken out: of one person, from a day, to a day; None: no bound."""

    person: UUID | None = None
    first: date | None = None
    last: date | None = None


def write_log(actor: Actor, squad_id: int | None, kind: str, wanted: LogRange, to: BinaryIO) -> None:
    """Write the log as a file, piece by piece. For those who plan; of one person also for them. Written into the
    history. Raises DocumentError for one that could not be brought in again.
    """
    person: Person | None = None
    if wanted.person is not None:
        person = the_person(actor, wanted.person)
        squad = person.squad
    else:
        squad = squad_for(actor, squad_id, Right.PLAN)
    made = _Log(squad, person, wanted)
    if kind == "csv":
        to.write(csv_text([HEADINGS, *made.rows()]).encode("utf-8", "replace"))
    else:
        written = 0
        for piece in made.pieces():
            written += len(piece)
            if written > MOST_LOG_CHARACTERS:
                found = f"a log of over {MOST_LOG_CHARACTERS // 1_000_000} MB"
                raise refuse(("first",), found, "fewer days: export it as several files", "too_large")
            to.write(piece.encode("utf-8", "replace"))
    record(actor, squad.pk, Act.EXPORTED, "the log", person)


class _Log:
    """What is taken out, entry by entry in order of time."""

    def __init__(self, squad: Squad, person: Person | None, wanted: LogRange) -> None:
        self._squad, self._person = squad, person
        self._names = names_in_files(squad)
        found = squad.entries.filter(document__isnull=False).order_by("day", "time", "created_at")
        if wanted.first is not None:
            found = found.filter(day__gte=wanted.first)
        if wanted.last is not None:
            found = found.filter(day__lte=wanted.last)
        self._entries = found.select_related("logged_as").prefetch_related(
            "results__person", "ratings__person", "runs__events__person"
        )

    def pieces(self) -> Iterator[str]:
        """In the open form: the scores that are used, of people; those of a whole session are nobody's."""
        yield f'{{"fine_tally_log": 1, "as_of": "{today_of(self._squad).isoformat()}", "entries": ['
        before = ""
        for entry in self._entries.iterator(chunk_size=50):
            for one in self._of(entry):
                yield before + json.dumps(one, ensure_ascii=False)
                before = ",\n"
        yield "]}"

    def _told(self, entry: Entry) -> tuple[dict[int, list[Result]], dict[int, Rating]]:
        results: dict[int, list[Result]] = {}
        for result in entry.results.all():
            if result.person_id is not None and self._is(result.person_id):
                results.setdefault(result.person_id, []).append(result)
        rated = {one.person_id: one for one in entry.ratings.all() if one.way != RatingWay.GROUP}
        return results, {key: one for key, one in rated.items() if key is not None and self._is(key)}

    def _is(self, key: int) -> bool:
        return self._person is None or self._person.pk == key

    def _of(self, entry: Entry) -> Iterator[dict[str, Any]]:
        results, ratings = self._told(entry)
        if not results and not ratings:
            return
        places = self._places(entry)
        document, numbers = _as_done(entry)
        run = self._run(entry)
        before = scores_before(self._squad, entry.document, entry.day, entry.person_id)
        known = {ident: one.model_dump(exclude_none=True) for ident, one in before.items()}
        for key in sorted({*results, *ratings}, key=lambda one: self._names[one]):
            mine = [one for one in results.get(key, []) if one.used and not one.unfinished and one.block in numbers]
            scores = [
                {
                    "block": numbers[one.block],
                    "index": places.get((one.block, one.section_pass, one.index), one.index),
                    **told,
                }
                for one in mine
                if (told := {name: one.score[name] for name in ("rounds", "reps", "time_s") if name in one.score})
            ]
            options: dict[str, str] = dict(ratings[key].options) if key in ratings else {}
            for one in mine:
                options.update(one.options)
            given: dict[str, Any] = {"options": options} if options else {}
            if known:
                given["scores"] = known
            yield {
                "date": entry.day.isoformat(), "person": self._names[key], "session": document,
                "scores": scores,
                **({"rated": ratings[key].effort} if key in ratings else {}),
                **({"given": given} if given else {}),
                **({"run": run} if run is not None else {}),
            }  # fmt: skip

    def _places(self, entry: Entry) -> dict[tuple[int, int, int], int]:
        """Which of its block's windows, of all passes, each window is."""
        context = context_of(self._squad)
        try:
            windows = windows_of(
                tally(parse_session(entry.document), library=context.library, methods=context.methods)
            )
        except DocumentError:
            return {}
        counts: dict[int, int] = {}
        places = {}
        for one in windows:
            place = counts[one.block] = counts.get(one.block, -1) + 1
            places[one.block, one.section_pass, one.place] = place
        return places

    def _run(self, entry: Entry) -> dict[str, Any] | None:
        """The run with the most events; of it the session's own events, and who was there when."""
        runs: list[FloorRun] = list(entry.runs.all())
        longest = max(runs, key=lambda one: len(one.events.all()), default=None)
        if longest is None or not longest.events.all():
            return None
        events = []
        for one in sorted(longest.events.all(), key=lambda event: float(event.event["t"])):
            event = dict(one.event)
            # Notes are not of this form; scores of people stand with them.
            if event["do"] == "note" or (event["do"] == "score" and one.person_id is not None):
                continue
            if one.person_id is not None:
                if not self._is(one.person_id):
                    continue
                event["person"] = self._names[one.person_id]
            events.append(event)
        until = lasted(longest, list(longest.events.all()))
        return {"apart": longest.apart, "hold": longest.hold, "events": events, "until": until}

    def rows(self) -> Iterator[list[Cell]]:
        """A row for each score, and one for each rating."""
        for entry in self._entries.iterator(chunk_size=50):
            results, ratings = self._told(entry)
            day = entry.day.isoformat()
            for key, told in results.items():
                for one in told:
                    numbers = [one.score.get(name) for name in ("rounds", "reps", "rung", "time_s")]
                    options = ", ".join(one.options.values())
                    at: list[Cell] = [one.block, one.section_pass, one.index]
                    way = f"{one.way}, not used" if not one.used else one.way
                    yield [day, self._names[key], entry.title, *at, *numbers, one.unfinished, options, None, way]
            for key, rating in ratings.items():
                blank: list[Cell] = [None] * 9
                yield [day, self._names[key], entry.title, *blank, rating.effort, rating.way]


def _as_done(entry: Entry) -> tuple[Any, dict[int, int]]:
    """The session of an entry without what was left out of it, and the number that each block has in it."""
    logged = getattr(entry, "logged_as", None)
    left_out = set(logged.left_out) if logged is not None else set()
    try:
        count = len(blocks_of(parse_session(entry.document)))
        stays = [number for number in range(count) if number not in left_out]
        document = without_blocks(entry.document or {}, left_out) if left_out else entry.document
    except DocumentError:
        return entry.document, {}
    return document, {number: place for place, number in enumerate(stays)}


def names_in_files(squad: Squad) -> dict[int, str]:
    """The name that each person goes by in files; with the one on the wall where two are called alike."""
    people = list(squad.people.all())
    names = [one.name for one in people]
    return {one.pk: one.name if names.count(one.name) == 1 else f"{one.name} ({one.on_the_wall})" for one in people}
