"""Members of a squad: roles, taking out, leaving. A squad never loses its last head coach."""

from __future__ import annotations

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.core.session.problems import DocumentError, refuse, shown
from finetally.web.accounts.keys import end_keys
from finetally.web.squads.actor import RIGHT_OF, Actor, Right
from finetally.web.squads.models import Act, Membership, Role, Squad
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for


def list_members(actor: Actor, squad_id: int) -> list[Membership]:
    """The members of a squad with their accounts; for head coaches."""
    squad = squad_for(actor, squad_id, Right.HEAD)
    return list(squad.memberships.select_related("user").order_by("user__username"))


def the_membership(actor: Actor, membership_id: int) -> Membership:
    """A membership in a squad where the actor is head coach. Raises Http404."""
    found = Membership.objects.filter(squad_id__in=actor.squads()).select_related("user", "squad")
    membership = get_object_or_404(found, pk=membership_id)
    actor.require(membership.squad_id, Right.HEAD)
    return membership


def last_head(squad: Squad, user_id: int) -> bool:
    """Whether somebody is the only head coach of a squad whose account is open."""
    heads = squad.memberships.filter(role=Role.HEAD_COACH, user__is_active=True)
    mine = heads.filter(user_id=user_id).exists()
    return mine and not heads.exclude(user_id=user_id).exists()


def keep_a_head(squad: Squad, user_id: int) -> None:
    """Raise DocumentError where a squad would be without a head coach."""
    if last_head(squad, user_id):
        raise last_head_refusal(squad)


def last_head_refusal(squad: Squad) -> DocumentError:
    """That somebody is the last head coach, in fields."""
    says = f"{squad.name} would be without a head coach. Make somebody else head coach first."
    return refuse(("role",), "the last head coach", says, "cannot_last_head")


def change_role(actor: Actor, membership_id: int, role: str) -> Membership:
    """Give a member another role. Raises DocumentError."""
    with transaction.atomic():
        one = the_membership(actor, membership_id)
        if role not in Role.values:
            raise refuse(("role",), shown(role), ", ".join(Role.values), "role")
        if role != Role.HEAD_COACH:
            keep_a_head(one.squad, one.user_id)
        one.role = role
        one.save()
        end_keys(one.squad, one.user_id, RIGHT_OF[role])
        record(actor, one.squad_id, Act.ROLE_CHANGED, f"{one.user.get_username()}: {Role(role).label}")
    return one


def remove_member(actor: Actor, membership_id: int) -> None:
    """Take an account out of a squad; the person stays in the list, without an account. Raises DocumentError."""
    with transaction.atomic():
        one = the_membership(actor, membership_id)
        keep_a_head(one.squad, one.user_id)
        record(actor, one.squad_id, Act.MEMBER_REMOVED, one.user.get_username())
        _out(one)


def leave_squad(actor: Actor, squad_id: int) -> None:
    """Leave a squad oneself. Raises DocumentError."""
    with transaction.atomic():
        squad = squad_for(actor, squad_id, Right.LOOK)
        one = get_object_or_404(Membership.objects.select_related("user"), squad=squad, user_id=actor.user_id)
        keep_a_head(squad, one.user_id)
        record(actor, squad.pk, Act.LEFT)
        _out(one)


def _out(one: Membership) -> None:
    end_keys(one.squad, one.user_id, None)
    one.squad.people.filter(user_id=one.user_id).update(user=None)
    one.delete()
