"""Members of a squad, and the links that make new ones or set a password anew; for head coaches."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from ninja import Router, Schema, Status
from pydantic import Field

from finetally.web.accounts import invitations, mail, members, resets
from finetally.web.accounts.models import Invitation
from finetally.web.api.links import LinkTold, told_link
from finetally.web.api.request import ActorRequest
from finetally.web.problems import ProblemOut
from finetally.web.squads.models import Membership, Role

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 422: ProblemOut}


class MemberOut(Schema):
    """An account in the squad; `you`: the one that asks."""

    id: int
    account: str
    role: str
    you: bool


class RoleIn(Schema):
    """The role that a member is to have."""

    role: str = Field(max_length=20)


class InvitationIn(Schema):
    """A role, and if it is for somebody in the list, who; `email`: where the link is sent as well."""

    role: str = Field(max_length=20)
    person: UUID | None = None
    email: str | None = Field(None, max_length=200)


class InvitationOut(Schema):
    """An invitation: for what, from whom, until when; and by whom it was used."""

    id: int
    role: str
    person: str | None
    by: str | None
    made_at: datetime
    expires_at: datetime
    used_at: datetime | None
    used_by: str | None


@router.get("/squads/{squad_id}/members", response={200: list[MemberOut], **REFUSALS}, operation_id="members")
def look(request: ActorRequest, squad_id: int) -> list[MemberOut]:
    """The accounts in a squad, and their roles."""
    return [_member(request, one) for one in members.list_members(request.auth, squad_id)]


def _member(request: ActorRequest, one: Membership) -> MemberOut:
    return MemberOut(
        id=one.pk, account=one.user.get_username(), role=one.role, you=one.user_id == request.auth.user_id
    )


@router.patch("/members/{member_id}", response={200: MemberOut, **REFUSALS}, operation_id="change_role")
def change(request: ActorRequest, member_id: int, data: RoleIn) -> MemberOut:
    """Give a member another role. 422 for the last head coach."""
    return _member(request, members.change_role(request.auth, member_id, data.role))


@router.delete("/members/{member_id}", response={204: None, **REFUSALS}, operation_id="remove_member")
def remove(request: ActorRequest, member_id: int) -> Status[None]:
    """Take an account out of the squad; the person stays in its list. 422 for the last head coach."""
    members.remove_member(request.auth, member_id)
    return Status(204, None)


@router.post("/members/{member_id}/reset", response={201: LinkTold, **REFUSALS}, operation_id="make_reset")
def reset(request: ActorRequest, member_id: int) -> Status[LinkTold]:
    """A link with which a member sets a new password, good for a day. 422 for an account of several squads."""
    made, token = resets.make_reset(request.auth, member_id)
    return Status(201, told_link(request, "/reset", token, made.expires_at))


def _out(one: Invitation) -> InvitationOut:
    return InvitationOut(
        id=one.pk,
        role=one.role,
        person=one.person.name if one.person is not None else None,
        by=one.made_by.get_username() if one.made_by is not None else None,
        made_at=one.made_at,
        expires_at=one.expires_at,
        used_at=one.used_at,
        used_by=one.used_by.get_username() if one.used_by is not None else None,
    )


@router.get(
    "/squads/{squad_id}/invitations", response={200: list[InvitationOut], **REFUSALS}, operation_id="invitations"
)
def look_at_invitations(request: ActorRequest, squad_id: int) -> list[InvitationOut]:
    """Invitations that are open, without their links, and those that were used."""
    return [_out(one) for one in invitations.list_invitations(request.auth, squad_id)]


@router.post("/squads/{squad_id}/invitations", response={201: LinkTold, **REFUSALS}, operation_id="invite")
def invite(request: ActorRequest, squad_id: int, data: InvitationIn) -> Status[LinkTold]:
    """Invite somebody: the link is in this answer and never again. Good for 7 days, for a head coach for one."""
    address = mail.address_of(data.email) if data.email else None
    made, token = invitations.invite(request.auth, squad_id, data.role, data.person)
    told = told_link(request, "/join", token, made.expires_at)
    if address is not None:
        as_what = f"{made.squad.name} as {Role(made.role).label}"
        text = (
            f"You are invited to {as_what}.\n\n{told.address}\n\n"
            f"The link is good until {made.expires_at:%d %B %Y, %H:%M} UTC, and once."
        )
        told.sent = mail.send(address, f"Invitation to {made.squad.name}", text)
    return Status(201, told)


@router.delete("/invitations/{invitation_id}", response={204: None, **REFUSALS}, operation_id="end_invitation")
def end(request: ActorRequest, invitation_id: int) -> Status[None]:
    """From now on the invitation opens nothing."""
    invitations.end_invitation(request.auth, invitation_id)
    return Status(204, None)
