"""Board text over the API: read, write, and the card."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field

from finetally.core.board.problems import BoardError
from finetally.core.board.reader import Board, read_board
from finetally.core.board.writer import read_over, write_full, write_wall
from finetally.core.card.card import Card, card_of
from finetally.core.figures import printed
from finetally.core.session.limits import MAX_BYTES
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.web.api.figures import REFUSALS, DocumentIn, json_answer
from finetally.web.api.openapi import Document
from finetally.web.squads.actor import Right
from finetally.web.squads.use_cases import house_for

router = Router()


class BoardIn(Schema):
    """A text; with the document that it was written from, ids and all that the wall leaves out stay."""

    text: str = Field(max_length=MAX_BYTES)
    before: Document | None = None
    squad: int | None = None


class BoardProblemOut(Schema):
    """One wrong place of a text; lines and columns count from 1."""

    line: int
    column: int
    found: str
    allowed: str
    code: str


class StubOut(Schema):
    """A movement that nobody knows yet, with the key it got and the nearest names."""

    key: str
    words: str
    line: int
    column: int
    nearest: list[str]


class BoardOut(Schema):
    """The document, or every problem; `stubs` are no problem: they can be defined on the spot."""

    document: Document | None
    stubs: list[StubOut]
    problems: list[BoardProblemOut]


class TextOut(Schema):
    """A text."""

    text: str


class WriteIn(DocumentIn):
    """A document; the wall form, or the full one that loses nothing."""

    full: bool = False


@router.post("/board/read", response={200: BoardOut, **REFUSALS}, operation_id="read_board")
def read(request: HttpRequest, data: BoardIn) -> HttpResponse:
    """Read a text. What is wrong comes back with its line and column."""
    library = house_for(request.auth, data.squad, Right.LOOK).library
    try:
        if data.before is not None:
            board = read_over(data.text, data.before, library=library)
        else:
            board = read_board(data.text, library=library)
    except BoardError as error:
        problems = [
            {"line": p.line, "column": p.column, "found": p.found, "allowed": p.allowed, "code": p.code}
            for p in error.problems
        ]
        return json_answer({"document": None, "stubs": [], "problems": problems})
    wrong = _document_problems(board)
    stubs = [
        {"key": s.key, "words": s.words, "line": s.line, "column": s.column, "nearest": list(s.nearest)}
        for s in board.stubs
    ]
    return json_answer({"document": None if wrong else board.document, "stubs": stubs, "problems": wrong})


def _document_problems(board: Board) -> list[dict[str, Any]]:
    """Problems of the document that a text makes, at the line of the part they are in."""
    try:
        parse_session(board.document)
    except DocumentError as error:
        made = []
        for problem in error.problems:
            inside = [path for path in board.lines if problem.path.startswith(path)]
            line, column = board.lines[max(inside, key=len)] if inside else (1, 1)
            key = problem.path.rpartition(".")[2]
            made.append(
                {
                    "line": line, "column": column, "found": f"{key}: {problem.found}",
                    "allowed": problem.allowed, "code": problem.code,
                }
            )  # fmt: skip
        return made
    return []


@router.post("/board/write", response={200: TextOut, **REFUSALS}, operation_id="write_board")
def write(request: HttpRequest, data: WriteIn) -> TextOut:
    """Write a document as board text."""
    library = data.house(request).library
    form = write_full if data.full else write_wall
    return TextOut(text=form(data.document, library=library))


class CardIn(DocumentIn):
    """A document, and the paper its card is for."""

    paper: Literal["a4", "letter"] = "a4"


class CardOut(Schema):
    """The card."""

    card: Card


def _card(request: HttpRequest, data: DocumentIn) -> Card:
    house = data.house(request)
    session = parse_session(data.document)
    return card_of(tally(session, library=house.library, methods=house.methods, given=data.given))


@router.post("/card", response={200: CardOut, **REFUSALS}, operation_id="card")
def card(request: HttpRequest, data: CardIn) -> HttpResponse:
    """All that stands on a session's card."""
    return json_answer(printed({"card": _card(request, data)}))


@router.post("/card.pdf", response={200: None, **REFUSALS}, operation_id="card_pdf")
def pdf(request: HttpRequest, data: CardIn) -> HttpResponse:
    """The card as PDF."""
    # The writer of PDFs is loaded when one is first asked for: it takes a third of the server's start.
    from finetally.card_pdf import card_pdf

    answer = HttpResponse(card_pdf(_card(request, data), data.paper), content_type="application/pdf")
    answer["Content-Disposition"] = 'attachment; filename="card.pdf"'
    return answer
