"""The log's files over the API: the log itself, out and in again; recordings of watches."""

from __future__ import annotations

from tempfile import TemporaryFile
from typing import Literal
from uuid import UUID

from django.http import FileResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.web.api.days import PlanDay
from finetally.web.api.jobs import JobOut, job_out
from finetally.web.api.log_answers import pulse_out
from finetally.web.api.log_inputs import WatchIn
from finetally.web.api.log_schemas import PulseOut
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.log import watch
from finetally.web.log.brought import ask_to_bring
from finetally.web.log.incoming import PART_CHARACTERS, keep_part
from finetally.web.log.taken_out import LogRange, write_log
from finetally.web.log.watch import WatchWish

router = Router()
TYPES = {"json": "application/json", "csv": "text/csv; charset=utf-8"}


class LogPartIn(Schema):
    """A part of a log in the open form (docs/log.schema.json), as text, cut anywhere.

    `file`: an id that all parts share, made by the sender; `number`: which part, from 0.
    """

    file: UUID
    number: int = Field(default=0, ge=0, le=1000)
    text: str = Field(max_length=PART_CHARACTERS)
    squad: int | None = None


class LogPartOut(Schema):
    """How many characters of a file have come."""

    characters: int


@router.get("/file.{kind}", response={200: None, **REFUSALS}, operation_id="log_file")
def log_file(
    request: ActorRequest,
    kind: Literal["json", "csv"],
    squad: int | None = None,
    person: UUID | None = None,
    first: PlanDay | None = None,
    last: PlanDay | None = None,
) -> FileResponse:
    """Download the log: in the open form, or as a table with a row for each score and rating; of one person, too.

    For those who plan, and of oneself.
    """
    file = TemporaryFile()  # noqa: SIM115 (the answer closes it)
    try:
        write_log(request.auth, squad, kind, LogRange(person, first, last), file)
    except BaseException:
        file.close()
        raise
    file.seek(0)
    return FileResponse(file, as_attachment=True, filename=f"log.{kind}", content_type=TYPES[kind])


@router.post("/file/parts", response={200: LogPartOut, **REFUSALS}, operation_id="send_log_part")
def send_part(request: ActorRequest, data: LogPartIn) -> LogPartOut:
    """Send a part of a log's file that is longer than one: all but the last. The same number again replaces it."""
    return LogPartOut(characters=keep_part(request.auth, data.squad, data.file, data.number, data.text))


@router.post("/file", response={202: JobOut, **REFUSALS}, operation_id="bring_log")
def bring(request: ActorRequest, data: LogPartIn) -> Status[JobOut]:
    """Bring in a log's file, all of it or none, with its last part (of a short file the only one).

    A job does it: it reports how many sessions are done, and is refused with every place that is wrong, people not
    known among them. One file of a squad at a time; of up to 200 million characters.
    """
    return Status(202, job_out(ask_to_bring(request.auth, data.squad, data.file, data.number, data.text)))


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
