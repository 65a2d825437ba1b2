"""Open health reports of a squad over the API."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from ninja import Router, Schema

from finetally.web.api.request import ActorRequest
from finetally.web.log import reports
from finetally.web.problems import ProblemOut

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut}


class HealthReportOut(Schema):
    """What somebody reported (`pain`, `dizziness`), or that they were `hurt` in a run: when, at which entry."""

    person: UUID
    name: str
    kind: str
    day: date
    entry: UUID | None
    title: str


@router.get("", response={200: list[HealthReportOut], **REFUSALS}, operation_id="health_reports")
def health_reports(request: ActorRequest, squad: int | None = None) -> list[HealthReportOut]:
    """Open reports of pain, dizziness and hurt, newest first; for those who plan."""
    return [
        HealthReportOut(
            person=one.person.public_id,
            name=one.person.on_the_wall,
            kind=one.kind,
            day=one.day,
            entry=one.entry,
            title=one.title,
        )
        for one in reports.list_reports(request.auth, squad)
    ]
