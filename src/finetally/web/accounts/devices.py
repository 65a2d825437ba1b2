"""Django's sessions in the database, each known to belong to an account, so that it can be ended from elsewhere."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime, timedelta
from typing import Any

from django.contrib.auth import SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore as DatabaseStore
from django.contrib.sessions.base_session import AbstractBaseSession
from django.http import HttpRequest, HttpResponse
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


RENEWED = "renewed"
RENEWED_AFTER = timedelta(days=1)


class IdleMiddleware:
    """Has a sign-in that is used last on: it ends after `SESSION_COOKIE_AGE` without use.

    On a shared device it ends all the same. Written once a day and not with each request: looking writes nothing.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        answer = self._get_response(request)
        session = request.session
        # Only where somebody looked who it is: else the session would be read for files and pages, too.
        # And only by looking: what changes something may have ended it.
        looked = request.method == "GET" and session.accessed and SESSION_KEY in session
        last = session.get(RENEWED) or session.get(BEGAN) if looked and not session.get(SHARED) else None
        if last and timezone.now() - datetime.fromisoformat(last) > RENEWED_AFTER:
            session[RENEWED] = timezone.now().isoformat()
        return answer


def describe_device(request: HttpRequest, *, shared: bool) -> None:
    """Write into the session what it runs on, and have it end by itself where others use it too."""
    request.session[CALLED] = called_by(request)
    request.session[SHARED] = shared
    request.session[BEGAN] = timezone.now().isoformat()
    if shared:
        request.session.set_expiry(SHARED_FOR)
