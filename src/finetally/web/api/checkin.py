"""A person's own link over the API: made and ended by coaches; exchanged for a cookie, looked at, spoken to.

The cookie is of this path alone and opens nothing else; whoever holds it is nobody to the rest of the API.
"""

from __future__ import annotations

from uuid import UUID

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Router, Status
from ninja.security import APIKeyCookie

from finetally.core.learn.scale import EFFORT_WORDS, FRESH_WORDS
from finetally.core.log.notes import CAUTIONS
from finetally.core.measures import Units
from finetally.web.accounts.devices import called_by
from finetally.web.api.checkin_schemas import (
    CheckInState,
    FreshWordOut,
    HeardOut,
    NotTaken,
    OwnDeviceOut,
    OwnEntryOut,
    OwnPageOut,
    OwnResultOut,
    OwnStepOut,
    OwnTokenIn,
    OwnWindowOut,
    SaidIn,
)
from finetally.web.api.links import LinkTold, opened, told_link
from finetally.web.api.log_answers import expected_told, score_told
from finetally.web.api.log_schemas import EffortWordOut
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.checkin import links
from finetally.web.checkin.links import OwnDoor, TakenError
from finetally.web.checkin.models import CheckInDevice, CheckInLink
from finetally.web.checkin.page import OwnEntry, OwnPage, OwnWindow, own_page
from finetally.web.checkin.saying import Saying, hear
from finetally.web.log_lines import asked_by_own_link
from finetally.web.problems import ProblemOut, problem_response

router = Router()
COOKIE, COOKIE_PATH = "own-link", "/api/checkin"
IN_USE = "This link is in use on two devices already. End it on one of them, or ask your coach for a new one."
OTHER_LINK = "Another link is open on this phone now. What was said waits for its own."
OWN_REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
OPEN_REFUSALS = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut, 429: ProblemOut}


class OwnLink(APIKeyCookie):
    """Who holds a device's cookie. A cookie door, so every change must bring the CSRF token."""

    param_name = COOKIE

    def authenticate(self, request: HttpRequest, key: str | None) -> OwnDoor | None:
        """None, and so a refusal, for a cookie that opens nothing, or nothing more."""
        door = links.door_of(key) if key else None
        if door is not None:
            asked_by_own_link(request, door.device.link.person_id)
        return door


class OwnRequest(HttpRequest):
    """A request of a person by their own link. Only for types."""

    auth: OwnDoor


@router.post("/checkin/open", auth=None, response={204: None, **OPEN_REFUSALS}, operation_id="openOwnLink")
def open_link(request: HttpRequest, data: OwnTokenIn) -> HttpResponse:
    """Exchange a link's token for a cookie of this device. 404 where it opens nothing, 409 on a third device."""
    return opened(request, lambda: _entered(request, data.token))


def _entered(request: HttpRequest, token: str) -> HttpResponse:
    """The answer that brings a device its cookie. Raises Http404 for a token that opens nothing."""
    try:
        device, cookie = links.enter_by(token, request.COOKIES.get(COOKIE), called_by(request))
    except TakenError:
        return problem_response(409, "devices", IN_USE)
    answer = HttpResponse(status=204)
    answer.set_cookie(
        COOKIE, cookie, expires=device.link.expires_at, path=COOKIE_PATH, secure=settings.SESSION_COOKIE_SECURE,
        httponly=True, samesite="Strict",
    )  # fmt: skip
    return answer


@router.get("/checkin", auth=OwnLink(), response={200: OwnPageOut, 401: ProblemOut}, operation_id="ownPage")
def look(request: OwnRequest, units: Units | None = None) -> OwnPageOut:
    """Today's session as the holder does it, and what they said of it; nothing of health, nobody else.

    `units`: what this device tells masses and distances in; without it as the holder's account has it.
    """
    return _page(own_page(request.auth, units))


@router.post(
    "/checkin/say", auth=OwnLink(), response={200: HeardOut, 409: ProblemOut, **OWN_REFUSALS}, operation_id="say"
)
def say(request: OwnRequest, data: SaidIn) -> HeardOut | HttpResponse:
    """Save what the link's owner reports, each item once by its number; a refused one does not stop the rest.

    409 where it was said by another link than the one that is open on this phone now: nothing is taken.
    """
    if data.link not in (None, request.auth.device.link_id):
        return problem_response(409, "other-link", OTHER_LINK)
    heard = hear(request.auth, [_saying(one.model_dump()) for one in data.said], sent=data.sent)
    refused = [NotTaken(number=number, why=why) for number, why in heard.refused.items()]
    waiting = [NotTaken(number=number, why=why) for number, why in heard.waiting.items()]
    return HeardOut(taken=heard.taken, refused=refused, waiting=waiting)


@router.delete(
    "/checkin/devices/{device_id}",
    auth=OwnLink(),
    response={204: None, **OWN_REFUSALS},
    operation_id="dropOwnDevice",
)
def drop_device(request: OwnRequest, device_id: int) -> Status[None]:
    """From now on one of the holder's devices opens nothing; its place is free for another."""
    links.drop_device(request.auth, device_id)
    return Status(204, None)


@router.delete("/checkin", auth=OwnLink(), response={204: None, **OWN_REFUSALS}, operation_id="endOwnLink")
def end_own(request: OwnRequest) -> Status[None]:
    """The holder ends their link everywhere."""
    links.end_own_link(request.auth.actor, request.auth.person.public_id)
    return Status(204, None)


@router.get(
    "/people/{person_id}/checkin", response={200: CheckInState | None, **REFUSALS}, operation_id="checkInLink"
)
def state(request: ActorRequest, person_id: UUID) -> CheckInState | None:
    """The link that somebody has now and the devices it is on, or nothing; for those who plan, and the person."""
    found = links.own_link_of(request.auth, person_id)
    return _state(found) if found is not None else None


@router.post("/people/{person_id}/checkin", response={201: LinkTold, **REFUSALS}, operation_id="makeCheckInLink")
def make(request: ActorRequest, person_id: UUID) -> Status[LinkTold]:
    """A new link for somebody, told this once; one that they had ends. For those who plan."""
    made, token = links.make_own_link(request.auth, person_id)
    return Status(201, told_link(request, "/me", token, made.expires_at))


@router.delete("/people/{person_id}/checkin", response={204: None, **REFUSALS}, operation_id="endCheckInLink")
def end(request: ActorRequest, person_id: UUID) -> Status[None]:
    """From now on somebody's link and its devices open nothing; for those who plan, and the person."""
    links.end_own_link(request.auth, person_id)
    return Status(204, None)


def _saying(told: dict[str, object]) -> Saying:
    window = tuple(told.pop(name, 0) for name in ("block", "section_pass", "index"))
    score = told.pop("score", None)
    if isinstance(score, dict):
        score = {name: value for name, value in score.items() if value is not None}
    return Saying(**told, window=window, score=score)  # type: ignore[arg-type]


def _device(one: CheckInDevice, this: CheckInDevice | None = None) -> OwnDeviceOut:
    return OwnDeviceOut(
        id=one.pk, called=one.called, began_at=one.began_at, used_at=one.used_at, this=one == this
    )  # fmt: skip


def _state(link: CheckInLink) -> CheckInState:
    return CheckInState(
        made_at=link.made_at,
        made_by=link.made_by.get_username() if link.made_by is not None else None,
        until=link.expires_at,
        devices=[_device(one) for one in link.devices.all()],
    )


def _page(page: OwnPage) -> OwnPageOut:
    squad = page.person.squad
    return OwnPageOut(
        link=page.this.link_id,
        units=page.units,
        squad=squad.name,
        name=page.person.name,
        today=page.today,
        until=page.this.link.expires_at,
        emergency=squad.emergency,
        asks_health=squad.asks_health,
        health_why=squad.health_why,
        asks_freshness=squad.asks_freshness,
        fresh_sent=page.fresh_sent,
        scale=[EffortWordOut(effort=one.effort, word=one.word) for one in EFFORT_WORDS],
        fresh_scale=[FreshWordOut(value=one.value, word=one.word) for one in FRESH_WORDS],
        note_cautions={str(kind): words for kind, words in CAUTIONS.items()},
        entries=[_entry(one) for one in page.entries],
        results=[OwnResultOut(day=one.day, title=one.title, score=score_told(one.score)) for one in page.results],
        devices=[_device(one, page.this) for one in page.devices],
    )


def _entry(one: OwnEntry) -> OwnEntryOut:
    return OwnEntryOut(
        id=one.entry.pk,
        day=one.entry.day,
        time=one.entry.time,
        title=one.entry.title,
        minutes=one.minutes,
        text=one.text,
        cautions=one.cautions,
        logged=one.entry.logged_minutes is not None,
        said=one.said,
        effort=one.effort,
        steps=[
            OwnStepOut(step=each.step, name=each.name, labels=each.labels, taken=each.taken, fixed=each.fixed)
            for each in one.steps
        ],
        windows=[_window(each) for each in one.windows],
    )


def _window(one: OwnWindow) -> OwnWindowOut:
    at = one.window
    return OwnWindowOut(
        block=at.block,
        section_pass=at.section_pass,
        index=at.place,
        title=at.title,
        kind="time" if at.kind == "time" else "rounds",
        target=expected_told(one.target) if one.target is not None else None,
        last=score_told(one.last) if one.last is not None else None,
        best=score_told(one.best) if one.best is not None else None,
        score=score_told(one.score) if one.score else None,
    )
