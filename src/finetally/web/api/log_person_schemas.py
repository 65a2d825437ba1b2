"""The log of one person as it is sent."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from ninja import Schema

from finetally.core.learn.learned import LearnedWhy
from finetally.core.learn.off import OffCourse
from finetally.core.log.movements import DoneDensity
from finetally.web.api.log_schemas import LogNoteOut, PaceOut, ScoreTold


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
    """A week as done: minutes, load, sets, reps by how they are known, kilograms, landings by grade, density.

    `rows`: sets by row of the stave.
    """

    begins: date
    minutes: float
    load: float
    sessions: int
    sets: int
    reps: dict[str, int]
    kg: float
    landings: dict[str, int]
    rows: dict[str, int]
    density: DoneDensity | None


class MovementDoneOut(Schema):
    """A movement over the year: the last day it was done, in how many sessions, sets, reps, kilograms."""

    key: str
    last: date
    days_ago: int
    sessions: int
    sets: int
    reps: dict[str, int]
    kg: float
    landings: int


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


class FreshDayOut(Schema):
    """How fresh they said they were on a day, 1 to 5."""

    day: date
    value: int


class PersonLogOut(Schema):
    """The log of one person; `fresh`: of the last four weeks."""

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
    fresh: list[FreshDayOut]
    plans: bool
