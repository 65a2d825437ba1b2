"""A log that is brought as a file, in the open form: all of it is taken in, or none."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any
from zoneinfo import ZoneInfo

from django.db import transaction

from finetally.core.floor.document import read_run
from finetally.core.log.document import DEEPER_IN_LOG, Log, LogEntry, read_log
from finetally.core.session.cleaning import one_line
from finetally.core.session.limits import MAX_DEPTH, MAX_PROBLEMS
from finetally.core.session.problems import DocumentError, Problem, shown
from finetally.core.session.reading import parse_session, read_json
from finetally.core.tally.measure import tally
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.log.asking import ask_to_work_out
from finetally.web.log.models import Rating, RatingWay, Result, ResultWay
from finetally.web.log.settling import LogWish, figure_log, keep_log
from finetally.web.log.taken_out import names_in_files
from finetally.web.log.using import ScoredPlace, settle_used
from finetally.web.log.windows import ScoredWindow, windows_of
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import inside, summarise
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

DEVICE_OF_FILES = "from-a-file"


@dataclass
class _Group:
    """What a file has of one session on one day: an entry of the log."""

    document: dict[str, Any]
    entries: list[LogEntry] = field(default_factory=list)


def bring_log(actor: Actor, squad_id: int | None, text: str) -> int:
    """Take in a log's file: sessions on their days, scores, ratings, runs. Returns how many entries of the log it
    made.

    What is there already is written over by what the file says of the same day, session, person and window. For
    those who plan. Raises DocumentError with every place, for people whom the squad does not know, too.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    log = read_log(read_json(text, deepest=MAX_DEPTH + DEEPER_IN_LOG))
    people = _people(squad, log)
    groups = _grouped(squad, log)
    with transaction.atomic():
        made = [_take(actor, squad, day, group, people) for (day, _), group in groups.items()]
        record(actor, squad.pk, Act.LOGGED, f"{len(made)} sessions from a file")
        for entry in made:
            ask_to_work_out(entry)
    return len(made)


def _people(squad: Squad, log: Log) -> Mapping[str, Person]:
    """The people whom a file names, by that name; raises DocumentError for those who are not in the squad."""
    by_key = {one.pk: one for one in squad.people.all()}
    known = {name.casefold(): by_key[key] for key, name in names_in_files(squad).items()}
    found = {one.person: known.get(one.person.casefold()) for one in log.entries}
    problems = [
        Problem(f"entries[{n}].person", shown(one.person), "somebody of the squad: add them first", "person")
        for n, one in enumerate(log.entries)
        if found[one.person] is None
    ]
    today = today_of(squad)
    problems += [
        Problem(f"entries[{n}].date", one.date.isoformat(), f"a day up to {today.isoformat()}", "date")
        for n, one in enumerate(log.entries)
        if one.date > today
    ]
    if problems:
        raise DocumentError(problems[:MAX_PROBLEMS])
    return {name: person for name, person in found.items() if person is not None}


def _grouped(squad: Squad, log: Log) -> dict[tuple[Any, str], _Group]:
    """Entries of the same session on the same day; raises DocumentError for a session that cannot be read."""
    context = context_of(squad)
    groups: dict[tuple[Any, str], _Group] = {}
    documents: dict[str, dict[str, Any]] = {}
    for number, one in enumerate(log.entries):
        key = json.dumps(one.session, sort_keys=True)
        if key not in documents:
            try:
                documents[key] = inside(one.session, context)
            except DocumentError as error:
                at = f"entries[{number}].session"
                raise DocumentError(
                    Problem(f"{at}.{p.path}", p.found, p.allowed, p.code) for p in error.problems
                ) from None
        groups.setdefault((one.date, key), _Group(documents[key])).entries.append(one)
    return groups


def _take(actor: Actor, squad: Squad, day: Any, group: _Group, people: Mapping[str, Person]) -> Entry:
    entry = _entry(squad, day, group.document)
    context = context_of(squad)
    session = parse_session(group.document)
    windows = _by_block(list(windows_of(tally(session, library=context.library, methods=context.methods))))
    if not entry.runs.exists():
        _run(squad, entry, group, people, actor.user_id)
    for one in group.entries:
        person = people[one.person]
        options = one.given.options if one.given is not None else {}
        for score in one.scores:
            there = windows.get(score.block, [])
            place = there[score.index] if score.index < len(there) else None
            section_pass, index = (place.section_pass, place.place) if place is not None else (0, score.index)
            at = ScoredPlace(entry.pk, person.pk, "person", score.block, section_pass, index)
            at.results().filter(way=ResultWay.FILE).delete()
            told = score.model_dump(exclude={"block", "index"}, exclude_none=True)
            Result.objects.create(
                **at.fields(), score=told, options=options if isinstance(options, dict) else {}, way=ResultWay.FILE,
                user_id=actor.user_id,
            )  # fmt: skip
            settle_used(at)
        if one.rated is not None:
            Rating.objects.update_or_create(
                entry=entry, person=person,
                defaults={
                    "effort": one.rated, "way": RatingWay.FILE, "user_id": actor.user_id, "key": "",
                    "options": options if isinstance(options, dict) else {},
                },
            )  # fmt: skip
    wish = LogWish()
    keep_log(entry, figure_log(entry, wish), wish, actor.user_id)
    for one in group.entries:
        if one.rated is not None:
            Attendance.objects.get_or_create(
                entry=entry, person=people[one.person],
                defaults={"minutes": entry.logged_minutes, "effort": one.rated},
            )  # fmt: skip
    return entry


def _by_block(windows: list[ScoredWindow]) -> dict[int, list[ScoredWindow]]:
    found: dict[int, list[ScoredWindow]] = {}
    for one in windows:
        found.setdefault(one.block, []).append(one)
    return found


def _entry(squad: Squad, day: Any, document: dict[str, Any]) -> Entry:
    """The entry of that day with this session; made where there is none."""
    for entry in squad.entries.filter(day=day, document__isnull=False):
        if entry.document == document:
            return entry
    made = Entry(squad=squad, day=day, title=one_line(str(document.get("title", "")))[:500], document=document)
    summarise(document, context_of(squad)).put(made)
    made.save()
    return made


def _run(squad: Squad, entry: Entry, group: _Group, people: Mapping[str, Person], user_id: int | None) -> None:
    """The run that the entries were of: what each knows of it, once."""
    told = [one.run for one in group.entries if one.run is not None]
    if not told:
        return
    first = told[0]
    seen: dict[str, dict[str, Any]] = {}
    for run in told:
        for event in run.get("events") or []:  # type: ignore[union-attr]
            seen[json.dumps(event, sort_keys=True)] = dict(event)  # type: ignore[arg-type]
    events: list[Any] = sorted(seen.values(), key=lambda one: float(one.get("t", 0)))
    read = read_run({**first, "fine_tally_run": 1, "session": group.document, "events": events})
    begun = datetime.combine(entry.day, entry.time or datetime.min.time(), ZoneInfo(squad.time_zone))
    made = FloorRun.objects.create(
        squad=squad, entry=entry, day=entry.day, title=entry.title, document=group.document, apart=read.apart,
        hold=read.hold, begun_at=begun, user_id=user_id,
    )  # fmt: skip
    if read.until is not None:
        made.ended_at = begun + (datetime.fromtimestamp(read.until) - datetime.fromtimestamp(0))
        made.save()
    FloorEvent.objects.bulk_create(
        FloorEvent(
            run=made, device=DEVICE_OF_FILES, number=number, person=people.get(str(event.pop("person", ""))),
            event=event, user_id=user_id,
        )
        for number, event in enumerate(events)
    )  # fmt: skip
