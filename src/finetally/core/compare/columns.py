"""Columns of a comparison: the plan and its recasts, or whole sessions, each fully figured in the same way."""

from __future__ import annotations

from collections.abc import Sequence

from typing_extensions import TypedDict

from finetally.core.board.writer import headings
from finetally.core.checks.check import CheckResult
from finetally.core.compare.ingredients import Ingredients
from finetally.core.compare.recast import Recast
from finetally.core.compare.rows import endless_rows, row_spread, row_values
from finetally.core.figures import figures_and_tally
from finetally.core.formats.bounds import Measure
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.names import name_of
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import BlockOrSection, Session
from finetally.core.session.json_value import JsonObject
from finetally.core.session.parts import changed, session_of, written
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.session.rules import rule_problems
from finetally.core.tally.stave import Thumbnail, thumbnail_of

PLAN_COLUMN = "plan"


class CauseOut(TypedDict):
    """One thing in a format's way: its kind, the words, the measure of a bound, the movements it is about."""

    kind: str
    text: str
    measure: Measure | None
    movements: list[str]


class Column(TypedDict):
    """One column. `key`: a format's (`shape:` and a number for an own shape), or `plan`; `format`: the format's.

    `wall`: its headings; `document`: what it is figured as, `entries` its blocks; both are left out (None, empty),
    with thumbnail, checks and spread, of one that is ranked and not shown. Where it cannot be, `why` says so,
    `causes` one by one, and there are no values. `left` is what the held figure falls short by, `losses` what could
    not be carried over; `endless` names the rows whose value has no end; `deltas` by how much each row differs from
    the first column.
    """

    key: str
    format: str
    name: str
    wall: list[str]
    params: JsonObject
    entries: list[JsonObject]
    document: JsonObject | None
    why: str | None
    causes: list[CauseOut]
    losses: list[str]
    held: float | None
    left: float | None
    left_reps: dict[str, int]
    values: dict[str, float | None]
    endless: list[str]
    deltas: dict[str, float]
    spread: dict[str, dict[str, float]]
    checks: list[CheckResult]
    thumbnail: Thumbnail | None


class _Plain(TypedDict):
    wall: list[str]
    document: JsonObject | None
    entries: list[JsonObject]
    values: dict[str, float | None]
    endless: list[str]
    spread: dict[str, dict[str, float]]
    checks: list[CheckResult]
    thumbnail: Thumbnail | None


def figured(session: Session, *, library: Library, methods: Methods) -> _Plain:
    """What a session gives to a column. Raises DocumentError."""
    made, t = figures_and_tally(session, library=library, methods=methods)
    values = row_values(made, t)
    # Blocks are most of a document: they are written once.
    entries = [written(entry) for entry in session.blocks]
    return {
        "wall": headings(session.blocks),
        "document": {**written(changed(session, blocks=[])), "blocks": [*entries]},
        "entries": entries,
        "values": values,
        "endless": endless_rows(values),
        "spread": row_spread(made),
        "checks": [one for one in made["checks"] if not one["accepted"]],
        "thumbnail": thumbnail_of(t),
    }


def plan_column(
    entries: Sequence[BlockOrSection],
    ingredients: Ingredients,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
) -> Column:
    """The blocks as they stand. Raises DocumentError if they cannot be figured."""
    session = _alone(entries, ingredients, "As planned")
    made = figured(session, library=library, methods=methods)
    # The plan is named by what its blocks are; how they go stands behind.
    names = [_named(name_of(entry), line) for entry, line in zip(entries, made["wall"], strict=False)]
    return {**_empty(PLAN_COLUMN, PLAN_COLUMN, "As planned"), **made, "wall": names}


def _alone(entries: Sequence[BlockOrSection], of: Ingredients, title: str) -> Session:
    return session_of(entries, of.definitions, title=title, people=of.people, stands_alone=True)


def _named(name: str, line: str) -> str:
    return line if line.lower().startswith(name.lower()) else f"{name}: {line}"


def column_of(
    made: Recast,
    chosen: AnyFormat,
    of: Ingredients,
    *,
    library: Library,
    methods: Methods,
    label: tuple[str, str] | None = None,
) -> Column:
    """A recast as a column. `label`: key and name of a coach's own shape.

    Raises DocumentError for what cannot be figured.
    """
    key, name = label or (chosen.key, chosen.name)
    empty = _empty(key, chosen.key, name)
    if made.causes:
        causes: list[CauseOut] = [
            {"kind": one.kind, "text": one.text, "measure": one.measure, "movements": list(one.movements)}
            for one in made.causes
        ]
        return {**empty, "why": made.why, "causes": causes}
    session = _alone(made.entries, of, name)
    try:
        # A format may have made what a rule of the file does not allow.
        wrong = rule_problems(session)
        if wrong:
            raise DocumentError(wrong)
        plain = figured(session, library=library, methods=methods)
    except DocumentError as error:
        text = error.problems[0].text
        cause: CauseOut = {"kind": "cannot", "text": text, "measure": None, "movements": []}
        return {**empty, "why": text, "causes": [cause]}
    return {
        **empty,
        "params": {} if made.params is None else made.params.told(),
        "losses": list(made.losses),
        "held": made.made,
        "left": made.left,
        "left_reps": {key: reps for key, reps in made.left_reps.items() if reps},
        **plain,
    }


def ranked_only(column: Column) -> Column:
    """A column with what it is ranked by, and no more."""
    light: Column = {**column, "document": None, "entries": [], "thumbnail": None, "checks": [], "spread": {}}
    return light


def session_column(document: JsonObject, name: str, *, library: Library, methods: Methods) -> Column:
    """A whole session as a column. Raises DocumentError if it cannot be figured."""
    made = figured(parse_session(document), library=library, methods=methods)
    return {**_empty("session", "session", name), **made, "document": document, "entries": []}


def _empty(key: str, form: str, name: str) -> Column:
    return {
        "key": key, "format": form, "name": name, "wall": [], "params": {}, "entries": [], "document": None,
        "why": None, "causes": [], "losses": [], "held": None, "left": None, "left_reps": {}, "values": {},
        "endless": [], "deltas": {}, "spread": {}, "checks": [], "thumbnail": None,
    }  # fmt: skip


def with_deltas(columns: Sequence[Column]) -> list[Column]:
    """The columns, each with its differences from the first."""
    base = columns[0]["values"] if columns else {}
    made: list[Column] = []
    for column in columns:
        deltas = {}
        for row, value in column["values"].items():
            other = base.get(row)
            if column is not columns[0] and value is not None and other is not None and abs(value - other) > 1e-9:
                deltas[row] = value - other
        made.append({**column, "deltas": deltas})
    return made
