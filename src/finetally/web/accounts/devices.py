"""Django's sessions in the database, each known to belong to an account, so that it can be ended from elsewhere."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from django.contrib.auth import SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore as DatabaseStore
from django.contrib.sessions.base_session import AbstractBaseSession
from django.http import HttpRequest
from django.utils import timezone

from finetally.web.accounts.models import Device

CALLED, SHARED, BEGAN = "called", "shared", "began"
SHARED_FOR = timedelta(hours=12)
"""How long a device that others use too stays signed in."""


class SessionStore(DatabaseStore):
    """As Django's; what signs in writes beside its data whose it is."""

    @classmethod
    def get_model_class(cls) -> type[AbstractBaseSession]:
        """The table."""
        return Device

    def create_model_instance(self, data: dict[str, Any]) -> Any:
        """A row, with what the list of devices shows."""
        row: Any = super().create_model_instance(data)
        row.user_id = int(data[SESSION_KEY]) if SESSION_KEY in data else None
        row.called = data.get(CALLED, "a browser")
        row.shared = bool(data.get(SHARED))
        if BEGAN in data:
            row.began_at = datetime.fromisoformat(data[BEGAN])
        return row


BROWSERS = (("Edg", "Edge"), ("OPR", "Opera"), ("Firefox", "Firefox"), ("Chrome", "Chrome"), ("Safari", "Safari"))
SYSTEMS = (
    ("Android", "Android"), ("iPhone", "iPhone"), ("iPad", "iPad"), ("Windows", "Windows"), ("Mac OS", "Mac"),
    ("Linux", "Linux"),
)  # fmt: skip


def called_by(request: HttpRequest) -> str:
    """What a browser says it is, in two words: nothing more of it is kept."""
    says = request.headers.get("User-Agent", "")
    browser = next((name for sign, name in BROWSERS if sign in says), "a browser")
    system = next((name for sign, name in SYSTEMS if sign in says), "")
    return f"{browser}, {system}" if system else browser


def describe_device(request: HttpRequest, *, shared: bool) -> None:
    """Write into the session what it runs on, and have it end by itself where others use it too."""
    request.session[CALLED] = called_by(request)
    request.session[SHARED] = shared
    request.session[BEGAN] = timezone.now().isoformat()
    if shared:
        request.session.set_expiry(SHARED_FOR)
