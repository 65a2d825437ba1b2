"""The log's files over the API: the log itself, out and in again; recordings of watches."""

from __future__ import annotations

from datetime import date
from typing import Literal
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.session.limits import MAX_BYTES
from finetally.web.api.log_answers import pulse_out
from finetally.web.api.log_inputs import WatchIn
from finetally.web.api.log_schemas import PulseOut
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.log import watch
from finetally.web.log.brought import bring_log
from finetally.web.log.taken_out import LogRange, log_text
from finetally.web.log.watch import WatchWish

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


@router.put("/entries/{entry_id}/watch", response={200: PulseOut, **REFUSALS}, operation_id="put_recording")
def put_recording(request: ActorRequest, entry_id: UUID, data: WatchIn) -> PulseOut:
    """Put a watch's recording to what somebody did: of the file time and pulse alone are read and kept."""
    wish = WatchWish(data.person, data.kind, data.text, data.max_hr, data.rest_hr)
    return pulse_out(watch.put_recording(request.auth, entry_id, wish))


@router.delete("/watch/{recording_id}/curve", response={204: None, **REFUSALS}, operation_id="drop_curve")
def drop_curve(request: ActorRequest, recording_id: int) -> Status[None]:
    """Delete the curve of a recording; its figures stay."""
    watch.drop_curve(request.auth, recording_id)
    return Status(204, None)
