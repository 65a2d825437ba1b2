"""Signing in and out, and who one is."""

from __future__ import annotations

import threading
from datetime import timedelta

from axes.models import AccessAttempt
from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router, Schema
from ninja.utils import check_csrf
from pydantic import Field

from finetally.web.problems import ProblemOut, busy_response, csrf_failure, problem_response
from finetally.web.squads.models import Membership

router = Router()


class SignIn(Schema):
    """Name and password."""

    name: str = Field(max_length=150)
    password: str = Field(max_length=500)


class SquadOut(Schema):
    """A squad one belongs to, and as what; `week_start`: the day that its weeks begin on, 0 is Monday."""

    id: int
    name: str
    role: str
    week_start: int


class MeOut(Schema):
    """The signed-in member."""

    name: str
    squads: list[SquadOut]


def _me(request: HttpRequest) -> MeOut:
    memberships = Membership.objects.filter(user=request.user.pk).select_related("squad")
    squads = [
        SquadOut(id=m.squad_id, name=m.squad.name, role=m.role, week_start=m.squad.week_start) for m in memberships
    ]
    return MeOut(name=request.user.get_username(), squads=squads)


REFUSALS = {400: ProblemOut, 401: ProblemOut, 403: ProblemOut, 429: ProblemOut, 503: ProblemOut}
MOST_HASHES = 2
"""Passwords that a process looks at at the same time: each takes a fifth of a second, on purpose."""
ATTEMPTS_KEPT_FOR = timedelta(days=30)
"""How long wrong passwords are remembered."""
_hashing = threading.BoundedSemaphore(MOST_HASHES)


def name_of(request: HttpRequest, credentials: dict[str, str] | None = None) -> str:
    """The name that wrong passwords are counted for, whatever the case it is typed in."""
    return str((credentials or {}).get("username") or "").casefold()


@router.post("/sign-in", auth=None, response={200: MeOut, **REFUSALS}, operation_id="sign_in")
def sign_in(request: HttpRequest, data: SignIn) -> MeOut | HttpResponse:
    """Sign in with name and password; the answer sets the session's cookie.

    401 for a wrong pair, 429 after ten wrong ones for a name from one address, 503 while many sign in at once.
    """
    if check_csrf(request) is not None:
        return csrf_failure(request)
    if settings.HTTPS and not request.is_secure():
        missing = "The proxy in front does not say that it was reached by https: it must send X-Forwarded-Proto."
        return problem_response(400, "proxy", missing)
    if not _hashing.acquire(blocking=False):
        return busy_response("Many are signing in just now. Try again in a moment.")
    try:
        user = authenticate(request, username=data.name, password=data.password)
    finally:
        _hashing.release()
    if user is None:
        if getattr(request, "axes_locked_out", False):
            minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
            wait = f"Too many wrong passwords. Wait {minutes} minutes, then try again."
            return problem_response(429, "too-many-attempts", wait)
        return problem_response(401, "sign-in", "That name and password do not go together.")
    login(request, user)
    AccessAttempt.objects.filter(attempt_time__lt=timezone.now() - ATTEMPTS_KEPT_FOR).delete()
    return _me(request)


@router.post("/sign-out", response={204: None}, operation_id="sign_out")
def sign_out(request: HttpRequest) -> HttpResponse:
    """End the session, and have the browser drop what it kept of it."""
    logout(request)
    answer = HttpResponse(status=204)
    answer["Clear-Site-Data"] = '"cache", "storage"'
    return answer


@router.get("/me", response={200: MeOut, 401: ProblemOut}, operation_id="me")
def me(request: HttpRequest) -> MeOut:
    """The name that is signed in, its squads, and its role in each."""
    return _me(request)
