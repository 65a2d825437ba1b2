"""Levelling a week over the API: proposals, what parts of them come to, taking and undoing."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.week.alternatives import COST
from finetally.core.week.clash import Clash
from finetally.core.week.load import WeekLoad
from finetally.core.week.proposal import MOVE_COST, LevelEdit
from finetally.core.week.solver import RULES
from finetally.web.api.days import PlanDay
from finetally.web.api.plan import REFUSALS, ChangeOut, change_out
from finetally.web.plan import levelling
from finetally.web.plan.running import watch_of
from finetally.web.problems import ProblemOut

router = Router()


class LevelEditIO(Schema):
    """One edit of a proposal: another version of an entry, or another day (from 0); what it was made on."""

    slot: str = Field(max_length=64)
    kind: str = Field(max_length=10)
    what: str = Field(max_length=1000)
    version: int | None = None
    day: int | None = None
    made_on: str = Field(max_length=64)

    def asked(self) -> levelling.Asked:
        """As levelling takes it."""
        return LevelEdit(self.slot, self.kind, self.what, self.version, self.day), self.made_on


class LevelIn(Schema):
    """The week to level, and rules set otherwise for this answer. `keep_gone`: days gone by stay as they are."""

    day: PlanDay
    squad: int | None = None
    most_a_day: int | None = Field(None, ge=1, le=10)
    no_two_hard: bool | None = None
    landings_cap: float | None = Field(None, ge=0, le=100_000)
    keep_gone: bool = False
    ticket: str = Field("", max_length=64)


class TakeIn(Schema):
    """The week, and the edits of a proposal that are looked at or taken."""

    day: PlanDay
    squad: int | None = None
    edits: list[LevelEditIO] = Field(max_length=60)


class OutcomeOut(Schema):
    """What a week comes to with some edits taken."""

    load: WeekLoad
    clashes: list[Clash]


class ProposalOut(Schema):
    """The edits proposed, aims that stay unmet, hard rules that cannot hold together; the week before and after."""

    edits: list[LevelEditIO]
    titles: dict[str, str]
    unmet: list[str]
    clashing_rules: list[str]
    proven: bool
    weights: dict[str, int]
    before: OutcomeOut
    after: OutcomeOut | None


def _outcome(one: levelling.Outcome) -> OutcomeOut:
    return OutcomeOut(load=one.load, clashes=list(one.clashes))


@router.post("/level", response={200: ProposalOut, **REFUSALS}, operation_id="level_week")
def level_week(request: HttpRequest, data: LevelIn) -> ProposalOut:
    """Propose how to level a week."""
    names = ("most_a_day", "no_two_hard", "landings_cap")
    changes = {name: value for name in names if (value := getattr(data, name)) is not None}
    made = levelling.propose(
        request.auth, data.squad, data.day, changes, keep_gone=data.keep_gone, ticket=data.ticket
    )
    return ProposalOut(
        edits=[
            LevelEditIO(
                slot=e.slot, kind=e.kind, what=e.what, version=e.version, day=e.day, made_on=made.states[e.slot]
            )
            for e in made.levelled.edits
        ],
        titles=made.titles,
        unmet=list(made.levelled.unmet),
        clashing_rules=[RULES[name] for name in made.levelled.clashing_rules],
        proven=made.levelled.proven,
        weights={**{kind: cost for kind, cost in COST.items() if cost}, "a day's move": MOVE_COST},
        before=_outcome(made.before),
        after=_outcome(made.after) if made.after is not None else None,
    )


class ProgressOut(Schema):
    """How far levelling has come: answers found so far, aims and edits of the best. Not running: it is over."""

    running: bool
    found: int = 0
    unmet: int | None = None
    edits: int | None = None


@router.get("/level/runs/{ticket}", response={200: ProgressOut, 401: ProblemOut}, operation_id="level_progress")
def level_progress(request: HttpRequest, ticket: str) -> ProgressOut:
    """How far one's own levelling has come."""
    watch = watch_of(request.auth.user_id, ticket)
    if watch is None:
        return ProgressOut(running=False)
    return ProgressOut(running=True, found=watch.found, unmet=watch.unmet, edits=watch.edits)


@router.delete("/level/runs/{ticket}", response={204: None, 401: ProblemOut}, operation_id="stop_level")
def stop_level(request: HttpRequest, ticket: str) -> Status[None]:
    """Be content with the best so far; the answer to the asking comes at once."""
    watch = watch_of(request.auth.user_id, ticket)
    if watch is not None:
        watch.stop()
    return Status(204, None)


@router.post("/level/preview", response={200: OutcomeOut, **REFUSALS}, operation_id="preview_level")
def preview_level(request: HttpRequest, data: TakeIn) -> OutcomeOut:
    """What the week comes to with only some edits taken."""
    edits = [one.asked() for one in data.edits]
    return _outcome(levelling.preview(request.auth, data.squad, data.day, edits))


@router.post("/level/take", response={201: ChangeOut, **REFUSALS}, operation_id="take_level")
def take_level(request: HttpRequest, data: TakeIn) -> Status[ChangeOut]:
    """Make edits of a proposal."""
    edits = [one.asked() for one in data.edits]
    return Status(201, change_out(levelling.take(request.auth, data.squad, data.day, edits)))


@router.post("/changes/{change_id}/undo/{item}", response={200: ChangeOut, **REFUSALS}, operation_id="undo_change")
def undochange_out(request: HttpRequest, change_id: int, item: int) -> ChangeOut:
    """Undo one edit of a change."""
    return change_out(levelling.undo(request.auth, change_id, item))
