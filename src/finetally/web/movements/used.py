"""Where movements are used: in the sessions of the Bench, in what is planned, in what is logged."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Iterator
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID

from finetally.core.movements.used import defined_in, movements_named
from finetally.web.plan.models import Entry
from finetally.web.plan.refigure import methods_changed
from finetally.web.squads.models import Squad
from finetally.web.training.models import Session


@dataclass(frozen=True, slots=True)
class SessionUse:
    """A session that names a movement, and how often."""

    session: UUID
    title: str
    times: int


@dataclass
class MovementUse:
    """Where a movement is named: sessions that do not define it themselves, planned entries, logged ones.

    `kept`: planned entries that hold the definition that was planned, and keep it.
    """

    sessions: list[SessionUse] = field(default_factory=list)
    planned: int = 0
    kept: int = 0
    logged: int = 0

    @property
    def times(self) -> int:
        """How often sessions name it."""
        return sum(one.times for one in self.sessions)


def use_by_key(squad: Squad) -> dict[str, MovementUse]:
    """Every movement that the squad's sessions and entries name, by key. Two queries, of blocks alone."""
    found: dict[str, MovementUse] = {}
    for session, title, named, own in _sessions(squad):
        for key, times in named.items():
            if key not in own:
                found.setdefault(key, MovementUse()).sessions.append(SessionUse(session, title, times))
    for _, logged, named, own in _entries(squad):
        for key in named:
            use = found.setdefault(key, MovementUse())
            if logged:
                use.logged += 1
            elif key in own:
                use.kept += 1
            else:
                use.planned += 1
    return found


def _sessions(squad: Squad) -> Iterator[tuple[UUID, str, Counter[str], set[str]]]:
    """The squad's sessions, the latest first: what each names, and defines itself."""
    rows = Session.objects.filter(squad=squad, head__isnull=False).order_by("-updated_at")
    fields = rows.values_list("pk", "title", "head__document__blocks", "head__document__movements")
    for key, title, blocks, movements in fields:
        yield key, title, *_named(blocks, movements)


def _entries(squad: Squad) -> Iterator[tuple[UUID, bool, Counter[str], set[str]]]:
    """The squad's entries with a session: whether each is logged, what it names, and defines itself."""
    rows = Entry.objects.filter(squad=squad, document__isnull=False)
    fields = rows.values_list("pk", "logged_minutes", "document__blocks", "document__movements")
    for key, minutes, blocks, movements in fields:
        yield key, minutes is not None, *_named(blocks, movements)


def _named(blocks: Any, movements: Any) -> tuple[Counter[str], set[str]]:
    return movements_named({"blocks": blocks}), defined_in({"movements": movements})


def definitions_changed(squad: Squad, keys: Collection[str]) -> None:
    """Have figured anew what goes by the squad's definitions of some movements.

    Those are the sessions' figures, and planned entries that name one without holding its definition, as nobody
    knew it when they were planned. What is logged stays.
    """
    stale = [
        entry for entry, logged, named, own in _entries(squad) if not logged and (named.keys() & keys) - own
    ]  # fmt: skip
    Entry.objects.filter(pk__in=stale).update(figured_with="")
    methods_changed(squad)
