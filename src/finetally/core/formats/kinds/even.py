"""Even intervals: a window and its rest, round after round."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from finetally.core.formats.axes import Axis, PlanHints, along
from finetally.core.formats.bounds import LEFT, length, rounds, window
from finetally.core.formats.format import Format, only_block
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Intervals
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, SecondsValue

USUAL_WINDOWS = ((40, 20), (30, 30), (30, 15), (45, 15), (20, 40))


class EvenParams(FormatParams):
    """Work and rest, rounds, whether a movement is done with before the next, and a rest after a round or movement."""

    work_s: Annotated[SecondsValue, ParamSpec("work", "seconds", 1)] = 40
    rest_s: Annotated[SecondsValue | None, ParamSpec("rest", "seconds")] = 20
    rounds: Annotated[CountValue, ParamSpec("rounds", "count", 1, 1000)] = 3
    order: Annotated[Literal["circuit", "straight"], ParamSpec("order", "choice")] = "circuit"
    turn_rest_s: Annotated[SecondsValue | None, ParamSpec("between turns", "seconds")] = None


class Even(Format[EvenParams]):
    """The plainest of all windows."""

    key = "even-intervals"
    name = "Even intervals"
    precedence = 80
    trade = ("intervals",)
    dose = "window"
    usual = (
        window(15, 60, "under 15 s the change-over eats the window, over a minute it is no interval"),
        rounds(2, 12, "once is no round, and a movement that comes up more than a dozen times is drudgery"),
        length(0, 2400, "over forty minutes of one rhythm nobody listens to the clock any more"),
        LEFT,
    )
    params = EvenParams

    def make(self, steps: Sequence[Step], p: EvenParams) -> list[BlockOrSection]:
        """See Format."""
        clock = Intervals(kind="intervals", work_s=p.work_s, rest_s=p.rest_s or 0)
        circuit = p.order == "circuit"
        if p.turn_rest_s is not None:
            clock = changed(clock, **{"round_rest_s" if circuit else "group_rest_s": p.turn_rest_s})
        return [Block(clock=clock, group="all" if circuit else 1, rounds=p.rounds, steps=list(steps))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], EvenParams] | None:
        """See Format."""
        block = only_block(entries, Intervals)
        if block is None or not isinstance(block.clock, Intervals):
            return None
        clock, straight = block.clock, block.group == 1
        values = {
            "work_s": clock.work_s,
            "rest_s": clock.rest_s or 0,
            "rounds": block.rounds or 1,
            "order": "straight" if straight else "circuit",
            "turn_rest_s": clock.group_rest_s if straight else clock.round_rest_s,
        }
        return block.steps or (), EvenParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Rounds: of the coach's own windows alone, or of the plan's first and then the usual ones."""
        line = self.span("rounds")
        if hints.own is not None:
            return [along("rounds", line)]
        options: list[tuple[float, float]] = list(USUAL_WINDOWS)
        if hints.work_s is not None and hints.rest_s and hints.work_s in self.span("window"):
            options = [(hints.work_s, hints.rest_s), *options]
        return [along("rounds", line, work_s=work, rest_s=rest) for work, rest in dict.fromkeys(options)]
