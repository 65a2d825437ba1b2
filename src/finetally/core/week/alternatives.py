"""Whole alternatives of a session for the leveller: each a change of the document, figured through."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from finetally.core.board.writer import headings
from finetally.core.compare.changes import ChangeKind, series_of
from finetally.core.compare.side_by_side import ComparisonRequest, start_comparison
from finetally.core.compare.use import is_main, use_edits
from finetally.core.edits.edit import Edit, EditError, SetEdit, apply_edits
from finetally.core.formats.table import BY_KEY
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.movements.patterns import EIGHT_ROWS, MAIN_SHARE, ROW_OF
from finetally.core.session.document import Section
from finetally.core.session.ids import with_ids
from finetally.core.session.json_value import JsonObject
from finetally.core.session.movement import FinePattern
from finetally.core.session.parts import steps_of_entry
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.planned_load import LoadSummary, summary_of

MOST_ALTERNATIVES = 60
"""Of one session: more would be figured for nothing, the solver picks one."""

RECAST_INTO = (
    "strict-20-10", "movement-pyramid", "rep-ladder", "minute-starts", "countdown-pairs",
    "rounds-against-the-clock", "even-intervals", "density-stations", "rounds-for-time",
)  # fmt: skip
"""Formats that are tried, of every clock some."""

MOST_OF_A_SERIES = 3
RECASTS = 4
SWAPS = 2
COST = {"as-is": 0, "dose": 10, "swap": 20, "format": 30}
"""What a kind of change weighs where the number of edits is equal: a round fewer before another format."""


@dataclass(frozen=True, slots=True)
class Alternative:
    """A version of a session: what was done in words, its edits, what it then comes to, and its weight."""

    kind: str
    what: str
    summary: LoadSummary
    edits: tuple[Edit, ...] = ()
    document: JsonObject = field(default_factory=dict)

    @property
    def cost(self) -> int:
        """Its weight beside other changes."""
        return COST[self.kind]


class _Maker:
    def __init__(self, document: JsonObject, library: Library, methods: Methods) -> None:
        self.document = with_ids(document)
        self.session = parse_session(self.document)
        self.library = library
        self.methods = methods

    def summary(self, document: JsonObject) -> LoadSummary:
        """What a version of the session comes to. Raises DocumentError."""
        return summary_of(tally(parse_session(document), library=self.library, methods=self.methods))

    def changed(self, kind: str, what: str, edits: Sequence[Edit]) -> Alternative | None:
        """The session after edits; None where they make none that can be figured."""
        try:
            document, _ = apply_edits(self.document, edits)
            return Alternative(kind, what, self.summary(document), tuple(edits), document)
        except (DocumentError, EditError):
            return None

    def doses(self) -> Iterator[Alternative | None]:
        """Some rounds, windows or rests fewer or more, of each series the first few."""
        wanted: tuple[ChangeKind, ...] = ("rounds", "window")
        for longer in (False, True):
            for series in series_of(self.document, longer=longer):
                for change in [one for one in series if one.kind in wanted][:MOST_OF_A_SERIES]:
                    yield self.changed("dose", change.what, change.edits)

    def recasts(self) -> Iterator[Alternative | None]:
        """Each main block but heavy sets in some of the usual formats, its work time held still."""
        for number, entry in enumerate(self.session.blocks):
            if isinstance(entry, Section) or not is_main(entry):
                continue
            start = start_comparison(
                ComparisonRequest(self.document, [number], hold="work"), library=self.library, methods=self.methods
            )
            if start.ingredients.heavy:
                # Heavy sets stay as they are: their work time is no measure of them.
                continue
            recaster = start.recaster(library=self.library, methods=self.methods)
            made = 0
            for key in RECAST_INTO:
                if key in start.ingredients.own or made >= RECASTS:
                    continue
                one = recaster.into(BY_KEY[key])
                if one.causes:
                    continue
                made += 1
                edits = use_edits(self.session, [number], one.entries, "replace")
                goes = "; ".join(headings(one.entries))
                name = entry.title or f"block {number + 1}"
                yield self.changed("format", f"{name} becomes {BY_KEY[key].name.lower()} ({goes})", edits)

    def swaps(self) -> Iterator[Alternative | None]:
        """Each main step by a movement that works another row mostly, with the same kit or none."""
        used = {step.movement for entry in self.session.blocks for step in steps_of_entry(entry)}
        for entry in self.session.blocks:
            if isinstance(entry, Section) or not is_main(entry):
                continue
            for step in steps_of_entry(entry):
                for key in self._others(step.movement, used):
                    # Every part has an id here: the document was given those that were missing.
                    edits = [SetEdit(path=[step.id or "", "movement"], value=key)]
                    if step.sides is not None:
                        sides = self.library[key].sides or "both"
                        edits.append(SetEdit(path=[step.id or "", "sides"], value=sides))
                    yield self.changed("swap", f"{self._name(step.movement)} becomes {self._name(key)}", edits)

    def _name(self, key: str) -> str:
        movement = self.library.get(key)
        return movement.name if movement is not None and movement.name else key

    def _others(self, key: str, used: set[str]) -> list[str]:
        """Movements in place of one: one easier within its pattern, then such as work a row that is missing."""
        now = self.library.get(key)
        if now is None:
            return []
        kit = set(now.kit or ())
        mine = _main_row(now.patterns)
        there = {_main_row(self.library[one].patterns) for one in used if one in self.library}
        easier = [
            one for one in now.easier or () if one in self.library and set(self.library[one].kit or ()) <= kit
        ]
        missing = [row.name for row in EIGHT_ROWS if row.name not in there and row.name != mine]
        other = [
            one
            for one, movement in self.library.items()
            if _main_row(movement.patterns) in missing
            and set(movement.kit or ()) <= kit
            and bool(movement.pace_s) is bool(now.pace_s)
            and (movement.speed_mps is None) is (now.speed_mps is None)
            and one not in used
        ]
        return [one for one in [*easier[:1], *other] if one not in used][:SWAPS]


def _main_row(patterns: Mapping[FinePattern, float]) -> str:
    rows: dict[str, float] = {}
    for pattern, weight in patterns.items():
        name = ROW_OF[pattern].name
        rows[name] = rows.get(name, 0.0) + weight
    best = max(rows, key=lambda name: rows[name])
    return best if rows[best] >= MAIN_SHARE else ""


def alternatives_of(
    document: JsonObject, *, library: Library, methods: Methods = DEFAULT_METHODS
) -> list[Alternative]:
    """The session as it is, and at most 59 changed versions of it, all different in what they come to.

    Deterministic. Raises DocumentError if the session itself cannot be figured.
    """
    full = library.with_definitions(parse_session(document).movements)
    maker = _Maker(document, full, methods)
    made = [Alternative("as-is", "as it is", maker.summary(maker.document), (), maker.document)]
    known = {_identity(made[0].summary)}
    for one in (*maker.doses(), *maker.recasts(), *maker.swaps()):
        if one is None or _identity(one.summary) in known:
            continue
        known.add(_identity(one.summary))
        made.append(one)
        if len(made) >= MOST_ALTERNATIVES:
            break
    return made


def _identity(summary: LoadSummary) -> tuple[float, float, *tuple[tuple[tuple[str, float], ...], ...]]:
    rows = tuple(sorted((name, round(seconds, 1)) for name, seconds in summary.patterns.items()))
    return (
        round(summary.load, 2),
        round(summary.effort, 3),
        tuple(summary.landings.items()),
        tuple(summary.reps.items()),
        rows,
    )
