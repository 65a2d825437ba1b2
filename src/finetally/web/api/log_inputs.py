"""What the log's routes take."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from finetally.core.floor.events import NoteKind
from finetally.core.session.limits import MAX_WATCH_BYTES
from finetally.web.api.log_schemas import ScoreTold
from finetally.web.api.openapi import DocumentBody


class WatchIn(Schema):
    """A recording of somebody's watch as text: a table time_s,hr or TCX; the pulse at most and at rest."""

    person: UUID
    kind: Literal["csv", "tcx"]
    text: str = Field(max_length=MAX_WATCH_BYTES)
    max_hr: float = 190
    rest_hr: float = 60


class LogIn(Schema):
    """How an entry is logged; what is not said is taken from its run, else from the plan.

    `away`: who was not there; all others were. None: as it is noted. `left_out`: blocks by number that were not
    done, where it was not run; None: as it is logged.
    """

    minutes: float | None = None
    effort: float | None = None
    away: list[UUID] | None = Field(None, max_length=500)
    left_out: list[int] | None = Field(None, max_length=200)


class SettleIn(Schema):
    """Entries to log in one step, as they were run or planned; `away`: who was at none of them."""

    entries: list[UUID] = Field(max_length=60)
    away: list[UUID] = Field([], max_length=500)


class ResultIn(Schema):
    """A score of somebody (no person: the session's own); without a score what this account told is taken back."""

    person: UUID | None = None
    block: int = Field(ge=0, le=10_000)
    section_pass: int = Field(0, ge=0, le=10_000)
    index: int = Field(0, ge=0, le=10_000)
    score: ScoreTold | None = None
    unfinished: str = Field("", max_length=80)
    options: dict[str, str] = Field({}, max_length=200)
    sets: list[dict[Literal["kg", "reps"], float]] = Field([], max_length=60)


class ResultsIn(Schema):
    """Scores to write down together."""

    results: list[ResultIn] = Field(max_length=400)


class RatingIn(Schema):
    """How hard it was, 0 to 10 (None takes it back), for a person, or for the group together (no person)."""

    person: UUID | None = None
    effort: float | None = None
    way: Literal["tablet", "table"] = "table"


class NoteIn(Schema):
    """A note of a person, or of the session; of health with place, side and how much it hurts (0 to 10)."""

    person: UUID | None = None
    kind: NoteKind = "free"
    text: str = Field("", max_length=2000)
    place: str = Field("", max_length=40)
    side: Literal["", "left", "right", "both"] = ""
    level: int | None = None


class ForeseenIn(Schema):
    """A document, of which squad (default: one's first); of whom: a person, else the squad's span."""

    document: DocumentBody
    squad: int | None = None
    person: UUID | None = None


class UsePaceIn(Schema):
    """Whether what is learned is used: yes, no, or nothing for as the squad has it."""

    use: Literal["", "yes", "no"]


class LearningIn(Schema):
    """Whether estimates learn as scores come, or it is asked."""

    learning: Literal["auto", "ask"]
    squad: int | None = None
