"""Passwords set anew by a link: made by a head coach of the account's only squad, or by the machine's keeper."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.http import Http404
from django.utils import timezone

from finetally.core.session.problems import DocumentError, refuse
from finetally.web.accounts.invitations import password_problems
from finetally.web.accounts.members import the_membership
from finetally.web.accounts.models import Device, Notice, NoticeKind, Reset, SecondFactor
from finetally.web.accounts.tokens import RESET_FOR, new_token, reset_of, token_hash
from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Act, Membership
from finetally.web.squads.record import record

KEEPER = "whoever keeps the machine"


def make_reset(actor: Actor, membership_id: int) -> tuple[Reset, str]:
    """A link with which a member sets a new password, and its token, which is shown this once.

    Raises DocumentError for an account that is in another squad, too: it is not this squad's alone to give away.
    """
    with transaction.atomic():
        one = the_membership(actor, membership_id)
        if Membership.objects.filter(user_id=one.user_id).exclude(pk=one.pk).exists():
            name = one.user.get_username()
            says = f"{name} is in another squad, too: only they, or whoever keeps the machine, set that password."
            raise refuse(("account",), name, says, "cannot_other_squad")
        made = _made(one.user_id, actor.user_id, one.squad_id)
        record(actor, one.squad_id, Act.RESET_MADE, one.user.get_username())
    return made


def reset_by_keeper(user: Any) -> str:
    """The token of a link for any account, made by the keeper of the machine; it ends the second factor, too."""
    with transaction.atomic():
        # Only the keeper can let in somebody who lost their phone and the spare codes.
        SecondFactor.objects.filter(user=user).delete()
        return _made(user.pk, None, None)[1]


def _made(user_id: int, made_by: int | None, squad_id: int | None) -> tuple[Reset, str]:
    now = timezone.now()
    Reset.objects.filter(user_id=user_id, used_at=None, ended_at=None).update(ended_at=now)
    token = new_token()
    made = Reset.objects.create(
        user_id=user_id,
        squad_id=squad_id,
        made_by_id=made_by,
        token_hash=token_hash(token),
        expires_at=now + RESET_FOR,
    )
    return made, token


def open_reset(token: str) -> Reset:
    """What a token opens. Http404 also where the account has joined another squad since a head coach made it."""
    found = reset_of(token)
    if found.squad_id is not None:
        squads = set(Membership.objects.filter(user_id=found.user_id).values_list("squad_id", flat=True))
        if squads != {found.squad_id}:
            raise Http404
    return found


def set_anew(token: str, password: str) -> Any:
    """Set the password, sign the account out everywhere, and have it told at the next sign-in; gives the account.

    Raises Http404 for the token, DocumentError for a password that is no good.
    """
    with transaction.atomic():
        found = open_reset(token)
        user = found.user
        problems = password_problems(password, user.get_username())
        if problems:
            raise DocumentError(problems)
        user.set_password(password)
        user.save()
        Device.objects.filter(user=user).delete()
        found.used_at = timezone.now()
        found.save()
        by = found.made_by.get_username() if found.made_by is not None else KEEPER
        Notice.objects.create(user=user, kind=NoticeKind.RESET, about=by)
    return user
