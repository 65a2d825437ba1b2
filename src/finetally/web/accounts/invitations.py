"""Invitations: made by head coaches for one squad and one role, opened by whoever has the link, accepted once."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.contrib.auth import get_user_model
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from finetally.core.people.listing import short_name
from finetally.core.session.cleaning import one_line
from finetally.core.session.problems import DocumentError, Problem, refuse, shown
from finetally.web.accounts.models import Invitation, Notice, NoticeKind
from finetally.web.accounts.tokens import (
    HEAD_INVITED_FOR,
    INVITED_FOR,
    invitation_of,
    new_token,
    token_hash,
)
from finetally.web.squads.actor import Actor, Right, member
from finetally.web.squads.models import Act, Membership, Person, Role, Squad
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for

MOST_OPEN = 100
"""Invitations of a squad that are open at a time."""
LONGEST_ACCOUNT_NAME = 150


def list_invitations(actor: Actor, squad_id: int) -> list[Invitation]:
    """A squad's invitations: those that are open, and those that were used lately."""
    squad = squad_for(actor, squad_id, Right.HEAD)
    found = squad.invitations.filter(ended_at=None).select_related("person", "made_by", "used_by")
    now = timezone.now()
    return [one for one in found[: 2 * MOST_OPEN] if one.used_at is not None or one.opens_at(now)]


def invite(actor: Actor, squad_id: int, role: str, person_id: UUID | None) -> tuple[Invitation, str]:
    """A new invitation and its token, which is shown this once. Raises DocumentError."""
    with transaction.atomic():
        squad = squad_for(actor, squad_id, Right.HEAD)
        if role not in Role.values:
            raise refuse(("role",), shown(role), ", ".join(Role.values), "role")
        person = get_object_or_404(squad.people, public_id=person_id) if person_id is not None else None
        if person is not None and person.user_id is not None:
            raise refuse(("person",), person.name, f"{person.name} has an account already.", "cannot_has_account")
        now = timezone.now()
        if squad.invitations.filter(used_at=None, ended_at=None, expires_at__gt=now).count() >= MOST_OPEN:
            raise refuse(("role",), f"{MOST_OPEN} open invitations", "fewer: end one first", "too_many")
        token = new_token()
        good_for = HEAD_INVITED_FOR if role == Role.HEAD_COACH else INVITED_FOR
        made = Invitation.objects.create(
            squad=squad, role=role, person=person, token_hash=token_hash(token), made_by_id=actor.user_id,
            expires_at=now + good_for,
        )  # fmt: skip
        record(actor, squad.pk, Act.INVITED, Role(role).label if person is None else "", person)
    return made, token


def end_invitation(actor: Actor, invitation_id: int) -> None:
    """From now on the invitation opens nothing."""
    with transaction.atomic():
        one = get_object_or_404(Invitation, pk=invitation_id, squad_id__in=actor.squads())
        actor.require(one.squad_id, Right.HEAD)
        if one.used_at is None and one.ended_at is None:
            one.ended_at = timezone.now()
            one.save()
            record(actor, one.squad_id, Act.INVITATION_ENDED, Role(one.role).label)


def new_account(name: str, password: str) -> Any:
    """An account of that name. Raises DocumentError for a name that is taken, a password that is no good."""
    called = one_line(name)
    problems = []
    if not 0 < len(called) <= LONGEST_ACCOUNT_NAME:
        problems.append(Problem("name", shown(called), f"1 to {LONGEST_ACCOUNT_NAME} characters", "name"))
    elif get_user_model().objects.filter(username__iexact=called).exists():
        allowed = f"Somebody signs in as {called} already. If that is you, sign in first; else take another name."
        problems.append(Problem("name", shown(called), allowed, "cannot_taken"))
    problems += password_problems(password, called)
    if problems:
        raise DocumentError(problems)
    return get_user_model().objects.create_user(called, password=password)


def password_problems(password: str, name: str) -> list[Problem]:
    """What is wrong with a password for an account of that name; its words are Django's validators'."""
    try:
        validate_password(password, get_user_model()(username=name))
    except ValidationError as error:
        return [Problem("password", "this one", one, "cannot_password") for one in error.messages]
    return []


def accept_as_new(token: str, name: str, password: str) -> Any:
    """Make an account and join with it; gives the account. Raises Http404 for the token, DocumentError."""
    with transaction.atomic():
        invitation = invitation_of(token)
        user = new_account(name, password)
        _join(invitation, user)
    return user


def accept(user: Any, token: str) -> Invitation:
    """Join with the account that one has. Raises Http404 for the token, DocumentError for who is in already."""
    with transaction.atomic():
        invitation = invitation_of(token)
        _join(invitation, user)
    return invitation


def _member(user: Any, squad: Squad) -> DocumentError:
    name = user.get_username()
    return refuse(
        ("squad",), name, f"{name} is in {squad.name} already. The invitation stays good.", "cannot_member"
    )


def _join(invitation: Invitation, user: Any) -> None:
    squad = invitation.squad
    if squad.memberships.filter(user=user).exists():
        raise _member(user, squad)
    try:
        with transaction.atomic():
            Membership.objects.create(user=user, squad=squad, role=invitation.role)
    except IntegrityError:  # pragma: no cover - the lock is held since the question above
        raise _member(user, squad) from None
    person = invitation.person
    if person is not None and person.user_id is None:
        person.user = user
        person.save()
    elif person is None and invitation.role == Role.ATHLETE:
        taken = [one.on_the_wall for one in squad.people.all()]
        called = str(user.get_username())
        person = Person.objects.create(squad=squad, user=user, name=called, short_name=short_name(called, taken))
    invitation.used_at, invitation.used_by = timezone.now(), user
    invitation.save()
    record(member(user.pk), squad.pk, Act.JOINED, f"{user.get_username()}, {Role(invitation.role).label}", person)
    if invitation.made_by_id is not None:
        Notice.objects.create(
            user_id=invitation.made_by_id,
            kind=NoticeKind.ACCEPTED,
            about=f"{user.get_username()}, {Role(invitation.role).label} of {squad.name}"[:200],
        )
