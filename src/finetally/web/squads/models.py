"""Squad, Person, Membership."""

from __future__ import annotations

import json
import logging
from functools import lru_cache
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.db import models, transaction
from pydantic import ValidationError

from finetally.core.methods.given import PersonGiven
from finetally.core.methods.value import Methods

log = logging.getLogger(__name__)


def methods_value(kept: dict[str, Any]) -> Methods:
    """Methods as they were kept, perhaps by an older release: a setting that is out of bounds now is left out."""
    return _methods_value(json.dumps(kept, sort_keys=True))


@lru_cache(maxsize=256)
def _methods_value(text: str) -> Methods:
    """Held by what they say, so that a squad's requests read them once; a frozen value."""
    kept: dict[str, Any] = json.loads(text)
    try:
        return Methods.model_validate(kept)
    except ValidationError as error:
        wrong = {str(one["loc"][0]) if one["loc"] else "" for one in error.errors(include_url=False)}
        # A rule over several settings names none: then nothing of them can be told to be right.
        good = {} if "" in wrong else {name: value for name, value in kept.items() if name not in wrong}
        log.warning("methods out of bounds are left out: %s", ", ".join(sorted(wrong)) or "all")
        return Methods.model_validate(good)


class Squad(models.Model):
    """A group that trains together, with its own methods, kit and calendar."""

    name = models.CharField(max_length=200)
    time_zone = models.CharField(max_length=64, default="UTC")
    week_start = models.PositiveSmallIntegerField(default=0, help_text="0 is Monday")
    methods = models.JSONField(default=dict, blank=True, help_text="only what differs from the defaults")
    kit = models.JSONField(default=dict, blank=True, help_text="how many there are of each kit")

    movements_version = models.CharField(
        max_length=32, blank=True, help_text="another after every change of its own movements"
    )

    def __str__(self) -> str:
        return self.name

    def methods_value(self) -> Methods:
        """The squad's methods as the core takes them; what a newer rule refuses stands at its default."""
        return methods_value(self.methods)


class Person(models.Model):
    """Somebody who trains in a squad, with or without an account."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="people")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, blank=True)
    name = models.CharField(max_length=200)
    one_rm = models.JSONField(default=dict, blank=True, help_text="kg by movement")
    body_kg = models.FloatField(null=True, blank=True)
    capacity_met = models.FloatField(null=True, blank=True)
    pace_factor = models.FloatField(null=True, blank=True)
    effort_offset = models.FloatField(default=0)

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name

    def given(self) -> PersonGiven:
        """What is known about the person, as the core takes it."""
        return PersonGiven(
            one_rm=self.one_rm,
            body_kg=self.body_kg,
            capacity_met=self.capacity_met,
            pace_factor=self.pace_factor,
            effort_offset=self.effort_offset,
        )


class SquadMovement(models.Model):
    """A movement that a squad defined or imported; it wins over the shipped one with the same key."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="movements")
    key = models.CharField(max_length=120)
    definition = models.JSONField()
    updated_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["key"]
        constraints = [models.UniqueConstraint(fields=["squad", "key"], name="one_movement_a_key")]

    def __str__(self) -> str:
        return self.key

    def save(self, *args: Any, **options: Any) -> None:
        """Keep it, and let the squad know."""
        with transaction.atomic():
            super().save(*args, **options)
            self._told()

    def delete(self, *args: Any, **options: Any) -> tuple[int, dict[str, int]]:
        """Take it away, and let the squad know."""
        with transaction.atomic():
            gone = super().delete(*args, **options)
            self._told()
        return gone

    def _told(self) -> None:
        # By chance and not by counting: a version that was rolled back, or restored over, never comes twice.
        version = uuid4().hex
        Squad.objects.filter(pk=self.squad_id).update(movements_version=version)
        if "squad" in self._state.fields_cache:
            self.squad.movements_version = version


class Role(models.TextChoices):
    """What a member may do: head coaches all, coaches plan, athletes look."""

    HEAD_COACH = "head-coach", "head coach"
    COACH = "coach", "coach"
    ATHLETE = "athlete", "athlete"


class Membership(models.Model):
    """A user's role in a squad."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=20, choices=Role.choices)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "squad"], name="one_role_a_squad")]

    def __str__(self) -> str:
        return f"{self.user} in {self.squad}: {self.role}"
