"""Who comes to an entry of the plan, and the teams of a day, over the API."""

from __future__ import annotations

from uuid import UUID

from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.people.teams import SplitBy
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.plan import entries, teams

router = Router()


class AttendanceOut(Schema):
    """Somebody whom an entry is for: whether they came, and their own minutes and effort if they were noted.

    `away`: they are known to be away on its day; `team`: the team they are in on that day, from 1.
    """

    person: UUID
    name: str
    away: bool
    team: int | None
    came: bool
    minutes: float | None
    effort: float | None
    version: str


class AttendanceIn(Schema):
    """Whether somebody came, and what they did; the version of it that was seen."""

    person: UUID
    version: str = Field(max_length=64)
    came: bool = True
    minutes: float | None = None
    effort: float | None = None


@router.get(
    "/entries/{entry_id}/attendance", response={200: list[AttendanceOut], **REFUSALS}, operation_id="attendance"
)
def attendance(request: ActorRequest, entry_id: UUID) -> list[AttendanceOut]:
    """Everybody whom an entry is for, whether they came, and their own minutes and effort (0 to 10)."""
    expected = entries.attendance_of(request.auth, entry_id)
    split_into = teams.teams_of(entry_id)
    return [
        AttendanceOut(
            person=one.person.public_id,
            name=one.person.name,
            away=one.away,
            team=split_into.get(one.person.pk),
            came=one.comes,
            minutes=one.own.minutes if one.own is not None else None,
            effort=one.own.effort if one.own is not None else None,
            version=entries.attendance_version(one.own),
        )
        for one in expected
    ]


@router.put("/entries/{entry_id}/attendance", response={204: None, **REFUSALS}, operation_id="attend")
def attend(request: ActorRequest, entry_id: UUID, data: AttendanceIn) -> Status[None]:
    """Note whether somebody came, and what they did of it. 409 where that was noted anew meanwhile."""
    entries.attend(
        request.auth, entry_id, data.person, data.version, came=data.came, minutes=data.minutes, effort=data.effort
    )
    return Status(204, None)


class TeamsIn(Schema):
    """How many teams, and how they are made even: by pace, or by lot. `count` 0 takes the split back."""

    count: int
    by: SplitBy = "pace"


@router.put("/entries/{entry_id}/teams", response={204: None, **REFUSALS}, operation_id="split")
def split(request: ActorRequest, entry_id: UUID, data: TeamsIn) -> Status[None]:
    """Split those who are expected at an entry into even teams, for that day alone; the attendance tells them."""
    teams.split(request.auth, entry_id, data.count, data.by)
    return Status(204, None)
