"""What can be done with sessions. Each use case holds permission, change and record; routes only call."""

from __future__ import annotations

import copy
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404
from django.shortcuts import get_object_or_404
from django.utils import timezone

from finetally.core.compare.differences import Difference, differences
from finetally.core.session.ids import with_ids
from finetally.core.session.problems import refuse
from finetally.core.session.reading import parse_session
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.use_cases import squad_for
from finetally.web.training.figuring import keep_figures
from finetally.web.training.models import Revision, RevisionKind, Session


def _visible(actor: Actor) -> QuerySet[Session]:
    """Sessions of the actor's squads: what is elsewhere does not exist for it."""
    return Session.objects.filter(squad_id__in=actor.squads()).select_related("squad", "head", "head__author")


def _session(actor: Actor, session_id: UUID, right: Right = Right.LOOK) -> Session:
    session = get_object_or_404(_visible(actor), pk=session_id)
    actor.require(session.squad_id, right)
    return session


def read_session(actor: Actor, session_id: UUID) -> Session:
    """One session with its head."""
    return _session(actor, session_id)


def sessions_for_comparison(actor: Actor, ids: Sequence[UUID]) -> tuple[list[Session], FiguringContext]:
    """Sessions in the order named, and what they are figured with: the context of the first one's squad.

    Raises Http404 where one is not there.
    """
    found = {session.pk: session for session in _visible(actor).filter(pk__in=ids)}
    sessions = [found[one] for one in ids if one in found]
    if len(sessions) < len(ids):
        raise Http404
    return sessions, context_of(sessions[0].squad)


def create_session(actor: Actor, squad_id: int | None, document: dict[str, Any]) -> Session:
    """Keep a new session; parts without an id get one. Raises DocumentError for a wrong document."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    parse_session(document)
    with transaction.atomic():
        session = Session.objects.create(squad=squad, title=document["title"])
        _put_head(session, actor, with_ids(document), RevisionKind.KEPT, tab="")
    keep_figures([session], {squad.pk: context_of(squad)})
    return session


LONGEST_NUMBER = 18
"""Digits of a number that the database can hold."""


def _put_head(session: Session, actor: Actor, document: dict[str, Any], kind: RevisionKind, tab: str) -> Revision:
    revision = Revision.objects.create(
        session=session,
        parent=session.head,
        author_id=actor.user_id,
        kind=kind,
        tab=tab,
        document=document,
    )
    session.head = revision
    session.describe(document)
    session.save()
    return revision


@dataclass(frozen=True, slots=True)
class Saved:
    """How a save went: `saved`, or kept beside the head as a `conflict`."""

    outcome: Literal["saved", "conflict"]
    session: Session
    revision: Revision


def save_session(
    actor: Actor, session_id: UUID, base: str, tab: str, document: dict[str, Any], *, keep: bool = False
) -> Saved:
    """Save a document that was made from the state `base` (an etag).

    Saves of one tab run together into one revision until it is pinned or kept. A save from an older state
    changes nothing: it is kept beside the head as a conflict revision. Raises DocumentError.
    """
    context = context_of(_session(actor, session_id, Right.PLAN).squad)
    parse_session(document)
    document = with_ids(document)
    saved = _saved(actor, session_id, base, tab, document, keep=keep)
    if saved.outcome == "saved":
        keep_figures([saved.session], {saved.session.squad_id: context})
    return saved


def _saved(actor: Actor, session_id: UUID, base: str, tab: str, document: dict[str, Any], *, keep: bool) -> Saved:
    with transaction.atomic():
        session = _session(actor, session_id, Right.PLAN)
        head = session.head
        if head is not None and head.etag != base:
            return Saved("conflict", session, _conflict(session, actor, base, tab, document))
        kind = RevisionKind.KEPT if keep else RevisionKind.AUTOSAVE
        if head is not None and _runs_on(head, actor, tab):
            head.document, head.kind = document, kind
            head.version += 1
            head.save()
            session.describe(document)
            session.save()
            return Saved("saved", session, head)
        return Saved("saved", session, _put_head(session, actor, document, kind, tab))


def _runs_on(head: Revision, actor: Actor, tab: str) -> bool:
    own = head.author_id == actor.user_id and head.tab == tab and tab != ""
    return own and head.kind == RevisionKind.AUTOSAVE and not head.pinned


MOST_CONFLICTS = 30
"""Versions of one session that clash with its newest: more are refused, and stay in the page that made them."""


def _conflict(session: Session, actor: Actor, base: str, tab: str, document: dict[str, Any]) -> Revision:
    """Keep a stale save; further saves of the same tab from the same state run together, until it is pinned."""
    number = base.partition(".")[0]
    known = number.isascii() and number.isdecimal() and len(number) <= LONGEST_NUMBER
    parent = session.revisions.filter(pk=int(number)).first() if known else None
    mine = session.revisions.filter(
        kind=RevisionKind.CONFLICT, tab=tab, base=base, author_id=actor.user_id, pinned=False
    ).first()
    if mine is not None and tab:
        mine.document = document
        mine.version += 1
        mine.save()
        return mine
    there = session.revisions.filter(kind=RevisionKind.CONFLICT).count()
    if there >= MOST_CONFLICTS:
        says = "to settle some of them first: under Versions, by looking at each and keeping or dropping it"
        raise refuse(("document",), f"{there} versions that clash with this one", says, "too_many_conflicts")
    return Revision.objects.create(
        session=session,
        parent=parent,
        author_id=actor.user_id,
        kind=RevisionKind.CONFLICT,
        tab=tab,
        base=base,
        document=document,
    )


def pin(revision: Revision | None) -> None:
    """From now on nothing is saved over this version: a plan, a run or a file refers to it."""
    if revision is not None and not revision.pinned:
        revision.pinned = True
        Revision.objects.filter(pk=revision.pk).update(pinned=True)


def pin_head(actor: Actor, session_id: UUID) -> None:
    """Whoever takes a session out as a file takes out a version that stays."""
    pin(_session(actor, session_id).head)


def duplicate_session(actor: Actor, session_id: UUID) -> Session:
    """A copy in the same squad, titled as a copy; its parts keep their ids."""
    original = _session(actor, session_id, Right.PLAN)
    document = copy.deepcopy(original.head.document) if original.head else {}
    document["title"] = f"{str(document.get('title', ''))[:490]} (copy)"
    return create_session(actor, original.squad_id, document)


def archive_session(actor: Actor, session_id: UUID, *, archived: bool) -> Session:
    """Put a session away, or bring it back; nothing is deleted."""
    session = _session(actor, session_id, Right.PLAN)
    session.archived_at = timezone.now() if archived else None
    session.save()
    return session


def list_revisions(actor: Actor, session_id: UUID) -> list[Revision]:
    """Versions of a session, latest first, conflicts among them."""
    session = _session(actor, session_id)
    return list(session.revisions.select_related("author"))


def read_revision(actor: Actor, session_id: UUID, revision_id: int) -> Revision:
    """One version with its document."""
    session = _session(actor, session_id)
    return get_object_or_404(session.revisions.select_related("author"), pk=revision_id)


def revision_differences(
    actor: Actor, session_id: UUID, revision_id: int, against: int | None
) -> tuple[int | None, list[Difference]]:
    """What a version differs in from its parent, or from another version of the same session; and which that is."""
    revision = read_revision(actor, session_id, revision_id)
    other_id = against if against is not None else revision.parent_id
    if other_id is None:
        return None, []
    other = read_revision(actor, session_id, other_id)
    return other.pk, differences(other.document, revision.document)
