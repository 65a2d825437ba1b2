"""Named formats: the table, and making blocks of them."""

from __future__ import annotations

import functools
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field

from finetally.core.compare.sweep import usual_sweep
from finetally.core.formats.doses import REST_BEFORE_NEW_S, usual_step
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.params import CannotMakeError, FormatParams, choices, is_open, param_spec, schema_of
from finetally.core.formats.remake import remade
from finetally.core.formats.table import BY_KEY, FORMATS, make
from finetally.core.session.movement import MovementKey
from finetally.core.session.parts import parse_entries, parse_entry, written
from finetally.core.session.problems import Problem
from finetally.web.api.figures import json_answer
from finetally.web.api.library import library_with
from finetally.web.api.request import ActorRequest
from finetally.web.problems import ProblemOut, problem_response
from finetally.web.squads.actor import Right
from finetally.web.squads.use_cases import context_for

router = Router()
REFUSALS = {401: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}


class SweepRangeOut(Schema):
    """Where a sweep of a number begins and ends, and by what step."""

    low: int
    high: int
    step: int


class ParamOut(Schema):
    """One thing a coach sets: kind `seconds`, `count`, `reps`, `choice`, `flag` or `seconds-list`.

    `low` and `high` are the bounds that are enforced; `open`: it may be left so (null); `sweep`: the range that
    a sweep of it begins with, null for what cannot be swept.
    """

    name: str
    label: str
    kind: str
    default: Any
    low: float
    high: float
    choices: list[str]
    open: bool
    sweep: SweepRangeOut | None


class BoundOut(Schema):
    """A bound in which coaches use the format: what is measured, the least and most (null: open), and why."""

    measure: str
    low: float | None
    high: float | None
    why: str


class FormatOut(Schema):
    """A named format: how many movements it holds (at least, at most, by how many), and where doses come from.

    `parameters` is the JSON Schema of what is set; `usual` the bounds in which coaches use it.
    """

    key: str
    name: str
    trade: list[str]
    params: list[ParamOut]
    parameters: dict[str, Any]
    usual: list[BoundOut]
    least: int
    most: int | None
    by: int
    dose: str


class FormatsOut(Schema):
    """All of them, in order of precedence."""

    formats: list[FormatOut]


class MakeIn(Schema):
    """A format with its parameters, and what to make it of: an entry made over, or movements by key."""

    key: str = Field(max_length=64)
    params: dict[str, Any] = {}
    entry: dict[str, Any] | None = None
    movements: list[MovementKey] = Field(default=[], max_length=100)
    definitions: list[dict[str, Any]] = Field(default=[], max_length=500)
    squad: int | None = None


class MakeOut(Schema):
    """The entries it makes: one block as a rule; and the rest that goes before them where none stands."""

    entries: list[dict[str, Any]]
    rest_before_s: float


class StepIn(Schema):
    """A movement to add to a block whose work runs on a clock; `definitions`: the file's own movements."""

    movement: MovementKey
    clock: str = Field(max_length=20)
    definitions: list[dict[str, Any]] = Field(default=[], max_length=500)
    squad: int | None = None


class StepOut(Schema):
    """The step."""

    step: dict[str, Any]


def _sweep(key: str, name: str) -> SweepRangeOut | None:
    usual = usual_sweep(key, name)
    return None if usual is None else SweepRangeOut(**usual)


@functools.cache
def _format(one: AnyFormat) -> FormatOut:
    least, most, by = one.holds
    params: type[FormatParams] = one.params
    usual = one.defaults().told()
    return FormatOut(
        key=one.key,
        name=one.name,
        trade=list(one.trade),
        params=[
            ParamOut(
                name=name,
                label=(said := param_spec(params, name)).label,
                kind=said.unit,
                default=usual[name],
                low=said.low,
                high=said.high,
                choices=list(choices(params, name)),
                open=is_open(params, name),
                sweep=_sweep(one.key, name),
            )
            for name in params.model_fields
        ],
        parameters=schema_of(params),
        usual=[BoundOut(measure=b.measure, low=b.low, high=b.high, why=b.why) for b in one.usual],
        least=least,
        most=most,
        by=by,
        dose=one.dose,
    )


@router.get("/formats", response={200: FormatsOut, 401: ProblemOut}, operation_id="formats")
def formats(request: HttpRequest) -> FormatsOut:
    """Every named format: its parameters with units and bounds, how many movements it holds, and the bounds of
    use.
    """
    return FormatsOut(formats=[_format(one) for one in FORMATS])


@router.post("/formats/make", response={200: MakeOut, **REFUSALS}, operation_id="make_format")
def make_format(request: ActorRequest, data: MakeIn) -> HttpResponse:
    """Make the blocks of a format from movements, or from a block whose movements and words it keeps. 422 with
    the reason where it cannot hold them.
    """
    library = library_with(context_for(request.auth, data.squad, Right.LOOK).library, data.definitions)
    chosen = BY_KEY.get(data.key)
    if chosen is None:
        return problem_response(404, "format", f"There is no format {data.key!r}.")
    try:
        if data.entry is not None:
            entries = remade(parse_entry(data.entry), data.key, data.params, library=library)
        else:
            dosed = chosen.dose in ("reps", "any")
            steps = [usual_step(m, library, dosed=dosed) for m in data.movements]
            entries = make(data.key, steps, data.params)
        made = [written(entry) for entry in entries]
        parse_entries(made)
    except CannotMakeError as error:
        place = f"params.{error.field}" if error.field else "params"
        problem = Problem(place, "these movements and numbers", str(error), "cannot_make")
        return problem_response(422, "format", str(error), [problem])
    return json_answer({"entries": made, "rest_before_s": REST_BEFORE_NEW_S})


@router.post("/formats/step", response={200: StepOut, **REFUSALS}, operation_id="usual_step")
def make_step(request: ActorRequest, data: StepIn) -> StepOut:
    """A step of a movement with its usual dose, as the clock asks for one."""
    library = library_with(context_for(request.auth, data.squad, Right.LOOK).library, data.definitions)
    return StepOut(step=written(usual_step(data.movement, library, dosed=data.clock != "intervals")))
