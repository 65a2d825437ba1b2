"""Levelling a week over the API: proposals, what parts of them come to, taking and undoing."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.week.balance import WeekRow
from finetally.core.week.clash import Clash
from finetally.core.week.load import WeekLoad
from finetally.web.api.days import PlanDay
from finetally.web.api.figures import json_answer
from finetally.web.api.jobs import JobOut, job_out
from finetally.web.api.plan import REFUSALS, ChangeOut, change_out
from finetally.web.api.request import ActorRequest
from finetally.web.jobs.use_cases import answered
from finetally.web.plan import levelling
from finetally.web.plan.leveller import outcome_fields

router = Router()


class LevelEditOut(Schema):
    """One edit of a proposal: another version of an entry, or another day (from 0); the state it was made on."""

    slot: str
    kind: str
    what: str
    version: int | None
    day: int | None
    made_on: str


class LevelIn(Schema):
    """The week to level, and rules set otherwise for this answer. `gone`: days gone by may be changed, too."""

    day: PlanDay
    squad: int | None = None
    most_a_day: int | None = Field(None, ge=1, le=10)
    no_two_hard: bool | None = None
    landings_cap: float | None = Field(None, ge=0, le=100_000)
    gone: bool = False


class TakeIn(Schema):
    """Which edits of a proposal are looked at or taken, by their numbers from 0."""

    edits: list[int] = Field(max_length=60)


class BreakOut(Schema):
    """A rule that does not hold: which, on what days (0 to 6; -1 and 7 are beside the week), by which entries.

    `names`: patterns and joints; `given`: what cannot be changed breaks it alone.
    """

    rule: str
    days: list[int]
    slots: list[str]
    names: list[str]
    given: bool


class OutcomeOut(Schema):
    """What a week comes to with some edits taken, its rows, and the rules that it then breaks."""

    load: WeekLoad
    rows: list[WeekRow]
    clashes: list[Clash]
    breaks: list[BreakOut]


class ProposalOut(Schema):
    """The edits proposed, aims met and unmet, hard rules that cannot hold together; the week before and after.

    `found`: False where no week that keeps the rules was found. `end`: whether nothing better can be (proven), the
    time was over (time), or somebody was content (stopped).
    """

    edits: list[LevelEditOut]
    titles: dict[str, str]
    met: list[str]
    unmet: list[str]
    clashing_rules: list[str]
    found: bool
    end: Literal["proven", "time", "stopped"]
    weights: dict[str, int]
    before: OutcomeOut
    after: OutcomeOut | None


@router.post("/level", response={202: JobOut, **REFUSALS}, operation_id="level_week")
def level_week(request: ActorRequest, data: LevelIn) -> Status[JobOut]:
    """Begin to look for ways to level a week; the rules may be set for this once. The answer is a job (202)."""
    names = ("most_a_day", "no_two_hard", "landings_cap")
    changes = {name: value for name in names if (value := getattr(data, name)) is not None}
    job = levelling.ask_to_level(request.auth, data.squad, data.day, changes, gone=data.gone, today=None)
    return Status(202, job_out(job))


@router.get("/level/{job_id}", response={200: ProposalOut, **REFUSALS}, operation_id="proposal")
def proposal(request: ActorRequest, job_id: UUID) -> HttpResponse:
    """The edits that were found for the week and what it then comes to: the best so far while the job is at
    work.
    """
    return json_answer(answered(request.auth, job_id, "level").answer or {})


@router.post("/level/{job_id}/preview", response={200: OutcomeOut, **REFUSALS}, operation_id="preview_level")
def preview_level(request: ActorRequest, job_id: UUID, data: TakeIn) -> HttpResponse:
    """What the week comes to with only the named edits of a proposal taken; nothing is changed."""
    return json_answer(outcome_fields(levelling.preview(request.auth, job_id, data.edits)))


@router.post("/level/{job_id}/take", response={201: ChangeOut, **REFUSALS}, operation_id="take_level")
def take_level(request: ActorRequest, job_id: UUID, data: TakeIn) -> Status[ChangeOut]:
    """Make the named edits of a proposal. 409 where an entry is another by now; then nothing is changed."""
    return Status(201, change_out(levelling.take(request.auth, job_id, data.edits)))


@router.post("/changes/{change_id}/undo/{item}", response={200: ChangeOut, **REFUSALS}, operation_id="undo_change")
def undo_change(request: ActorRequest, change_id: int, item: int) -> ChangeOut:
    """Undo one edit of a change that was taken. 409 where the entry is another by now."""
    return change_out(levelling.undo(request.auth, change_id, item))
