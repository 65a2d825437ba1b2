"""Halving triplet: 10, 5 and 2 of three movements."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, along
from finetally.core.formats.bounds import LEFT, REPS, length, rounds
from finetally.core.formats.format import Format, MovementCount, RepOrigin
from finetally.core.formats.kinds.rounds import HALF_MINUTE, against, window_of
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.document import BlockOrSection
from finetally.core.session.parts import changed, without
from finetally.core.session.step import Step
from finetally.core.session.values import Reps, SecondsValue


class HalvingParams(FormatParams):
    """The window, and the reps of the first movement."""

    window_s: Annotated[SecondsValue, ParamSpec("window", "seconds", 1)] = 600
    top: Annotated[Reps, ParamSpec("from", "reps", 4, 1000)] = 10


class Halving(Format[HalvingParams]):
    """Each of three movements has half the reps of the one before it."""

    key = "halving-triplet"
    name = "Halving triplet"
    precedence = 100
    claims = ("halving",)
    holds = MovementCount(3, 3, 1)
    dose = "made"
    raced = True
    usual = (
        length(180, 1800, "under three minutes there is no pace to find, over half an hour nobody holds one"),
        rounds(2, 25, "a window holds a few rounds at least; over 25 nobody has counted right"),
        *REPS,
        LEFT,
    )
    params = HalvingParams

    def rep_origin(self, p: FormatParams) -> RepOrigin:
        """See Format."""
        return "paced"

    def make(self, steps: Sequence[Step], p: HalvingParams) -> list[BlockOrSection]:
        """See Format."""
        doses = (p.top, p.top // 2, p.top // 4)
        return [against(p.window_s, [changed(step, reps=n) for step, n in zip(steps, doses, strict=True)])]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], HalvingParams] | None:
        """See Format."""
        found = window_of(entries)
        if found is None or found[0].steps is None or len(found[0].steps) != 3:
            return None
        values = {"window_s": found[1], "top": found[0].steps[0].reps}
        return [without(step, "reps") for step in found[0].steps], HalvingParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Windows by half minutes."""
        return [along("window_s", self.span("length", HALF_MINUTE))]
