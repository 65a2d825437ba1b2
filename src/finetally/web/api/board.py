"""Board text over the API: read, write, and the card."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any, Literal

from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.board.outline import outline_of
from finetally.core.board.problems import BoardError
from finetally.core.board.writer import write_full, write_wall
from finetally.core.card.card import Card
from finetally.core.figures import printed
from finetally.core.session.limits import MAX_BYTES
from finetally.core.session.reading import parse_session
from finetally.core.wall.numerals import unused_numbers
from finetally.core.wall.reading import keep_words, read_wall, words_as_typed
from finetally.core.wall.text.several import sessions_in
from finetally.core.wall.told import new_names, told_of
from finetally.web.accounts.own import units_of
from finetally.web.api.figures import REFUSALS, DocumentIn, json_answer
from finetally.web.api.jobs import JobOut, job_out
from finetally.web.api.openapi import DocumentBody
from finetally.web.api.request import ActorRequest
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.reading_habits import chose_reading, forget_habit, habits_of, list_habits
from finetally.web.squads.use_cases import squad_to_look_at
from finetally.web.training.cards import CardWish, ask_for_pdf, made_card, others_on_card

router = Router()


class BoardIn(Schema):
    """A text; with the document that it was written from, ids and all that a wall leaves out stay.

    `settled`: what was chosen for places that could be meant otherwise, by assumption.
    """

    text: str = Field(max_length=MAX_BYTES)
    before: DocumentBody | None = None
    squad: int | None = None
    settled: dict[str, int] = Field(default={}, max_length=500)


class BoardProblemOut(Schema):
    """Why a text cannot be read at all (too large, a broken trailer); lines and columns count from 1."""

    line: int
    column: int
    found: str
    allowed: str
    code: str


class AssumedOut(Schema):
    """A place that could be meant another way: what it was read as, and all readings, one of them `chosen`.

    `settled`: somebody chose it here; `habit`: the squad has such places read so.
    """

    id: str
    line: int
    column: int
    length: int
    rule: str
    said: str
    read_as: str
    readings: list[str]
    chosen: int
    settled: bool
    habit: bool


class UnreadOut(Schema):
    """A line that is in no figure."""

    line: int
    text: str


class UnusedNumberOut(Schema):
    """A number of the text that is in no figure, at its own characters."""

    line: int
    column: int
    text: str


class NewNameOut(Schema):
    """A movement that nobody knows yet, at one of its places, with the nearest names."""

    key: str
    words: str
    line: int
    column: int
    length: int
    nearest: list[str]


class OutlineStepOut(Schema):
    """A movement of a block, as it is read at a glance."""

    code: str
    words: str
    movement: str
    provisional: bool


class OutlineBlockOut(Schema):
    """A block at a glance."""

    part: str
    title: str | None
    heading: str
    steps: list[OutlineStepOut]


class BoardOut(Schema):
    """The session that a text comes to, and what is told beside it. Without a document only for `problems`.

    `notes`: lines that are kept as notes. `sessions`: the texts of several sessions, where days or dates part them.
    """

    document: DocumentBody | None
    assumed: list[AssumedOut]
    unread: list[UnreadOut]
    unused: list[UnusedNumberOut]
    notes: list[int]
    names: list[NewNameOut]
    outline: list[OutlineBlockOut]
    sessions: list[str]
    problems: list[BoardProblemOut]


class TextOut(Schema):
    """A text; `as_typed` if it is the coach's own words, with what was chosen in them.

    `unread`: words that were typed later than the blocks and could not be read.
    """

    text: str
    as_typed: bool
    settled: dict[str, int]
    unread: bool = False


class WriteIn(DocumentIn):
    """A document; the wall form, or the full one that loses nothing; `as_typed`: the words as typed."""

    full: bool = False
    as_typed: bool = False


@router.post("/board", response={200: BoardOut, **REFUSALS}, operation_id="read_board")
def read(request: ActorRequest, data: BoardIn) -> HttpResponse:
    """Make a session of any text; beside it what was assumed (with other readings), what was not read, and new
    names.

    `settled` chooses among readings; `before` is the document that the text was written from, so that ids stay.
    """
    squad = squad_to_look_at(request.auth, data.squad)
    library = context_of(squad).library
    try:
        reading = read_wall(
            data.text, library=library, settled=data.settled, habits=habits_of(squad), before=data.before
        )
    except BoardError as error:
        problems = [
            {"line": p.line, "column": p.column, "found": p.found, "allowed": p.allowed, "code": p.code}
            for p in error.problems
        ]
        nothing: dict[str, list[Any]] = {
            key: [] for key in ("assumed", "unread", "unused", "notes", "names", "outline", "sessions")
        }
        return json_answer({"document": None, **nothing, "problems": problems})
    keep_words(reading, data.text, data.settled)
    told = told_of(reading)
    session = parse_session(reading.document)
    several = sessions_in(data.text)
    return json_answer(
        {
            "document": reading.document,
            "assumed": told["assumed"],
            "unread": told["unread"],
            "unused": [asdict(one) for one in unused_numbers(reading, library)],
            "notes": reading.note_lines,
            "names": new_names(reading, library.with_definitions(session.movements)),
            "outline": outline_of(session, library),
            "sessions": several if len(several) > 1 else [],
            "problems": [],
        }
    )


@router.post("/board/write", response={200: TextOut, **REFUSALS}, operation_id="write_board")
def write(request: ActorRequest, data: WriteIn) -> TextOut:
    """Write a document as board text: the wall form, or with `full` one that loses nothing.

    `as_typed` gives back the words it was read from, while they still come to it.
    """
    library = data.context(request).library
    session = parse_session(data.document)
    typed = words_as_typed(session, library) if data.as_typed else None
    if typed is not None:
        unread = bool(session.wall and session.wall.unread)
        return TextOut(text=typed[0], as_typed=True, settled=typed[1], unread=unread)
    form = write_full if data.full else write_wall
    return TextOut(text=form(data.document, library=library), as_typed=False, settled={})


class CardIn(DocumentIn):
    """A document, and the paper its card is for."""

    paper: Literal["a4", "letter"] = "a4"


class CardOut(Schema):
    """The card."""

    card: Card


@router.post("/card", response={200: CardOut, **REFUSALS}, operation_id="card")
def card(request: ActorRequest, data: CardIn) -> HttpResponse:
    """What stands on a session's card: blocks with their steps and times, kit, cautions."""
    context = data.context(request)
    others = others_on_card(request.auth, data.squad, data.document) if data.person is None else []
    made = made_card(data.as_done(), data.known(request, context), context, units_of(request.auth.user_id), others)
    return json_answer(printed({"card": made}))


@router.post("/card.pdf", response={202: JobOut, **REFUSALS}, operation_id="card_pdf")
def pdf(request: ActorRequest, data: CardIn) -> Status[JobOut]:
    """Begin to make the card as PDF for A4 or letter; the answer is a job (202) whose file it will be."""
    given = data.known(request, data.context(request))
    others = others_on_card(request.auth, data.squad, data.document) if data.person is None else []
    wanted = CardWish(data.as_done(), given, data.methods, data.paper, units_of(request.auth.user_id), others)
    job = ask_for_pdf(request.auth, data.squad, wanted)
    return Status(202, job_out(job))


class ReadingIn(Schema):
    """Which reading (by its number) was chosen at a place of a rule."""

    rule: str = Field(max_length=40)
    reading: int = Field(ge=0, le=100)
    squad: int | None = None


class HabitOut(Schema):
    """A habit of reading: the kind of place, how it is read, other readings, how often chosen running."""

    rule: str
    says: str
    read_as: str
    others: list[str]
    times: int


@router.post("/board/readings", response={204: None, **REFUSALS}, operation_id="chose_reading")
def chosen(request: ActorRequest, data: ReadingIn) -> Status[None]:
    """Note a reading that was chosen: what a squad chose twice running is read first from then on."""
    chose_reading(request.auth, data.squad, data.rule, data.reading)
    return Status(204, None)


@router.get("/squads/{squad_id}/habits", response={200: list[HabitOut], **REFUSALS}, operation_id="habits")
def habits(request: ActorRequest, squad_id: int) -> list[HabitOut]:
    """The squad's habits of reading; for those who plan."""
    return [HabitOut(**asdict(one)) for one in list_habits(request.auth, squad_id)]


@router.delete("/squads/{squad_id}/habits/{rule}", response={204: None, **REFUSALS}, operation_id="forget_habit")
def forget(request: ActorRequest, squad_id: int, rule: str) -> Status[None]:
    """From now on such places are read as for anybody."""
    forget_habit(request.auth, squad_id, rule)
    return Status(204, None)
