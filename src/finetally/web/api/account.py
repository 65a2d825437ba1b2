"""Signing in and out, who one is, and one's own account."""

from __future__ import annotations

import threading
from datetime import datetime, timedelta
from uuid import UUID

from axes.models import AccessAttempt
from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router, Schema, Status
from ninja.utils import check_csrf
from pydantic import Field

from finetally.core.measures import Units
from finetally.web.accounts import own
from finetally.web.accounts.devices import SHARED, describe_device
from finetally.web.accounts.members import leave_squad
from finetally.web.accounts.models import NoticeKind
from finetally.web.api.request import ActorRequest
from finetally.web.privacy.erasing import erase_account
from finetally.web.problems import ProblemOut, busy_response, csrf_failure, problem_response
from finetally.web.squads.actor import signed_in
from finetally.web.squads.models import Person

router = Router()

Password = Field(max_length=500)


class SignIn(Schema):
    """Name and password; `shared`: others use this device, too."""

    name: str = Field(max_length=150)
    password: str = Password
    shared: bool = False


class SquadOut(Schema):
    """A squad one belongs to, and as what; `week_start`: the day that its weeks begin on, 0 is Monday.

    `person`: who one is among its people.
    """

    id: int
    name: str
    role: str
    week_start: int
    person: UUID | None


class NoticeOut(Schema):
    """Something that one is told until one has read it."""

    id: int
    says: str
    at: datetime


class MeOut(Schema):
    """The signed-in member; `shared`: on a device that others use, too.

    `units`: what masses and distances are told to them in; documents and answers have kilograms and metres always.
    """

    name: str
    units: Units
    squads: list[SquadOut]
    shared: bool
    notices: list[NoticeOut]


def _me(request: HttpRequest) -> MeOut:
    actor = signed_in(request.user)
    people = dict(Person.objects.filter(user=actor.user_id).values_list("squad_id", "public_id"))
    squads = [
        SquadOut(
            id=key, name=squad.name, role=actor.role_in(key), week_start=squad.week_start, person=people.get(key)
        )
        for key, squad in actor.known.items()
    ]
    notices = [
        NoticeOut(id=one.pk, says=NoticeKind(one.kind).label.replace("%s", one.about), at=one.at)
        for one in own.notices_of(request.user)
    ]
    shared = bool(request.session.get(SHARED))
    return MeOut(
        name=request.user.get_username(), units=own.units_of(actor.user_id), squads=squads, shared=shared,
        notices=notices,
    )  # fmt: skip


REFUSALS = {400: ProblemOut, 401: ProblemOut, 403: ProblemOut, 422: ProblemOut, 429: ProblemOut, 503: ProblemOut}
OWN = {401: ProblemOut, 404: ProblemOut, 422: ProblemOut, 503: ProblemOut}
MOST_HASHES = 2
"""Passwords that a process looks at at the same time: each takes a fifth of a second, on purpose."""
ATTEMPTS_KEPT_FOR = timedelta(days=30)
"""How long wrong passwords are remembered."""
hashing = threading.BoundedSemaphore(MOST_HASHES)


def name_of(request: HttpRequest, credentials: dict[str, str] | None = None) -> str:
    """The name that wrong passwords are counted for, whatever the case it is typed in."""
    return str((credentials or {}).get("username") or "").casefold()


WRONG_PASSWORDS, WRONG_LINKS = 10, 60
ANY_LINK = "(link)"
"""The name that wrong tokens are counted for. Nobody guesses 128 bits: what is counted is a squad behind one
address that opens old links, and whoever wants to keep the server busy."""


def wrong_ones_allowed(request: HttpRequest, credentials: dict[str, str] | None = None) -> int:
    """After so many wrong ones of a name from one address comes a wait."""
    return WRONG_LINKS if name_of(request, credentials) == ANY_LINK else WRONG_PASSWORDS


def wait_a_while(what: str) -> HttpResponse:
    """429: too many wrong ones from one address."""
    minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
    return problem_response(
        429, "too-many-attempts", f"Too many wrong {what}. Wait {minutes} minutes, then try again."
    )


@router.post("/sign-in", auth=None, response={200: MeOut, **REFUSALS}, operation_id="sign_in")
def sign_in(request: HttpRequest, data: SignIn) -> MeOut | HttpResponse:
    """Sign in with name and password; the answer sets the session's cookie.

    On a shared device it ends after 12 hours. 401 for a wrong pair, 429 after ten wrong ones for a name from one
    address, 503 while many sign in at once.
    """
    if check_csrf(request) is not None:
        return csrf_failure(request)
    if settings.HTTPS and not request.is_secure():
        missing = "The proxy in front does not say that it was reached by https: it must send X-Forwarded-Proto."
        return problem_response(400, "proxy", missing)
    if not hashing.acquire(blocking=False):
        return busy_response("Many are signing in just now. Try again in a moment.")
    try:
        user = authenticate(request, username=data.name, password=data.password)
    finally:
        hashing.release()
    if user is None:
        if getattr(request, "axes_locked_out", False):
            return wait_a_while("passwords")
        return problem_response(401, "sign-in", "That name and password do not go together.")
    enter(request, user, shared=data.shared)
    AccessAttempt.objects.filter(attempt_time__lt=timezone.now() - ATTEMPTS_KEPT_FOR).delete()
    return _me(request)


def enter(request: HttpRequest, user: object, *, shared: bool) -> None:
    """Begin a session for somebody who has shown who they are."""
    login(request, user, backend=settings.AUTHENTICATION_BACKENDS[-1])  # type: ignore[arg-type]
    describe_device(request, shared=shared)


@router.post("/sign-out", response={204: None}, operation_id="sign_out")
def sign_out(request: HttpRequest) -> HttpResponse:
    """End the session, and have the browser drop what it kept of it."""
    logout(request)
    answer = HttpResponse(status=204)
    answer["Clear-Site-Data"] = '"cache", "storage"'
    return answer


@router.get("/me", response={200: MeOut, 401: ProblemOut}, operation_id="me")
def me(request: HttpRequest) -> MeOut:
    """The name that is signed in, its squads, its role in each, who it is there, and what it is to be told."""
    return _me(request)


class PasswordIn(Schema):
    """The password that holds now, and the one that is to hold."""

    old: str = Password
    new: str = Password


@router.post("/account/password", response={204: None, **OWN}, operation_id="change_password")
def change_password(request: HttpRequest, data: PasswordIn) -> HttpResponse:
    """Set another password, and sign out all devices but this one. 422 where the old one is wrong."""
    if not hashing.acquire(blocking=False):
        return busy_response("Many are signing in just now. Try again in a moment.")
    try:
        own.change_password(request.user, data.old, data.new, request.session.session_key)
        update_session_auth_hash(request, request.user)  # type: ignore[arg-type]
    finally:
        hashing.release()
    return HttpResponse(status=204)


class DeviceOut(Schema):
    """Where one is signed in: what it runs on, since when, until when; `this`: it is this one."""

    number: str
    called: str
    shared: bool
    began_at: datetime
    ends_at: datetime
    this: bool


@router.get("/account/devices", response={200: list[DeviceOut], 401: ProblemOut}, operation_id="devices")
def devices(request: HttpRequest) -> list[DeviceOut]:
    """Where one is signed in, the latest first."""
    return [
        DeviceOut(
            number=own.device_number(one), called=one.called, shared=one.shared, began_at=one.began_at,
            ends_at=one.expire_date, this=one.session_key == request.session.session_key,
        )
        for one in own.devices_of(request.user)
    ]  # fmt: skip


@router.delete("/account/devices/{number}", response={204: None, 401: ProblemOut}, operation_id="sign_out_device")
def sign_out_device(request: HttpRequest, number: str) -> Status[None]:
    """Sign out elsewhere. One that is signed out already is no fault."""
    own.sign_out_device(request.user, number)
    return Status(204, None)


class UnitsIn(Schema):
    """What masses and distances are to be told in."""

    units: Units


@router.put("/account/units", response={200: MeOut, 401: ProblemOut, 422: ProblemOut}, operation_id="set_units")
def set_units(request: ActorRequest, data: UnitsIn) -> MeOut:
    """Set one's own units, for all squads and devices; what was planned and noted stays as it is."""
    own.set_units(request.user, data.units)
    return _me(request)


@router.delete("/account/notices/{notice_id}", response={204: None, 401: ProblemOut}, operation_id="read_notice")
def read_notice(request: HttpRequest, notice_id: int) -> Status[None]:
    """Have it told no more."""
    own.read_notice(request.user, notice_id)
    return Status(204, None)


@router.delete("/account/squads/{squad_id}", response={204: None, **OWN}, operation_id="leave_squad")
def leave(request: ActorRequest, squad_id: int) -> Status[None]:
    """Leave a squad; the person stays in its list, without an account. 422 for its last head coach."""
    leave_squad(request.auth, squad_id)
    return Status(204, None)


class EraseAccountIn(Schema):
    """The password that holds now: whoever finds a device must not be able to erase its owner."""

    password: str = Password


@router.post("/account/erase", response={204: None, **OWN}, operation_id="erase_account")
def erase(request: HttpRequest, data: EraseAccountIn) -> HttpResponse:
    """Erase one's account, and all that is kept of oneself in all squads. 422 for the last head coach of one."""
    if not hashing.acquire(blocking=False):
        return busy_response("Many are signing in just now. Try again in a moment.")
    try:
        erase_account(request.user, data.password)
    finally:
        hashing.release()
    return sign_out(request)
