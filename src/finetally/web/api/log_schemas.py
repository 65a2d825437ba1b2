"""What the log's routes give."""

from __future__ import annotations

from datetime import date, datetime
from datetime import time as time_of_day
from typing import Literal
from uuid import UUID

from ninja import Schema

from finetally.core.learn.learned import LearnedWhy, OffCourse
from finetally.core.learn.predicted import BesideExpected
from finetally.core.log.page import DoneDifference, LoggedFigures, LoggedPicture
from finetally.core.log.pulse import PulseCurve, PulseFigures

Kind = Literal["rounds", "time"]


class ScoreTold(Schema):
    """A score: rounds and reps into the next, a time in seconds, or a rung."""

    rounds: int | None = None
    reps: int | None = None
    rung: int | None = None
    time_s: float | None = None


class ExpectedTold(Schema):
    """What was or is expected: the score, and between which scores 8 of 10 lie, the lesser first."""

    expected: ScoreTold
    least: ScoreTold
    most: ScoreTold


class LogLineOut(Schema):
    """An entry in the log's list. `minutes`, `effort`, `load`: logged, else None; `rated`: the mean of `ratings`.

    `week`: the day its week begins; `disputed`: windows whose counts differ; `notes`: how many; `how`: from its
    run, as planned, as typed.
    """

    id: UUID
    day: date
    week: date
    time: time_of_day | None
    title: str
    group: str | None
    person: str | None
    session: bool
    how: str
    planned_minutes: float
    planned_effort: float
    minutes: float | None
    effort: float | None
    load: float | None
    rated: float | None
    ratings: int
    away: int
    notes: int
    results: int
    disputed: int
    runs: int


class LogOut(Schema):
    """The log: what waits to be logged (for those who plan), what was logged, the latest first.

    `earlier`: the day to ask on from; `learning`: auto, ask, or not asked yet.
    """

    squad: int
    today: date
    waiting: list[LogLineOut]
    entries: list[LogLineOut]
    earlier: date | None
    plans: bool
    learning: str
    asks_health: bool


class PaceOut(Schema):
    """The factor on all paces that predictions go by, its spread, where it is from, from how many scores."""

    factor: float
    spread: float
    source: Literal["set", "learned", "squad"]
    scores: int


class ResultOut(Schema):
    """A score as somebody told it. `used`: it is the one that counts; `chosen`: a coach settled that;
    `disputed`: it differs from the used one, and nobody settled it.

    `way`: on the floor, typed in, by the person; `by`: whose account.
    """

    id: int
    person: UUID | None
    whose: str
    block: int
    section_pass: int
    index: int
    score: ScoreTold
    unfinished: str
    options: dict[str, str]
    sets: list[dict[str, float]]
    way: str
    by: str | None
    used: bool
    chosen: bool
    disputed: bool
    factor: float | None
    expected: ExpectedTold | None
    beside: BesideExpected | None


class WindowOut(Schema):
    """A window in which a score is made: its block, pass and place, its title; rounds or a time."""

    block: int
    section_pass: int
    index: int
    title: str
    kind: Kind
    shape: str


class LoggedPersonOut(Schema):
    """Somebody at an entry. `limits`: what spares them that day (for those who plan, and the person).

    `minutes`, `effort`: their own, where they were noted; `way`: how the rating came in; `far`: it is far from the
    estimate; `standing`: notes of health from before that are not lifted; `off`: estimates are off.
    """

    person: UUID
    name: str
    came: bool
    minutes: float | None
    effort: float | None
    rated: float | None
    way: str
    early: bool
    estimated: float | None
    far: bool
    limits: list[str]
    standing: int
    pace: PaceOut
    off: OffCourse | None


class LastMadeOut(Schema):
    """What somebody made in windows of a shape before: last, when, at best."""

    person: UUID
    shape: str
    last: ScoreTold
    on: date
    best: ScoreTold


class LogNoteOut(Schema):
    """A note. `health`: of pain, dizziness or a hurt; `emptied`: it is forgotten, only that it was stays."""

    id: int
    entry: UUID
    on: date
    person: UUID | None
    name: str | None
    kind: str
    text: str
    place: str
    side: str
    level: int | None
    health: bool
    lifted: date | None
    emptied: bool
    by: str | None


class PulseOut(Schema):
    """Somebody's pulse at an entry: its figures, and its curve until that is deleted."""

    id: int
    person: UUID
    name: str
    figures: PulseFigures
    curve: PulseCurve | None


class LoggedRunOut(Schema):
    """A run and what it came to."""

    run: UUID
    name: str
    by: str | None
    begun: datetime
    session_s: float
    figures: LoggedFigures
    picture: LoggedPicture
    differences: list[DoneDifference]


class EffortWordOut(Schema):
    """A step of the scale of ratings and its word."""

    effort: int
    word: str


class LogEntryOut(Schema):
    """An entry of the log: planned against done, people, scores, notes. `working`: scores are being worked out.

    `planned`, `picture`: None for other training. `effort_from`: ratings, group, estimate or typed.
    """

    id: UUID
    version: int
    squad: int
    day: date
    time: time_of_day | None
    title: str
    group: str | None
    session: bool
    logged: bool
    how: str
    logged_at: datetime | None
    logged_by: str | None
    minutes: float | None
    effort: float | None
    load: float | None
    effort_from: str
    ratings: int
    planned_minutes: float
    planned_effort: float
    planned_load: float
    planned: LoggedFigures | None
    picture: LoggedPicture | None
    runs: list[LoggedRunOut]
    windows: list[WindowOut]
    results: list[ResultOut]
    people: list[LoggedPersonOut]
    group_rating: float | None
    notes: list[LogNoteOut]
    pulses: list[PulseOut]
    earlier: list[LastMadeOut]
    scale: list[EffortWordOut]
    plans: bool
    own: UUID | None
    asks_health: bool
    health_why: str
    working: bool


class SettledOut(Schema):
    """Which of them were logged by that."""

    entries: list[UUID]


class CautionOut(Schema):
    """The note's number, and the caution that belongs to its kind, if one does."""

    id: int
    caution: str | None


class ExpectedOut(Schema):
    """What somebody should make in a window by the pace they have."""

    person: UUID
    name: str
    block: int
    section_pass: int
    index: int
    score: ExpectedTold
    beside: BesideExpected
    pace: PaceOut


class ForeseenOut(Schema):
    """What is foreseen in a window: of the person, or of the squad's slowest, middle, quickest; nobody is named.

    `last`, `on`, `best`: what the person made in windows of the same shape before; `days_ago`: since `on`.
    """

    block: int
    section_pass: int
    index: int
    title: str
    whom: Literal["person", "slowest", "middle", "quickest"]
    score: ExpectedTold
    pace: PaceOut
    last: ScoreTold | None
    best: ScoreTold | None
    on: date | None
    days_ago: int | None


class ScorePointOut(Schema):
    """A score of a shape: when, its pace factor."""

    entry: UUID
    on: date
    score: ScoreTold
    factor: float | None


class ScoreLineOut(Schema):
    """Scores of the same shape in order of time."""

    title: str
    points: list[ScorePointOut]
    best: ScoreTold


class RatedPointOut(Schema):
    """A rating against what was estimated."""

    entry: UUID
    on: date
    title: str
    rated: float
    estimated: float | None


class WeekDoneOut(Schema):
    """A week as done: minutes, load, reps by how they are known, kilograms."""

    begins: date
    minutes: float
    load: float
    sessions: int
    reps: dict[str, int]
    kg: float


class MovementDoneOut(Schema):
    """A movement over the year: the last day it was done, in how many sessions, sets, reps, kilograms."""

    key: str
    last: date
    days_ago: int
    sessions: int
    sets: int
    reps: dict[str, int]
    kg: float


class LearnedOut(Schema):
    """What somebody's scores and ratings teach: `use` is yes, no, or as the squad has it; with its arithmetic.

    `low`, `high`: between these factors 8 of 10 sessions should lie; `quicker`: by which share, below 0 slower.
    """

    pace_factor: float
    spread: float
    low: float
    high: float
    quicker: float
    scores: int
    effort_offset: float
    ratings: int
    counts: bool
    use: str
    pace: PaceOut
    why: LearnedWhy
    off: OffCourse | None


class PersonLogOut(Schema):
    """The log of one person."""

    person: UUID
    name: str
    squad: int
    learning: str
    learned: LearnedOut
    lines: list[ScoreLineOut]
    rated: list[RatedPointOut]
    weeks: list[WeekDoneOut]
    movements: list[MovementDoneOut]
    notes: list[LogNoteOut]
    plans: bool
