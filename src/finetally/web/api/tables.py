"""The core's tables for pickers and labels."""

from __future__ import annotations

import functools
from collections.abc import Iterable

from django.http import HttpRequest
from ninja import Router, Schema

from finetally.core import tables as named
from finetally.core.measures import Measured
from finetally.core.people.field_tests import FIELD_TESTS
from finetally.core.tables import NamedKey
from finetally.core.tally.figure_table import Family, FigureUnit, ToldWhen, tally_figures
from finetally.web.people.models import GroupMark
from finetally.web.problems import ProblemOut
from finetally.web.squads.models import Role

router = Router()
REFUSALS = {
    401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 413: ProblemOut, 422: ProblemOut,
}  # fmt: skip


class NamedOut(Schema):
    """A key and the words that a coach sees for it."""

    key: str
    label: str


class CurrencyOut(NamedOut):
    """What load is counted in; `unit`: kilograms, where it is a mass."""

    unit: Measured | None


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
    currencies: list[CurrencyOut]
    joints: list[NamedOut]
    limit_sides: list[NamedOut]
    splits: list[NamedOut]
    roles: list[NamedOut]
    marks: list[NamedOut]
    field_tests: list[FieldTestOut]
    schools: list[SchoolOut]
    phrases: PhrasesOut
    figures: list[TallyFigureOut]


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
        currencies=[CurrencyOut(key=one.key, label=one.label, unit=one.unit) for one in named.CURRENCY_NAMES],
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
