"""CheckInLink, CheckInDevice, SaidOnce. Of tokens and cookies the hash is kept, never the thing itself."""

from __future__ import annotations

from datetime import datetime

from django.conf import settings
from django.db import models

from finetally.web.squads.models import Person


class CheckInLink(models.Model):
    """A person's own link: opened on two devices at most, until it is ended or the season is over."""

    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="checkin_links")
    token_hash = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-id"]

    def __str__(self) -> str:
        return f"the link of {self.person}"

    def opens_at(self, now: datetime) -> bool:
        """Whether it opens anything at a time: of somebody under age only once a guardian agreed."""
        return self.ended_at is None and now < self.expires_at and not self.person.keeps_little


class CheckInDevice(models.Model):
    """A browser that exchanged a link's token for a cookie. `called`: what it says it is, in two words."""

    link = models.ForeignKey(CheckInLink, on_delete=models.CASCADE, related_name="devices")
    cookie_hash = models.CharField(max_length=64, unique=True)
    called = models.CharField(max_length=60, blank=True)
    began_at = models.DateTimeField(auto_now_add=True)
    used_at = models.DateTimeField()

    class Meta:
        ordering = ["id"]

    def __str__(self) -> str:
        return f"{self.called} of {self.link}"


class SaidOnce(models.Model):
    """That something a device said was taken: sent a second time, because the answer was lost, it counts once."""

    link = models.ForeignKey(CheckInLink, on_delete=models.CASCADE, related_name="said")
    number = models.UUIDField(help_text="made by the device")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["link", "number"], name="said_once")]
        indexes = [models.Index(fields=["link", "at"], name="said_of_a_day")]

    def __str__(self) -> str:
        return f"{self.number} of {self.link}"
