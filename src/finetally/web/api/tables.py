"""The core's tables, for pickers and labels: movements and patterns."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from finetally.core.movements.patterns import EIGHT_ROWS, MOBILITY
from finetally.core.session.movement import FINE_PATTERNS
from finetally.shipped import shipped_library
from finetally.web.api.figures import json_answer
from finetally.web.api.openapi import Movement
from finetally.web.problems import ProblemOut

router = Router()


class PatternRow(Schema):
    """A row of the stave: name, short code, the fine patterns in it."""

    name: str
    code: str
    members: list[str]


class MovementsOut(Schema):
    """The library, and the rows its patterns are drawn in."""

    movements: list[Movement]
    rows: list[PatternRow]
    patterns: list[str]


@router.get("/movements", response={200: MovementsOut, 401: ProblemOut}, operation_id="movements")
def movements(request: HttpRequest) -> HttpResponse:
    """All movements that ship."""
    answer: dict[str, Any] = {
        "movements": [
            movement.model_dump(mode="json", exclude_unset=True) for movement in shipped_library().values()
        ],
        "rows": [
            {"name": row.name, "code": row.code, "members": list(row.members)} for row in (*EIGHT_ROWS, MOBILITY)
        ],
        "patterns": list(FINE_PATTERNS),
    }
    return json_answer(answer)
