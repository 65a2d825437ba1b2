"""The core's tables for pickers and labels, and the squad's own movements."""

from __future__ import annotations

import functools
from collections.abc import Iterable
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core import tables as named
from finetally.core.checks.table import CHECKS
from finetally.core.movements.near import near_to
from finetally.core.movements.patterns import EIGHT_ROWS, MOBILITY
from finetally.core.people.field_tests import FIELD_TESTS
from finetally.core.session.limits import MAX_BYTES
from finetally.core.session.movement import FINE_PATTERNS, MovementKey
from finetally.core.tables import NamedKey
from finetally.core.tally.figure_table import Family, FigureUnit, ToldWhen, tally_figures
from finetally.web.api.figures import json_answer
from finetally.web.api.library import library_with
from finetally.web.api.openapi import Movement
from finetally.web.api.request import ActorRequest
from finetally.web.people.models import GroupMark
from finetally.web.problems import ProblemOut
from finetally.web.squads import use_cases
from finetally.web.squads.models import Role

router = Router()
REFUSALS = {
    401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 413: ProblemOut, 422: ProblemOut,
}  # fmt: skip


class PatternRowOut(Schema):
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
    rows: list[PatternRowOut]
    patterns: list[str]
    checks: list[CheckRow]


class NamedOut(Schema):
    """A key and the words that a coach sees for it."""

    key: str
    label: str


class SchoolOut(Schema):
    """A method with several schools: the setting's key, its name, and what it may be set to."""

    key: str
    label: str
    choices: list[NamedOut]


class PhrasesOut(Schema):
    """What the board's editor offers: heads of a line, phrases of a head, qualities of a step."""

    heads: list[str]
    phrases: list[str]
    qualities: list[str]


class TallyFigureOut(Schema):
    """A figure that the tally tells in a line: the published figure by its dotted name, its label, unit and family.

    It is left out where the figure `unless_same_as` has the same value. `when`: it is told always, where there
    is a value (`there`), or where that is `above-zero`.
    """

    figure: str
    label: str
    unit: FigureUnit
    family: Family
    unless_same_as: str | None
    when: ToldWhen


class FieldTestOut(Schema):
    """A way to know somebody's capacity: what is put in, its unit and bounds, and the formula with its source."""

    key: str
    label: str
    result: str
    unit: str
    low: float
    high: float
    source: str


class TablesOut(Schema):
    """What is chosen from or read by name everywhere: each list in the order it is shown in."""

    parts: list[NamedOut]
    efforts: list[NamedOut]
    sides: list[NamedOut]
    optional: list[NamedOut]
    levels: list[NamedOut]
    landing_grades: list[NamedOut]
    load_units: list[NamedOut]
    intents: list[NamedOut]
    phases: list[NamedOut]
    severities: list[NamedOut]
    currencies: list[NamedOut]
    joints: list[NamedOut]
    limit_sides: list[NamedOut]
    splits: list[NamedOut]
    roles: list[NamedOut]
    marks: list[NamedOut]
    field_tests: list[FieldTestOut]
    schools: list[SchoolOut]
    phrases: PhrasesOut
    figures: list[TallyFigureOut]


class MovementFileIn(Schema):
    """A file of movements; `replace`: those that the squad has defined otherwise are to be as in the file."""

    kind: Literal["csv", "json"]
    text: str = Field(max_length=MAX_BYTES)
    replace: bool = False
    squad: int | None = None


class TakenOut(Schema):
    """The keys that were taken."""

    keys: list[str]


def _named(table: Iterable[NamedKey]) -> list[NamedOut]:
    return [NamedOut(key=one.key, label=one.label) for one in table]


@functools.cache
def _tables() -> TablesOut:
    return TablesOut(
        parts=_named(named.PART_NAMES),
        efforts=_named(named.EFFORTS),
        sides=_named(named.SIDES),
        optional=_named(named.OPTIONAL),
        levels=_named(named.OPTION_LEVELS),
        landing_grades=_named(named.LANDING_GRADES),
        load_units=_named(named.LOAD_UNITS),
        intents=_named(named.INTENTS),
        phases=_named(named.PHASES),
        severities=_named(named.SEVERITIES),
        currencies=_named(named.CURRENCY_NAMES),
        joints=_named(named.JOINT_NAMES),
        limit_sides=_named(named.LIMIT_SIDE_NAMES),
        splits=_named(named.SPLIT_NAMES),
        roles=[NamedOut(key=key, label=label) for key, label in Role.choices],
        marks=[NamedOut(key=key, label=label) for key, label in GroupMark.choices],
        field_tests=[
            FieldTestOut(
                key=one.key,
                label=one.label,
                result=one.result,
                unit=one.unit,
                low=one.low,
                high=one.high,
                source=one.source,
            )
            for one in FIELD_TESTS
        ],
        schools=[SchoolOut(key=s.key, label=s.label, choices=_named(s.choices)) for s in named.SCHOOLS],
        figures=[
            TallyFigureOut(
                figure=one.figure,
                label=line.label or one.label,
                unit=one.unit,
                family=one.family,
                unless_same_as=line.unless_same_as,
                when=line.when,
            )
            for one, line in tally_figures()
            if one.figure is not None
        ],
        phrases=PhrasesOut(
            heads=list(named.EDITOR_PHRASES.heads),
            phrases=list(named.EDITOR_PHRASES.phrases),
            qualities=list(named.EDITOR_PHRASES.qualities),
        ),
    )


@router.get("/tables", response={200: TablesOut, 401: ProblemOut}, operation_id="tables")
def tables(request: HttpRequest) -> TablesOut:
    """Keys and words of everything that coaches choose from: parts, efforts, sides, schools, currencies,
    figures.
    """
    return _tables()


@router.get("/movements", response={200: MovementsOut, 401: ProblemOut, 404: ProblemOut}, operation_id="movements")
def movements(request: ActorRequest, squad: int | None = None) -> HttpResponse:
    """Every movement that a squad's sessions can name, which of them it defined itself, and the rows of
    balance.
    """
    context = use_cases.movements_of(request.auth, squad)
    answer: dict[str, Any] = {
        "movements": [
            movement.model_dump(mode="json", exclude_unset=True) for movement in context.library.values()
        ],
        "own": sorted(context.own),
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
    keys = use_cases.import_movements(request.auth, data.squad, data.text, data.kind, replace=data.replace)
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
    context = use_cases.movements_of(request.auth, data.squad)
    return NearOut(keys=near_to(data.movement, library_with(context.library, data.definitions)))


class CalledIn(Schema):
    """Words that a movement goes by from now on."""

    key: str = Field(max_length=120)
    words: str = Field(min_length=1, max_length=120)
    squad: int | None = None


@router.post("/movements/names", response={204: None, **REFUSALS}, operation_id="call_movement")
def call_movement(request: ActorRequest, data: CalledIn) -> Status[None]:
    """Let a movement go by these words in all texts that the squad has read from now on."""
    use_cases.call_movement(request.auth, data.squad, data.key, data.words)
    return Status(204, None)


@router.delete("/movements/{key}", response={204: None, **REFUSALS}, operation_id="remove_movement")
def remove_movement(request: ActorRequest, key: str, squad: int | None = None) -> Status[None]:
    """Remove a movement that the squad defined; sessions that name it keep its key. 404 for one that ships."""
    use_cases.remove_movement(request.auth, squad, key)
    return Status(204, None)


@router.get("/movements.{kind}", response={200: None, **REFUSALS}, operation_id="export_movements")
def export_movements(request: ActorRequest, kind: Literal["csv", "json"], squad: int | None = None) -> HttpResponse:
    """Download all movements of a squad as CSV or JSON, in the form that an import takes."""
    text = use_cases.export_movements(request.auth, squad, kind)
    answer = HttpResponse(text, content_type="text/csv; charset=utf-8" if kind == "csv" else "application/json")
    answer["Content-Disposition"] = f'attachment; filename="movements.{kind}"'
    return answer
