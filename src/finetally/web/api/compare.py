"""Side by side over the API: recasts, the pick, sweeps, whole sessions, and putting one to use."""

from __future__ import annotations

from collections.abc import Callable, Container
from typing import Any, Literal

from django.conf import settings
from django.http import HttpResponse
from ninja import Router, Schema

from finetally.core.compare.columns import Column
from finetally.core.compare.ingredients import NoIngredientsError
from finetally.core.compare.rows import ROWS
from finetally.core.compare.side_by_side import (
    Comparison,
    ComparisonStart,
    compare,
    compare_sessions,
    holding,
    start_comparison,
)
from finetally.core.compare.sweep import NotSweptError, sweep, sweep_values, turns_of
from finetally.core.compare.typed import TypedMovements
from finetally.core.compare.use import use_edits
from finetally.core.compare.wishes import MATTERS, NAMED_WISHES, Wish
from finetally.core.edits.edit import EDIT_LIST
from finetally.core.figures import printed
from finetally.core.formats.table import BY_KEY
from finetally.core.session.budget import OverBudgetError, budget_of
from finetally.core.session.parts import parse_entries, written
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.session.reading import parse_session
from finetally.sheets.comparison import comparison_csv, comparison_xlsx
from finetally.web.api.compare_schemas import (
    CompareIn,
    CompareTablesOut,
    ComparisonOut,
    MatterOut,
    NamedWishOut,
    PlacingIn,
    PlacingOut,
    RowOut,
    SessionComparisonOut,
    SessionsIn,
    SweepIn,
    SweepOut,
    UseIn,
    UseOut,
    WishIn,
)
from finetally.web.api.figures import REFUSALS, json_answer
from finetally.web.api.jobs import JobOut, job_out
from finetally.web.api.request import ActorRequest
from finetally.web.jobs.use_cases import JobRequest, ask
from finetally.web.jobs.work import JobHandle
from finetally.web.log.whose_pace import at_pace_of
from finetally.web.plan.placing import place
from finetally.web.problems import ProblemOut
from finetally.web.squads.actor import Actor
from finetally.web.squads.figuring_context import FiguringContext
from finetally.web.squads.use_cases import squad_to_look_at
from finetally.web.training.shapes import own_shapes
from finetally.web.training.use_cases import sessions_for_comparison

router = Router()


def _refused(place: str, error: Exception) -> DocumentError:
    why = str(error.args[0]) if error.args else str(error)
    return DocumentError([Problem(place, "what was asked", why, "cannot_compare")])


def _known(key: str, place: str, also: Container[str] = ()) -> None:
    if key not in BY_KEY and key not in also:
        raise DocumentError([Problem(place, repr(key), "a format of the table", "format")])


def _compared_columns(
    actor: Actor, data: CompareIn, context: FiguringContext
) -> tuple[Comparison, ComparisonStart, TypedMovements | None]:
    shapes = own_shapes(actor, data.squad)
    for number, key in enumerate(data.formats or ()):
        _known(key, f"formats[{number}]", {one.key for one in shapes})
    criteria = data.criteria()
    typed = data.typed(context)
    squad = squad_to_look_at(actor, data.squad)
    try:
        start = start_comparison(data.asked(typed, squad), library=context.library, methods=context.methods)
        made = compare(start, data.formats, criteria, shapes, library=context.library, methods=context.methods)
    except (NoIngredientsError, LookupError) as error:
        raise _refused("source", error) from None
    return made, start, typed


def _formats(actor: Actor, data: CompareIn) -> dict[str, Any]:
    made, start, typed = _compared_columns(actor, data, data.context(actor))
    read = None
    if typed is not None:
        steps = [written(step) for step in typed.steps]
        read = {"steps": steps, "unknown": list(typed.unknown), "unread": list(typed.unread)}
    return {"comparison": printed(made), "holding": holding(start), "read": read}


def _placing(actor: Actor, data: PlacingIn) -> dict[str, Any]:
    context = data.context(actor)
    made, _, _ = _compared_columns(actor, data, context)
    return {"placing": printed(place(actor, data.squad, data.day, made["columns"][: made["shown"]], context))}


def _wish(one: Wish) -> WishIn:
    return WishIn(row=one.row, way=one.way, value=one.value, hard=one.hard, weight=one.weight)


@router.get("/compare/tables", response={200: CompareTablesOut, 401: ProblemOut}, operation_id="compare_tables")
def compare_tables(request: ActorRequest) -> CompareTablesOut:
    """What comparisons are read by: rows with unit and better way, wishes, and sentences that stand for several
    wishes.
    """
    rows = [RowOut(key=key, label=r.label, unit=r.unit, figure=r.figure, sense=r.sense) for key, r in ROWS.items()]
    wishes = [NamedWishOut(key=one.key, label=one.label, wish=_wish(one.wish)) for one in NAMED_WISHES]
    matters = [
        MatterOut(key=one.key, sentence=one.sentence, wishes=[_wish(wish) for wish in one.wishes])
        for one in MATTERS
    ]
    return CompareTablesOut(rows=rows, wishes=wishes, matters=matters)


def _sessions(actor: Actor, data: SessionsIn) -> dict[str, Any]:
    criteria = data.criteria()
    sessions, context = sessions_for_comparison(actor, data.sessions)
    if data.pace_of is not None:
        context = at_pace_of(actor, sessions[0].squad, data.pace_of, context)
    named = [(session.title, session.head.document if session.head else {}) for session in sessions]
    made = compare_sessions(named, criteria, library=context.library, methods=context.methods)
    return {"comparison": printed(made)}


def _sweep(actor: Actor, data: SweepIn) -> dict[str, Any]:
    context = data.context(actor)
    squad = squad_to_look_at(actor, data.squad)
    _known(data.format, "format")
    try:
        start = start_comparison(
            data.asked(data.typed(context), squad), library=context.library, methods=context.methods
        )
        values = sweep_values(data.format, data.param, data.low, data.high, data.step)
    except NotSweptError as error:
        raise _refused("param", error) from None
    except (NoIngredientsError, LookupError) as error:
        raise _refused("source", error) from None
    points = sweep(
        start, data.format, data.param, values, data.params, library=context.library, methods=context.methods
    )
    return {"points": printed(points), "turns": printed(turns_of(points))}


Making = tuple[type[Schema], Callable[[Actor, Any], dict[str, Any]]]
MAKING: dict[str, Making] = {
    "formats": (CompareIn, _formats), "sessions": (SessionsIn, _sessions), "sweep": (SweepIn, _sweep),
    "placing": (PlacingIn, _placing),
}  # fmt: skip
SOME_HURRY = 10
"""After cards, before levellings: somebody looks at an empty table."""


def _compared(request: ActorRequest, what: str, data: Any, kind: str = "") -> HttpResponse:
    """The answer at once; or, where it takes more work than that, the job that makes it."""
    actor: Actor = request.auth
    try:
        with budget_of(settings.LARGE_UNITS):
            return _as_answer(MAKING[what][1](actor, data), kind)
    except OverBudgetError:
        asked = {"what": what, "body": data.model_dump(mode="json"), "kind": kind}
        job = ask(actor, data.squad_id(actor), JobRequest("compare", asked, priority=SOME_HURRY))
        return json_answer(job_out(job).model_dump(mode="json"), status=202)


def compare_job(handle: JobHandle) -> None:
    """Make a large comparison; see web/jobs/work.py."""
    asked = handle.job.asked
    schema, make = MAKING[asked["what"]]
    made = make(handle.asker(), schema.model_validate(asked["body"]))
    kind = asked["kind"]
    if kind:
        file = _as_answer(made, kind)
        name = f"side-by-side.{kind}"
        handle.show(file=file.content, file_name=name, file_type=file["Content-Type"])
    else:
        handle.show(answer=made)


@router.post("/compare", response={200: ComparisonOut, 202: JobOut, **REFUSALS}, operation_id="compare")
def compare_formats(request: ActorRequest, data: CompareIn) -> HttpResponse:
    """The plan and the formats that hold the same work, total, reps or load: figures, checks, frontier and
    pick.

    A comparison that takes longer is answered with a job (202).
    """
    return _compared(request, "formats", data)


@router.post("/compare.{kind}", response={200: None, 202: JobOut, **REFUSALS}, operation_id="export_comparison")
def export_comparison(request: ActorRequest, kind: Literal["csv", "xlsx"], data: CompareIn) -> HttpResponse:
    """The same comparison as a table, or a job (202) whose file it will be."""
    return _compared(request, "formats", data, kind)


@router.post(
    "/compare/sessions",
    response={200: SessionComparisonOut, 202: JobOut, **REFUSALS},
    operation_id="compare_sessions",
)
def compare_whole(request: ActorRequest, data: SessionsIn) -> HttpResponse:
    """Two to eight kept sessions side by side: figures, and the differences of each from the first."""
    return _compared(request, "sessions", data)


@router.post(
    "/compare/sessions.{kind}",
    response={200: None, 202: JobOut, **REFUSALS},
    operation_id="export_session_comparison",
)
def export_sessions(request: ActorRequest, kind: Literal["csv", "xlsx"], data: SessionsIn) -> HttpResponse:
    """The comparison of kept sessions as a table, or a job (202) whose file it will be."""
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
def sweep_format(request: ActorRequest, data: SweepIn) -> HttpResponse:
    """One format at up to so many values of one number, the others fixed, and where figures turn."""
    return _compared(request, "sweep", data)


@router.post("/compare/week", response={200: PlacingOut, 202: JobOut, **REFUSALS}, operation_id="place_formats")
def place_formats(request: ActorRequest, data: PlacingIn) -> HttpResponse:
    """Every format that holds the work on every free day of a week: clashes, and the load against the phase's
    band.
    """
    return _compared(request, "placing", data)


@router.post("/compare/use", response={200: UseOut, **REFUSALS}, operation_id="use_recast")
def use(request: ActorRequest, data: UseIn) -> HttpResponse:
    """The edits that put a recast in the place of what was compared, or behind it; parts keep their ids."""
    session = parse_session(data.document)
    entries = parse_entries(data.entries)
    try:
        edits = use_edits(session, data.source, entries, data.how)
    except LookupError as error:
        raise _refused("source", error) from None
    return json_answer({"edits": EDIT_LIST.dump_python(edits, mode="json")})
