"""Sessions in and out as files: the session file, and board text."""

from __future__ import annotations

import json
import re
from typing import Literal
from uuid import UUID

from finetally.core.board.problems import BoardError
from finetally.core.board.writer import write_full
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.session.reading import read_session as read_document
from finetally.core.wall.reading import keep_words, read_wall
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.use_cases import squad_for
from finetally.web.training.models import Session
from finetally.web.training.use_cases import create_session, read_session


def import_session(actor: Actor, squad_id: int | None, kind: Literal["json", "txt"], text: str) -> Session:
    """Keep the session of a file. Raises DocumentError; in board text its places are `line 3, column 12`."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    if kind == "json":
        document, _ = read_document(text)
        return create_session(actor, squad.pk, document)
    try:
        reading = read_wall(text, library=context_of(squad).library)
    except BoardError as error:
        raise DocumentError(
            Problem(f"line {p.line}, column {p.column}", p.found, p.allowed, p.code) for p in error.problems
        ) from None
    keep_words(reading, text, {})
    return create_session(actor, squad.pk, reading.document)


def export_session(actor: Actor, session_id: UUID, kind: Literal["json", "txt"]) -> tuple[str, str]:
    """A file's name without its ending, and its text."""
    session = read_session(actor, session_id)
    document = session.head.document if session.head else {}
    name = re.sub(r"[^\w-]+", "-", session.title, flags=re.ASCII).strip("-").lower()[:60] or "session"
    if kind == "json":
        return name, json.dumps(document, ensure_ascii=False, indent=1) + "\n"
    return name, write_full(document, library=context_of(session.squad).library)
