"""20/10: eight windows a movement, or four for each of two that take turns."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints
from finetally.core.formats.bounds import Bound, length
from finetally.core.formats.format import Format, MovementCount, only_block
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Intervals
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed
from finetally.core.session.step import Step
from finetally.core.session.values import SecondsValue

WORK_S, REST_S = 20, 10
STRICTLY_LEFT = Bound(
    "left", None, 0.5, "nothing in it is free, but with more than half left over it is another session"
)
STRICT_LENGTH = length(0, 1500, "20/10 is done hard, and nobody does it hard for more than 25 minutes")


class StrictParams(FormatParams):
    """Rest between movements; None: no more than the ten seconds."""

    step_rest_s: Annotated[SecondsValue | None, ParamSpec("between steps", "seconds")] = 60


class Strict(Format[StrictParams]):
    """Eight times 20 s on and 10 s off, one movement after the other."""

    key = "strict-20-10"
    name = "Strict 20/10"
    precedence = 10
    trade = ("tabata",)
    claims = ("tabata", "strict 20/10")
    dose = "window"
    usual = (STRICT_LENGTH, STRICTLY_LEFT)
    params = StrictParams

    def make(self, steps: Sequence[Step], p: StrictParams) -> list[BlockOrSection]:
        """See Format."""
        clock = Intervals(kind="intervals", work_s=WORK_S, rest_s=REST_S)
        if p.step_rest_s is not None:
            clock = changed(clock, group_rest_s=p.step_rest_s)
        return [Block(clock=clock, group=1, rounds=8, steps=list(steps))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], StrictParams] | None:
        """See Format."""
        block = only_block(entries, Intervals)
        if block is None or not isinstance(block.clock, Intervals) or block.rounds != 8:
            return None
        return block.steps or (), StrictParams.model_validate({"step_rest_s": block.clock.group_rest_s})

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Nothing is free: it is strict."""
        return [[{}]]


class PairsParams(FormatParams):
    """Rest between pairs."""

    pair_rest_s: Annotated[SecondsValue, ParamSpec("between pairs", "seconds")] = 60


class Pairs(Format[PairsParams]):
    """20 s on and 10 s off, two movements by turns, four times each."""

    key = "pairs-20-10"
    name = "20/10 pairs"
    precedence = 20
    trade = ("tabata pairs",)
    claims = ("20/10 pairs",)
    holds = MovementCount(2, None, 2)
    dose = "window"
    usual = (STRICT_LENGTH, STRICTLY_LEFT)
    params = PairsParams

    def make(self, steps: Sequence[Step], p: PairsParams) -> list[BlockOrSection]:
        """See Format."""
        clock = Intervals(kind="intervals", work_s=WORK_S, rest_s=REST_S, group_rest_s=p.pair_rest_s)
        return [Block(clock=clock, group=2, rounds=4, steps=list(steps))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], PairsParams] | None:
        """See Format."""
        block = only_block(entries, Intervals)
        if block is None or not isinstance(block.clock, Intervals) or block.clock.group_rest_s is None:
            return None
        return block.steps or (), PairsParams.model_validate({"pair_rest_s": block.clock.group_rest_s})

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Nothing is free."""
        return [[{}]]
