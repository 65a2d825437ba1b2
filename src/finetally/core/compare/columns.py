"""Columns of a comparison: the plan and its recasts, or whole sessions, each fully figured in the same way."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from typing_extensions import TypedDict

from finetally.core.board.writer import headings
from finetally.core.checks.check import CheckResult
from finetally.core.compare.ingredients import Ingredients, alone
from finetally.core.compare.recast import Held, Recast, recast
from finetally.core.compare.rows import row_spread, row_values
from finetally.core.figures import figures_and_tally
from finetally.core.formats.lanes import DOSE_FACTOR
from finetally.core.formats.names import name_of
from finetally.core.formats.shape import Entry, Params
from finetally.core.formats.table import BY_KEY, recognise
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.stave import Thumbnail, thumbnail_of

PLAN = "plan"


class Column(TypedDict):
    """One column. `key`: a format's, or `plan`; `wall`: its headings; `document`: what it is figured as.

    Where it cannot be, `why` says so and there are no values. `left` is what the held figure falls short by,
    `deltas` by how much each row differs from the first column.
    """

    key: str
    name: str
    wall: list[str]
    params: Params
    entries: list[Entry]
    document: dict[str, Any] | None
    why: str | None
    held: float | None
    left: float | None
    left_reps: dict[str, int]
    values: dict[str, float | None]
    deltas: dict[str, float]
    spread: dict[str, dict[str, float]]
    checks: list[CheckResult]
    thumbnail: Thumbnail | None


class _Plain(TypedDict):
    wall: list[str]
    document: dict[str, Any]
    values: dict[str, float | None]
    spread: dict[str, dict[str, float]]
    checks: list[CheckResult]
    thumbnail: Thumbnail


def figured_alone(document: dict[str, Any], *, library: Library, methods: Methods) -> _Plain:
    """What a document gives to a column. Raises DocumentError."""
    made, t = figures_and_tally(parse_session(document), library=library, methods=methods)
    return {
        "wall": headings(document),
        "document": document,
        "values": row_values(made),
        "spread": row_spread(made),
        "checks": [one for one in made["checks"] if not one["accepted"]],
        "thumbnail": thumbnail_of(t),
    }


def plan_column(
    entries: Sequence[Entry], ingredients: Ingredients, *, library: Library, methods: Methods = DEFAULT_METHODS
) -> Column:
    """The blocks as they stand. Raises DocumentError if they cannot be figured."""
    document = alone(entries, ingredients.definitions, "As planned")
    figured = figured_alone(document, library=library, methods=methods)
    # The plan is named by what its blocks are; how they go stands behind.
    names = [_named(name_of(entry), line) for entry, line in zip(entries, figured["wall"], strict=False)]
    return {**_empty(PLAN, "As planned"), "entries": list(entries), **figured, "wall": names}


def _named(name: str, line: str) -> str:
    return line if line.lower().startswith(name.lower()) else f"{name}: {line}"


def own_params(entries: Sequence[Entry]) -> dict[str, Params]:
    """The numbers of every format that the blocks are already: kept where that format is tried with others."""
    return {one.format.key: one.params for one in recognise(entries)}


def recast_column(
    ingredients: Ingredients,
    key: str,
    held: Held,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    own: Params | None = None,
) -> Column:
    """The ingredients in one format, figured; `why` instead of figures if it cannot hold them."""
    return column_of(
        recast(ingredients, key, held, library=library, methods=methods, own=own),
        ingredients.definitions, library=library, methods=methods,
    )  # fmt: skip


def column_of(
    made: Recast, definitions: Sequence[Mapping[str, Any]], *, library: Library, methods: Methods
) -> Column:
    """A recast as a column."""
    name = BY_KEY[made.key].name
    if made.why is not None:
        return {**_empty(made.key, name), "why": made.why}
    document = alone(made.entries, definitions, name)
    try:
        figured = figured_alone(document, library=library, methods=methods)
    except DocumentError as error:
        return {**_empty(made.key, name), "why": error.problems[0].text}
    return {
        **_empty(made.key, name),
        "params": {name: value for name, value in made.params.items() if name != DOSE_FACTOR},
        "entries": list(made.entries),
        "held": made.made,
        "left": made.left,
        "left_reps": {key: reps for key, reps in made.left_reps.items() if reps},
        **figured,
    }


def session_column(document: dict[str, Any], name: str, *, library: Library, methods: Methods) -> Column:
    """A whole session as a column. Raises DocumentError if it cannot be figured."""
    return {**_empty("session", name), **figured_alone(document, library=library, methods=methods)}


def _empty(key: str, name: str) -> Column:
    return {
        "key": key, "name": name, "wall": [], "params": {}, "entries": [], "document": None, "why": None,
        "held": None, "left": None, "left_reps": {}, "values": {}, "deltas": {},
        "spread": {}, "checks": [], "thumbnail": None,
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
