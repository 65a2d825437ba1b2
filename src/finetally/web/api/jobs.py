"""Jobs over the API: how far they are, their answers and files, stopping them."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status

from finetally.web.api.figures import json_answer
from finetally.web.api.request import ActorRequest
from finetally.web.jobs import use_cases
from finetally.web.jobs.models import Job
from finetally.web.problems import ProblemItem, ProblemOut

router = Router()
REFUSALS = {401: ProblemOut, 404: ProblemOut, 422: ProblemOut}


class ProgressOut(Schema):
    """How far a levelling is: better answers found so far, aims that the best leaves unmet, its edits.

    Of a log that is brought in: of `of` sessions `read` are figured, and `count` are in the log.
    """

    found: int = 0
    unmet: int | None = None
    edits: int | None = None
    read: int | None = None
    count: int | None = None
    of: int | None = None


class JobOut(Schema):
    """A job. `before`: how many others come first. `over`: nothing more comes; `answered`: there is an answer or a
    file, be it the best so far. `problems`: why it was refused.
    """

    id: UUID
    kind: str
    state: str
    before: int
    over: bool
    answered: bool
    progress: ProgressOut
    problems: list[ProblemItem]


def job_out(job: Job) -> JobOut:
    """A job as it is shown."""
    return JobOut(
        id=job.pk, kind=job.kind, state=job.state, before=use_cases.waiting_before(job), over=job.is_over,
        answered=job.answer is not None or bool(job.file_name), progress=ProgressOut(**job.progress),
        problems=[ProblemItem(**one) for one in job.refusal or []],
    )  # fmt: skip


@router.get("/{job_id}", response={200: JobOut, **REFUSALS}, operation_id="job")
def look(request: ActorRequest, job_id: UUID) -> JobOut:
    """How far a job is: waiting (behind how many), running, done, stopped, refused, or broken where its process
    ended.
    """
    return job_out(use_cases.see(request.auth, job_id))


@router.delete("/{job_id}", response={204: None, **REFUSALS}, operation_id="stop_job")
def stop(request: ActorRequest, job_id: UUID) -> Status[None]:
    """End a job; what it has found so far is its answer."""
    use_cases.stop(request.auth, job_id)
    return Status(204, None)


@router.get("/{job_id}/answer", response={200: dict[str, Any], **REFUSALS}, operation_id="job_answer")
def answer(request: ActorRequest, job_id: UUID) -> HttpResponse:
    """The answer of a job, the best so far included, in the shape of the request that asked for it. 404 without
    any.
    """
    job = use_cases.answered(request.auth, job_id)
    return json_answer(job.answer or {})


@router.get("/{job_id}/file", response={200: None, **REFUSALS}, operation_id="job_file")
def file(request: ActorRequest, job_id: UUID) -> HttpResponse:
    """Download the file that a job made. 404 until it is done."""
    job = use_cases.answered(request.auth, job_id)
    made = get_object_or_404(Job, pk=job.pk, file__isnull=False)
    answer = HttpResponse(bytes(made.file or b""), content_type=made.file_type)
    answer["Content-Disposition"] = f'attachment; filename="{made.file_name}"'
    return answer
