"""Routes of sessions."""

from __future__ import annotations

from datetime import datetime
from typing import Literal
from uuid import UUID

from django.http import HttpResponse
from ninja import Query, Router, Schema, Status
from pydantic import Field

from finetally.core.compare.differences import Difference
from finetally.core.session.limits import MAX_BYTES
from finetally.web.api.figures import json_answer
from finetally.web.api.openapi import DocumentBody
from finetally.web.api.request import ActorRequest
from finetally.web.plan.last_done import days_since_done
from finetally.web.problems import ProblemOut
from finetally.web.training import exchange, listing, use_cases
from finetally.web.training.figuring import ListFigures
from finetally.web.training.models import Revision, Session

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}


class SessionItem(Schema):
    """A session in a list."""

    id: UUID
    squad: int
    title: str
    tags: list[str]
    updated_at: datetime
    archived: bool
    figures: ListFigures


class ListIn(Schema):
    """Which sessions, in what order (changed, title, a figure, share:<row>), and which page of them."""

    archived: bool = False
    words: str = Field("", max_length=200)
    tag: str = Field("", max_length=200)
    by: str = Field("changed", max_length=40)
    down: bool = True
    page: int = Field(1, ge=1, le=100_000)


class SessionOut(Schema):
    """A session with its document, and the etag that a save of it must name."""

    id: UUID
    squad: int
    title: str
    archived: bool
    etag: str
    saved_at: datetime
    saved_by: str
    document: DocumentBody


class CreateIn(Schema):
    """A new session's document; in one's first squad unless another is named."""

    document: DocumentBody
    squad: int | None = None


class SaveIn(Schema):
    """A document, the state it was made from, and a name that the browser tab gave itself."""

    document: DocumentBody
    base: str = Field(max_length=64)
    tab: str = Field(max_length=64)
    keep: bool = False


class RevisionItem(Schema):
    """A version of a session."""

    id: int
    parent: int | None
    kind: str
    pinned: bool
    author: str
    created_at: datetime
    updated_at: datetime


class RevisionOut(RevisionItem):
    """A version with its document."""

    document: DocumentBody


class SavedOut(Schema):
    """How a save went. After a conflict the head is unchanged and what was sent is kept as `revision`."""

    outcome: Literal["saved", "conflict"]
    etag: str
    revision: RevisionItem
    session: SessionOut


class ImportIn(Schema):
    """A file: a session (`json`), or board text (`txt`)."""

    kind: Literal["json", "txt"]
    text: str = Field(max_length=MAX_BYTES)
    squad: int | None = None


class DifferencesOut(Schema):
    """What a version changed, against the one before it or the one named."""

    against: int | None
    differences: list[Difference]


def _author(revision: Revision) -> str:
    return revision.author.get_username() if revision.author else "nobody"


def _out(session: Session) -> SessionOut:
    head = session.head
    if head is None:
        raise ValueError(f"session {session.pk} has no revision")
    return SessionOut(
        id=session.pk,
        squad=session.squad_id,
        title=session.title,
        archived=session.archived_at is not None,
        etag=head.etag,
        saved_at=head.updated_at,
        saved_by=_author(head),
        document=head.document,
    )


def _revision(revision: Revision) -> RevisionItem:
    return RevisionItem(
        id=revision.pk,
        parent=revision.parent_id,
        kind=revision.kind,
        pinned=revision.pinned,
        author=_author(revision),
        created_at=revision.created_at,
        updated_at=revision.updated_at,
    )


class SessionsOut(Schema):
    """A page of the sessions found, `total` of them in all, `size` on a page; tags and rows to choose from."""

    items: list[SessionItem]
    total: int
    size: int
    tags: list[str]
    rows: list[str]


class SessionName(Schema):
    """A session to choose, its length and load; none where it cannot be figured. `done_days`: since it was done."""

    id: UUID
    squad: int
    title: str
    total_s: float | None
    load: float | None
    done_days: int | None


@router.get("", response={200: SessionsOut, 401: ProblemOut, 422: ProblemOut}, operation_id="list_sessions")
def list_sessions(request: ActorRequest, asked: Query[ListIn]) -> SessionsOut:
    """One page of the sessions of one's squads, with their figures, by words, tag and order."""
    made = listing.list_sessions(request.auth, listing.ListAsked(**asked.model_dump()))
    items = [
        SessionItem(
            id=session.pk,
            squad=session.squad_id,
            title=session.title,
            tags=session.tags,
            updated_at=session.updated_at,
            archived=session.archived_at is not None,
            figures=figures,
        )
        for session, figures in made.items
    ]
    return SessionsOut(items=items, total=made.total, size=listing.PAGE, tags=made.tags, rows=made.rows)


@router.get("/names", response={200: list[SessionName], 401: ProblemOut}, operation_id="session_names")
def session_names(request: ActorRequest) -> list[SessionName]:
    """All sessions of one's squads by title, each with its length in seconds and its load."""
    done = days_since_done(request.auth)
    return [
        SessionName(
            id=one.pk, squad=one.squad_id, title=one.title, total_s=made["total_s"], load=made["load"],
            done_days=done.get(one.pk),
        )
        for one, made in listing.named_sessions(request.auth)
    ]  # fmt: skip


@router.post("", response={201: SessionOut, **REFUSALS}, operation_id="create_session")
def create_session(request: ActorRequest, data: CreateIn) -> Status[SessionOut]:
    """Keep a document as a new session; parts without an id are given one."""
    return Status(201, _out(use_cases.create_session(request.auth, data.squad, data.document)))


@router.post("/import", response={201: SessionOut, **REFUSALS}, operation_id="import_session")
def import_session(request: ActorRequest, data: ImportIn) -> Status[SessionOut]:
    """Make a session of a file (JSON or board text). One with anything wrong in it is refused whole, with every
    problem.
    """
    return Status(201, _out(exchange.import_session(request.auth, data.squad, data.kind, data.text)))


@router.get("/{session_id}/export.{kind}", response={200: None, **REFUSALS}, operation_id="export_session")
def export_session(request: ActorRequest, session_id: UUID, kind: Literal["json", "txt"]) -> HttpResponse:
    """Download a session as JSON or as board text that loses nothing."""
    name, text = exchange.export_session(request.auth, session_id, kind)
    answer = HttpResponse(text, content_type="application/json" if kind == "json" else "text/plain; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}.{kind}"'
    return answer


@router.get("/{session_id}", response={200: SessionOut, **REFUSALS}, operation_id="read_session")
def read_session(request: ActorRequest, session_id: UUID) -> SessionOut:
    """One session with its document, and the `etag` that a save of it names as its base."""
    return _out(use_cases.read_session(request.auth, session_id))


@router.put("/{session_id}", response={200: SavedOut, **REFUSALS}, operation_id="save_session")
def save_session(request: ActorRequest, session_id: UUID, data: SaveIn) -> SavedOut:
    """Save a document that was made from the state `base`. From an older state the answer is a conflict: the
    session stays as it is, and what was sent is kept as a version beside it.
    """
    saved = use_cases.save_session(request.auth, session_id, data.base, data.tab, data.document, keep=data.keep)
    session = _out(saved.session)
    return SavedOut(outcome=saved.outcome, etag=session.etag, revision=_revision(saved.revision), session=session)


@router.post("/{session_id}/duplicate", response={201: SessionOut, **REFUSALS}, operation_id="duplicate_session")
def duplicate_session(request: ActorRequest, session_id: UUID) -> Status[SessionOut]:
    """Copy a session within its squad."""
    return Status(201, _out(use_cases.duplicate_session(request.auth, session_id)))


@router.post("/{session_id}/pin", response={204: None, **REFUSALS}, operation_id="pin_session")
def pin_session(request: ActorRequest, session_id: UUID) -> Status[None]:
    """Keep the present version for good, as it is handed out; later saves make new ones."""
    use_cases.pin_head(request.auth, session_id)
    return Status(204, None)


@router.post("/{session_id}/archive", response={200: SessionOut, **REFUSALS}, operation_id="archive_session")
def archive_session(request: ActorRequest, session_id: UUID, archived: bool = True) -> SessionOut:
    """Put a session away, or bring it back with `archived=false`."""
    return _out(use_cases.archive_session(request.auth, session_id, archived=archived))


@router.get(
    "/{session_id}/revisions", response={200: list[RevisionItem], **REFUSALS}, operation_id="list_revisions"
)
def list_revisions(request: ActorRequest, session_id: UUID) -> list[RevisionItem]:
    """The kept versions of a session without their documents, the latest first."""
    return [_revision(revision) for revision in use_cases.list_revisions(request.auth, session_id)]


@router.get(
    "/{session_id}/revisions/{revision_id}",
    response={200: RevisionOut, **REFUSALS},
    operation_id="read_revision",
)
def read_revision(request: ActorRequest, session_id: UUID, revision_id: int) -> RevisionOut:
    """One kept version with its document."""
    revision = use_cases.read_revision(request.auth, session_id, revision_id)
    return RevisionOut(**_revision(revision).model_dump(), document=revision.document)


@router.get(
    "/{session_id}/revisions/{revision_id}/differences",
    response={200: DifferencesOut, **REFUSALS},
    operation_id="revision_differences",
)
def revision_differences(
    request: ActorRequest, session_id: UUID, revision_id: int, against: int | None = None
) -> HttpResponse:
    """Parts added, removed or moved and values changed by a version, held against the one before it or against
    `against`.
    """
    other, found = use_cases.revision_differences(request.auth, session_id, revision_id, against)
    return json_answer({"against": other, "differences": found})
