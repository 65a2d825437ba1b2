"""What the log's routes give."""

from __future__ import annotations

from datetime import date, datetime
from datetime import time as time_of_day
from typing import Literal
from uuid import UUID

from ninja import Schema

from finetally.core.learn.off import OffCourse
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


class KindOffOut(Schema):
    """A movement or a format whose estimates were off three sessions running, for the squad as a whole.

    `off`: the factors of those sessions on what was foreseen, and the one that fits; of a movement with a pace also
    the seconds a repetition takes, as planned (`rep_s`) and as fits (`fits_s`).
    """

    of: Literal["movement", "format"]
    key: str
    name: str
    off: OffCourse
    rep_s: float | None
    fits_s: float | None


class LogOut(Schema):
    """The log: what waits to be logged (for those who plan), what was logged, the latest first.

    `earlier`: the day to ask on from; `learning`: auto, ask, or not asked yet; `off`: with the first page.
    """

    squad: int
    today: date
    waiting: list[LogLineOut]
    entries: list[LogLineOut]
    earlier: date | None
    plans: bool
    learning: str
    asks_health: bool
    off: list[KindOffOut]


class PaceOut(Schema):
    """The factor on all paces that predictions go by, its spread, where it is from, from how many scores."""

    factor: float
    spread: float
    source: Literal["set", "learned", "squad"]
    scores: int


class StepOptionOut(Schema):
    """A step, by id, that some may do otherwise: its movement's name, the labels of its options; its block."""

    step: str
    name: str
    labels: list[str]
    block: int


class ResultOut(Schema):
    """A score as somebody told it. `used`: it is the one that counts; `chosen`: a coach settled that;
    `disputed`: it differs from the used one, and nobody settled it.

    `way`: on the floor, typed in, by the person; `by`: whose account. `to_check`: too far off to be learned from.
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
    moved_kg: float
    way: str
    by: str | None
    used: bool
    chosen: bool
    disputed: bool
    factor: float | None
    to_check: bool
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
    estimate; `standing`: notes of health from before that are not lifted; `off`: estimates are off; `fresh`: as
    they said it that day, 1 to 5.
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
    fresh: int | None
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

    `planned`, `picture`: None for other training. `blocks`: what each is called.
    `left_out`: blocks by number that were not done, with what was `done` then and what differed; without a run.
    `effort_from`: ratings, group, estimate or typed.
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
    left_out: list[int]
    done: LoggedFigures | None
    differences: list[DoneDifference]
    runs: list[LoggedRunOut]
    windows: list[WindowOut]
    blocks: list[str]
    options: list[StepOptionOut]
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


class TargetOut(Schema):
    """What somebody who agreed to be named made in windows of this shape: last, when, how long ago, at best."""

    block: int
    section_pass: int
    index: int
    title: str
    name: str
    last: ScoreTold
    on: date
    days_ago: int
    best: ScoreTold


class TookOut(Schema):
    """What somebody did otherwise when they last did a window of this shape."""

    block: int
    title: str
    name: str
    options: list[str]


class ForeseenHereOut(Schema):
    """What is foreseen in a document's windows; of a squad also the targets of those who agreed to be named.

    `took`: who last did it how otherwise, for those who plan.
    """

    scores: list[ForeseenOut]
    targets: list[TargetOut]
    took: list[TookOut]
