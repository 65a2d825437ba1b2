"""Group, GroupPlace, Limit, Maximum, Freshness."""

from __future__ import annotations

from datetime import date

from django.conf import settings
from django.db import models
from django.db.models import Q

from finetally.core.people.limits import BodyLimit, LimitSide
from finetally.web.squads.models import Person, Squad


class GroupMark(models.TextChoices):
    """Signs that tell groups apart without a colour; each is drawn as a shape and has its word."""

    RING = "ring", "ring"
    BAR = "bar", "bar"
    PEAK = "peak", "peak"
    CROSS = "cross", "cross"
    STEP = "step", "step"
    WAVE = "wave", "wave"
    FRAME = "frame", "frame"
    STAR = "star", "star"


class Group(models.Model):
    """Some of a squad, under a name, with a mark. One that is ended is chosen no more; what was for it stays so."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="groups")
    name = models.CharField(max_length=40)
    mark = models.CharField(max_length=10, choices=GroupMark.choices, default=GroupMark.RING)
    ended_on = models.DateField(null=True, blank=True)

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(
                fields=["squad", "name"], condition=Q(ended_on=None), name="one_group_of_a_name"
            )
        ]

    def __str__(self) -> str:
        return self.name


class GroupPlace(models.Model):
    """That somebody is in a group, from a day on and until a day (not included); no day: always, still."""

    group = models.ForeignKey(Group, on_delete=models.CASCADE, related_name="places")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="places")
    since = models.DateField(null=True, blank=True)
    until = models.DateField(null=True, blank=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["group", "person"], condition=Q(until=None), name="once_in_a_group_at_a_time"
            )
        ]

    def __str__(self) -> str:
        return f"{self.person} in {self.group}"


class Limit(models.Model):
    """What somebody is to be spared, a joint or a movement, from a day on, until a day (included) or until ended.

    The note is for the head coaches and the person alone.
    """

    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="limits")
    joint = models.CharField(max_length=20, blank=True)
    movement = models.CharField(max_length=120, blank=True)
    side = models.CharField(max_length=5, default="both")
    first = models.DateField()
    last = models.DateField(null=True, blank=True)
    note = models.CharField(max_length=500, blank=True)
    set_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")

    class Meta:
        ordering = ["-first", "-id"]

    def __str__(self) -> str:
        return f"{self.person}: {self.joint or self.movement}"

    def holds_on(self, day: date) -> bool:
        """Whether it holds on a day."""
        return self.first <= day and (self.last is None or day <= self.last)

    def spared(self) -> BodyLimit:
        """As the core takes it."""
        side: LimitSide = "left" if self.side == "left" else "right" if self.side == "right" else "both"
        return BodyLimit(self.pk, self.joint or None, self.movement or None, side)


class Maximum(models.Model):
    """A set to the last possible rep: of one rep it is the maximum itself, of more an estimate is made of it.

    `day`: None where it is not known (kept from earlier releases).
    """

    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="maxima")
    movement = models.CharField(max_length=120)
    kg = models.FloatField()
    reps = models.PositiveSmallIntegerField(default=1)
    day = models.DateField(null=True, blank=True)

    class Meta:
        ordering = ["movement", "-day", "-id"]
        verbose_name_plural = "maxima"

    def __str__(self) -> str:
        return f"{self.person}: {self.movement} {self.kg} kg × {self.reps}"


class Freshness(models.Model):
    """How fresh somebody said they are on a day, 1 (spent) to 5 (fresh); kept as long as notes of health."""

    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="freshness")
    day = models.DateField()
    value = models.PositiveSmallIntegerField()
    at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-day"]
        constraints = [models.UniqueConstraint(fields=["person", "day"], name="one_freshness_a_day")]

    def __str__(self) -> str:
        return f"{self.person} on {self.day}: {self.value}"
