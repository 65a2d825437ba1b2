"""Signing in and out, and who one is."""

from __future__ import annotations

from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from ninja.utils import check_csrf
from pydantic import Field

from finetally.web.problems import ProblemOut, csrf_failure, problem_response
from finetally.web.squads import tries
from finetally.web.squads.models import Membership

router = Router()


class SignIn(Schema):
    """Name and password."""

    name: str = Field(max_length=150)
    password: str = Field(max_length=500)


class SquadOut(Schema):
    """A squad one belongs to, and as what."""

    id: int
    name: str
    role: str


class MeOut(Schema):
    """The signed-in member."""

    name: str
    squads: list[SquadOut]


def _me(request: HttpRequest) -> MeOut:
    memberships = Membership.objects.filter(user_id=request.user.pk).select_related("squad")
    squads = [SquadOut(id=m.squad_id, name=m.squad.name, role=m.role) for m in memberships]
    return MeOut(name=request.user.get_username(), squads=squads)


REFUSALS = {401: ProblemOut, 403: ProblemOut, 429: ProblemOut}


@router.post("/sign-in", auth=None, response={200: MeOut, **REFUSALS}, operation_id="sign_in")
def sign_in(request: HttpRequest, data: SignIn) -> MeOut | HttpResponse:
    """Start a session of one's own."""
    if check_csrf(request) is not None:
        return csrf_failure(request)
    address = request.META.get("REMOTE_ADDR", "")
    if not tries.may_try(data.name, address):
        wait = f"Too many wrong passwords. Wait {tries.WITHIN_S // 60} minutes, then try again."
        return problem_response(429, "too-many-tries", wait)
    user = authenticate(request, username=data.name, password=data.password)
    if user is None:
        tries.note_wrong(data.name, address)
        return problem_response(401, "sign-in", "That name and password do not go together.")
    tries.forget(data.name, address)
    login(request, user)
    return _me(request)


@router.post("/sign-out", response={204: None}, operation_id="sign_out")
def sign_out(request: HttpRequest) -> Status[None]:
    """End it."""
    logout(request)
    return Status(204, None)


@router.get("/me", response={200: MeOut, 401: ProblemOut}, operation_id="me")
def me(request: HttpRequest) -> MeOut:
    """Who is signed in."""
    return _me(request)
