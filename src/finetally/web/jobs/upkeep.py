"""What keeps the queue tidy: jobs that broke off, and jobs that nobody will look at any more."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.utils import timezone
from django_tasks_db.models import DBTaskResult

from finetally.web.jobs.models import Job, JobState
from finetally.web.jobs.work import FAULT, as_kept, work_on

JOBS_KEPT_FOR = timedelta(days=1)
"""Jobs stay so long after they were asked for: a proposal can be taken until then."""


GO_ON = ("bring-log", "log", "refigure")
"""Kinds of jobs that are started again after their process ended: nobody else would finish them."""
MOST_TIMES_BEGUN = 3
"""A job that ended its process so often is not begun again."""


def tidy_after_end() -> int:
    """Tidy up after a process for heavy work ended: its job is broken, or starts again; all that wait are queued.

    Returns how many are broken.
    """
    running = Job.objects.filter(state=JobState.RUNNING)
    with transaction.atomic():
        DBTaskResult.objects.filter(status="RUNNING").delete()
        again = running.filter(kind__in=GO_ON, stop_asked=False)
        again.filter(times_begun__lt=MOST_TIMES_BEGUN).update(state=JobState.WAITING)
        again.update(state=JobState.REFUSED, refusal=[as_kept(FAULT)], ended_at=timezone.now())
        broken = running.update(state=JobState.BROKEN, ended_at=timezone.now())
    queue_forgotten()
    return broken


def queue_forgotten() -> int:
    """Give every job that waits its place in the queue again: its process was killed after it had taken the task,
    or could not write. For the process for heavy work, between two jobs. Returns how many.
    """
    with transaction.atomic():
        queued = {one.args_kwargs["args"][0] for one in DBTaskResult.objects.filter(status="READY")}
        forgotten = [job for job in Job.objects.filter(state=JobState.WAITING) if str(job.pk) not in queued]
        for job in forgotten:
            work_on.using(priority=job.priority).enqueue(str(job.pk))
    return len(forgotten)


def prune() -> int:
    """Drop jobs that are older than a day, and the queue's own rows. Returns how many jobs."""
    before = timezone.now() - JOBS_KEPT_FOR
    with transaction.atomic():
        dropped, _ = Job.objects.filter(created_at__lt=before).exclude(state=JobState.RUNNING).delete()
        DBTaskResult.objects.filter(enqueued_at__lt=before).exclude(status="RUNNING").delete()
    return dropped
