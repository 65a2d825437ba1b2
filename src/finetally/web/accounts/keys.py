"""What somebody could still open or hand out when their right to it is gone: it ends with the right."""

from __future__ import annotations

from django.utils import timezone

from finetally.web.accounts.models import Reset
from finetally.web.checkin.models import CheckInLink
from finetally.web.plan.models import Link
from finetally.web.squads.actor import RIGHT_OF, Right
from finetally.web.squads.models import Membership, Squad


def end_keys(squad: Squad, user_id: int, left: Right | None) -> None:
    """End the keys that a member of a squad loses; call it in the transaction that takes the right.

    `left`: the right that they still have there; None for somebody who is out. Of keys that they made for others,
    invitations and links for passwords end with the right of a head coach, calendar links with the right to plan.
    Who is out loses their own check-in and calendar links, too.
    """
    now = timezone.now()
    if left is None or left < Right.HEAD:
        squad.invitations.filter(made_by_id=user_id, used_at=None, ended_at=None).update(ended_at=now)
        Reset.objects.filter(squad=squad, made_by_id=user_id, used_at=None, ended_at=None).update(ended_at=now)
    if left is None or left < Right.PLAN:
        Link.objects.filter(squad=squad, made_by_id=user_id, revoked_at=None).update(revoked_at=now)
    if left is None:
        own = squad.people.filter(user_id=user_id)
        Link.objects.filter(person__in=own, revoked_at=None).update(revoked_at=now)
        CheckInLink.objects.filter(person__in=own, ended_at=None).update(ended_at=now)


def still_may(user_id: int | None, squad_id: int, right: Right) -> bool:
    """Whether the maker of a key may still make it. None: made on the machine's command line, which may always."""
    if user_id is None:
        return True
    role = (
        Membership.objects.filter(squad=squad_id, user=user_id, user__is_active=True)
        .values_list("role", flat=True)
        .first()
    )
    return role is not None and RIGHT_OF[role] >= right
