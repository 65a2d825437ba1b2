"""Flow and holds: one window after the other, no rest."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, axes
from finetally.core.formats.bounds import LEFT, length, rounds, window
from finetally.core.formats.format import Format, only_block
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Intervals
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, SecondsValue


class FlowParams(FormatParams):
    """The window and how often all movements come up."""

    window_s: Annotated[SecondsValue, ParamSpec("window", "seconds", 1)] = 30
    rounds: Annotated[CountValue, ParamSpec("rounds", "count", 1, 100)] = 1


class Flow(Format[FlowParams]):
    """Movements that run into each other, or holds."""

    key = "flow-holds"
    name = "Flow and holds"
    precedence = 70
    trade = ("flow", "holds")
    claims = ("flow", "holds")
    dose = "window"
    no_rest = True
    usual = (
        window(20, 90, "a hold or a flow of one movement for over a minute and a half without rest falls apart"),
        rounds(1, 4, "over four rounds without rest it is no flow but a test"),
        length(0, 900, "nobody flows for more than a quarter of an hour without a rest"),
        LEFT,
    )
    params = FlowParams

    def make(self, steps: Sequence[Step], p: FlowParams) -> list[BlockOrSection]:
        """See Format."""
        clock = Intervals(kind="intervals", work_s=p.window_s, rest_s=0)
        return [Block(clock=clock, rounds=p.rounds, steps=list(steps))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], FlowParams] | None:
        """See Format."""
        block = only_block(entries, Intervals)
        if block is None or not isinstance(block.clock, Intervals):
            return None
        values = {"window_s": block.clock.work_s, "rounds": block.rounds or 1}
        return block.steps or (), FlowParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Windows by 5 s, for each number of rounds."""
        return axes("window_s", self.span("window", 5), rounds=list(self.span("rounds")))
