"""The movement pyramid: A, AB, ABC, … and back to the last."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from finetally.core.formats.axes import Axis, PlanHints, axes
from finetally.core.formats.bounds import LEFT, REPS, Bound, length, window
from finetally.core.formats.format import Format, MovementCount, RepOrigin
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Intervals, Task
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.step import Step
from finetally.core.session.values import SecondsValue


class PyramidParams(FormatParams):
    """Whether windows or doses end a movement's turn, the rest between sets, and which end drops on the way back."""

    clock: Annotated[Literal["intervals", "task"], ParamSpec("by", "choice")] = "intervals"
    window_s: Annotated[SecondsValue, ParamSpec("window", "seconds", 1)] = 30
    set_rest_s: Annotated[SecondsValue | None, ParamSpec("between sets", "seconds")] = 30
    strip_from: Annotated[Literal["front", "back"], ParamSpec("drop from the", "choice")] = "front"


class Pyramid(Format[PyramidParams]):
    """Sets that grow by a movement each until all are in, and shrink again."""

    key = "movement-pyramid"
    name = "Movement pyramid"
    precedence = 50
    trade = ("pyramid", "building pyramid")
    claims = ("pyramid",)
    holds = MovementCount(2)
    dose = "any"
    usual = (
        Bound("movements", 3, 6, "two movements make no pyramid, and of more than six nobody knows which is next"),
        window(15, 60, "under 15 s the change-over eats the window; over a minute the widest set has no end"),
        length(0, 2400, "over forty minutes the way back is no longer worked, only finished"),
        *REPS,
        LEFT,
    )
    params = PyramidParams

    def rep_origin(self, p: FormatParams) -> RepOrigin:
        """See Format."""
        return "guessed" if isinstance(p, PyramidParams) and p.clock == "intervals" else "called"

    def make(self, steps: Sequence[Step], p: PyramidParams) -> list[BlockOrSection]:
        """See Format."""
        rest = p.set_rest_s or 0
        clock = (
            Intervals(kind="intervals", rest_s=0, round_rest_s=rest, work_s=p.window_s)
            if p.clock == "intervals"
            else Task(kind="task", rest_s=0, round_rest_s=rest)
        )
        return [Block(clock=clock, visit="build-strip", strip_from=p.strip_from, steps=list(steps))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], PyramidParams] | None:
        """See Format."""
        block = entries[0] if len(entries) == 1 else None
        if not isinstance(block, Block) or block.visit != "build-strip":
            return None
        clock = block.clock
        if not isinstance(clock, Intervals | Task):
            return None
        values = {
            "clock": clock.kind,
            "set_rest_s": clock.round_rest_s or 0,
            "strip_from": block.strip_from or "front",
        }
        if isinstance(clock, Intervals):
            values["window_s"] = clock.work_s or 30
        return block.steps or (), PyramidParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Windows by 5 s, with the usual rest between sets, a longer or a shorter one."""
        if isinstance(hints.own, PyramidParams) and hints.own.clock == "task":
            return [[{"set_rest_s": rest} for rest in (0, 15, 30, 45, 60, 90, 120)]]
        return axes("window_s", self.span("window", 5), set_rest_s=(30, 60, 15))
