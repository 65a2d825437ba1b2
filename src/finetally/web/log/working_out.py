"""Working the log out: factors and predictions of scores, estimates of ratings, and what people's pace becomes.

Heavy work, done by the process for it soon after something was logged; kept, by the hash of what it was made from.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from django.db import transaction

from finetally.core import CORE_VERSION
from finetally.core.floor.document import Run
from finetally.core.learn.predicted import predicted
from finetally.core.log.as_done import DoneSession
from finetally.core.log.left_out import without_blocks
from finetally.core.log.movements import counted_of
from finetally.core.methods.given import Given, PersonGiven, Score
from finetally.core.session.document import Session
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.unfold.tape import RunScore
from finetally.web.floor.meant import meant_otherwise
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.floor.runs import whole_run
from finetally.web.jobs.work import JobHandle
from finetally.web.log.asking import ask_to_work_out_all
from finetally.web.log.given_here import scores_before
from finetally.web.log.learning import relearn
from finetally.web.log.models import LearnedPace, LoggedEntry, Rating, RatingWay, Result
from finetally.web.log.windows import BlockKind, block_kinds
from finetally.web.people.measures import given_of
from finetally.web.people.pace import pace_in_use
from finetally.web.people.people import known_people
from finetally.web.plan.entries import people_for
from finetally.web.plan.models import Entry
from finetally.web.plan.summaries import methods_key
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Person, Squad
from finetally.web.versions import version_of


def work_out_job(handle: JobHandle) -> None:
    """Work out the entries that a job names, or whatever of the squad is not worked out with today's methods."""
    squad = handle.job.squad
    asked = handle.job.asked.get("entries")
    entries = squad.entries.filter(document__isnull=False).select_related("squad")
    if asked is not None:
        entries = entries.filter(pk__in=asked)
    else:
        entries = entries.filter(results__isnull=False) | entries.filter(ratings__isnull=False)
    people: set[int] = set()
    for number, entry in enumerate(entries.distinct().order_by("day").iterator(chunk_size=20)):
        if handle.stopped:
            return
        people |= work_out(entry)
        # Also whose last score was taken back.
        people |= set(LearnedPace.objects.filter(person__in=people_for(entry)).values_list("person", flat=True))
        handle.show(progress={"count": number + 1})
    if asked is None:
        # Whose last score went with a removed entry has none any more.
        people |= set(LearnedPace.objects.filter(person__squad=squad).values_list("person", flat=True))
    relearn(squad, people)
    handle.show(answer={"count": len(people)})


def methods_changed_in_log(squad: Squad) -> None:
    """Have everything that was logged learned from anew, with the squad's methods of today."""
    if Result.objects.filter(entry__squad=squad).exists() or Rating.objects.filter(entry__squad=squad).exists():
        ask_to_work_out_all(squad)


def catch_up() -> int:
    """After a start: have what was never worked out (from before the log) done. Returns for how many squads."""
    waiting = Squad.objects.filter(entries__results__key="").distinct()
    for squad in waiting:
        methods_changed_in_log(squad)
    return len(waiting)


def work_out(entry: Entry) -> set[int]:
    """Make what is missing of an entry's results and ratings. Returns the keys of the people whom it is about.

    What cannot be figured any more is left as it is.
    """
    results = list(entry.results.select_related("person", "run"))
    ratings = list(entry.ratings.exclude(way=RatingWay.GROUP).select_related("person"))
    people = {one.person_id for one in results if one.person_id is not None}
    people |= {one.person_id for one in ratings if one.person_id is not None}
    if entry.document is None or not (results or ratings):
        return people
    try:
        working = _Working(entry, people)
        made = [working.result(one) for one in results]
        rated = [working.rating(one) for one in ratings]
    except DocumentError:
        return people
    with transaction.atomic():
        Result.objects.bulk_update(
            [one for one in made if one is not None],
            ["factor", "predicted", "key", *BlockKind._fields, "options", "counted"],
        )
        Rating.objects.bulk_update([one for one in rated if one is not None], ["estimated", "key", "options"])
    return people


@dataclass
class _Working:
    """One entry as its people did it. Whoever did it alike is figured once."""

    entry: Entry
    keys: set[int]
    _done: dict[str, DoneSession] = field(default_factory=dict)
    _efforts: dict[str, float] = field(default_factory=dict)

    @cached_property
    def context(self) -> FiguringContext:
        return context_of(self.entry.squad)

    @cached_property
    def session(self) -> Session:
        return parse_session(self.entry.document)

    @cached_property
    def kinds(self) -> list[BlockKind]:
        """What each block is."""
        return block_kinds(tally(self.session, library=self.context.library, methods=self.context.methods))

    @cached_property
    def people(self) -> Mapping[int, Person]:
        return {one.pk: one for one in known_people(self.entry.squad).filter(pk__in=self.keys)}

    @cached_property
    def limited(self) -> Mapping[int, dict[str, str]]:
        """The options that limits of the day choose, and those that people said they would take, by person."""
        return meant_otherwise(self.entry, self.session)

    @cached_property
    def runs(self) -> Mapping[Any, tuple[FloorRun, list[FloorEvent]]]:
        runs = self.entry.runs.prefetch_related("events__person")
        return {run.pk: (run, list(run.events.all())) for run in runs}

    @cached_property
    def scores(self) -> dict[str, Score]:
        """Scores of earlier sessions that this one went on from."""
        return scores_before(self.entry.squad, self.entry.document, self.entry.day, self.entry.person_id)

    def run_of(self, person: Person | None, run: Any = None) -> Any:
        """The key of the run that somebody was in: the one named, the one that tells of them, the longest."""
        if run in self.runs:
            return run
        if person is not None:
            for key, (_, events) in self.runs.items():
                if any(event.person_id == person.pk for event in events):
                    return key
        return max(self.runs, key=lambda key: len(self.runs[key][1]), default=None)

    def measures(self, person: Person | None) -> PersonGiven:
        """What figures take of somebody, without their pace and offset: those are what is looked for."""
        if person is None:
            return PersonGiven()
        known = given_of(person, self.entry.squad.methods_value().one_rm)
        return known.model_copy(update={"pace_factor": None, "effort_offset": 0})

    def done(self, person: Person | None, options: dict[str, str], run_key: Any = None) -> tuple[str, DoneSession]:
        """The session as somebody did it, and the name of what it was made from."""
        where = self.run_of(person, run_key)
        run, events = self.runs[where] if where is not None else (None, [])
        own = person is not None and any(event.person_id == person.pk for event in events)
        measures = self.measures(person)
        parts = [
            self.entry.document, options, measures.model_dump(mode="json"), str(where), len(events),
            str(person.public_id) if own and person is not None else "", methods_key(self.context), CORE_VERSION,
        ]  # fmt: skip
        key = version_of(*parts, *((repr(self.scores),) if self.scores else ()))
        if key not in self._done:
            given = self.context.given(Given(person=measures, options=options, scores=self.scores))
            played: Run | None = None
            if run is not None and events:
                played = whole_run(run, events).model_copy(update={"given": given, "methods": self.context.methods})
            self._done[key] = DoneSession(
                self.session, library=self.context.library, methods=self.context.methods, given=given, run=played,
                person=str(person.public_id) if own and person is not None else None,
            )  # fmt: skip
        return key, self._done[key]

    @cached_property
    def left_out(self) -> list[int]:
        """The blocks, by number, that were not done, where no run says so."""
        kept = LoggedEntry.objects.filter(entry=self.entry).values_list("left_out", flat=True).first()
        return kept or []

    def done_in_part(self, person: Person | None, options: dict[str, str]) -> tuple[str, DoneSession]:
        """The session as somebody did it without what was left out, and the name of what it was made from."""
        name, whole = self.done(person, options)
        key = version_of(name, self.left_out)
        if key not in self._done:
            session = parse_session(without_blocks(self.entry.document or {}, self.left_out))
            self._done[key] = DoneSession(
                session, library=self.context.library, methods=self.context.methods, given=whole.given
            )
        return key, self._done[key]

    def options_of(self, person: Person | None, taken: dict[str, str]) -> dict[str, str]:
        """What somebody did otherwise: what limits or they chose; what was noted goes before it."""
        return {**(self.limited.get(person.pk, {}) if person is not None else {}), **taken}

    def result(self, one: Result) -> Result | None:
        """A result with its factor, and once with what was expected of it; None where nothing has changed."""
        person = self.people.get(one.person_id) if one.person_id is not None else None
        options = self.options_of(person, one.options)
        name, done = self.done(person, options, one.run_id)
        key = version_of(name, one.score, one.block, one.section_pass, one.index)
        if one.key == key:
            return None
        # What was taken on the floor stands in the run.
        told = done.given.options
        one.key, one.options = key, {**options, **told} if isinstance(told, dict) else options
        kind = self.kinds[one.block] if one.block < len(self.kinds) else BlockKind()
        one.shape, one.format, one.movement = kind
        index = _index_of(done, one)
        score = run_score_of(one.score)
        one.factor = done.factor(one.block, index, score) if score is not None and not one.unfinished else None
        model = done.model(one.block, index) if one.factor is not None else None
        one.counted = dict(counted_of(model, one.factor)) if model is not None and one.factor is not None else {}
        if one.predicted is None:
            one.predicted = self._predicted(done, one, index, person)
        return one

    def _predicted(self, done: DoneSession, one: Result, index: int, person: Person | None) -> Any:
        model = done.model(one.block, index)
        if model is None:
            return None
        pace = pace_in_use(person, self.context.methods)
        return predicted(model, index, pace.pace_factor, pace.spread)

    def rating(self, one: Rating) -> Rating | None:
        """A rating with the effort that was estimated of what this person did; None where nothing has changed."""
        person = self.people.get(one.person_id) if one.person_id is not None else None
        taken = {}
        for result in self.entry.results.filter(person=person, used=True):
            taken.update(result.options)
        options = self.options_of(person, {**one.options, **taken})
        key, done = self.done_in_part(person, options) if self.left_out else self.done(person, options)
        if one.key == key:
            return None
        if key not in self._efforts:
            self._efforts[key] = done.effort()
        one.key, one.estimated, one.options = key, self._efforts[key], options
        return one


def _index_of(done: DoneSession, one: Result) -> int:
    """Which of the block's scored windows, of all its passes, a result is of."""
    if one.section_pass == 0:
        return one.index
    model = done.model(one.block, one.index)
    each = len(model.tape(1).runs[0].scores) if model is not None else 0
    return one.section_pass * each + one.index


def run_score_of(score: Mapping[str, Any]) -> RunScore | None:
    """A kept score as windows have it; None for a rung, which says nothing of pace, or for none."""
    if "time_s" in score:
        return {"time_s": float(score["time_s"])}
    if "rounds" in score or "reps" in score:
        return {"rounds": int(score.get("rounds", 0)), "reps": int(score.get("reps", 0))}
    return None
