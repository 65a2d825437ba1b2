"""What can be done with jobs: asked for, looked at, stopped. Each use case holds permission, change and record."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Q
from django.http import Http404
from django.utils import timezone

from finetally.core.session.problems import DocumentError, Problem
from finetally.web.jobs.models import OPEN, Job, JobState
from finetally.web.jobs.work import work_on
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Squad

NEEDED: Mapping[Right, tuple[str, ...]] = {
    Right.HEAD: ("squad-file",),
    Right.PLAN: ("level", "refigure", "bring-log"),
}
"""Kinds of jobs that more than looking is needed for."""
MOST_WAITING = 20
"""Open jobs of one account: more are refused, so that nobody fills the queue."""


@dataclass(frozen=True, slots=True)
class JobRequest:
    """What is to be done. `lock_name`: there is one such job at a time; another one asked meanwhile is refused."""

    kind: str
    asked: dict[str, Any]
    priority: int = 0
    lock_name: str = ""
    shared: bool = False


def ask(actor: Actor, squad_id: int, wanted: JobRequest) -> Job:
    """Put work into the queue; work that is asked for twice is one job. Raises DocumentError.

    The right to what is asked is for the caller to require.
    """
    if actor.user_id is None:
        raise Http404
    with transaction.atomic():
        mine = Job.objects.filter(state__in=OPEN, stop_asked=False, owner_id=actor.user_id)
        same = _same(squad_id, actor.user_id, wanted)
        if same is None and mine.count() >= MOST_WAITING:
            raise _refused(f"{MOST_WAITING} jobs under way", "to wait for one of them")
        job = same or _put(squad_id, actor.user_id, wanted)
    job.refresh_from_db()
    return job


def ask_by_itself(squad: Squad, wanted: JobRequest) -> Job:
    """Put work into the queue that nobody asked for, but that has to be done. One that waits is enough."""
    with transaction.atomic():
        waiting = Job.objects.filter(lock_name=wanted.lock_name, state=JobState.WAITING, stop_asked=False).first()
        if waiting is None:
            Job.objects.filter(lock_name=wanted.lock_name, state=JobState.RUNNING).update(stop_asked=True)
        job = waiting or _put(squad.pk, None, wanted)
    job.refresh_from_db()
    return job


def _key(squad_id: int, owner_id: int | None, wanted: JobRequest) -> str:
    who = [squad_id, None if wanted.shared else owner_id]
    return hashlib.sha256(json.dumps([wanted.kind, wanted.asked, who], sort_keys=True).encode()).hexdigest()


def _same(squad_id: int, owner_id: int, wanted: JobRequest) -> Job | None:
    """The open job that was asked for the same; raises DocumentError where its place is taken by another."""
    going = Job.objects.filter(state__in=OPEN, stop_asked=False)
    same = going.filter(key=_key(squad_id, owner_id, wanted)).first()
    if same is None and wanted.lock_name:
        other = going.filter(lock_name=wanted.lock_name).select_related("owner").first()
        if other is not None:
            raise _refused(
                f"one that {other.owner or 'nobody'} asked for is under way", "to wait for it or stop it"
            )
    return same


def _put(squad_id: int, owner_id: int | None, wanted: JobRequest) -> Job:
    job = Job.objects.create(
        kind=wanted.kind, squad_id=squad_id, owner_id=owner_id, shared=wanted.shared, lock_name=wanted.lock_name,
        key=_key(squad_id, owner_id, wanted), priority=wanted.priority, asked=wanted.asked,
    )  # fmt: skip
    work_on.using(priority=wanted.priority).enqueue(str(job.pk))
    return job


def _refused(found: str, allowed: str) -> DocumentError:
    return DocumentError([Problem("job", found, allowed, "busy")])


def see(actor: Actor, job_id: UUID, kind: str | None = None) -> Job:
    """A job of your own, or one that is shared in a squad where you plan: others do not exist. Raises Http404.

    What may be asked for with a right alone is shown with it alone, also when it was asked for before.
    """
    mine = Q(pk__in=[])
    for right, kinds in NEEDED.items():
        mine |= Q(owner_id=actor.user_id, squad_id__in=actor.squads(right), kind__in=kinds)
    others = {one for kinds in NEEDED.values() for one in kinds}
    mine |= Q(owner_id=actor.user_id, squad_id__in=actor.squads()) & ~Q(kind__in=others)
    ours = Q(shared=True, squad_id__in=actor.squads(Right.PLAN))
    job = Job.objects.filter(mine | ours, pk=job_id).defer("file").first()
    if job is None or (kind is not None and job.kind != kind):
        raise Http404
    return job


def answered(actor: Actor, job_id: UUID, kind: str | None = None) -> Job:
    """A job that has an answer, be it the best so far. Raises its refusal as DocumentError; Http404 without any."""
    job = see(actor, job_id, kind)
    if job.refusal is not None:
        raise DocumentError([Problem(**one) for one in job.refusal])
    if job.answer is None and not job.file_name:
        raise Http404
    return job


def waiting_before(job: Job) -> int:
    """How many jobs are done before it is its turn; 0 once it runs."""
    if job.state != JobState.WAITING:
        return 0
    earlier = Q(priority__gt=job.priority) | Q(priority=job.priority, created_at__lt=job.created_at)
    waiting = Job.objects.filter(earlier, state=JobState.WAITING).count()
    return waiting + Job.objects.filter(state=JobState.RUNNING).count()


def stop(actor: Actor, job_id: UUID) -> None:
    """Be content with what there is: one that waits ends at once, one that runs within a moment."""
    job = see(actor, job_id)
    with transaction.atomic():
        ended = {"state": JobState.STOPPED, "ended_at": timezone.now()}
        if not Job.objects.filter(pk=job.pk, state=JobState.WAITING).update(stop_asked=True, **ended):
            Job.objects.filter(pk=job.pk, state=JobState.RUNNING).update(stop_asked=True)
