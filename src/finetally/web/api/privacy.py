"""What is kept about people over the API: taken out, looked for in texts, erased; and a squad's own export."""

from __future__ import annotations

import json
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.web.accounts.again import ask_password
from finetally.web.api.account import Password
from finetally.web.api.jobs import JobOut, job_out
from finetally.web.api.request import ActorRequest
from finetally.web.privacy import erasing, kept, squad_file, traces
from finetally.web.problems import ProblemOut

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 422: ProblemOut}


class TraceOut(Schema):
    """A text in which somebody's name stands: of what kind, of what title, the words around it."""

    kind: str
    title: str
    says: str


class EraseIn(Schema):
    """`from_texts`: the names are taken out of titles, notes and versions of the squad, too.

    `password`: that of the user who asks."""

    from_texts: bool = True
    password: str = Password


class SquadFileIn(Schema):
    """`health`: with limits, measures, ratings and notes; then with the password of the user who asks."""

    health: bool = False
    password: str = Field(default="", max_length=500)


class PersonFileIn(Schema):
    """The password of the user who asks."""

    password: str = Password


@router.post("/people/{person_id}/export", response={200: None, **REFUSALS}, operation_id="export_person")
def export_person(request: ActorRequest, person_id: UUID, data: PersonFileIn) -> HttpResponse:
    """Download all that is kept about one person as one file; for head coaches, and the person.

    422 for a wrong password.
    """
    ask_password(request, data.password)
    body = json.dumps(kept.export_person(request.auth, person_id), ensure_ascii=False, indent=1)
    answer = HttpResponse(body.encode("utf-8", "replace"), content_type="application/json")
    answer["Content-Disposition"] = 'attachment; filename="person.json"'
    return answer


@router.get("/people/{person_id}/traces", response={200: list[TraceOut], **REFUSALS}, operation_id="traces")
def look_for(request: ActorRequest, person_id: UUID) -> list[TraceOut]:
    """Texts of the squad in which a person's name stands; for head coaches, and the person."""
    person = kept.the_person_themselves(request.auth, person_id)
    return [TraceOut(kind=one.kind, title=one.title, says=one.says) for one in traces.traces_of(person)]


@router.post("/people/{person_id}/erase", response={204: None, **REFUSALS}, operation_id="erase_person")
def erase(request: ActorRequest, person_id: UUID, data: EraseIn) -> Status[None]:
    """Erase a person with all that is kept about them; it cannot be undone, not by a backup either.

    Their account goes too, unless it is in another squad. 422 for the last head coach, and for a wrong password.
    """
    ask_password(request, data.password)
    erasing.erase_person(request.auth, person_id, from_texts=data.from_texts)
    return Status(204, None)


@router.post("/squads/{squad_id}/export", response={202: JobOut, **REFUSALS}, operation_id="export_squad")
def export_squad(request: ActorRequest, squad_id: int, data: SquadFileIn) -> Status[JobOut]:
    """Begin to write the squad's own export; the answer is a job (202) whose file it will be. For head coaches."""
    if data.health:
        ask_password(request, data.password)
    return Status(202, job_out(squad_file.ask_for_squad_file(request.auth, squad_id, health=data.health)))
