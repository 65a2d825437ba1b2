"""The log's pages as they are sent."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any, cast

from finetally.core.learn.learned import PaceSeen, paces_between
from finetally.core.learn.predicted import BesideExpected, beside
from finetally.core.learn.scale import EFFORT_WORDS
from finetally.core.log.movements import moved_kg
from finetally.core.log.notes import HEALTH_KINDS
from finetally.core.log.page import LoggedFigures, LoggedPicture
from finetally.core.week.planned_load import other_training
from finetally.web.api.log_person_schemas import (
    FreshDayOut,
    LearnedOut,
    MovementDoneOut,
    PersonLogOut,
    RatedPointOut,
    ScoreLineOut,
    ScorePointOut,
    WeekDoneOut,
)
from finetally.web.api.log_schemas import (
    EffortWordOut,
    ExpectedOut,
    ExpectedTold,
    ForeseenHereOut,
    ForeseenOut,
    KindOffOut,
    LastMadeOut,
    LogEntryOut,
    LoggedPersonOut,
    LoggedRunOut,
    LogLineOut,
    LogNoteOut,
    LogOut,
    PaceOut,
    PulseOut,
    ResultOut,
    ScoreTold,
    StepOptionOut,
    TargetOut,
    TookOut,
    WindowOut,
)
from finetally.web.log.foreseen import ForeseenHere, ForeseenScore
from finetally.web.log.learning import LearnedHere
from finetally.web.log.listing import LogLine, LogList
from finetally.web.log.models import LogNote, Result, WatchRecording
from finetally.web.log.page import EntryPage, ExpectedScore, PersonHere
from finetally.web.log.person_page import PersonPage, ScorePoint, WeekDone
from finetally.web.log.windows import ScoredWindow
from finetally.web.people.pace import PaceInUse
from finetally.web.plan.entries import week_of
from finetally.web.plan.models import Entry
from finetally.web.plan.summaries import summary_from_json
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of


def list_answer(made: LogList) -> LogOut:
    """The log's list."""
    return LogOut(
        squad=made.squad.pk,
        today=today_of(made.squad),
        waiting=[_line(made.squad, one) for one in made.waiting],
        entries=[_line(made.squad, one) for one in made.lines],
        earlier=made.earlier,
        plans=made.plans,
        learning=made.squad.learning,
        asks_health=made.squad.asks_health,
        off=[KindOffOut(**vars_of(one)) for one in made.off],
    )


def _line(squad: Squad, one: LogLine) -> LogLineOut:
    entry = one.entry
    return LogLineOut(
        id=entry.pk, day=entry.day, week=week_of(squad, entry.day), time=entry.time, title=entry.title,
        group=entry.group.name if entry.group is not None else None,
        person=entry.person.name if entry.person is not None else None,
        session=bool(entry.summary.get("patterns")) or entry.session_id is not None,
        how=one.how, planned_minutes=one.planned_minutes, planned_effort=one.planned_effort,
        minutes=entry.logged_minutes, effort=entry.logged_effort, load=_load(entry),
        rated=one.rated, ratings=one.ratings,
        away=one.away, notes=one.notes, results=one.results, disputed=one.disputed, runs=one.runs,
    )  # fmt: skip


def _load(entry: Entry) -> float | None:
    """The load of what was logged; None where nothing is."""
    if entry.logged_minutes is None or entry.logged_effort is None:
        return None
    return other_training(entry.logged_minutes, entry.logged_effort).load


def score_told(score: Mapping[str, Any]) -> ScoreTold:
    """A score as it is sent."""
    return ScoreTold(**{name: score.get(name) for name in ScoreTold.model_fields})


def _expected_or_none(made: Mapping[str, Any] | None) -> ExpectedTold | None:
    return None if made is None else expected_told(made)


def expected_told(made: Mapping[str, Any]) -> ExpectedTold:
    """What is expected, with its interval, as it is sent."""
    return ExpectedTold(**{name: score_told(made[name]) for name in ("expected", "least", "most")})


def _beside(made: Any, factor: float | None) -> BesideExpected | None:
    return beside(made, factor) if made is not None else None


def pace_out(one: PaceInUse) -> PaceOut:
    """A pace as it is sent."""
    return PaceOut(factor=one.pace_factor, spread=one.spread, source=one.source, scores=one.scores)


def entry_answer(page: EntryPage) -> LogEntryOut:
    """An entry's page."""
    entry, logged = page.entry, page.logged
    summary = summary_from_json(entry.summary)
    names = {one.person.pk: one.person.public_id for one in page.people}
    return LogEntryOut(
        id=entry.pk, version=entry.sequence, squad=entry.squad_id, day=entry.day, time=entry.time,
        title=entry.title, group=entry.group.name if entry.group is not None else None,
        session=entry.document is not None,
        logged=entry.logged_minutes is not None,
        how=logged.how if logged is not None else "",
        logged_at=logged.at if logged is not None else None,
        logged_by=logged.user.get_username() if logged is not None and logged.user is not None else None,
        minutes=entry.logged_minutes, effort=entry.logged_effort, load=_load(entry),
        ratings=sum(one.rating is not None for one in page.people),
        effort_from=logged.effort_from if logged is not None else "",
        planned_minutes=summary.minutes, planned_effort=summary.effort, planned_load=summary.load,
        planned=cast("LoggedFigures", page.planned) if page.planned else None,
        picture=cast("LoggedPicture", page.picture) if page.picture else None,
        left_out=logged.left_out if logged is not None else [],
        done=cast("LoggedFigures", logged.figures) if logged is not None and logged.figures else None,
        differences=logged.differences if logged is not None else [],
        runs=[
            LoggedRunOut(
                run=one.run_id, name=one.run.name, begun=one.run.begun_at, session_s=one.session_s,
                by=one.run.user.get_username() if one.run.user is not None else None,
                figures=one.figures, picture=one.picture, differences=one.differences,
            )
            for one in page.runs
        ],
        windows=[
            WindowOut(
                block=one.block, section_pass=one.section_pass, index=one.place, title=one.title,
                kind="time" if one.kind == "time" else "rounds", shape=one.shape,
            )
            for one in page.windows
        ],
        blocks=page.blocks,
        options=[StepOptionOut(**asdict(one)) for one in page.options],
        results=[_result(one) for one in page.results],
        people=[_person(one) for one in page.people],
        group_rating=page.group_rating.effort if page.group_rating is not None else None,
        notes=[note_out(one) for one in page.notes],
        pulses=[pulse_out(one) for one in page.recordings],
        earlier=[
            LastMadeOut(
                person=names[person], shape=shape, last=score_told(one.last), on=one.on, best=score_told(one.best)
            )
            for (person, shape), one in page.earlier.items()
        ],
        scale=[EffortWordOut(effort=one.effort, word=one.word) for one in EFFORT_WORDS],
        plans=page.looker.plans,
        own=page.looker.own.public_id if page.looker.own is not None else None,
        asks_health=entry.squad.asks_health,
        health_why=entry.squad.health_why,
        working=page.working,
    )  # fmt: skip


def _result(one: Result) -> ResultOut:
    return ResultOut(
        id=one.pk, person=one.person.public_id if one.person is not None else None, whose=one.whose,
        block=one.block, section_pass=one.section_pass, index=one.index, score=score_told(one.score),
        unfinished=one.unfinished, options=one.options, sets=one.sets, moved_kg=moved_kg(one.sets), way=one.way,
        by=one.user.get_username() if one.user is not None else None, used=one.used,
        chosen=one.chosen, disputed=one.disputed,
        factor=one.factor, to_check=one.factor is not None and PaceSeen(one.entry.day, one.factor).to_check,
        expected=_expected_or_none(one.predicted), beside=_beside(one.predicted, one.factor),
    )  # fmt: skip


def _person(one: PersonHere) -> LoggedPersonOut:
    rating = one.rating
    return LoggedPersonOut(
        person=one.person.public_id, name=one.person.name, came=one.came,
        minutes=one.own.minutes if one.own is not None else None,
        effort=one.own.effort if one.own is not None else None,
        rated=rating.effort if rating is not None else None,
        way=rating.way if rating is not None else "", early=rating.early if rating is not None else False,
        estimated=rating.estimated if rating is not None else None,
        limits=[limit.joint or limit.movement for limit in one.limits], pace=pace_out(one.pace), off=one.off,
        far=one.far, standing=one.standing, fresh=one.fresh,
    )  # fmt: skip


def pulse_out(one: WatchRecording) -> PulseOut:
    """A recording as it is sent."""
    return PulseOut(
        id=one.pk, person=one.person.public_id, name=one.person.name, figures=one.figures, curve=one.curve
    )


def note_out(one: LogNote) -> LogNoteOut:
    """A note as it is sent."""
    return LogNoteOut(
        id=one.pk, entry=one.entry_id, on=one.entry.day,
        person=one.person.public_id if one.person is not None else None,
        name=one.person.name if one.person is not None else None, kind=one.kind, text=one.text, place=one.place,
        side=one.side, level=one.level, health=one.kind in HEALTH_KINDS, lifted=one.lifted_on, emptied=one.emptied,
        by=one.user.get_username() if one.user is not None else None,
    )  # fmt: skip


def expected_answer(found: list[ExpectedScore]) -> list[dict[str, Any]]:
    """Expected scores."""
    return [
        ExpectedOut(
            person=one.person.public_id, name=one.person.name, block=one.window.block,
            section_pass=one.window.section_pass, index=one.window.place,
            score=expected_told(one.score), beside=beside(one.score, None), pace=pace_out(one.pace),
        ).model_dump(mode="json")
        for one in found
    ]  # fmt: skip


def foreseen_answer(found: ForeseenHere) -> ForeseenHereOut:
    """What a document's windows should be scored at."""
    return ForeseenHereOut(
        scores=[_foreseen(one) for one in found.scores],
        targets=[
            TargetOut(
                **_at(one.window), name=one.name, last=score_told(one.earlier.last), on=one.earlier.on,
                days_ago=one.days_ago, best=score_told(one.earlier.best),
            )
            for one in found.targets
        ],
        took=[
            TookOut(block=one.window.block, title=one.window.title, name=one.name, options=one.options)
            for one in found.took
        ],
    )  # fmt: skip


def _at(window: ScoredWindow) -> dict[str, Any]:
    """Where a window is, and what it is called."""
    return {
        "block": window.block, "section_pass": window.section_pass, "index": window.place, "title": window.title
    }  # fmt: skip


def _foreseen(one: ForeseenScore) -> ForeseenOut:
    there = one.earlier
    return ForeseenOut(
        **_at(one.window), whom=one.whom, score=expected_told(one.score), pace=pace_out(one.pace),
        last=score_told(there.last) if there is not None else None,
        best=score_told(there.best) if there is not None else None,
        on=there.on if there is not None else None, days_ago=one.days_ago,
    )  # fmt: skip


def person_answer(page: PersonPage) -> PersonLogOut:
    """A person's page."""
    today = today_of(page.person.squad)
    return PersonLogOut(
        person=page.person.public_id,
        name=page.person.name,
        squad=page.person.squad_id,
        learning=page.person.squad.learning,
        learned=_learned(page.learned),
        lines=[
            ScoreLineOut(
                title=line.title,
                best=score_told(line.best),
                points=[_point(one) for one in line.points],
            )
            for line in page.lines
        ],
        rated=[RatedPointOut.model_construct(**vars_of(one)) for one in page.rated],
        weeks=[_week(one) for one in page.weeks],
        movements=[
 MovementDoneOut(**vars_of(one), days_ago=(today - one.last).days) for one in page.movements],
        notes=[note_out(one) for one in page.notes],
        fresh=[FreshDayOut(day=day, value=value) for day, value in page.fresh],
        plans=page.plans,
    )  # fmt: skip


def _week(one: WeekDone) -> WeekDoneOut:
    return WeekDoneOut(**{**vars_of(one), "density": one.density})


def _point(one: ScorePoint) -> ScorePointOut:
    # Made by ourselves a moment ago, hundreds of them: not looked through again.
    score = ScoreTold.model_construct(**{name: one.score.get(name) for name in ScoreTold.model_fields})
    factor = round(one.factor, 4) if one.factor is not None else None
    return ScorePointOut.model_construct(entry=one.entry, on=one.on, score=score, factor=factor)


def vars_of(one: Any) -> dict[str, Any]:
    """The fields of a dataclass, with or without slots."""
    return {name: getattr(one, name) for name in one.__dataclass_fields__}


def _learned(one: LearnedHere) -> LearnedOut:
    value = one.value
    low, high = paces_between(value.pace_factor, value.spread)
    return LearnedOut(
        **value.figures(), low=low, high=high, quicker=1 - value.pace_factor,
        counts=value.counts, use=one.use, pace=pace_out(one.in_use),
        why=one.why, off=one.off,
    )  # fmt: skip
