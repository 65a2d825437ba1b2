"""Entry, Attendance, TeamPlace, Day, Away, Phase, Change, Link. Days and times are those of the squad."""

from __future__ import annotations

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from finetally.core.week.plan import Band
from finetally.web.people.models import Group
from finetally.web.squads.models import Person, Squad
from finetally.web.training.models import Revision, Session


class PlannedEntries(models.Manager["Entry"]):
    """Entries that are on the plan: what was removed, and can be restored for 30 days, is not among them."""

    def get_queryset(self) -> models.QuerySet[Entry]:
        """Without removed entries."""
        return super().get_queryset().filter(removed_at=None)


class Entry(models.Model):
    """Something on a day: a session (its own copy of the document, movements inside), or other training.

    `summary`: what it comes to, as it was figured when the copy was made or changed. Logged values, where there are
    any, take the place of the planned ones. It is for the whole squad, for a named group of it, or for one person.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="entries")
    day = models.DateField()
    time = models.TimeField(null=True, blank=True)
    title = models.CharField(max_length=500)
    session = models.ForeignKey(Session, on_delete=models.SET_NULL, null=True, blank=True)
    revision = models.ForeignKey(Revision, on_delete=models.SET_NULL, null=True, blank=True)
    document = models.JSONField(null=True, blank=True)
    minutes = models.FloatField(null=True, blank=True)
    effort = models.FloatField(null=True, blank=True)
    summary = models.JSONField(default=dict)
    figured_with = models.CharField(max_length=16, blank=True, help_text="methods and core of the summary")
    group = models.ForeignKey(Group, on_delete=models.RESTRICT, null=True, blank=True, related_name="entries")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, blank=True)
    changed = models.BooleanField(default=False, help_text="the copy was changed here, for this day alone")
    locked = models.BooleanField(default=False)
    skipped = models.BooleanField(default=False)
    notes = models.TextField(blank=True, help_text="for those who plan")
    logged_minutes = models.FloatField(null=True, blank=True)
    logged_effort = models.FloatField(null=True, blank=True)
    sequence = models.PositiveIntegerField(default=0, help_text="how often it was changed; calendars go by it")
    created_at = models.DateTimeField(auto_now_add=True)
    updated_at = models.DateTimeField(auto_now=True)
    removed_at = models.DateTimeField(null=True, blank=True, help_text="restorable for 30 days, then deleted")

    objects = PlannedEntries()
    with_removed = models.Manager["Entry"]()

    class Meta:
        ordering = ["day", "time", "created_at"]
        indexes = [models.Index(fields=["squad", "day"], name="entries_of_a_day")]

    def __str__(self) -> str:
        return f"{self.day} {self.title}"

    def save(self, *args: Any, **options: Any) -> None:
        """Keep it; every change counts on."""
        if not self._state.adding:
            self.sequence += 1
        super().save(*args, **options)

    @property
    def for_person(self) -> uuid.UUID | None:
        """The outside id of the one person it is for. Asks nothing where the week brought the answer."""
        if self.person_id is None:
            return None
        return self.person_public_id if hasattr(self, "person_public_id") else self.person.public_id  # type: ignore[union-attr]

    @property
    def is_behind(self) -> bool:
        """Whether its session has a newer version than its copy. Asks nothing where the week brought the answer."""
        if self.session_id is None:
            return False
        newest = self.newest_id if hasattr(self, "newest_id") else self.session.head_id if self.session else None
        return bool(newest != self.revision_id)


class Attendance(models.Model):
    """That somebody was away from an entry, or did it otherwise: own minutes and effort, where they were rated.

    `person`: None for a former member, of whom nothing else is known any more. Whoever has none of these for an
    entry that is for them came, and did what was planned (or logged for all). `said`: what they said themselves by
    their link before the session; `options`: what they mean to do otherwise, by step id.
    """

    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="attendance")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, related_name="attendance")
    came = models.BooleanField(default=True)
    minutes = models.FloatField(null=True, blank=True)
    effort = models.FloatField(null=True, blank=True)
    said = models.CharField(max_length=4, blank=True, help_text="here, away; empty: they said nothing")
    options = models.JSONField(default=dict, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["entry", "person"], name="one_attendance_a_person")]

    def __str__(self) -> str:
        return f"{self.person} at {self.entry}"


class Day(models.Model):
    """What a day is meant to be: an intent, a share of the week's load of its own, whether the hall is there."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="days")
    day = models.DateField()
    intent = models.CharField(max_length=10, blank=True)
    share = models.FloatField(null=True, blank=True)
    hall = models.BooleanField(default=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["squad", "day"], name="one_plan_a_day")]

    def __str__(self) -> str:
        return f"{self.day} {self.intent}"


class TeamPlace(models.Model):
    """In which team somebody is for an entry, counted from 1: a split for that day alone."""

    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="team_places")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="team_places")
    team = models.PositiveSmallIntegerField()

    class Meta:
        ordering = ["team", "id"]
        constraints = [models.UniqueConstraint(fields=["entry", "person"], name="one_team_a_person")]

    def __str__(self) -> str:
        return f"{self.person} in team {self.team} of {self.entry}"


class Away(models.Model):
    """Days on which the whole squad is away (a camp, a holiday), or one person; both ends included.

    `known`: it is rest, which counts as such; else nothing is known of it, and it is left out.
    """

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="away")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, blank=True, related_name="away")
    first = models.DateField()
    last = models.DateField()
    known = models.BooleanField(default=True)

    class Meta:
        ordering = ["first"]

    def __str__(self) -> str:
        return f"away {self.first} to {self.last}"


class Phase(models.Model):
    """Several weeks with a load that each is to come to: build, hold, ease, test."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="phases")
    begins = models.DateField()
    weeks = models.PositiveSmallIntegerField()
    kind = models.CharField(max_length=10)
    load_low = models.FloatField()
    load_high = models.FloatField()

    class Meta:
        ordering = ["begins"]

    def __str__(self) -> str:
        return f"{self.kind} from {self.begins}"

    @property
    def band(self) -> Band:
        """The load that each of its weeks is to come to."""
        return Band(self.load_low, self.load_high)


class Change(models.Model):
    """Edits of entries taken together. Each item keeps what undoes it and can be undone alone."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="changes")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    items = models.JSONField(default=list)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-id"]

    def __str__(self) -> str:
        return f"{len(self.items)} edits of {self.made_at}"


class Link(models.Model):
    """A door for calendars: its address shows a squad's plan, or one person's. Its token's hash is kept."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="links")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, blank=True)
    name = models.CharField(max_length=80)
    token_hash = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    revoked_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-created_at"]

    def __str__(self) -> str:
        return self.name
