"""Side by side: the plan and its recasts as one table, with the frontier and the reasoned pick."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from typing_extensions import TypedDict

from finetally.core.compare.columns import Column, column_of, plan_column, ranked_only, session_column, with_deltas
from finetally.core.compare.differences import Difference, differences
from finetally.core.compare.frontier import frontier
from finetally.core.compare.held import Held, Hold, held_of
from finetally.core.compare.ingredients import Ingredients, NoIngredientsError, of_entries, of_steps
from finetally.core.compare.recast import Recaster
from finetally.core.compare.rows import ROWS, ranked_values
from finetally.core.compare.use import Source, entries_at, main_part
from finetally.core.compare.wishes import Pick, Wish, pick
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.params import FormatParams
from finetally.core.formats.table import BY_KEY, FORMATS
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import BlockOrSection
from finetally.core.session.ids import with_ids
from finetally.core.session.json_value import JsonObject
from finetally.core.session.movement import MovementDef
from finetally.core.session.parts import session_of
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Step
from finetally.core.tally.measure import Tally, tally
from finetally.core.unfold.tape import Tape

USUAL = (
    "strict-20-10", "pairs-20-10", "rep-ladder", "movement-pyramid", "minute-starts", "rounds-against-the-clock",
    "strength-sets", "countdown-pairs", "even-intervals", "density-stations", "rounds-for-time",
)  # fmt: skip
"""Formats that are shown first where none are named and nothing is wished for; after them the others."""
ONE_OF = ("strict-20-10", "pairs-20-10")
"""Of these only the first that fits is among the first: 20/10 once is enough."""
ALWAYS = (
    "strict-20-10",
    "pairs-20-10",
    "rep-ladder",
    "movement-pyramid",
    "minute-starts",
    "rounds-against-the-clock",
)
"""Formats that are among the first wherever they fit, whatever is wished for: coaches ask for them by name."""
USUAL_COLUMNS = 6
MOST_COLUMNS = 8
"""Columns that are shown beside each other at most, the plan among them; ranked are all that fit."""

FRESH_S = 1200.0
"""Held still where nothing is planned yet: 20 minutes."""


AS_TOLD = 0.5
"""A target that is so near to the plan's own figure is that figure, as it is told in whole seconds."""


@dataclass(frozen=True, slots=True)
class ComparisonRequest:
    """What is to be compared: `source` entries of a document (None: its main part), or steps chosen fresh.

    `movements`: keys of movements chosen fresh, with their usual doses, where no `steps` are given. `people`: how
    many do it together, where the document does not say.
    """

    document: JsonObject | None = None
    source: Source | None = None
    movements: Sequence[str] = ()
    hold: Hold = "total"
    target: float | None = None
    steps: Sequence[Step] = ()
    definitions: Sequence[MovementDef] = ()
    people: int | None = None


@dataclass(frozen=True, slots=True)
class OwnShape:
    """A coach's own shape, which takes part like a format: its column's key, its name, format and numbers."""

    key: str
    name: str
    format: AnyFormat
    params: FormatParams


class Comparison(TypedDict):
    """The table: columns (the plan first, where there is one), what is held still, the frontier, the pick.

    The first `shown` columns stand in the table; those after them are ranked all the same, or say why they cannot.
    """

    hold: Hold
    target: float | None
    held_reps: dict[str, int]
    source: list[int]
    movements: list[str]
    columns: list[Column]
    shown: int
    frontier: list[int]
    pick: Pick


@dataclass(frozen=True, slots=True)
class ComparisonStart:
    """What a comparison starts from: ingredients, what is held still, the plan's entries and tape (if any)."""

    ingredients: Ingredients
    held: Held
    entries: tuple[BlockOrSection, ...]
    source: tuple[int, ...]
    tape: Tape | None = None

    def recaster(self, *, library: Library, methods: Methods = DEFAULT_METHODS) -> Recaster:
        """What pours it into formats."""
        return Recaster(self.ingredients, self.held, library=library, methods=methods, plan=self.tape)

    def own_params(self, key: str) -> FormatParams | None:
        """The numbers of a format that the plan is."""
        own = self.ingredients.own.get(key)
        return None if own is None else own.params


def start_comparison(
    request: ComparisonRequest, *, library: Library, methods: Methods = DEFAULT_METHODS
) -> ComparisonStart:
    """Ingredients and the held figure. Raises NoIngredientsError, LookupError for a block that is not there,
    DocumentError for what cannot be figured.
    """
    if request.document is None:
        return _fresh(request, library, methods)
    session = parse_session(request.document)
    document = with_ids(request.document)
    if document is not request.document:
        session = parse_session(document)
    numbers = entries_at(session, request.source) if request.source else main_part(session)
    if not numbers:
        raise NoIngredientsError("the session has no main part to compare")
    entries = tuple(session.blocks[number] for number in numbers)
    alone = session_of(entries, session.movements or (), stands_alone=True)
    t: Tally = tally(alone, library=library, methods=methods)
    people = request.people if session.people is None else session.people
    ingredients = replace(of_entries(entries, t, library.with_definitions(session.movements)), people=people)
    held = held_of(t, request.hold)
    if request.target is not None and abs(request.target - (held.target or 0)) > AS_TOLD and request.hold != "reps":
        held = Held(request.hold, request.target)
    return ComparisonStart(ingredients, held, entries, tuple(numbers), t.tape)


def _fresh(request: ComparisonRequest, library: Library, methods: Methods) -> ComparisonStart:
    steps = request.steps or [Step(movement=key) for key in request.movements]
    ingredients = replace(of_steps(steps, library, methods, request.definitions), people=request.people)
    if request.hold == "reps":
        raise NoIngredientsError("there is no plan whose reps could be held still")
    usual = FRESH_S if request.hold in ("total", "work") else None
    target = request.target if request.target is not None else usual
    if target is None:
        raise NoIngredientsError("a load to hold still has to be given where there is no plan")
    return ComparisonStart(ingredients, Held(request.hold, target), (), ())


@dataclass(frozen=True, slots=True)
class Criteria:
    """How columns are judged: wishes, and the two figures of the trade-off."""

    wishes: Sequence[Wish] = ()
    axes: tuple[str, str] = ("load", "density")


def compare(
    start: ComparisonStart,
    keys: Sequence[str] | None,
    criteria: Criteria = Criteria(),
    shapes: Sequence[OwnShape] = (),
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
) -> Comparison:
    """The plan and its recasts into every format and own shape, side by side. Deterministic.

    `keys`: what is shown, in this order; None: the first few by wishes (see ALWAYS, USUAL), less those that the
    plan is. Raises KeyError for a format, shape or row that there is not, DocumentError for a plan that cannot be
    figured.
    """
    table = _Table(start, shapes, library, methods)
    plan = (
        [plan_column(start.entries, start.ingredients, library=library, methods=methods)] if start.entries else []
    )
    made = {key: table.column(key) for key in table.keys(keys)}
    if keys is None:
        ranking = _pick([*plan, *made.values()], criteria.wishes)
        order = [[*plan, *made.values()][one["column"]]["key"] for one in ranking["ranked"]]
        chosen = _first(order, made, bool(criteria.wishes), MOST_COLUMNS - len(plan))
    else:
        chosen = list(dict.fromkeys(keys))
    others = [ranked_only(one) for key, one in made.items() if key not in chosen]
    columns = [*plan, *(made[key] for key in chosen), *others]
    return {
        "hold": start.held.what,
        "target": start.held.target,
        "held_reps": dict(start.held.reps),
        "source": list(start.source),
        "movements": [step.movement for step in start.ingredients.steps],
        "columns": with_deltas(columns),
        "shown": len(plan) + len(chosen),
        "frontier": _frontier(columns, criteria.axes),
        "pick": _pick(columns, criteria.wishes),
    }


class _Table:
    """Columns of formats and own shapes, each recast once."""

    def __init__(
        self, start: ComparisonStart, shapes: Sequence[OwnShape], library: Library, methods: Methods
    ) -> None:
        self._poured = start
        self._shapes: Mapping[str, OwnShape] = {one.key: one for one in shapes}
        self._library = library
        self._methods = methods
        self._recaster = start.recaster(library=library, methods=methods)

    def keys(self, wanted: Sequence[str] | None) -> list[str]:
        """Every format but those that the plan is (unless it is asked for), and every own shape."""
        plan = self._poured.ingredients.own
        request = set(wanted or ())
        for key in request:
            if key not in self._shapes:
                BY_KEY[key]
        return [*(one.key for one in FORMATS if one.key not in plan or one.key in request), *self._shapes]

    def column(self, key: str) -> Column:
        """A column, with all there is to see of it."""
        shape = self._shapes.get(key)
        chosen = shape.format if shape is not None else BY_KEY[key]
        made = self._recaster.into(chosen, shape.params if shape is not None else None)
        label = (shape.key, shape.name) if shape is not None else None
        of = self._poured.ingredients
        return column_of(made, chosen, of, library=self._library, methods=self._methods, label=label)


def _first(order: Sequence[str], made: Mapping[str, Column], wished: bool, room: int) -> list[str]:
    """The keys that are shown first: those that coaches ask for by name, then by rank, or else the usual ones."""
    fits = [key for key in made if made[key]["why"] is None]
    once = next((key for key in ONE_OF if key in fits), None)
    always = [key for key in ALWAYS if key in fits and (key not in ONE_OF or key == once)]
    others = order if wished else dict.fromkeys([*USUAL, *made])
    room = room if wished else min(room, USUAL_COLUMNS)
    left = [key for key in others if key in fits and key not in always and (key not in ONE_OF or wished)]
    chosen = [*always, *left][:room]
    return sorted(chosen, key=order.index) if wished else chosen


class SessionComparison(TypedDict):
    """Whole sessions side by side; `differences` of each from the first, empty for the first."""

    columns: list[Column]
    differences: list[list[Difference]]
    frontier: list[int]
    pick: Pick


def compare_sessions(
    sessions: Sequence[tuple[str, JsonObject]],
    criteria: Criteria = Criteria(),
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
        "frontier": _frontier(columns, criteria.axes),
        "pick": _pick(columns, criteria.wishes),
    }


def _frontier(columns: Sequence[Column], axes: tuple[str, str]) -> list[int]:
    x, y = axes
    values = [ranked_values(column["values"], column["endless"]) for column in columns]
    return frontier([(one.get(x), one.get(y)) for one in values], ROWS[x].sense, ROWS[y].sense)


def _pick(columns: Sequence[Column], wishes: Sequence[Wish]) -> Pick:
    return pick([ranked_values(c["values"], c["endless"]) if c["why"] is None else None for c in columns], wishes)


def holding(start: ComparisonStart) -> dict[str, str | None]:
    """Of every format in the table: why it cannot hold so many movements, or None."""
    return {one.key: one.refused(len(start.ingredients.steps)) for one in FORMATS}
