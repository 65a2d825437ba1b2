"""Figures and explanations of documents that need not be saved."""

from __future__ import annotations

import json
from typing import Any
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import BaseModel, Field
from pydantic_core import PydanticSerializationError, to_json

from finetally.core.compare.deltas import deltas
from finetally.core.compare.fit import FitWay, fit_to_time
from finetally.core.figures import Figures, figures_and_tally, printed
from finetally.core.floor.from_score import blocks_taken_from
from finetally.core.formats.names import BlockFormat
from finetally.core.methods.given import Given, Score
from finetally.core.methods.paragraphs import ParagraphKey, paragraph_of
from finetally.core.session.ids import with_ids
from finetally.core.session.reading import parse_session
from finetally.core.tally.explain.explain import explain
from finetally.core.tally.explain.node import Explanation, UnknownFigureError
from finetally.core.tally.stave import Stave
from finetally.web.api.openapi import DocumentBody
from finetally.web.api.request import ActorRequest
from finetally.web.log.given_here import with_scores_before
from finetally.web.people.as_person import as_person
from finetally.web.people.people import the_person
from finetally.web.problems import ProblemOut, problem_response
from finetally.web.squads.actor import Right
from finetally.web.squads.figuring_context import FiguringContext
from finetally.web.squads.use_cases import context_for, squad_to_look_at
from finetally.web.training.figuring import bench_figures

router = Router()
REFUSALS = {401: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}


class DocumentIn(Schema):
    """A document, the squad it is figured for (default: one's first), what is known of the day, settings to try.

    `person`: as whom it is figured, with what is known of them and the options that their limits choose; for those
    who plan, and for oneself. `methods` holds only what differs from the squad's, for this answer alone.
    """

    document: DocumentBody
    squad: int | None = None
    given: Given = Given()
    methods: dict[str, Any] = {}
    person: UUID | None = None

    def as_done(self) -> dict[str, Any]:
        """The document that is figured: as one person does it each step has the id that its option goes by."""
        return with_ids(self.document) if self.person is not None else self.document

    def known(self, request: ActorRequest, context: FiguringContext) -> Given:
        """What is known of the day: as it was sent, as the person, with the squad's kit and earlier scores."""
        given = self.given
        if self.person is not None:
            given = as_person(request.auth, self.person, self.as_done(), given)
        if blocks_taken_from(self.document):
            person = the_person(request.auth, self.person) if self.person is not None else None
            squad = person.squad if person is not None else squad_to_look_at(request.auth, self.squad)
            given = with_scores_before(squad, self.document, given, person)
        return context.given(given)

    def context(self, request: ActorRequest) -> FiguringContext:
        """What it is figured with."""
        return context_for(request.auth, self.squad, Right.LOOK, self.methods)


class AgainstIn(Schema):
    """What figures are held against: another document (default: the same), another day (default: a plain one)."""

    document: DocumentBody | None = None
    given: Given = Given()


class FiguresIn(DocumentIn):
    """As any document; `against` asks for the differences to something else as well."""

    against: AgainstIn | None = None


class FiguresOut(Schema):
    """Figures, the stave, what each block is by its numbers.

    `deltas`: differences by dotted name, if the figures were held against something. `taken`: scores of earlier
    sessions that it goes on from, by block.
    """

    figures: Figures
    stave: Stave
    formats: list[BlockFormat]
    deltas: dict[str, float] | None = None
    taken: dict[str, Score] = {}


class ExplainIn(DocumentIn):
    """As for figures, and the dotted name of the figure to open."""

    figure: str = Field(max_length=200)


class ExplanationOut(Schema):
    """One level of a figure's arithmetic, and the paragraph of the methods that says how it is estimated."""

    explanation: Explanation
    paragraph: ParagraphKey


class FitIn(DocumentIn):
    """As for figures, and the seconds there are."""

    available_s: float = Field(gt=0, le=86_400)


class FitOut(Schema):
    """Ways to fit, the closest first."""

    ways: list[FitWay]


def json_answer(value: Any, status: int = 200) -> HttpResponse:
    """Figures as they are: the core made them, so they are not read a second time on the way out."""
    try:
        body = to_json(value)
    except PydanticSerializationError:
        # Text is clean when it comes in; what is older than that rule must not break an answer.
        plain = value.model_dump(mode="json") if isinstance(value, BaseModel) else value
        body = json.dumps(plain, ensure_ascii=False).encode("utf-8", "replace")
    return HttpResponse(body, status=status, content_type="application/json")


@router.post("/figures", response={200: FiguresOut, **REFUSALS}, operation_id="figures")
def figures(request: ActorRequest, data: FiguresIn) -> HttpResponse:
    """Every figure of a document, its stave and the format of each block; numbers are rounded to a thousandth.

    With `against` also by how much each number differs from another document, or from the same on another day.
    """
    context = data.context(request)
    given = data.known(request, context)
    made = bench_figures(data.as_done(), context, given)
    taken = {key: one for key, one in given.scores.items() if key not in data.given.scores}
    if taken:
        made = {**made, "taken": {key: one.model_dump(exclude_none=True) for key, one in taken.items()}}
    if data.against is None:
        return json_answer(made)
    other, _ = figures_and_tally(
        parse_session(data.against.document or data.document),
        library=context.library,
        methods=context.methods,
        given=context.given(data.against.given),
    )
    return json_answer({**made, "deltas": printed(deltas(printed(other), dict(made["figures"])))})


@router.post("/explain", response={200: ExplanationOut, **REFUSALS}, operation_id="explain")
def explain_figure(request: ActorRequest, data: ExplainIn) -> HttpResponse:
    """Open one level of a figure: the operator and the terms that make its value. 404 for a name that is no
    figure here.

    Terms with a `figure` can be asked next.
    """
    context = data.context(request)
    session = parse_session(data.as_done())
    try:
        opened = explain(
            session,
            data.figure,
            library=context.library,
            methods=context.methods,
            given=data.known(request, context),
        )
    except UnknownFigureError:
        return problem_response(404, "figure", f"There is no figure {data.figure[:80]!r} in this session.")
    return json_answer(printed({"explanation": opened, "paragraph": paragraph_of(data.figure)}))


@router.post("/fit", response={200: FitOut, **REFUSALS}, operation_id="fit")
def fit(request: ActorRequest, data: FitIn) -> HttpResponse:
    """Up to three ways to bring the timetable within `available_s`, the closest first, each as edits with what
    it comes to.
    """
    context = data.context(request)
    ways = fit_to_time(
        data.document,
        data.available_s,
        library=context.library,
        methods=context.methods,
        given=data.known(request, context),
    )
    return json_answer(printed({"ways": ways}))
