"""Signing in and out, who one is, and one's own account."""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from ninja.utils import check_csrf
from pydantic import Field

from finetally.core.measures import Units
from finetally.web.accounts import own, second_factor
from finetally.web.accounts.again import ask_password
from finetally.web.accounts.devices import SHARED, describe_device
from finetally.web.accounts.guessing import (
    ANY_NAME,
    count,
    is_over,
    password_turn,
    recognise_browser,
    remember_browser,
)
from finetally.web.accounts.members import leave_squad
from finetally.web.accounts.models import NoticeKind
from finetally.web.api.request import ActorRequest
from finetally.web.privacy.erasing import erase_account
from finetally.web.problems import ProblemOut, csrf_failure, problem_response
from finetally.web.squads.actor import Right, signed_in
from finetally.web.squads.models import Person

router = Router()

Password = Field(max_length=500)


class SignIn(Schema):
    """Name and password; `shared`: others use this device, too. `code`: of the second factor, if there is one."""

    name: str = Field(max_length=150)
    password: str = Password
    shared: bool = False
    code: str = Field(default="", max_length=40)


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


def wait_a_while(what: str) -> HttpResponse:
    """429: too many from one address."""
    minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
    return problem_response(429, "too-many-attempts", f"Too many {what}. Wait {minutes} minutes, then try again.")


@router.post("/sign-in", auth=None, response={200: MeOut, **REFUSALS}, operation_id="sign_in")
def sign_in(request: HttpRequest, response: HttpResponse, data: SignIn) -> MeOut | HttpResponse:
    """Sign in with name and password; the answer sets the session's cookie.

    On a shared device it ends after 12 hours. 401 for a wrong pair; 429 after ten wrong ones for a name, or sixty
    for any name, from one address; 503 while many sign in at once.
    """
    if check_csrf(request) is not None:
        return csrf_failure(request)
    if settings.HTTPS and not request.is_secure():
        missing = "The proxy in front does not say that it was reached by https: it must send X-Forwarded-Proto."
        return problem_response(400, "proxy", missing)
    known = recognise_browser(request, data.name)
    if not known and is_over(request, ANY_NAME):
        return wait_a_while("wrong sign-ins from this network")
    with password_turn(request):
        user = authenticate(request, username=data.name, password=data.password)
    if user is None:
        if getattr(request, "axes_locked_out", False):
            return wait_a_while("wrong passwords")
        if not known:
            count(request, ANY_NAME)
        return problem_response(401, "sign-in", "Wrong name or password.")
    factor = second_factor.factor_of(user)
    if factor is not None and not data.code:
        return problem_response(401, "second-factor", "Type the code that your app shows.")
    if factor is not None and not second_factor.passes(factor, data.code):
        # Counted for the name and for the address, as a wrong password is: six digits can be guessed.
        count(request, data.name)
        if not known:
            count(request, ANY_NAME)
        return problem_response(
            401, "second-factor", "That code does not count, or not any more. Type the next one."
        )
    enter(request, response, user, shared=data.shared)
    return _me(request)


def enter(request: HttpRequest, answer: HttpResponse, user: Any, *, shared: bool) -> None:
    """Begin a session for somebody who has shown who they are."""
    login(request, user, backend=settings.AUTHENTICATION_BACKENDS[-1])
    describe_device(request, shared=shared)
    if not shared:
        remember_browser(request, answer, user.get_username())


@router.post("/sign-out", response={204: None}, operation_id="sign_out")
def sign_out(request: HttpRequest) -> HttpResponse:
    """End the session. The page removes what it kept of the account; other accounts' runs stay on the device."""
    logout(request)
    answer = HttpResponse(status=204)
    answer["Clear-Site-Data"] = '"cache"'
    return answer


@router.get("/me", response={200: MeOut, 401: ProblemOut}, operation_id="me")
def me(request: HttpRequest) -> MeOut:
    """The name that is signed in, its squads, its role in each, who it is there, and what it is to be told."""
    return _me(request)


class PasswordIn(Schema):
    """The current password and the new one."""

    old: str = Password
    new: str = Password


@router.post("/account/password", response={204: None, **OWN}, operation_id="change_password")
def change_password(request: HttpRequest, data: PasswordIn) -> HttpResponse:
    """Set another password, and sign out all devices but this one. 422 where the old one is wrong."""
    with password_turn(request):
        own.change_password(request.user, data.old, data.new, request.session.session_key)
        update_session_auth_hash(request, request.user)  # type: ignore[arg-type]
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
    """The current password: somebody who finds a device must not be able to erase its owner."""

    password: str = Password


@router.post("/account/erase", response={204: None, **OWN}, operation_id="erase_account")
def erase(request: HttpRequest, data: EraseAccountIn) -> HttpResponse:
    """Erase one's account, and all that is kept of oneself in all squads. 422 for the last head coach of one."""
    ask_password(request, data.password)
    erase_account(request.user)
    return sign_out(request)


class SecondFactorOut(Schema):
    """Whether one signs in with a second factor; `may`: one is a head coach; `spare`: spare codes that are left."""

    on: bool
    may: bool
    spare: int


class SetUpIn(Schema):
    """The current password."""

    password: str = Password


class SetUpOut(Schema):
    """A secret for an app: as text, and as a picture (SVG) for its camera."""

    secret: str
    picture: str


class CodeIn(Schema):
    """The code that the app shows."""

    code: str = Field(max_length=40)


class SpareOut(Schema):
    """Codes for when the app is lost, each once. Shown this once."""

    spare: list[str]


@router.get(
    "/account/second-factor", response={200: SecondFactorOut, 401: ProblemOut}, operation_id="second_factor"
)
def see_second_factor(request: ActorRequest) -> SecondFactorOut:
    """Whether a second factor is asked for at sign-in."""
    known = second_factor.factor_of(request.user)
    may = bool(request.auth.squads(Right.HEAD))
    return SecondFactorOut(on=known is not None, may=may, spare=len(known.spare) if known is not None else 0)


@router.post("/account/second-factor", response={200: SetUpOut, **OWN}, operation_id="set_up_second_factor")
def set_up_second_factor(request: HttpRequest, data: SetUpIn) -> SetUpOut:
    """Make a secret for an app; it counts once a code was shown. For head coaches. 422 for a wrong password."""
    ask_password(request, data.password)
    secret, address = second_factor.set_up(request.user)
    return SetUpOut(secret=secret, picture=second_factor.drawn(address))


@router.put("/account/second-factor", response={200: SpareOut, **OWN}, operation_id="begin_second_factor")
def begin_second_factor(request: HttpRequest, data: CodeIn) -> SpareOut:
    """Ask for a code at sign-in from now on. 422 for a code that the app does not show now."""
    return SpareOut(spare=second_factor.begin(request.user, data.code))


@router.post("/account/second-factor/end", response={204: None, **OWN}, operation_id="end_second_factor")
def end_second_factor(request: HttpRequest, data: SetUpIn) -> HttpResponse:
    """Ask for no code any more. 422 for a wrong password."""
    ask_password(request, data.password)
    second_factor.end(request.user)
    return HttpResponse(status=204)
