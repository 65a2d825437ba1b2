"""A log that is brought as a file, in the open form: all of it is taken in, or none.

A job does it: everything is read and figured first, with nothing written; then each session is kept in a short step
of its own. If its process ends meanwhile, the next one starts the job again, and the log is the same in the end.
"""

from __future__ import annotations

import json
import time
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from django.conf import settings
from django.db import OperationalError, transaction

from finetally.core.floor.document import read_run
from finetally.core.floor.from_score import blocks_taken_from
from finetally.core.log.document import LogEntry
from finetally.core.session.budget import budget_of
from finetally.core.session.cleaning import one_line
from finetally.core.session.limits import MAX_PROBLEMS
from finetally.core.session.problems import DocumentError, Problem, refuse, shown
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.unfold.unfold import blocks_of
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.jobs.models import Job
from finetally.web.jobs.use_cases import JobRequest, ask
from finetally.web.jobs.work import JobHandle, LaterError
from finetally.web.log.asking import ask_to_work_out, ask_to_work_out_all
from finetally.web.log.incoming import entries_in, keep_part, stream_of
from finetally.web.log.models import LogPart, Rating, RatingWay, Result, ResultWay
from finetally.web.log.settling import BroughtRun, FiguredLog, LogWish, figure_log, keep_log
from finetally.web.log.taken_out import names_in_files
from finetally.web.log.using import ScoredPlace, settle_used
from finetally.web.log.windows import ScoredWindow, windows_of
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import inside, summarise
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

DEVICE_OF_FILES = "from-a-file"
FIRST_DAY = date(2000, 1, 1)
"""No log is older: an earlier year is a slip, and some have no moment in every time zone."""
PAUSE_S, LONGEST_PAUSE_S = 0.02, 0.5
"""Seconds between two steps of writing: at least, and at most."""
FEW_SESSIONS = 5
"""So many sessions are worked out one by one; of more, whatever of the squad has changed, in one job."""


def ask_to_bring(actor: Actor, squad_id: int | None, file: UUID, number: int, text: str) -> Job:
    """Have a log's file brought in, of which this is the last part; the answer is a job. For those who plan.

    Raises DocumentError for a file that is too long, has a part missing, or while another one is brought in.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    keep_part(actor, squad.pk, file, number, text)
    parts = LogPart.objects.filter(file=file)
    if set(parts.values_list("number", flat=True)) != set(range(number + 1)):
        raise refuse(("number",), f"{parts.count()} parts", f"parts 0 to {number}", "parts")
    with transaction.atomic():
        parts.update(asked=True)
        return ask(actor, squad.pk, JobRequest("bring-log", {"file": str(file)}, lock_name=f"bring {squad.pk}"))


def bring_log_job(handle: JobHandle) -> None:
    """Take in a log's file: sessions on their days, scores, ratings, runs. Its answer: how many sessions.

    What is there already is written over by what the file says of the same day, session, person and window. Raises
    DocumentError with every place, for people whom the squad does not know, too.
    """
    file = UUID(handle.job.asked["file"])
    asker, squad = handle.asker(), handle.job.squad
    try:
        if not asker.may(squad.pk, Right.PLAN):
            raise refuse(("job",), "a log", "one that somebody who plans brings", "cannot_plan")
        brought = _Bringing(handle, asker, squad, file)
        brought.read()
        brought.figure()
        if not handle.stopped:
            brought.keep()
    except LaterError:
        raise
    except OperationalError as error:
        # The database is busy, or its disk full: some sessions may be kept already, and the rest has to follow.
        raise LaterError from error
    except Exception:
        LogPart.objects.filter(file=file).delete()
        raise
    LogPart.objects.filter(file=file).delete()


@dataclass
class _Group:
    """What a file has of one session on one day: an entry of the log."""

    day: date
    document: dict[str, Any]
    entries: list[LogEntry] = field(default_factory=list)
    entry: Entry | None = None
    run: BroughtRun | None = None
    figured: FiguredLog | None = None
    windows: Mapping[int, list[ScoredWindow]] = field(default_factory=dict)


class _Bringing:
    """One file on its way into the log."""

    def __init__(self, handle: JobHandle, actor: Actor, squad: Squad, file: UUID) -> None:
        self._handle, self._actor, self._squad, self._file = handle, actor, squad, file
        self._context = context_of(squad)
        self._people: Mapping[str, Person] = {}
        self._groups: dict[tuple[date, str], _Group] = {}

    def _later(self) -> None:
        """Stop here if the process ends: the next one starts the job again."""
        if self._handle.process_ends:
            raise LaterError

    def _count(self, done: int) -> None:
        self._handle.show(progress={"count": done, "of": len(self._groups)})

    def read(self) -> None:
        """Read the file: what is wrong with it, whom it names, what each session was. Raises DocumentError."""
        reading = _Reading(self._squad, self._context)
        # Started again after some of it was saved: people who left the squad since are left out.
        reading.leaves_out_unknown = bool(self._handle.job.private.get("keeping"))
        for number, one in enumerate(entries_in(stream_of(self._file))):
            reading.take(number, one)
            if number % 500 == 0:
                self._later()
                self._count(0)
            if self._handle.stopped:
                return
        self._groups, self._people = reading.done()

    def figure(self) -> None:
        """Figure what will be kept of each session. Writes nothing. Raises DocumentError."""
        for number, group in enumerate(self._groups.values()):
            self._later()
            if self._handle.stopped:
                return
            with budget_of(settings.JOB_UNITS):
                self._figure(group)
            self._handle.show(progress={"read": number + 1, "count": 0, "of": len(self._groups)})

    def _figure(self, group: _Group) -> None:
        group.entry = self._entry(group)
        session = parse_session(group.document)
        measured = tally(session, library=self._context.library, methods=self._context.methods)
        group.windows = _by_block(windows_of(measured))
        group.run = None
        if group.entry._state.adding or not group.entry.runs.exists():
            group.run = _run_of(self._squad, group, self._people, self._actor.user_id)
        group.figured = figure_log(group.entry, LogWish(), (group.run,) if group.run is not None else ())

    def _entry(self, group: _Group) -> Entry:
        """The entry of that day with this session; a new one, not saved yet, where there is none."""
        for entry in self._squad.entries.filter(day=group.day, document__isnull=False):
            if entry.document == group.document:
                entry.squad = self._squad
                return entry
        title = one_line(str(group.document.get("title", "")))[:500]
        made = Entry(squad=self._squad, day=group.day, title=title, document=group.document)
        summarise(group.document, self._context).put(made)
        return made

    def keep(self) -> None:
        """Keep everything, session by session. From here on the job is no longer stopped, only gone on with."""
        Job.objects.filter(pk=self._handle.job.pk).update(private={"keeping": True})
        made = []
        for number, group in enumerate(sorted(self._groups.values(), key=lambda one: one.day)):
            self._later()
            if self._changed(group):
                self._figure(group)
            began = time.monotonic()
            with transaction.atomic():
                made.append(self._keep(group))
            # Pause for as long as it wrote: others who wait for the database only look again after a while.
            time.sleep(min(LONGEST_PAUSE_S, max(PAUSE_S, time.monotonic() - began)))
            group.figured = group.run = None
            self._count(number + 1)
        with transaction.atomic():
            record(self._actor, self._squad.pk, Act.LOGGED, f"{len(made)} sessions from a file")
            if len(made) > FEW_SESSIONS:
                ask_to_work_out_all(self._squad)
            else:
                for entry in made:
                    ask_to_work_out(entry)
        self._handle.show(answer={"sessions": len(made)})

    def _changed(self, group: _Group) -> bool:
        """Whether what was figured is out of date: a score that it goes on from, a run or an entry came since."""
        if group.entry is None or blocks_taken_from(group.document):
            return True
        if group.entry._state.adding:
            return not self._entry(group)._state.adding
        there = Entry.objects.filter(pk=group.entry.pk).exists()
        return not there or (group.run is not None and group.entry.runs.exists())

    def _keep(self, group: _Group) -> Entry:
        entry, figured = group.entry, group.figured
        assert entry is not None
        assert figured is not None
        # Somebody may have been erased since the file was read.
        here = set(self._squad.people.values_list("pk", flat=True))
        if entry._state.adding:
            entry.save()
        if group.run is not None:
            group.run.run.save(force_insert=True)
            FloorEvent.objects.bulk_create(
                one for one in group.run.events if one.person_id is None or one.person_id in here
            )
        there = [one for one in group.entries if self._people[one.person].pk in here]
        for one in there:
            self._keep_scores(entry, one, group.windows)
        keep_log(entry, figured, LogWish(), self._actor.user_id)
        for one in there:
            if one.rated is not None:
                Attendance.objects.get_or_create(
                    entry=entry, person=self._people[one.person],
                    defaults={"minutes": entry.logged_minutes, "effort": one.rated},
                )  # fmt: skip
        return entry

    def _keep_scores(self, entry: Entry, one: LogEntry, windows: Mapping[int, list[ScoredWindow]]) -> None:
        person = self._people[one.person]
        options = one.given.options if one.given is not None else {}
        taken = options if isinstance(options, dict) else {}
        for score in one.scores:
            there = windows.get(score.block, [])
            place = there[score.index] if score.index < len(there) else None
            section_pass, index = (place.section_pass, place.place) if place is not None else (0, score.index)
            at = ScoredPlace(entry.pk, person.pk, "person", score.block, section_pass, index)
            at.results().filter(way=ResultWay.FILE).delete()
            made = score.model_dump(exclude={"block", "index"}, exclude_none=True)
            Result.objects.create(
                **at.fields(), score=made, options=taken, way=ResultWay.FILE, user_id=self._actor.user_id
            )
            settle_used(at)
        if one.rated is not None:
            defaults = {
                "effort": one.rated, "way": RatingWay.FILE, "user_id": self._actor.user_id, "key": "",
                "options": taken,
            }  # fmt: skip
            Rating.objects.update_or_create(entry=entry, person=person, defaults=defaults)


class _Reading:
    """The entries of a file as they are read: sessions and runs that come again are kept once."""

    def __init__(self, squad: Squad, context: FiguringContext) -> None:
        by_key = {one.pk: one for one in squad.people.all()}
        self._known = {name.casefold(): by_key[key] for key, name in names_in_files(squad).items()}
        self._context, self._today = context, today_of(squad)
        self._problems: list[Problem] = []
        self._groups: dict[tuple[date, str], _Group] = {}
        self._documents: dict[str, tuple[dict[str, Any], int] | None] = {}
        self._runs: dict[str, Any] = {}
        self._people: dict[str, Person] = {}
        self.leaves_out_unknown = False

    def take(self, number: int, one: LogEntry) -> None:
        """Look at an entry, and keep it."""
        at = f"entries[{number}]"
        person = self._known.get(one.person.casefold())
        if person is None and self.leaves_out_unknown:
            return
        if person is None:
            self._wrong(f"{at}.person", shown(one.person), "somebody of the squad: add them first", "person")
        else:
            self._people[one.person] = person
        if not FIRST_DAY <= one.date <= self._today:
            days = f"a day from {FIRST_DAY} up to {self._today.isoformat()}"
            self._wrong(f"{at}.date", one.date.isoformat(), days, "date")
        key = json.dumps(one.session, sort_keys=True)
        found = self._session(key, one, at)
        if found is None:
            return
        document, blocks = found
        for m, score in enumerate(one.scores):
            if score.block >= blocks:
                self._wrong(f"{at}.scores[{m}].block", str(score.block), f"0 to {blocks - 1}", "block")
        run = self._run(key, one, at)
        group = self._groups.setdefault((one.date, key), _Group(one.date, document))
        group.entries.append(one.model_copy(update={"session": {}, "run": run}))

    def _session(self, key: str, one: LogEntry, at: str) -> tuple[dict[str, Any], int] | None:
        if key not in self._documents:
            self._documents[key] = None
            try:
                document = inside(one.session, self._context)
                self._documents[key] = document, len(blocks_of(parse_session(document)))
            except DocumentError as error:
                self._wrong_in(f"{at}.session", error)
        return self._documents[key]

    def _run(self, key: str, one: LogEntry, at: str) -> Any:
        """The run of an entry, read; one object for all who were in it."""
        if one.run is None:
            return None
        name = json.dumps([key, one.run], sort_keys=True)
        if name not in self._runs:
            self._runs[name] = one.run
            try:
                one.as_run({})
            except DocumentError as error:
                self._wrong_in(f"{at}.run", error)
        return self._runs[name]

    def _wrong(self, path: str, found: str, allowed: str, code: str) -> None:
        self._problems.append(Problem(path, found, allowed, code))
        if len(self._problems) >= MAX_PROBLEMS:
            raise DocumentError(self._problems)

    def _wrong_in(self, at: str, error: DocumentError) -> None:
        for p in error.problems:
            self._wrong(f"{at}.{p.path}", p.found, p.allowed, p.code)

    def done(self) -> tuple[dict[tuple[date, str], _Group], Mapping[str, Person]]:
        """The sessions of the file with its people. Raises DocumentError with every place that is wrong."""
        if self._problems:
            raise DocumentError(self._problems)
        return self._groups, self._people


def _by_block(windows: Iterable[ScoredWindow]) -> dict[int, list[ScoredWindow]]:
    found: dict[int, list[ScoredWindow]] = {}
    for one in windows:
        found.setdefault(one.block, []).append(one)
    return found


def _run_of(squad: Squad, group: _Group, people: Mapping[str, Person], user_id: int | None) -> BroughtRun | None:
    """The run that the entries were of, not saved yet: what each knows of it, once."""
    told = [one.run for one in group.entries if one.run is not None]
    entry = group.entry
    if not told or entry is None:
        return None
    first = told[0]
    seen: dict[str, dict[str, Any]] = {}
    for run in {id(one): one for one in told}.values():
        for event in run.get("events") or []:  # type: ignore[union-attr]
            seen[json.dumps(event, sort_keys=True)] = dict(event)  # type: ignore[arg-type]
    events: list[Any] = sorted(seen.values(), key=lambda one: float(one.get("t", 0)))
    read = read_run({**first, "fine_tally_run": 1, "session": group.document, "events": events})
    begun = datetime.combine(entry.day, entry.time or datetime.min.time(), ZoneInfo(squad.time_zone))
    made = FloorRun(
        squad=squad, entry=entry, day=entry.day, title=entry.title, document=group.document, apart=read.apart,
        hold=read.hold, begun_at=begun, user_id=user_id,
    )  # fmt: skip
    if read.until is not None:
        made.ended_at = begun + (datetime.fromtimestamp(read.until) - datetime.fromtimestamp(0))
    return BroughtRun(
        made,
        [
            FloorEvent(
                run=made, device=DEVICE_OF_FILES, number=number, person=people.get(str(event.pop("person", ""))),
                event=event, user_id=user_id,
            )
            for number, event in enumerate(events)
        ],
    )  # fmt: skip
