"""Whoever acts: a member of squads, or a link that was handed out. Every use case takes one."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import IntEnum
from typing import Literal

from django.core.exceptions import PermissionDenied
from django.db.models import Count, Max

from finetally.web.squads.models import Membership, Role, Squad


class Right(IntEnum):
    """What an act needs; each right includes those below it."""

    LOOK = 1
    PLAN = 2
    HEAD = 3


RIGHT_OF: Mapping[str, Right] = {
    Role.ATHLETE: Right.LOOK,
    Role.COACH: Right.PLAN,
    Role.HEAD_COACH: Right.HEAD,
}


@dataclass(frozen=True, slots=True)
class Actor:
    """A signed-in member (with `user_id`) or the holder of a link; `rights` by squad id.

    `known`: its squads as they were when it came in, to look with; who writes reads anew under the lock.
    """

    kind: Literal["member", "link"]
    rights: Mapping[int, Right]
    user_id: int | None = None
    known: Mapping[int, Squad] = field(default_factory=dict, compare=False)

    def squads(self, right: Right = Right.LOOK) -> list[int]:
        """Ids of the squads in which the actor has a right."""
        return sorted(squad for squad, held in self.rights.items() if held >= right)

    def may(self, squad_id: int, right: Right) -> bool:
        """Whether the actor has a right in a squad."""
        return self.rights.get(squad_id, 0) >= right

    def require(self, squad_id: int, right: Right) -> None:
        """Raise PermissionDenied unless the actor has a right in a squad that is known to it."""
        if self.rights.get(squad_id, 0) < right:
            raise PermissionDenied


def member(user_id: int) -> Actor:
    """The actor that a signed-in user is."""
    own = Membership.objects.filter(user_id=user_id).select_related("squad")
    own = own.annotate(movements=Count("squad__movements"), newest=Max("squad__movements__updated_at"))
    for one in own:
        one.squad.movements_state = (one.movements, str(one.newest))
    rights = {one.squad_id: RIGHT_OF[one.role] for one in own}
    return Actor("member", rights, user_id, {one.squad_id: one.squad for one in own})
