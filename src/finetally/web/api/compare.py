"""Side by side over the API: recasts, the pick, sweeps, whole sessions, and putting one to use."""

from __future__ import annotations

from collections.abc import Callable, Container
from typing import Any, Literal
from uuid import UUID

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field, TypeAdapter

from finetally.core.compare import side_by_side
from finetally.core.compare.columns import Column
from finetally.core.compare.held import Hold
from finetally.core.compare.ingredients import NoIngredientsError
from finetally.core.compare.rows import ROW_BY_KEY, ROWS
from finetally.core.compare.side_by_side import (
    Asked,
    Comparison,
    SessionComparison,
    compare,
    compare_sessions,
    gathered,
    holding,
)
from finetally.core.compare.sweep import NotSweptError, SweepPoint, Turn, sweep, sweep_values, turns_of
from finetally.core.compare.use import use_edits
from finetally.core.compare.wishes import NAMED_WISHES, Way, Wish
from finetally.core.edits.edit import Edit
from finetally.core.figures import printed
from finetally.core.formats.table import BY_KEY
from finetally.core.session.budget import OverBudgetError, budget_of
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.session.reading import parse_session
from finetally.sheets.comparison import comparison_csv, comparison_xlsx
from finetally.web.api.figures import REFUSALS, json_answer
from finetally.web.api.jobs import JobOut, job_out
from finetally.web.api.openapi import Document
from finetally.web.jobs.use_cases import Wanted, ask
from finetally.web.jobs.work import Desk
from finetally.web.problems import ProblemOut
from finetally.web.squads.actor import Actor, Right, member
from finetally.web.squads.house import House
from finetally.web.squads.use_cases import house_for, squad_for
from finetally.web.training.shapes import own_shapes
from finetally.web.training.use_cases import sessions_for_comparison

router = Router()
MAX_FORMATS = 8
EDITS: TypeAdapter[list[Edit]] = TypeAdapter(list[Edit])


class WishIn(Schema):
    """What matters: a row of the table, which way, a bound for at-most and at-least, hard or with a weight."""

    row: str = Field(max_length=40)
    way: Way
    value: float | None = Field(None, ge=0, le=1_000_000)
    hard: bool = False
    weight: float = Field(3, ge=0, le=10)


class Judging(Schema):
    """How columns are judged: wishes, and the two figures of the trade-off picture."""

    wishes: list[WishIn] = Field(default=[], max_length=12)
    axes: tuple[str, str] = ("load", "density")

    def judged_by(self) -> side_by_side.Judging:
        """As the core takes it. Raises DocumentError for a row that there is not."""
        allowed = ", ".join(ROW_BY_KEY)
        wrong = [(f"wishes[{n}].row", wish.row) for n, wish in enumerate(self.wishes) if wish.row not in ROW_BY_KEY]
        wrong += [(f"axes[{n}]", axis) for n, axis in enumerate(self.axes) if axis not in ROW_BY_KEY]
        if wrong:
            raise DocumentError(Problem(path, repr(row), allowed, "row") for path, row in wrong)
        wishes = [Wish(w.row, w.way, w.value, w.hard, w.weight) for w in self.wishes]
        return side_by_side.Judging(wishes, self.axes)


class PouredIn(Schema):
    """What is poured: entries of a document (its main part, where `source` names none), or fresh movements."""

    document: Document | None = None
    source: list[int | str] | None = Field(None, max_length=100)
    movements: list[str] = Field(default=[], max_length=40)
    hold: Hold = "total"
    target: float | None = Field(None, gt=0, le=86_400)
    squad: int | None = None
    methods: dict[str, Any] = {}

    def asked(self) -> Asked:
        """As the core takes it."""
        return Asked(self.document, self.source, self.movements, self.hold, self.target)

    def house(self, actor: Actor) -> House:
        """What it is figured with."""
        return house_for(actor, self.squad, Right.LOOK, self.methods)

    def squad_id(self, actor: Actor) -> int:
        """Whose comparison it is."""
        return squad_for(actor, self.squad, Right.LOOK).pk


class CompareIn(PouredIn, Judging):
    """As poured; these formats are shown, and own shapes by `shape:` and their number. Where none are named, the
    first ones; all that fit are ranked.
    """

    formats: list[str] | None = Field(None, max_length=MAX_FORMATS)


class ComparisonOut(Schema):
    """The table. `holding` says of every format why it cannot hold so many movements, or null."""

    comparison: Comparison
    holding: dict[str, str | None]


class SweepIn(PouredIn):
    """One format over a range of one of its numbers; `params` fixes the others."""

    format: str = Field(max_length=64)
    params: dict[str, Any] = {}
    param: str = Field(max_length=40)
    low: int = Field(ge=0, le=86_400)
    high: int = Field(ge=0, le=86_400)
    step: int = Field(ge=1, le=86_400)


class SweepOut(Schema):
    """A column for each value, and where a row turns."""

    points: list[SweepPoint]
    turns: list[Turn]


class UseIn(Schema):
    """Entries to put in the place of others, or after them."""

    document: Document
    source: list[int | str] = Field(min_length=1, max_length=100)
    entries: list[dict[str, Any]] = Field(min_length=1, max_length=20)
    how: Literal["replace", "insert"] = "replace"


class UseOut(Schema):
    """The edits that do it, in order."""

    edits: list[Edit]


class SessionsIn(Judging):
    """Two to eight kept sessions, in order; the others are held against the first."""

    sessions: list[UUID] = Field(min_length=2, max_length=8)

    def squad_id(self, actor: Actor) -> int:
        """Whose comparison it is."""
        return sessions_for_comparison(actor, self.sessions)[0][0].squad_id


class SessionComparisonOut(Schema):
    """Whole sessions side by side."""

    comparison: SessionComparison


class RowOut(Schema):
    """A row of the table: its unit, the figure that opens, which way is usually wished for."""

    key: str
    label: str
    unit: str
    figure: str | None
    sense: str


class NamedWishOut(Schema):
    """A wish as coaches say it."""

    key: str
    label: str
    wish: WishIn


class CompareTablesOut(Schema):
    """The rows, and wishes to choose from."""

    rows: list[RowOut]
    wishes: list[NamedWishOut]


def _refused(place: str, error: Exception) -> DocumentError:
    why = str(error.args[0]) if error.args else str(error)
    return DocumentError([Problem(place, "what was asked", why, "cannot_compare")])


def _known(key: str, place: str, also: Container[str] = ()) -> None:
    if key not in BY_KEY and key not in also:
        raise DocumentError([Problem(place, repr(key), "a format of the table", "format")])


def _formats(actor: Actor, data: CompareIn) -> dict[str, Any]:
    house = data.house(actor)
    shapes = own_shapes(actor, data.squad)
    for number, key in enumerate(data.formats or ()):
        _known(key, f"formats[{number}]", {one.key for one in shapes})
    judging = data.judged_by()
    try:
        poured = gathered(data.asked(), library=house.library, methods=house.methods)
        made = compare(poured, data.formats, judging, shapes, library=house.library, methods=house.methods)
    except (NoIngredientsError, LookupError) as error:
        raise _refused("source", error) from None
    return {"comparison": printed(made), "holding": holding(poured)}


@router.get("/compare/tables", response={200: CompareTablesOut, 401: ProblemOut}, operation_id="compare_tables")
def compare_tables(request: HttpRequest) -> CompareTablesOut:
    """The rows of a comparison, and wishes to choose from."""
    rows = [RowOut(key=r.key, label=r.label, unit=r.unit, figure=r.figure, sense=r.sense) for r in ROWS]
    wishes = [
        NamedWishOut(
            key=one.key,
            label=one.label,
            wish=WishIn(
                row=one.wish.row, way=one.wish.way, value=one.wish.value, hard=one.wish.hard, weight=one.wish.weight
            ),
        )
        for one in NAMED_WISHES
    ]
    return CompareTablesOut(rows=rows, wishes=wishes)


def _sessions(actor: Actor, data: SessionsIn) -> dict[str, Any]:
    judging = data.judged_by()
    sessions, house = sessions_for_comparison(actor, data.sessions)
    named = [(session.title, session.head.document if session.head else {}) for session in sessions]
    made = compare_sessions(named, judging, library=house.library, methods=house.methods)
    return {"comparison": printed(made)}


def _sweep(actor: Actor, data: SweepIn) -> dict[str, Any]:
    house = data.house(actor)
    _known(data.format, "format")
    try:
        poured = gathered(data.asked(), library=house.library, methods=house.methods)
        values = sweep_values(data.format, data.param, data.low, data.high, data.step)
    except NotSweptError as error:
        raise _refused("param", error) from None
    except (NoIngredientsError, LookupError) as error:
        raise _refused("source", error) from None
    points = sweep(
        poured, data.format, data.param, values, data.params, library=house.library, methods=house.methods
    )
    return {"points": printed(points), "turns": printed(turns_of(points))}


Making = tuple[type[Schema], Callable[[Actor, Any], dict[str, Any]]]
MAKING: dict[str, Making] = {
    "formats": (CompareIn, _formats), "sessions": (SessionsIn, _sessions), "sweep": (SweepIn, _sweep),
}  # fmt: skip
SOME_HURRY = 10
"""After cards, before levellings: somebody looks at an empty table."""


def _compared(request: HttpRequest, what: str, data: Any, kind: str = "") -> HttpResponse:
    """The answer at once; or, where it takes more work than that, the job that makes it."""
    actor: Actor = request.auth
    try:
        with budget_of(settings.LARGE_UNITS):
            return _as_answer(MAKING[what][1](actor, data), kind)
    except OverBudgetError:
        asked = {"what": what, "body": data.model_dump(mode="json"), "kind": kind}
        job = ask(actor, data.squad_id(actor), Wanted("compare", asked, priority=SOME_HURRY))
        return json_answer(job_out(job).model_dump(mode="json"), status=202)


def work(desk: Desk) -> None:
    """Make a large comparison; see web/jobs/work.py."""
    asked = desk.job.asked
    schema, make = MAKING[asked["what"]]
    made = make(member(desk.job.owner_id), schema.model_validate(asked["body"]))
    kind = asked["kind"]
    if kind:
        file = _as_answer(made, kind)
        name = f"side-by-side.{kind}"
        desk.show(file=file.content, file_name=name, file_type=file["Content-Type"])
    else:
        desk.show(answer=made)


@router.post("/compare", response={200: ComparisonOut, 202: JobOut, **REFUSALS}, operation_id="compare")
def compare_formats(request: HttpRequest, data: CompareIn) -> HttpResponse:
    """The plan and its recasts side by side."""
    return _compared(request, "formats", data)


@router.post("/compare.{kind}", response={200: None, 202: JobOut, **REFUSALS}, operation_id="export_comparison")
def export_comparison(request: HttpRequest, kind: Literal["csv", "xlsx"], data: CompareIn) -> HttpResponse:
    """The same as a file."""
    return _compared(request, "formats", data, kind)


@router.post(
    "/compare/sessions",
    response={200: SessionComparisonOut, 202: JobOut, **REFUSALS},
    operation_id="compare_sessions",
)
def compare_whole(request: HttpRequest, data: SessionsIn) -> HttpResponse:
    """Whole kept sessions side by side."""
    return _compared(request, "sessions", data)


@router.post(
    "/compare/sessions.{kind}",
    response={200: None, 202: JobOut, **REFUSALS},
    operation_id="export_session_comparison",
)
def export_sessions(request: HttpRequest, kind: Literal["csv", "xlsx"], data: SessionsIn) -> HttpResponse:
    """The same as a file."""
    return _compared(request, "sessions", data, kind)


def _as_answer(made: dict[str, Any], kind: str) -> HttpResponse:
    if not kind:
        return json_answer(made)
    columns: list[Column] = made["comparison"]["columns"][: made["comparison"].get("shown")]
    if kind == "csv":
        answer = HttpResponse(comparison_csv(columns), content_type="text/csv; charset=utf-8")
    else:
        kind_of_book = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
        answer = HttpResponse(comparison_xlsx(columns), content_type=kind_of_book)
    answer["Content-Disposition"] = f'attachment; filename="side-by-side.{kind}"'
    return answer


@router.post("/compare/sweep", response={200: SweepOut, 202: JobOut, **REFUSALS}, operation_id="sweep")
def sweep_format(request: HttpRequest, data: SweepIn) -> HttpResponse:
    """One format over a range of one number."""
    return _compared(request, "sweep", data)


@router.post("/compare/use", response={200: UseOut, **REFUSALS}, operation_id="use_recast")
def use(request: HttpRequest, data: UseIn) -> HttpResponse:
    """The edits that put a recast to use in the session it came from."""
    parse_session(data.document)
    parse_session({"fine_tally": 1, "title": "-", "blocks": data.entries})
    try:
        edits = use_edits(data.document, data.source, data.entries, data.how)
    except LookupError as error:
        raise _refused("source", error) from None
    return json_answer({"edits": EDITS.dump_python(edits, mode="json")})
