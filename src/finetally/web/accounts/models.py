"""Device (a session of the browser), Invitation, Reset, Notice. Of tokens the hash is kept, never the token."""

from __future__ import annotations

from datetime import datetime

from django.conf import settings
from django.contrib.sessions.backends.base import SessionBase
from django.contrib.sessions.base_session import AbstractBaseSession
from django.db import models
from django.utils import timezone
from django.utils.module_loading import import_string

from finetally.web.squads.models import Person, Role, Squad


class Device(AbstractBaseSession):
    """A browser that is signed in, as Django's sessions keep it, and whose it is.

    `called`: what it says it is, in two words. `shared`: others use it too; it ends by itself after half a day.
    """

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="devices")
    called = models.CharField(max_length=60, blank=True)
    shared = models.BooleanField(default=False)
    began_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["-began_at"]

    @classmethod
    def get_session_store_class(cls) -> type[SessionBase]:
        """Where Django keeps them."""
        store: type[SessionBase] = import_string(f"{settings.SESSION_ENGINE}.SessionStore")
        return store


class OpenOnce(models.Model):
    """What a link opens, once and for some days: its token's hash, who made it, when it was used or ended.

    `made_by`: None for whoever keeps the machine.
    """

    token_hash = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        abstract = True

    def opens_at(self, now: datetime) -> bool:
        """Whether it opens anything at a time."""
        return self.used_at is None and self.ended_at is None and now < self.expires_at


class Invitation(OpenOnce):
    """For one squad and one role; for somebody who is in the list already, or for anybody who has the link."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=20, choices=Role.choices)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, blank=True, related_name="invitations")
    used_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")

    class Meta:
        ordering = ["-id"]

    def __str__(self) -> str:
        return f"{self.role} in {self.squad}"


class Reset(OpenOnce):
    """For one account: a new password. Made by a head coach of its only squad, or by whoever keeps the machine."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="resets")
    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, null=True, related_name="+")

    class Meta:
        ordering = ["-id"]

    def __str__(self) -> str:
        return f"password of {self.user}"


class OwnSetting(models.Model):
    """What somebody set for themselves, in whichever squad; whoever set nothing has none.

    `units`: what masses and distances are told in.
    """

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="own_setting")
    units = models.CharField(max_length=10, default="metric", help_text="a Units of core/measures.py")

    def __str__(self) -> str:
        return f"{self.units} of {self.user}"


class SecondFactor(models.Model):
    """What somebody shows at sign-in beside their password: codes of an app that has the same secret.

    `begun_at`: None until a code was shown; `last_step`: the latest code that was used, none of which counts twice;
    `spare`: hashes of codes for when the app is lost, each once.
    """

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="second_factor")
    secret = models.CharField(max_length=64)
    last_step = models.BigIntegerField(default=0)
    spare = models.JSONField(default=list)
    begun_at = models.DateTimeField(null=True)

    def __str__(self) -> str:
        return f"second factor of {self.user}"


class NoticeKind(models.TextChoices):
    """What an account is told the next time it is there."""

    ACCEPTED = "accepted", "Your invitation was accepted: %s."
    RESET = "reset", "Your password was set anew with a link that %s made. All devices were signed out."


class Notice(models.Model):
    """Something that an account is told until it says that it has read it."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="notices")
    kind = models.CharField(max_length=10, help_text="a NoticeKind")
    about = models.CharField(max_length=200, blank=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]

    def __str__(self) -> str:
        return f"{self.kind} {self.about}"
