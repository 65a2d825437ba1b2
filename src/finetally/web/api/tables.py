"""The core's tables for pickers and labels, and the squad's own movements."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.checks.table import CHECKS
from finetally.core.movements.patterns import EIGHT_ROWS, MOBILITY
from finetally.core.session.limits import MAX_BYTES
from finetally.core.session.movement import FINE_PATTERNS
from finetally.web.api.figures import json_answer
from finetally.web.api.openapi import Movement
from finetally.web.problems import ProblemOut
from finetally.web.squads import use_cases

router = Router()
REFUSALS = {
    401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 413: ProblemOut, 422: ProblemOut,
}  # fmt: skip


class PatternRow(Schema):
    """A row of the stave: name, short code, the fine patterns in it."""

    name: str
    code: str
    members: list[str]


class CheckRow(Schema):
    """A check: its code and how much it weighs."""

    code: str
    severity: str


class MovementsOut(Schema):
    """The movements a squad works with (`own`: keys it defined), the rows they are drawn in, the checks."""

    movements: list[Movement]
    own: list[str]
    rows: list[PatternRow]
    patterns: list[str]
    checks: list[CheckRow]


class MovementFileIn(Schema):
    """A file of movements; `replace`: those that the squad has defined otherwise are to be as in the file."""

    kind: Literal["csv", "json"]
    text: str = Field(max_length=MAX_BYTES)
    replace: bool = False
    squad: int | None = None


class TakenOut(Schema):
    """The keys that were taken."""

    keys: list[str]


@router.get("/movements", response={200: MovementsOut, 401: ProblemOut, 404: ProblemOut}, operation_id="movements")
def movements(request: HttpRequest, squad: int | None = None) -> HttpResponse:
    """All movements of a squad: those that ship, and its own."""
    house = use_cases.movements_of(request.auth, squad)
    answer: dict[str, Any] = {
        "movements": [movement.model_dump(mode="json", exclude_unset=True) for movement in house.library.values()],
        "own": sorted(house.own),
        "rows": [
            {"name": row.name, "code": row.code, "members": list(row.members)} for row in (*EIGHT_ROWS, MOBILITY)
        ],
        "patterns": list(FINE_PATTERNS),
        "checks": [{"code": check.code, "severity": check.severity} for check in CHECKS],
    }
    return json_answer(answer)


@router.post("/movements", response={200: TakenOut, **REFUSALS}, operation_id="import_movements")
def import_movements(request: HttpRequest, data: MovementFileIn) -> TakenOut:
    """Define movements: all that the file holds, or none of them."""
    keys = use_cases.import_movements(request.auth, data.squad, data.text, data.kind, replace=data.replace)
    return TakenOut(keys=keys)


class CalledIn(Schema):
    """Words that a movement goes by from now on."""

    key: str = Field(max_length=120)
    words: str = Field(min_length=1, max_length=120)
    squad: int | None = None


@router.post("/movements/names", response={204: None, **REFUSALS}, operation_id="call_movement")
def call_movement(request: HttpRequest, data: CalledIn) -> Status[None]:
    """Let a movement be called by these words too, in this and all later sessions of the squad."""
    use_cases.call_movement(request.auth, data.squad, data.key, data.words)
    return Status(204, None)


@router.delete("/movements/{key}", response={204: None, **REFUSALS}, operation_id="remove_movement")
def remove_movement(request: HttpRequest, key: str, squad: int | None = None) -> Status[None]:
    """Take away a movement that the squad defined."""
    use_cases.remove_movement(request.auth, squad, key)
    return Status(204, None)


@router.get("/movements.{kind}", response={200: None, **REFUSALS}, operation_id="export_movements")
def export_movements(request: HttpRequest, kind: Literal["csv", "json"], squad: int | None = None) -> HttpResponse:
    """All movements as a file."""
    text = use_cases.export_movements(request.auth, squad, kind)
    answer = HttpResponse(text, content_type="text/csv; charset=utf-8" if kind == "csv" else "application/json")
    answer["Content-Disposition"] = f'attachment; filename="movements.{kind}"'
    return answer
