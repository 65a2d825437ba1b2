"""A squad's settings, history, and what it is told of."""

from __future__ import annotations

import zoneinfo
from datetime import datetime

from ninja import Router, Schema, Status
from pydantic import Field

from finetally.web.accounts.mail import can_send
from finetally.web.api.request import ActorRequest
from finetally.web.problems import ProblemOut
from finetally.web.squads import history as past
from finetally.web.squads import settings, use_cases
from finetally.web.squads.actor import Right
from finetally.web.squads.models import Act, Record, Squad

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


class SettingsOut(Schema):
    """What a squad set for itself. `kit`: how many there are of each; `sends_mail`: invitations can go by e-mail.

    `asks_health`: notes of pain and dizziness may be written, and `health_why`; `asks_freshness`: check-ins ask how
    fresh one is; `notes_months`: for how long all of that is kept. `can_change`: the actor may.
    """

    name: str
    time_zone: str
    week_start: int
    kit: dict[str, int]
    emergency: str
    adult_from: int
    asks_health: bool
    health_why: str
    asks_freshness: bool
    notes_months: int
    version: str
    sends_mail: bool
    can_change: bool


class SettingsIn(Schema):
    """What is set of a squad, and the version of it that was seen; what is not sent stays."""

    version: str = Field(max_length=64)
    name: str | None = Field(None, max_length=500)
    time_zone: str | None = Field(None, max_length=64)
    week_start: int | None = None
    kit: dict[str, int] | None = Field(None, max_length=500)
    emergency: str | None = Field(None, max_length=5000)
    adult_from: int | None = None
    asks_health: bool | None = None
    health_why: str | None = Field(None, max_length=500)
    asks_freshness: bool | None = None
    notes_months: int | None = None


class RecordOut(Schema):
    """Who did what, when. `by`: the account; None for one that is gone."""

    id: int
    at: datetime
    by: str | None
    says: str


def _settings(request: ActorRequest, squad: Squad) -> SettingsOut:
    shown = {name: getattr(squad, name) for name in settings.SETTINGS}
    return SettingsOut(
        **shown,
        version=settings.settings_version(squad),
        sends_mail=can_send(),
        can_change=request.auth.may(squad.pk, Right.HEAD),
    )


@router.get("/squads/{squad_id}/settings", response={200: SettingsOut, **REFUSALS}, operation_id="settings")
def look_at_settings(request: ActorRequest, squad_id: int) -> SettingsOut:
    """Name, time zone, first day of the week, kit and emergency words of a squad."""
    return _settings(request, use_cases.squad_for(request.auth, squad_id, Right.LOOK))


@router.patch(
    "/squads/{squad_id}/settings", response={200: SettingsOut, **REFUSALS}, operation_id="change_settings"
)
def change_settings(request: ActorRequest, squad_id: int, data: SettingsIn) -> SettingsOut:
    """Set what is sent of a squad; for head coaches. 409 where it changed meanwhile, 422 with every fault."""
    sent = {name: value for name, value in data.model_dump(exclude={"version"}).items() if value is not None}
    return _settings(request, settings.change_settings(request.auth, squad_id, data.version, sent))


class SquadIn(Schema):
    """A squad that is founded: its name, its time zone, the first day of its weeks (0 is Monday)."""

    name: str = Field(max_length=500)
    time_zone: str = Field(max_length=64)
    week_start: int = 0


class FoundedOut(Schema):
    """The number of the squad."""

    id: int


@router.post("/squads", response={201: FoundedOut, **REFUSALS}, operation_id="found_squad")
def found(request: ActorRequest, data: SquadIn) -> Status[FoundedOut]:
    """Found another squad, as its head coach; for whoever is head coach of one."""
    made = settings.found_squad(request.auth, data.name, data.time_zone, data.week_start)
    return Status(201, FoundedOut(id=made.pk))


@router.get("/time-zones", response={200: list[str], 401: ProblemOut}, operation_id="time_zones")
def time_zones(request: ActorRequest) -> list[str]:
    """The names of all time zones."""
    return sorted(zoneinfo.available_timezones())


@router.get("/squads/{squad_id}/history", response={200: list[RecordOut], **REFUSALS}, operation_id="history")
def history(request: ActorRequest, squad_id: int, before: int | None = None) -> list[RecordOut]:
    """Who did what in a squad, the latest first, a hundred at a time; `before`: older than that record."""
    return [
        RecordOut(id=one.pk, at=one.at, by=past.by_whom(one), says=_says(one))
        for one in past.history(request.auth, squad_id, before)
    ]


def _says(one: Record) -> str:
    # Who did it by their own link is named as the one who did.
    person = one.person if not one.own else None
    about = " ".join(filter(None, (one.about, f"({person})" if one.about and person else "")))
    return Act(one.act).label.replace("%s", about or str(person or "somebody"))


class MutedOut(Schema):
    """Codes of the checks that a squad is not told of."""

    muted: list[str]


MUTED = {200: MutedOut, **REFUSALS}


@router.get("/squads/{squad_id}/muted-checks", response=MUTED, operation_id="muted_checks")
def muted_checks(request: ActorRequest, squad_id: int) -> MutedOut:
    """Codes of the checks that a squad is not told of."""
    return MutedOut(muted=use_cases.muted_checks(request.auth, squad_id))


@router.put("/squads/{squad_id}/muted-checks/{code}", response=MUTED, operation_id="mute_check")
def mute_check(request: ActorRequest, squad_id: int, code: str) -> MutedOut:
    """Have the squad told no more of a check; answers with all that are muted."""
    return MutedOut(muted=use_cases.mute_check(request.auth, squad_id, code, muted=True))


@router.delete("/squads/{squad_id}/muted-checks/{code}", response=MUTED, operation_id="unmute_check")
def unmute_check(request: ActorRequest, squad_id: int, code: str) -> MutedOut:
    """Have the squad told of a check again; answers with all that are muted."""
    return MutedOut(muted=use_cases.mute_check(request.auth, squad_id, code, muted=False))
