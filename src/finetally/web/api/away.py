"""The squad's times away over the API."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from ninja import Router, Schema, Status

from finetally.web.api.days import PlanDay
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.plan import away as times

router = Router()


class AwayOut(Schema):
    """Days on which the squad is away, both ends included. `known`: it is rest; else nothing is known of it."""

    id: int
    first: date
    last: date
    known: bool


class AwayIn(Schema):
    """As AwayOut; of the squad, or of one person."""

    first: PlanDay
    last: PlanDay
    known: bool = True
    squad: int | None = None
    person: UUID | None = None


@router.get("/away", response={200: list[AwayOut], **REFUSALS}, operation_id="times_away")
def look(request: ActorRequest, squad: int | None = None) -> list[AwayOut]:
    """The stretches of days that a squad is away, past ones too."""
    return [
        AwayOut(id=one.pk, first=one.first, last=one.last, known=one.known)
        for one in times.times_away(request.auth, squad)
    ]


@router.post("/away", response={204: None, **REFUSALS}, operation_id="add_away")
def add(request: ActorRequest, data: AwayIn) -> Status[None]:
    """Note that the squad, or somebody of it, is away from `first` to `last`. `known`: that is rest; else nothing
    is known of it.
    """
    times.add_away(request.auth, data.squad, data.first, data.last, known=data.known, person=data.person)
    return Status(204, None)


@router.delete("/away/{away_id}", response={204: None, **REFUSALS}, operation_id="drop_away")
def drop(request: ActorRequest, away_id: int) -> Status[None]:
    """Remove a stretch of days away."""
    times.drop_away(request.auth, away_id)
    return Status(204, None)
