"""What keeps the queue tidy: jobs that broke off, and jobs that nobody will look at any more."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.utils import timezone
from django_tasks_db.models import DBTaskResult

from finetally.web.jobs.models import Job, JobState

JOBS_KEPT_FOR = timedelta(days=1)
"""Jobs stay so long after they were asked for: a proposal can be taken until then."""


def mark_broken() -> int:
    """Jobs that ran when their process ended run no more; their best so far stays. Returns how many."""
    now = timezone.now()
    with transaction.atomic():
        broken = Job.objects.filter(state=JobState.RUNNING).update(state=JobState.BROKEN, ended_at=now)
        DBTaskResult.objects.filter(status="RUNNING").delete()
    return broken


def prune() -> int:
    """Drop jobs that are older than a day, and the queue's own rows. Returns how many jobs."""
    before = timezone.now() - JOBS_KEPT_FOR
    with transaction.atomic():
        dropped, _ = Job.objects.filter(created_at__lt=before).exclude(state=JobState.RUNNING).delete()
        DBTaskResult.objects.filter(enqueued_at__lt=before).exclude(status="RUNNING").delete()
    return dropped
