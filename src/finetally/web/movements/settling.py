"""A name that nobody knew is said to be a movement: in sessions, in what is planned, from now on."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.http import Http404

from finetally.core.movements.used import defined_in, movements_named, with_another
from finetally.core.session.problems import refuse, shown
from finetally.web.movements.own import call_movement
from finetally.web.plan.models import Entry
from finetally.web.plan.summaries import inside, summarise
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.use_cases import squad_for
from finetally.web.training.models import Session
from finetally.web.training.use_cases import save_session

MOST_NAMES_SETTLED = 200
"""Sessions, and entries, that one request settles; the name stays in the list for the rest."""


@dataclass(frozen=True, slots=True)
class NameSettled:
    """How many sessions and planned entries name the movement now; `left`: somebody was writing there just then."""

    sessions: int
    planned: int
    left: int


def settle_name(actor: Actor, squad_id: int | None, name: str, key: str) -> NameSettled:
    """Say that a name is the movement `key`, here and in all texts from now on. Logged entries stay as they are.

    Each session gets a version of its own, so that it can be put back. Raises DocumentError, Http404.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    context = context_of(squad)
    if key not in context.library:
        raise Http404
    if name in context.library:
        raise refuse(("name",), shown(name), "a name that is no movement yet", "cannot_known")
    call_movement(actor, squad.pk, key, name.replace("-", " "))
    sessions = squad.sessions.filter(head__isnull=False).select_related("head")
    found = [one for one in sessions if one.head is not None and _names(one.head.document, name)][
        :MOST_NAMES_SETTLED
    ]
    saved = sum(_settled(actor, one, name, key) for one in found)
    planned = squad.entries.filter(document__isnull=False, logged_minutes=None)
    entries = [one for one in planned if _names(one.document, name)][:MOST_NAMES_SETTLED]
    context = context_of(squad)
    for entry in entries:
        _put(entry, name, key, context)
    return NameSettled(saved, len(entries), len(found) - saved)


def _names(document: Any, name: str) -> bool:
    return name in movements_named(document) and name not in defined_in(document)


def _settled(actor: Actor, session: Session, name: str, key: str) -> bool:
    """Whether it was saved: somebody who saves at the same moment goes before."""
    head = session.head
    if head is None:
        return False
    document = with_another(head.document, name, key)
    return save_session(actor, session.pk, head.etag, "", document, keep=True).outcome == "saved"


def _put(entry: Entry, name: str, key: str, context: FiguringContext) -> None:
    document: dict[str, Any] = inside(with_another(entry.document or {}, name, key), context)
    summarised = summarise(document, context)
    with transaction.atomic():
        entry.document = document
        summarised.put(entry)
        entry.save()
