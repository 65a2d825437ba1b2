"""What comparisons are asked for and answered with over the API."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from finetally.core.compare import side_by_side
from finetally.core.compare.held import Hold
from finetally.core.compare.rows import ROWS
from finetally.core.compare.side_by_side import Comparison, ComparisonRequest, SessionComparison
from finetally.core.compare.sweep import SweepPoint, Turn
from finetally.core.compare.typed import TypedMovements, read_movements
from finetally.core.compare.wishes import Way, Wish
from finetally.core.edits.edit import Edit
from finetally.core.session.movement import MovementKey
from finetally.core.session.problems import DocumentError, Problem, shown
from finetally.web.api.openapi import DocumentBody
from finetally.web.log.whose_pace import OfGroup, at_pace_of
from finetally.web.plan.placing import Placing
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext
from finetally.web.squads.models import Squad
from finetally.web.squads.use_cases import context_for, squad_for
from finetally.web.training.use_cases import sessions_for_comparison

MAX_FORMATS = 8
"""Columns that are named to be shown: more are not read beside each other."""


class WishIn(Schema):
    """What matters: a row of the table, which way, a bound for at-most and at-least, hard or with a weight."""

    row: str = Field(max_length=40)
    way: Way
    value: float | None = Field(None, ge=0, le=1_000_000)
    hard: bool = False
    weight: float = Field(3, ge=0, le=10)


class CriteriaIn(Schema):
    """How columns are judged: wishes, and the two figures of the trade-off picture."""

    wishes: list[WishIn] = Field(default=[], max_length=12)
    axes: tuple[str, str] = ("load", "density")

    def criteria(self) -> side_by_side.Criteria:
        """As the core takes it. Raises DocumentError for a row that there is not."""
        allowed = ", ".join(ROWS)
        wrong = [(f"wishes[{n}].row", wish.row) for n, wish in enumerate(self.wishes) if wish.row not in ROWS]
        wrong += [(f"axes[{n}]", axis) for n, axis in enumerate(self.axes) if axis not in ROWS]
        if wrong:
            raise DocumentError(Problem(path, repr(row), allowed, "row") for path, row in wrong)
        wishes = [Wish(w.row, w.way, w.value, w.hard, w.weight) for w in self.wishes]
        return side_by_side.Criteria(wishes, self.axes)


class StartIn(Schema):
    """What is poured: entries of a document (its main part, where `source` names none), or fresh movements.

    `text`: movements as typed on a wall, with their doses or without. `people`: how many do it together.
    `pace_of`: at whose pace, a person's or of the squad's span; else at the squad's own.
    """

    document: DocumentBody | None = None
    source: list[int | str] | None = Field(None, max_length=100)
    movements: list[MovementKey] = Field(default=[], max_length=40)
    text: str = Field("", max_length=4_000)
    hold: Hold = "total"
    target: float | None = Field(None, gt=0, le=86_400)
    people: int | None = Field(None, ge=1, le=1_000)
    squad: int | None = None
    methods: dict[str, Any] = {}
    pace_of: UUID | OfGroup | None = None

    def asked(self, typed: TypedMovements | None, squad: Squad | None = None) -> ComparisonRequest:
        """As the core takes it; what is chosen fresh is for all people of the squad where nothing else is said."""
        people = self.people
        if people is None and self.document is None and squad is not None:
            people = squad.people.count() or None
        return ComparisonRequest(
            self.document, self.source, self.movements, self.hold, self.target,
            typed.steps if typed is not None else (), typed.definitions if typed is not None else (), people,
        )  # fmt: skip

    def typed(self, context: FiguringContext) -> TypedMovements | None:
        """What was typed, read; None where nothing was. Raises DocumentError where nothing in it is a movement."""
        if self.document is not None or not self.text.strip():
            return None
        found = read_movements(self.text, library=context.library)
        if not found.steps:
            raise DocumentError([Problem("text", shown(self.text), "movements, one a line", "no_movements")])
        return found

    def context(self, actor: Actor) -> FiguringContext:
        """What it is figured with."""
        made = context_for(actor, self.squad, Right.LOOK, self.methods)
        if self.pace_of is None:
            return made
        return at_pace_of(actor, squad_for(actor, self.squad, Right.LOOK), self.pace_of, made)

    def squad_id(self, actor: Actor) -> int:
        """Whose comparison it is."""
        return squad_for(actor, self.squad, Right.LOOK).pk


class CompareIn(StartIn, CriteriaIn):
    """As poured; these formats are shown, and own shapes by `shape:` and their number. Where none are named, the
    first ones; all that fit are ranked.
    """

    formats: list[str] | None = Field(None, max_length=MAX_FORMATS)


class ReadOut(Schema):
    """How typed movements were read: steps in order; names that are not known; lines that say no movement."""

    steps: list[dict[str, Any]]
    unknown: list[str]
    unread: list[str]


class ComparisonOut(Schema):
    """The table. `holding` says of every format why it cannot hold so many movements, or null."""

    comparison: Comparison
    holding: dict[str, str | None]
    read: ReadOut | None


class PlacingIn(CompareIn):
    """As compared, put on the free days of the week of `day`; of this week or the next, where none is named."""

    day: date | None = None


class PlacingOut(Schema):
    """The table of formats and days."""

    placing: Placing


class SweepIn(StartIn):
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

    document: DocumentBody
    source: list[int | str] = Field(min_length=1, max_length=100)
    entries: list[dict[str, Any]] = Field(min_length=1, max_length=20)
    how: Literal["replace", "insert"] = "replace"


class UseOut(Schema):
    """The edits that do it, in order."""

    edits: list[Edit]


class SessionsIn(CriteriaIn):
    """Two to eight kept sessions, in order; the others are held against the first."""

    sessions: list[UUID] = Field(min_length=2, max_length=8)
    pace_of: UUID | OfGroup | None = None

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


class MatterOut(Schema):
    """What may matter, in a ready sentence, and the wishes that it comes to."""

    key: str
    sentence: str
    wishes: list[WishIn]


class CompareTablesOut(Schema):
    """The rows, wishes to choose from, and ready sentences for the question of which format."""

    rows: list[RowOut]
    wishes: list[NamedWishOut]
    matters: list[MatterOut]
