"""Movements over the API: all that a squad works with, one of them, files in and out, names to be settled."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any, Literal
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.checks.table import CHECKS
from finetally.core.movements.chain import MovementChain
from finetally.core.movements.changes import FieldChange
from finetally.core.movements.near import near_to
from finetally.core.movements.patterns import EIGHT_ROWS, MOBILITY
from finetally.core.session.limits import MAX_BYTES
from finetally.core.session.movement import FINE_PATTERNS, MovementKey
from finetally.web.api.figures import json_answer
from finetally.web.api.library import library_with
from finetally.web.api.openapi import Movement
from finetally.web.api.request import ActorRequest
from finetally.web.movements import looking, own, settling
from finetally.web.movements.used import MovementUse
from finetally.web.problems import ProblemOut

router = Router()
REFUSALS = {
    401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 413: ProblemOut, 422: ProblemOut,
}  # fmt: skip


class MovementsOut(Schema):
    """The movements a squad works with, the rows they are drawn in, the checks.

    `own`: keys that it defined; `version`: what a change of them names as seen.
    """

    movements: list[Movement]
    own: list[str]
    version: str
    rows: list[PatternRowOut]
    patterns: list[str]
    checks: list[CheckRow]


class CheckRow(Schema):
    """A check: its code and how much it weighs."""

    code: str
    severity: str


class PatternRowOut(Schema):
    """A row of the stave: name, short code, the fine patterns in it."""

    name: str
    code: str
    members: list[str]


class MovementFileIn(Schema):
    """A file of movements; `replace`: those that the squad has defined otherwise are to be as in the file.

    `version`: of the squad's movements as they were seen, where they may not have changed meanwhile.
    """

    kind: Literal["csv", "json"]
    text: str = Field(max_length=MAX_BYTES)
    replace: bool = False
    version: str | None = Field(None, max_length=64)
    squad: int | None = None


class PreviewIn(Schema):
    """A file of movements to look at before it is taken in."""

    kind: Literal["csv", "json"]
    text: str = Field(max_length=MAX_BYTES)
    squad: int | None = None


class MovementInSessionOut(Schema):
    """A session that names a movement, and how often."""

    session: UUID
    title: str
    times: int


class MovementUseOut(Schema):
    """Where a movement is used: sessions of the Bench; planned entries that follow its definition, those that keep
    the one they were planned with (`kept`); logged ones, which stay as they are.
    """

    sessions: list[MovementInSessionOut]
    planned: int
    kept: int
    logged: int


class MovementLookedOut(Schema):
    """One movement. `ships`: there is one of that key without the squad; `over`: what the squad's changes of it."""

    movement: Movement
    own: bool
    ships: bool
    over: list[FieldChange]
    chain: MovementChain
    use: MovementUseOut


class MovementTakenOut(Schema):
    """What taking a definition in would do: `fate` is new, changes, or same; what changes, and what it touches."""

    key: str
    name: str
    fate: looking.Fate
    changes: list[FieldChange]
    use: MovementUseOut


class UnknownNameOut(Schema):
    """A name that sessions use and nobody knows: how often in which, and the nearest movements."""

    key: str
    times: int
    use: MovementUseOut
    nearest: list[str]


class SettleNameIn(Schema):
    """A name, and the movement (by key) that it is."""

    name: str = Field(max_length=120)
    key: str = Field(max_length=120)
    squad: int | None = None


class NameSettledOut(Schema):
    """How many sessions and planned entries name the movement now; `left`: others were writing there."""

    sessions: int
    planned: int
    left: int


class TakenOut(Schema):
    """The keys that were taken."""

    keys: list[str]


@router.get("/movements", response={200: MovementsOut, 401: ProblemOut, 404: ProblemOut}, operation_id="movements")
def movements(request: ActorRequest, squad: int | None = None) -> HttpResponse:
    """Every movement that a squad's sessions can name, which of them it defined itself, and the rows of
    balance.
    """
    context = own.movements_of(request.auth, squad)
    answer: dict[str, Any] = {
        "movements": [
            movement.model_dump(mode="json", exclude_unset=True) for movement in context.library.values()
        ],
        "own": sorted(context.own),
        "version": context.library_key,
        "rows": [
            {"name": row.name, "code": row.code, "members": list(row.members)} for row in (*EIGHT_ROWS, MOBILITY)
        ],
        "patterns": list(FINE_PATTERNS),
        "checks": [{"code": check.code, "severity": check.severity} for check in CHECKS],
    }
    return json_answer(answer)


@router.post("/movements", response={200: TakenOut, **REFUSALS}, operation_id="import_movements")
def import_movements(request: ActorRequest, data: MovementFileIn) -> TakenOut:
    """Define all movements of a file (CSV or JSON), or none where one is wrong. 409 where the squad has others
    by those keys, unless `replace` is set.
    """
    keys = own.import_movements(
        request.auth, data.squad, data.text, data.kind, replace=data.replace, version=data.version
    )
    return TakenOut(keys=keys)


class NearIn(Schema):
    """A movement to find the like of; `definitions`: the file's own movements."""

    movement: MovementKey
    definitions: list[dict[str, Any]] = Field(default=[], max_length=500)
    squad: int | None = None


class NearOut(Schema):
    """Keys of movements that could stand in its place, nearest first; none if nobody knows it."""

    keys: list[str]


@router.post("/movements/near", response={200: NearOut, **REFUSALS}, operation_id="near_movements")
def near_movements(request: ActorRequest, data: NearIn) -> NearOut:
    """Keys of movements that could stand in a movement's place, the nearest first."""
    context = own.movements_of(request.auth, data.squad)
    return NearOut(keys=near_to(data.movement, library_with(context.library, data.definitions)))


class CalledIn(Schema):
    """Words that a movement goes by from now on."""

    key: str = Field(max_length=120)
    words: str = Field(min_length=1, max_length=120)
    squad: int | None = None


@router.post("/movements/names", response={204: None, **REFUSALS}, operation_id="call_movement")
def call_movement(request: ActorRequest, data: CalledIn) -> Status[None]:
    """Let a movement go by these words in all texts that the squad has read from now on."""
    own.call_movement(request.auth, data.squad, data.key, data.words)
    return Status(204, None)


@router.get("/movements.{kind}", response={200: None, **REFUSALS}, operation_id="export_movements")
def export_movements(request: ActorRequest, kind: Literal["csv", "json"], squad: int | None = None) -> HttpResponse:
    """Download all movements of a squad as CSV or JSON, in the form that an import takes."""
    text = own.export_movements(request.auth, squad, kind)
    answer = HttpResponse(text, content_type="text/csv; charset=utf-8" if kind == "csv" else "application/json")
    answer["Content-Disposition"] = f'attachment; filename="movements.{kind}"'
    return answer


def _use(use: MovementUse) -> MovementUseOut:
    sessions = [MovementInSessionOut(**asdict(one)) for one in use.sessions]
    return MovementUseOut(sessions=sessions, planned=use.planned, kept=use.kept, logged=use.logged)


@router.get("/movements/one", response={200: MovementLookedOut, **REFUSALS}, operation_id="look_at_movement")
def look_at_movement(request: ActorRequest, key: str, squad: int | None = None) -> HttpResponse:
    """A movement with what is easier and harder, and where it is used. 404 for one that nobody knows."""
    found = looking.look_at_movement(request.auth, squad, key)
    return json_answer(
        {
            "movement": found.movement.model_dump(mode="json", exclude_unset=True),
            "own": found.own,
            "ships": found.ships,
            "over": found.over,
            "chain": found.chain,
            "use": _use(found.use),
        }
    )


@router.post(
    "/movements/preview", response={200: list[MovementTakenOut], **REFUSALS}, operation_id="preview_movements"
)
def preview_movements(request: ActorRequest, data: PreviewIn) -> list[MovementTakenOut]:
    """What a file of movements would change and what that touches; nothing is taken. For those who plan."""
    return [
        MovementTakenOut(
            key=one.movement.key,
            name=one.movement.name or one.movement.key,
            fate=one.fate,
            changes=one.changes,
            use=_use(one.use),
        )
        for one in looking.preview_movements(request.auth, data.squad, data.text, data.kind)
    ]


@router.get(
    "/movements/unknown", response={200: list[UnknownNameOut], **REFUSALS}, operation_id="unknown_movements"
)
def unknown_movements(request: ActorRequest, squad: int | None = None) -> list[UnknownNameOut]:
    """Names that the squad's sessions use and nobody knows, the most used first; for those who plan."""
    return [
        UnknownNameOut(key=one.key, times=one.use.times, use=_use(one.use), nearest=one.nearest)
        for one in looking.unknown_names(request.auth, squad)
    ]


@router.post("/movements/settle", response={200: NameSettledOut, **REFUSALS}, operation_id="settle_movement")
def settle_movement(request: ActorRequest, data: SettleNameIn) -> NameSettledOut:
    """Say that a name is a movement: sessions get a version with it, planned entries too; logged ones stay."""
    return NameSettledOut(**asdict(settling.settle_name(request.auth, data.squad, data.name, data.key)))


# Behind the other addresses, as any of them could be a key.
@router.delete("/movements/{key}", response={204: None, **REFUSALS}, operation_id="remove_movement")
def remove_movement(request: ActorRequest, key: str, squad: int | None = None) -> Status[None]:
    """Remove a movement that the squad defined; sessions that name it keep its key. 404 for one that ships."""
    own.remove_movement(request.auth, squad, key)
    return Status(204, None)
