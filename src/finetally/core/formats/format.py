"""What a named format is: one class with its parameters, its bounds of use, and how it is made and recognised."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from typing import Any, ClassVar, Generic, Literal, NamedTuple, TypeVar

from finetally.core.formats.axes import Axis, PlanHints
from finetally.core.formats.bounds import Bound, Measure
from finetally.core.formats.params import CannotMakeError, FormatParams
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.step import Step
from finetally.core.session.values import DocumentObject, FieldValue

P = TypeVar("P", bound=FormatParams)

DoseSource = Literal["window", "reps", "any", "made"]
"""Where doses come from: windows set them, steps have reps, steps have any dose, or the format sets them."""


RepOrigin = Literal["guessed", "paced", "called"]
"""Guessed: a window holds as many as it holds. Paced: the clock ends rounds of them. Called: as they are written."""


class MovementCount(NamedTuple):
    """How many movements a format holds: at least, at most (None: any), and a number they must divide by."""

    least: int = 1
    most: int | None = None
    by: int = 1


class Format(ABC, Generic[P]):
    """A named format.

    `precedence`: what is narrower is recognised first (strict 20/10 before even intervals). `trade`: the trade's
    words; `claims`: words that claim the format in a coach's own label. `usual`: the bounds in which coaches use
    it. `keeps_sets`: sets and the rests between them stay, so heavy sets may go in. `raced`: it is done against
    the clock, so no tempo is kept. `no_rest`: work goes through without a rest, so nothing hard but holds is for it.
    """

    key: ClassVar[str]
    name: ClassVar[str]
    precedence: ClassVar[int]
    trade: ClassVar[tuple[str, ...]] = ()
    claims: ClassVar[tuple[str, ...]] = ()
    holds: ClassVar[MovementCount] = MovementCount()
    dose: ClassVar[DoseSource]
    usual: ClassVar[tuple[Bound, ...]]
    keeps_sets: ClassVar[bool] = False
    raced: ClassVar[bool] = False
    no_rest: ClassVar[bool] = False
    params: type[P]

    @abstractmethod
    def make(self, steps: Sequence[Step], p: P) -> list[BlockOrSection]:
        """The entries of steps (with their doses) and parameters. Raises CannotMakeError."""

    @abstractmethod
    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], P] | None:
        """What the entries would be made of; None for what is surely not this format.

        It is this format only if making again gives the same shape, which is looked at by who asks. A parameter
        that is out of bounds may raise pydantic's ValidationError.
        """

    @abstractmethod
    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Axes for so many movements, inside the bounds of use; of equals an earlier one is taken."""

    def rep_origin(self, p: FormatParams) -> RepOrigin:
        """How reps come about, at these parameters."""
        return "guessed" if self.dose == "window" else "called"

    def defaults(self) -> P:
        """Every parameter as usual."""
        return self.params()

    def refused(self, count: int) -> str | None:
        """Why the format cannot hold so many movements; None if it can."""
        least, most, by = self.holds
        if count < least or (most is not None and count > most):
            wanted = str(least) if least == most else f"{least} or more" if most is None else f"{least} to {most}"
            noun = "movement" if most == 1 else "movements"
            return f"{self.name} takes {wanted} {noun}, not {count}"
        if count % by:
            return f"{self.name} takes movements by {by}, not {count}"
        return None

    def bound(self, measure: Measure) -> Bound | None:
        """The bound of a measure, if it has one."""
        return next((one for one in self.usual if one.measure == measure), None)

    def span(self, measure: Measure, step: int = 1) -> range:
        """Whole values from the least to the most that coaches use of a measure that has both.

        Raises LookupError for a measure without both ends.
        """
        found = self.bound(measure)
        if found is None or found.low is None or found.high is None:
            raise LookupError(f"{self.key} has no span of {measure}")
        return range(int(found.low), int(found.high) + 1, step)


AnyFormat = Format[Any]


def only_block(entries: Sequence[BlockOrSection], kind: type[DocumentObject]) -> Block | None:
    """The only entry, if it is a block whose clock is of a kind."""
    if len(entries) != 1 or not isinstance(entries[0], Block) or not isinstance(entries[0].clock, kind):
        return None
    return entries[0]


def as_whole(values: Sequence[FieldValue]) -> list[int]:
    """Whole numbers of a list, 20.0 as 20. Raises CannotMakeError where one is none."""
    made = []
    for value in values:
        if type(value) is not int and not (type(value) is float and value.is_integer()):
            raise CannotMakeError("not whole numbers")
        made.append(int(value))
    return made
