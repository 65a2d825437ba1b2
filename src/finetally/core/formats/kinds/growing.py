"""Growing rounds: the first movement has more reps every round."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, axes
from finetally.core.formats.bounds import LEFT, REPS, length, rounds
from finetally.core.formats.format import Format, RepOrigin
from finetally.core.formats.kinds.rounds import HALF_MINUTE, against, window_of
from finetally.core.formats.params import CannotMakeError, FormatParams, ParamSpec
from finetally.core.session.document import BlockOrSection
from finetally.core.session.parts import changed, without
from finetally.core.session.step import Step
from finetally.core.session.values import Reps, SecondsValue


class GrowingParams(FormatParams):
    """The window, and by how many reps the first movement grows."""

    window_s: Annotated[SecondsValue, ParamSpec("window", "seconds", 1)] = 420
    growth: Annotated[Reps, ParamSpec("more each round", "reps", 1, 100)] = 2


class Growing(Format[GrowingParams]):
    """Rounds against the clock that get longer."""

    key = "growing-rounds"
    name = "Growing rounds"
    precedence = 110
    claims = ("growing rounds",)
    dose = "reps"
    raced = True
    usual = (
        length(180, 1200, "it grows by itself: over twenty minutes the first movement is all there is"),
        rounds(3, 15, "it takes three rounds to grow"),
        *REPS,
        LEFT,
    )
    params = GrowingParams

    def rep_origin(self, p: FormatParams) -> RepOrigin:
        """See Format."""
        return "paced"

    def make(self, steps: Sequence[Step], p: GrowingParams) -> list[BlockOrSection]:
        """See Format."""
        first, *rest = steps
        if first.reps is None:
            raise CannotMakeError(f"{first.movement} has no reps that could grow")
        return [against(p.window_s, [changed(first, grow=p.growth), *rest])]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], GrowingParams] | None:
        """See Format."""
        found = window_of(entries)
        if found is None or not found[0].steps or not found[0].steps[0].grow:
            return None
        first, *rest = found[0].steps
        read = GrowingParams.model_validate({"window_s": found[1], "growth": first.grow})
        return [without(first, "grow"), *rest], read

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Windows by half minutes; two more each round, or one, or three."""
        return axes("window_s", self.span("length", HALF_MINUTE), growth=(2, 1, 3))
