"""One entry of the log: planned against done, scores against what was expected, ratings, notes."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any
from uuid import UUID

from finetally.core.learn.off import OffCourse, off_course, rated_far
from finetally.core.learn.pace import PaceModel
from finetally.core.learn.predicted import PredictedScore, predicted
from finetally.core.log.notes import HEALTH_KINDS
from finetally.core.log.page import figures_of, picture_of
from finetally.core.methods.given import Given
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally, tally
from finetally.web.floor.absent import absent_in_runs
from finetally.web.floor.meant import meant_otherwise
from finetally.web.floor.step_options import StepOptions, step_options
from finetally.web.jobs.models import OPEN, Job
from finetally.web.log.given_here import entry_given
from finetally.web.log.learning import TELLS_FOR, paces_seen
from finetally.web.log.models import LoggedEntry, LoggedRun, LogNote, Rating, Result, WatchRecording
from finetally.web.log.seeing import Looker, looker_at
from finetally.web.log.settling import logged_run, rounded
from finetally.web.log.windows import EarlierHere, ScoredWindow, earlier_by_shape, windows_of
from finetally.web.people.freshness import fresh_on
from finetally.web.people.limits import limits_by_person
from finetally.web.people.models import Limit
from finetally.web.people.pace import PaceInUse, pace_in_use
from finetally.web.people.people import known_people
from finetally.web.plan.entries import people_for, wrong
from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.actor import Actor
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Person


@dataclass(frozen=True, slots=True)
class PersonHere:
    """Somebody whom the entry is for: whether they came, for how long; their rating; limits behind options.

    `pace`: what their predictions go by; `off`: where estimates have been off three times running; `standing`:
    notes of health from before that nobody has lifted; `fresh`: how fresh they said they were that day, 1 to 5.
    """

    person: Person
    own: Attendance | None
    away: bool
    rating: Rating | None
    limits: list[Limit]
    pace: PaceInUse
    off: OffCourse | None
    standing: int = 0
    fresh: int | None = None

    @property
    def far(self) -> bool:
        """Whether they rated far from what was estimated."""
        one = self.rating
        if one is None or one.estimated is None:
            return False
        kept = getattr(self.person, "learned_pace", None)
        return rated_far(one.effort, one.estimated, kept.effort_offset if kept is not None else 0.0)

    @property
    def came(self) -> bool:
        """Whether they were there, as far as it is known."""
        return self.own.came if self.own is not None else not self.away


@dataclass
class EntryPage:
    """What is shown of an entry of the log. Others' results are not in it for who does not plan."""

    looker: Looker
    logged: LoggedEntry | None
    planned: Mapping[str, Any]
    picture: Mapping[str, Any]
    runs: list[LoggedRun]
    windows: list[ScoredWindow]
    blocks: list[str]
    options: list[StepOptions]
    results: list[Result]
    people: list[PersonHere]
    group_rating: Rating | None
    notes: list[LogNote]
    recordings: list[WatchRecording]
    earlier: dict[tuple[int, str], EarlierHere] = field(default_factory=dict)
    working: bool = False

    @property
    def entry(self) -> Entry:
        """The entry."""
        return self.looker.entry


def entry_page(actor: Actor, entry_id: UUID) -> EntryPage:
    """The page of an entry, for those who plan and those whom it is for. Some fifteen queries."""
    looker = looker_at(actor, entry_id)
    entry = looker.entry
    reader = _PageReader(looker)
    logged = LoggedEntry.objects.filter(entry=entry).select_related("user").first()
    planned, picture = reader.planned(logged)
    only = looker.only
    results = entry.results.select_related("person", "user")
    notes = entry.log_notes.select_related("person", "user")
    recordings = entry.recordings.select_related("person")
    if only is not None:
        results, notes = results.filter(person=only), notes.filter(person=only)
        recordings = recordings.filter(person=only)
    page = EntryPage(
        looker, logged, planned, picture, reader.runs(), reader.windows, reader.blocks, reader.options,
        list(results), reader.people(),
        None if only is not None else entry.ratings.filter(person=None).first(), list(notes),
        list(recordings),
    )  # fmt: skip
    page.earlier = earlier_by_shape(
        [one.person.pk for one in page.people], {one.shape for one in page.windows}, entry.day
    )
    page.working = Job.objects.filter(state__in=OPEN, lock_name=f"log {entry.pk}").exists()
    return page


class _PageReader:
    """Reads what a page needs; figures the plan at most once."""

    def __init__(self, looker: Looker) -> None:
        self.looker = looker
        self.entry = looker.entry

    @cached_property
    def context(self) -> FiguringContext:
        return context_of(self.entry.squad)

    @cached_property
    def tally(self) -> Tally | None:
        if self.entry.document is None:
            return None
        try:
            session = parse_session(self.entry.document)
            return tally(session, library=self.context.library, methods=self.context.methods, given=self.given())
        except DocumentError:
            return None

    def given(self, given: Given | None = None) -> Given:
        """What is known of the day."""
        return entry_given(self.entry, self.context, given)

    def planned(self, logged: LoggedEntry | None) -> tuple[Mapping[str, Any], Mapping[str, Any]]:
        """What was planned: as it was kept when it was logged, else as it stands."""
        if logged is not None and logged.planned:
            return logged.planned, logged.picture
        if self.tally is None:
            return {}, {}
        return rounded(figures_of(self.tally)), dict(picture_of(self.tally))

    def runs(self) -> list[LoggedRun]:
        """What each run came to: as kept, else as it is now."""
        found = self.entry.runs.select_related("user").prefetch_related("events__person")
        made = (logged_run(run, list(run.events.all()), self.context) for run in found)
        return [one for one in made if one is not None]

    @cached_property
    def windows(self) -> list[ScoredWindow]:
        return list(windows_of(self.tally)) if self.tally is not None else []

    @property
    def blocks(self) -> list[str]:
        """What each block is called."""
        return [of.block.title or of.part for of in self.tally.tape.blocks] if self.tally is not None else []

    @property
    def options(self) -> list[StepOptions]:
        """The steps that some may do otherwise."""
        return step_options(self.tally.session, self.context.library) if self.tally is not None else []

    def people(self) -> list[PersonHere]:
        """Those whom it is for; for who does not plan themselves alone."""
        only = self.looker.only
        keys = {one.pk for one in people_for(self.entry)} if only is None else {only.pk}
        people = list(known_people(self.entry.squad).filter(pk__in=keys))
        attended = {one.person_id: one for one in self.entry.attendance.filter(person__in=keys)}
        ratings = {one.person_id: one for one in self.entry.ratings.filter(person__in=keys)}
        limits = limits_by_person(self.entry.squad, self.entry.day)
        away = {one.pk for one in people if any(a.first <= self.entry.day <= a.last for a in one.away.all())}
        if self.looker.entry.logged_minutes is None:
            # Ticked as absent when it was run: shown before it is logged, too.
            away |= absent_in_runs(self.entry)
        standing = Counter(
            LogNote.objects.filter(
                person__in=keys, kind__in=HEALTH_KINDS, lifted_on=None, entry__day__lt=self.entry.day
            ).values_list("person", flat=True)
        )
        seen = paces_seen(keys, self.entry.day - TELLS_FOR)
        fresh = fresh_on(keys, self.entry.day)
        found = []
        for person in people:
            pace = pace_in_use(person, self.context.methods)
            off = off_course(seen[person.pk], pace.pace_factor, pace.spread)
            found.append(
                PersonHere(
                    person, attended.get(person.pk), person.pk in away, ratings.get(person.pk),
                    limits.get(person.pk, []), pace, off, standing[person.pk], fresh.get(person.pk),
                )
            )  # fmt: skip
        return found


@dataclass(frozen=True, slots=True)
class ExpectedScore:
    """What somebody is expected to make in a window."""

    person: Person
    window: ScoredWindow
    score: PredictedScore
    pace: PaceInUse


def expected_of(actor: Actor, entry_id: UUID) -> list[ExpectedScore]:
    """What everybody whom an entry is for should make in its windows, by their pace and their options of the day.

    Whoever does alike is figured once. For those who plan, and of oneself. Raises DocumentError.
    """
    looker = looker_at(actor, entry_id)
    reader = _PageReader(looker)
    if looker.entry.document is None:
        raise wrong("entry", "other training", "an entry with a session")
    session = parse_session(looker.entry.document)
    found: list[ExpectedScore] = []
    known: dict[str, PredictedScore | None] = {}
    meant = meant_otherwise(looker.entry, session)
    for one in reader.people():
        if one.came:
            options = meant.get(one.person.pk, {})
            for window in reader.windows:
                key = repr((options, window.block, window.place, one.pace.pace_factor, one.pace.spread))
                if key not in known:
                    given = reader.given(Given(options=options))
                    model = PaceModel(session, window.block, reader.context.library, reader.context.methods, given)
                    known[key] = predicted(model, window.place, one.pace.pace_factor, one.pace.spread)
                score = known[key]
                if score is not None:
                    found.append(ExpectedScore(one.person, window, score, one.pace))
    return found
