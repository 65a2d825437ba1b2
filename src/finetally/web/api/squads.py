"""A squad's people and methods."""

from __future__ import annotations

from typing import Any

from ninja import Router, Schema
from pydantic import Field

from finetally.core.methods.given import PersonGiven
from finetally.web.api.request import ActorRequest
from finetally.web.plan.refigure import methods_changed
from finetally.web.problems import ProblemOut
from finetally.web.squads import use_cases
from finetally.web.squads.actor import Right
from finetally.web.squads.models import Squad

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


class PersonOut(Schema):
    """Somebody of a squad, with what is known of them as figures take it."""

    id: int
    name: str
    given: PersonGiven


class MethodsIn(Schema):
    """Settings to change, and the version of them that was seen; null takes one back to its default."""

    methods: dict[str, Any]
    version: str = Field(max_length=64)


class MethodsOut(Schema):
    """All settings of a squad, defaults included, and the version that they are."""

    methods: dict[str, Any]
    version: str


@router.get("/people", response={200: list[PersonOut], **REFUSALS}, operation_id="people")
def people(request: ActorRequest, squad: int | None = None) -> list[PersonOut]:
    """The people of a squad, each with what figures take from them: one-rep maxima and body mass in kg,
    capacity in MET, offsets.
    """
    return [
        PersonOut(id=person.pk, name=person.name, given=person.given())
        for person in use_cases.list_people(request.auth, squad)
    ]


def _methods(squad: Squad) -> MethodsOut:
    shown = squad.methods_value().model_dump(mode="json", by_alias=True)
    return MethodsOut(methods=shown, version=use_cases.methods_version(squad))


@router.get("/squads/{squad_id}/methods", response={200: MethodsOut, **REFUSALS}, operation_id="methods")
def methods(request: ActorRequest, squad_id: int) -> MethodsOut:
    """All settings that a squad's figures are made with, defaults filled in, and their version."""
    return _methods(use_cases.squad_for(request.auth, squad_id, Right.LOOK))


@router.patch("/squads/{squad_id}/methods", response={200: MethodsOut, **REFUSALS}, operation_id="change_methods")
def change_methods(request: ActorRequest, squad_id: int, data: MethodsIn) -> MethodsOut:
    """Set some settings of a squad; null takes one back to its default. 409 where they changed meanwhile.

    What is planned is figured anew in the background.
    """
    squad = use_cases.change_methods(request.auth, squad_id, data.version, data.methods)
    methods_changed(squad)
    return _methods(squad)


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
