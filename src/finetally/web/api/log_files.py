"""The log as a file, over the API: out, and in again."""

from __future__ import annotations

from datetime import date
from typing import Literal
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import Field

from finetally.core.session.limits import MAX_BYTES
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.log.brought import bring_log
from finetally.web.log.taken_out import LogRange, log_text

router = Router()
TYPES = {"json": "application/json", "csv": "text/csv; charset=utf-8"}


class LogFileIn(Schema):
    """A log in the open form (docs/log.schema.json), as text."""

    text: str = Field(max_length=MAX_BYTES)
    squad: int | None = None


class BroughtOut(Schema):
    """How many sessions of the log a file made or added to."""

    sessions: int


@router.get("/file.{kind}", response={200: None, **REFUSALS}, operation_id="log_file")
def log_file(
    request: ActorRequest,
    kind: Literal["json", "csv"],
    squad: int | None = None,
    person: UUID | None = None,
    first: date | None = None,
    last: date | None = None,
) -> HttpResponse:
    """Download the log: in the open form, or as a table with a row for each score and rating; of one person, too.

    For those who plan, and of oneself.
    """
    text = log_text(request.auth, squad, kind, LogRange(person, first, last))
    answer = HttpResponse(text.encode("utf-8", "replace"), content_type=TYPES[kind])
    answer["Content-Disposition"] = f'attachment; filename="log.{kind}"'
    return answer


@router.post("/file", response={200: BroughtOut, **REFUSALS}, operation_id="bring_log")
def bring(request: ActorRequest, data: LogFileIn) -> BroughtOut:
    """Take in a log's file, all of it or none; 422 with every place that is wrong, people not known among them."""
    return BroughtOut(sessions=bring_log(request.auth, data.squad, data.text))
