"""Writing down who did what: each use case does, in the transaction of what it changes."""

from __future__ import annotations

from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Act, Person, Record

LONGEST_ABOUT = 200


def record(actor: Actor, squad_id: int, act: Act, about: str = "", person: Person | None = None) -> None:
    """Write down that the actor did something. `about` names a thing, never anybody's health; `person` a person."""
    own = actor.person_id is not None
    Record.objects.create(
        squad_id=squad_id, user_id=actor.user_id, act=act, about=about[:LONGEST_ABOUT],
        person_id=actor.person_id if own else person.pk if person is not None else None, own=own,
    )  # fmt: skip
