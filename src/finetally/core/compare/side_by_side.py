"""Side by side: the plan and its recasts as one table, with the frontier and the reasoned pick."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from typing_extensions import TypedDict

from finetally.core.compare.columns import (
    Column,
    own_params,
    plan_column,
    recast_column,
    session_column,
    with_deltas,
)
from finetally.core.compare.differences import Difference, differences
from finetally.core.compare.frontier import frontier
from finetally.core.compare.ingredients import Ingredients, NoIngredientsError, alone, of_entries, of_movements
from finetally.core.compare.recast import Held, Hold, held_of
from finetally.core.compare.rows import ROW_BY_KEY
from finetally.core.compare.use import Source, entries_at, main_part
from finetally.core.compare.wishes import Pick, Wish, pick
from finetally.core.formats.shape import Entry, Params
from finetally.core.formats.table import FORMATS
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.ids import with_ids
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally, tally

USUAL = (
    "strict-20-10", "movement-pyramid", "rep-ladder", "minute-starts", "countdown-pairs",
    "rounds-against-the-clock", "even-intervals", "density-stations", "rounds-for-time",
)  # fmt: skip
"""Formats that are tried where none are named, of every clock some."""
USUAL_COLUMNS = 5

FRESH_S = 1200.0
"""Held still where nothing is planned yet: 20 minutes."""


@dataclass(frozen=True, slots=True)
class Asked:
    """What is to be compared: `source` entries of a document (None: its main part), or `movements` chosen fresh."""

    document: dict[str, Any] | None = None
    source: Source | None = None
    movements: Sequence[str] = ()
    hold: Hold = "total"
    target: float | None = None


class Comparison(TypedDict):
    """The table: columns (the plan first, where there is one), what is held still, the frontier, the pick."""

    hold: Hold
    target: float | None
    held_reps: dict[str, int]
    source: list[int]
    movements: list[str]
    bent: list[str]
    columns: list[Column]
    frontier: list[int]
    pick: Pick


@dataclass(frozen=True, slots=True)
class Poured:
    """What a comparison starts from: ingredients, the thing held still, the plan's entries (if there is one)."""

    ingredients: Ingredients
    held: Held
    entries: tuple[Entry, ...]
    own: dict[str, Params]
    source: tuple[int, ...]


def gathered(asked: Asked, *, library: Library, methods: Methods = DEFAULT_METHODS) -> Poured:
    """Ingredients and the held figure. Raises NoIngredientsError, LookupError for a block that is not there,
    DocumentError for what cannot be figured.
    """
    if asked.document is None:
        ingredients = of_movements(asked.movements, library)
        if asked.hold == "reps":
            raise NoIngredientsError("there is no plan whose reps could be held still")
        usual = FRESH_S if asked.hold in ("total", "work") else None
        target = asked.target if asked.target is not None else usual
        if target is None:
            raise NoIngredientsError("a load to hold still has to be given where there is no plan")
        return Poured(ingredients, Held(asked.hold, target), (), {}, ())
    parse_session(asked.document)
    document = with_ids(asked.document)
    numbers = entries_at(document, asked.source) if asked.source else main_part(document)
    if not numbers:
        raise NoIngredientsError("the session has no main part to compare")
    entries = tuple(document["blocks"][number] for number in numbers)
    definitions = document.get("movements") or []
    t: Tally = tally(parse_session(alone(entries, definitions)), library=library, methods=methods)
    full = library.with_definitions(t.session.movements)
    ingredients = of_entries(entries, t, full, definitions)
    held = held_of(t, asked.hold)
    if asked.target is not None and asked.hold != "reps":
        held = Held(asked.hold, asked.target)
    return Poured(ingredients, held, entries, own_params(entries), tuple(numbers))


def compare(
    poured: Poured,
    keys: Sequence[str] | None,
    wishes: Sequence[Wish] = (),
    axes: tuple[str, str] = ("load", "density"),
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
) -> Comparison:
    """The plan and its recasts into formats `keys`, side by side. Deterministic.

    `keys` None: the first few of the usual formats that can hold the ingredients, less those that the plan is.
    Raises KeyError for a format or row that there is not, DocumentError if the plan cannot be figured.
    """
    columns: list[Column] = []
    if poured.entries:
        columns.append(plan_column(poured.entries, poured.ingredients, library=library, methods=methods))
    for key in USUAL if keys is None else keys:
        own = poured.own.get(key)
        if keys is None and (own is not None or len(columns) > USUAL_COLUMNS):
            continue
        column = recast_column(poured.ingredients, key, poured.held, library=library, methods=methods, own=own)
        if keys is not None or column["why"] is None:
            columns.append(column)
    return {
        "hold": poured.held.what,
        "target": poured.held.target,
        "held_reps": dict(poured.held.reps),
        "source": list(poured.source),
        "movements": [step["movement"] for step in poured.ingredients.steps],
        "bent": list(poured.ingredients.bent),
        "columns": with_deltas(columns),
        "frontier": _frontier(columns, axes),
        "pick": _pick(columns, wishes),
    }


class SessionComparison(TypedDict):
    """Whole sessions side by side; `differences` of each from the first, empty for the first."""

    columns: list[Column]
    differences: list[list[Difference]]
    frontier: list[int]
    pick: Pick


def compare_sessions(
    sessions: Sequence[tuple[str, dict[str, Any]]],
    wishes: Sequence[Wish] = (),
    axes: tuple[str, str] = ("load", "density"),
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
) -> SessionComparison:
    """Whole sessions (name, document) side by side. Raises DocumentError for one that cannot be figured."""
    columns = [session_column(document, name, library=library, methods=methods) for name, document in sessions]
    first = sessions[0][1]
    return {
        "columns": with_deltas(columns),
        "differences": [differences(first, document) for _, document in sessions],
        "frontier": _frontier(columns, axes),
        "pick": _pick(columns, wishes),
    }


def _frontier(columns: Sequence[Column], axes: tuple[str, str]) -> list[int]:
    x, y = (ROW_BY_KEY[axis] for axis in axes)
    return frontier([(c["values"].get(x.key), c["values"].get(y.key)) for c in columns], x.sense, y.sense)


def _pick(columns: Sequence[Column], wishes: Sequence[Wish]) -> Pick:
    return pick([column["values"] if column["why"] is None else None for column in columns], wishes)


def holding(poured: Poured) -> dict[str, str | None]:
    """Of every format in the table: why it cannot hold so many movements, or None."""
    return {one.key: one.hold(poured.ingredients.steps) for one in FORMATS}
