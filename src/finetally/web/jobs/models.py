"""Job."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models
from django.db.models import Q

from finetally.web.squads.models import Squad


class JobState(models.TextChoices):
    """Where a job stands. Stopped: somebody was content with what it had. Broken: its process ended."""

    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    STOPPED = "stopped"
    REFUSED = "refused"
    BROKEN = "broken"


OPEN = (JobState.WAITING, JobState.RUNNING)


class Job(models.Model):
    """Work that takes longer than a request may. `answer` is the best so far while it runs, kept when it ends.

    `lock_name`: what there can be only one of at a time (a squad's levelling), empty for the others. `key`: hash of
    what was asked, so that asking twice is one job. `owner` None: nobody asked, it has to be done. `shared`: seen
    by everybody who plans in the squad, else by its owner alone. `seen_at`: when it began, or last reported its
    progress. `private`: what later steps need of the answer and nobody is shown. `refusal`: why it was refused.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kind = models.CharField(max_length=20)
    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="jobs")
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="jobs")
    shared = models.BooleanField(default=False)
    lock_name = models.CharField(max_length=80, blank=True)
    key = models.CharField(max_length=64)
    priority = models.SmallIntegerField(default=0)
    asked = models.JSONField(default=dict)
    state = models.CharField(max_length=10, choices=JobState.choices, default=JobState.WAITING)
    stop_asked = models.BooleanField(default=False)
    progress = models.JSONField(default=dict)
    answer = models.JSONField(null=True)
    private = models.JSONField(default=dict)
    file = models.BinaryField(null=True)
    file_name = models.CharField(max_length=80, blank=True)
    file_type = models.CharField(max_length=100, blank=True)
    refusal = models.JSONField(null=True)
    created_at = models.DateTimeField(auto_now_add=True)
    seen_at = models.DateTimeField(null=True)
    times_begun = models.PositiveSmallIntegerField(default=0)
    ended_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-priority", "created_at"]
        constraints = [
            models.UniqueConstraint(
                fields=["lock_name"],
                condition=Q(state__in=OPEN, stop_asked=False) & ~Q(lock_name=""),
                name="one_open_job_a_lock",
            )
        ]

    def __str__(self) -> str:
        return f"{self.kind} {self.state}"

    @property
    def is_over(self) -> bool:
        """Whether nothing more comes."""
        return self.state not in OPEN
