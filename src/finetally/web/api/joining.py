"""What links open without an account: an invitation, a new password. Wrong tokens are counted by address."""

from __future__ import annotations

from datetime import datetime

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field

from finetally.web.accounts import invitations, resets
from finetally.web.accounts.guessing import password_turn
from finetally.web.accounts.models import Invitation
from finetally.web.accounts.tokens import invitation_of
from finetally.web.api.account import enter
from finetally.web.api.links import opened
from finetally.web.problems import ProblemOut
from finetally.web.squads.models import Role

router = Router()
REFUSALS = {403: ProblemOut, 404: ProblemOut, 422: ProblemOut, 429: ProblemOut, 503: ProblemOut}


class TokenIn(Schema):
    """What stands behind the `#` of a link."""

    token: str = Field(max_length=100)


class JoinIn(TokenIn):
    """For somebody who has no account yet: the name and password that it is to have."""

    name: str | None = Field(None, max_length=150)
    password: str | None = Field(None, max_length=500)
    shared: bool = False


class ResetIn(TokenIn):
    """The password that is to hold."""

    password: str = Field(max_length=500)


class InvitationSeen(Schema):
    """What an invitation is for, and from whom; `as_account`: the account that would join, if one is signed in."""

    squad: str
    role: str
    by: str | None
    person: str | None
    expires_at: datetime
    as_account: str | None


class ResetSeen(Schema):
    """Whose password a link sets."""

    account: str
    expires_at: datetime


class JoinedOut(Schema):
    """The squad that was joined."""

    squad: int


class ResetDone(Schema):
    """Whose password was set."""

    account: str


def _seen(request: HttpRequest, one: Invitation) -> InvitationSeen:
    return InvitationSeen(
        squad=one.squad.name,
        role=Role(one.role).label,
        by=one.made_by.get_username() if one.made_by is not None else None,
        person=one.person.name if one.person is not None else None,
        expires_at=one.expires_at,
        as_account=request.user.get_username() if request.user.is_authenticated else None,
    )


@router.post(
    "/invitations/look", auth=None, response={200: InvitationSeen, **REFUSALS}, operation_id="see_invitation"
)
def see_invitation(request: HttpRequest, data: TokenIn) -> InvitationSeen | HttpResponse:
    """What an invitation is for; looking uses nothing up. 404 where it opens nothing (more)."""
    return opened(request, lambda: _seen(request, invitation_of(data.token)))


@router.post(
    "/invitations/accept", auth=None, response={200: JoinedOut, **REFUSALS}, operation_id="accept_invitation"
)
def accept(request: HttpRequest, response: HttpResponse, data: JoinIn) -> JoinedOut | HttpResponse:
    """Accept an invitation: with the account that is signed in, or with a new one of that name and password.

    Once. 404 where it opens nothing (more), 422 for a name that is taken, a password that is no good, a member.
    """
    if request.user.is_authenticated:
        return opened(request, lambda: JoinedOut(squad=invitations.accept(request.user, data.token).squad_id))

    def joined() -> JoinedOut:
        with password_turn(request):
            user = invitations.accept_as_new(data.token, data.name or "", data.password or "")
        enter(request, response, user, shared=data.shared)
        return JoinedOut(squad=user.memberships.get().squad_id)

    return opened(request, joined)


@router.post("/resets/look", auth=None, response={200: ResetSeen, **REFUSALS}, operation_id="see_reset")
def see_reset(request: HttpRequest, data: TokenIn) -> ResetSeen | HttpResponse:
    """Whose password a link sets; looking uses nothing up. 404 where it opens nothing (more)."""

    def looked() -> ResetSeen:
        found = resets.open_reset(data.token)
        return ResetSeen(account=found.user.get_username(), expires_at=found.expires_at)

    return opened(request, looked)


@router.post("/resets/use", auth=None, response={200: ResetDone, **REFUSALS}, operation_id="use_reset")
def use_reset(request: HttpRequest, data: ResetIn) -> ResetDone | HttpResponse:
    """Set the password that the link is for, and sign the account out everywhere. Once. 404, 422 as above."""

    def done() -> ResetDone:
        with password_turn(request):
            return ResetDone(account=resets.set_anew(data.token, data.password).get_username())

    return opened(request, done)
