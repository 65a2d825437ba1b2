"""Figures and explanations of documents that need not be saved."""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field

from finetally.core.figures import Figures, printed
from finetally.core.formats.names import BlockFormat
from finetally.core.methods.given import Given
from finetally.core.session.reading import parse_session
from finetally.core.tally.explain.explain import explain
from finetally.core.tally.explain.node import Explanation, UnknownFigureError
from finetally.core.tally.stave import Stave
from finetally.shipped import shipped_library
from finetally.web.api.openapi import Document
from finetally.web.problems import ProblemOut, problem_response
from finetally.web.squads.actor import Right
from finetally.web.training.figuring import figured
from finetally.web.training.use_cases import squad_for

router = Router()
REFUSALS = {401: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}


class FiguresIn(Schema):
    """A document, the squad whose methods it is figured by (default: one's first), what is known of the day."""

    document: Document
    squad: int | None = None
    given: Given = Given()


class FiguresOut(Schema):
    """Figures, the stave, and what each block is by its numbers."""

    figures: Figures
    stave: Stave
    formats: list[BlockFormat]


class ExplainIn(FiguresIn):
    """As for figures, and the dotted name of the figure to open."""

    figure: str = Field(max_length=200)


class ExplanationOut(Schema):
    """One level of a figure's arithmetic."""

    explanation: Explanation


def json_answer(value: Any) -> HttpResponse:
    """Figures as they are: the core made them, so they are not read a second time on the way out."""
    return HttpResponse(json.dumps(value, ensure_ascii=False), content_type="application/json")


@router.post("/figures", response={200: FiguresOut, **REFUSALS}, operation_id="figures")
def figures(request: HttpRequest, data: FiguresIn) -> HttpResponse:
    """Figure a document."""
    squad = squad_for(request.auth, data.squad, Right.LOOK)
    return json_answer(figured(data.document, squad.methods_value(), data.given))


@router.post("/explain", response={200: ExplanationOut, **REFUSALS}, operation_id="explain")
def explain_figure(request: HttpRequest, data: ExplainIn) -> HttpResponse:
    """Open one level of a figure."""
    squad = squad_for(request.auth, data.squad, Right.LOOK)
    try:
        opened = explain(
            parse_session(data.document),
            data.figure,
            library=shipped_library(),
            methods=squad.methods_value(),
            given=data.given,
        )
    except UnknownFigureError:
        return problem_response(404, "figure", f"There is no figure {data.figure[:80]!r} in this session.")
    return json_answer(printed({"explanation": opened}))
