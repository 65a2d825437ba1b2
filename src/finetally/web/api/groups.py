"""Groups of a squad over the API."""

from __future__ import annotations

from uuid import UUID

from ninja import Router, Schema, Status
from pydantic import Field

from finetally.web.api.request import ActorRequest
from finetally.web.people import groups
from finetally.web.people.models import Group
from finetally.web.problems import ProblemOut

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 422: ProblemOut}


class GroupOut(Schema):
    """A group: its name, the sign that marks it."""

    id: int
    name: str
    mark: str


class CountedGroup(GroupOut):
    """A group, and how many are in it."""

    count: int


class NewGroupIn(Schema):
    """A name, a mark (None: one that no other has), and who is in it from today on."""

    name: str = Field(max_length=80)
    mark: str | None = Field(None, max_length=10)
    people: list[UUID] = Field([], max_length=500)
    squad: int | None = None


class GroupIn(Schema):
    """Another name, another mark; what is not sent stays."""

    name: str | None = Field(None, max_length=80)
    mark: str | None = Field(None, max_length=10)


def group_out(one: Group) -> GroupOut:
    """A group as it is shown."""
    return GroupOut(id=one.pk, name=one.name, mark=one.mark)


@router.get("", response={200: list[CountedGroup], **REFUSALS}, operation_id="groups")
def look(request: ActorRequest, squad: int | None = None) -> list[CountedGroup]:
    """The groups of a squad, by name, each with how many are in it."""
    return [
        CountedGroup(id=one.pk, name=one.name, mark=one.mark, count=one.count)  # type: ignore[attr-defined]
        for one in groups.list_groups(request.auth, squad)
    ]


@router.post("", response={201: GroupOut, **REFUSALS}, operation_id="add_group")
def add(request: ActorRequest, data: NewGroupIn) -> Status[GroupOut]:
    """Make a group of people. 422 where there is one of that name."""
    return Status(201, group_out(groups.add_group(request.auth, data.squad, data.name, data.mark, data.people)))


@router.patch("/{group_id}", response={200: GroupOut, **REFUSALS}, operation_id="change_group")
def change(request: ActorRequest, group_id: int, data: GroupIn) -> GroupOut:
    """Call a group otherwise, or mark it otherwise."""
    return group_out(groups.change_group(request.auth, group_id, data.name, data.mark))


@router.delete("/{group_id}", response={204: None, **REFUSALS}, operation_id="end_group")
def end(request: ActorRequest, group_id: int) -> Status[None]:
    """Have a group chosen no more; what was planned for it stays. 422 where something is still to come."""
    groups.end_group(request.auth, group_id)
    return Status(204, None)
