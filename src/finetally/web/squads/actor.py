"""Whoever acts: a member of squads, or a link that was handed out. Every use case takes one."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from enum import IntEnum
from typing import Any, Literal

from django.contrib.auth.backends import ModelBackend
from django.core.exceptions import PermissionDenied

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
    `person_id`: the key of the person whose own link it is; they see and write what is theirs.
    """

    kind: Literal["member", "link"]
    rights: Mapping[int, Right]
    user_id: int | None = None
    known: Mapping[int, Squad] = field(default_factory=dict, compare=False)
    person_id: int | None = None

    def role_in(self, squad_id: int) -> str:
        """The role that a right in a squad came with."""
        return next(role for role, right in RIGHT_OF.items() if right == self.rights[squad_id])

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
    """The actor that a user is. One query."""
    return _actor(user_id, memberships_of(user_id))


def signed_in(user: Any) -> Actor:
    """The actor that a signed-in user is; no query where the user came with its memberships (see Members)."""
    known = getattr(user, "known_memberships", None)
    return member(user.pk) if known is None else _actor(user.pk, known)


def memberships_of(user_id: int) -> list[Membership]:
    """A user's memberships, with the squads and the user."""
    return list(Membership.objects.filter(user_id=user_id).select_related("squad", "user"))


def _actor(user_id: int, own: Iterable[Membership]) -> Actor:
    rights = {one.squad_id: RIGHT_OF[one.role] for one in own}
    return Actor("member", rights, user_id, {one.squad_id: one.squad for one in own})


class Members(ModelBackend):
    """Django's way to know users, but who has squads comes with them: every request asks for both."""

    def get_user(self, user_id: int) -> Any:
        """The user of a session. One query for a member, two for somebody without a squad."""
        own = memberships_of(user_id)
        if not own:
            return super().get_user(user_id)
        user = own[0].user
        vars(user)["known_memberships"] = own
        return user if self.user_can_authenticate(user) else None
