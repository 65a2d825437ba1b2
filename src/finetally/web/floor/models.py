"""FloorRun, FloorEvent, WallScreen."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models
from django.utils import timezone

from finetally.web.plan.models import Entry
from finetally.web.squads.models import Person, Squad


class FloorRun(models.Model):
    """A session as it was run: what was planned when it began, and by its events what became of that.

    `id`: made where the run began, perhaps without a network. `document`, `methods`, `given`: as they were then;
    `begun_at`: when second 0 was; `ended_at`: when it was over, or will be if nothing more is done.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="runs")
    entry = models.ForeignKey(Entry, on_delete=models.SET_NULL, null=True, blank=True, related_name="runs")
    day = models.DateField()
    title = models.CharField(max_length=500)
    name = models.CharField(max_length=80, blank=True, help_text="whose run it is, where an entry has several")
    document = models.JSONField()
    methods = models.JSONField(default=dict)
    given = models.JSONField(default=dict)
    apart = models.BooleanField(default=False)
    hold = models.CharField(max_length=10, default="entries")
    begun_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="runs")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["begun_at"]
        indexes = [models.Index(fields=["squad", "day"], name="runs_of_a_day")]

    def __str__(self) -> str:
        return f"{self.title} as run on {self.day}"

    @property
    def is_over(self) -> bool:
        """Whether it has ended by now."""
        return self.ended_at is not None and self.ended_at <= timezone.now()


class FloorEvent(models.Model):
    """An event of a run, as the device that gave it numbered it; each is kept once.

    `event`: as docs/run.schema.json has it, without its person, who stands in `person`.
    """

    run = models.ForeignKey(FloorRun, on_delete=models.CASCADE, related_name="events")
    device = models.CharField(max_length=36)
    number = models.PositiveIntegerField()
    event = models.JSONField()
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, blank=True, related_name="floor_events")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    received_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["run", "device", "number"], name="one_event_a_number")]

    def __str__(self) -> str:
        return f"{self.event.get('do')} of {self.run_id}"


class WallScreen(models.Model):
    """A screen on the wall: shows a code until a coach types it, then that squad's runs of the day, until midnight.

    Of its token and code the hashes are kept.
    """

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, null=True, blank=True, related_name="screens")
    token_hash = models.CharField(max_length=64, unique=True)
    code_hash = models.CharField(max_length=64, blank=True, db_index=True)
    made_at = models.DateTimeField(auto_now_add=True)
    until = models.DateTimeField()

    class Meta:
        ordering = ["-id"]

    def __str__(self) -> str:
        return f"a screen of {self.squad}"
