"""Rounds until done."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, axes
from finetally.core.formats.bounds import LEFT, REPS, length, rounds
from finetally.core.formats.format import Format, only_block
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Task
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, FieldValue, SecondsDose, SecondsValue


class ForTimeParams(FormatParams):
    """Rounds, the rest between them, and a cap."""

    rounds: Annotated[CountValue, ParamSpec("rounds", "count", 1, 1000)] = 3
    round_rest_s: Annotated[SecondsDose | None, ParamSpec("between rounds", "seconds")] = 60
    cap_s: Annotated[SecondsValue | None, ParamSpec("cap", "seconds", 1)] = None


class ForTime(Format[ForTimeParams]):
    """So many rounds, until they are done."""

    key = "rounds-for-time"
    name = "Rounds until done"
    precedence = 190
    trade = ("for time", "rounds for time")
    claims = ("for time",)
    dose = "any"
    raced = True
    usual = (
        rounds(2, 10, "once is no round, and over ten rounds nobody counts right"),
        length(0, 2700, "over three quarters of an hour people finish too far apart"),
        *REPS,
        LEFT,
    )
    params = ForTimeParams

    def make(self, steps: Sequence[Step], p: ForTimeParams) -> list[BlockOrSection]:
        """See Format."""
        clock = Task(kind="task", round_rest_s=p.round_rest_s or 0)
        if p.cap_s is not None:
            clock = changed(clock, cap_s=p.cap_s)
        return [Block(clock=clock, rounds=p.rounds, steps=list(steps))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], ForTimeParams] | None:
        """See Format."""
        block = only_block(entries, Task)
        if block is None or not isinstance(block.clock, Task):
            return None
        values: dict[str, FieldValue] = {
            "rounds": _rounds(block),
            "round_rest_s": block.clock.round_rest_s or 0,
            "cap_s": block.clock.cap_s,
        }
        return block.steps or (), ForTimeParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Rounds, with a few rests between them."""
        line = self.span("rounds")
        if hints.own is not None:
            return axes("rounds", line)
        return axes("rounds", line, round_rest_s=(60, 30, 90, 0, 120), cap_s=(None,))


def _rounds(block: Block) -> CountValue:
    """Rounds as written, or as many as its lists have values."""
    if block.rounds is not None:
        return block.rounds
    lists = [step.reps for step in block.steps or () if isinstance(step.reps, list)]
    return len(lists[0]) if lists else 1
