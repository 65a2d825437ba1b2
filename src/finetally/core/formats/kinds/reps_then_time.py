"""Reps, then time: so many of one, so many seconds of another."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, along, axes
from finetally.core.formats.bounds import LEFT, REPS, length, rounds
from finetally.core.formats.format import Format, MovementCount, only_block
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Task
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed, without
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, RepsDose, SecondsDose, SecondsValue


class RepsThenTimeParams(FormatParams):
    """Reps of the first of each pair, seconds of the second, the rest after a pair, rounds of each."""

    reps: Annotated[RepsDose, ParamSpec("reps", "reps", 0, 10_000)] = 12
    seconds: Annotated[SecondsDose, ParamSpec("then", "seconds", 1)] = 30
    pair_rest_s: Annotated[SecondsValue, ParamSpec("between pairs", "seconds")] = 30
    rounds: Annotated[CountValue, ParamSpec("rounds", "count", 1, 1000)] = 1


class RepsThenTime(Format[RepsThenTimeParams]):
    """Pairs of a count and a time."""

    key = "reps-then-time-pairs"
    name = "Reps, then time"
    precedence = 160
    holds = MovementCount(2, None, 2)
    dose = "made"
    usual = (
        rounds(1, 8, "a pair that comes up more than eight times is a circuit"),
        length(0, 2400, "over forty minutes of pairs is a session of its own"),
        *REPS,
        LEFT,
    )
    params = RepsThenTimeParams

    def make(self, steps: Sequence[Step], p: RepsThenTimeParams) -> list[BlockOrSection]:
        """See Format."""
        made = [
            changed(step, seconds=p.seconds) if index % 2 else changed(step, reps=p.reps)
            for index, step in enumerate(steps)
        ]
        return [Block(clock=Task(kind="task", group_rest_s=p.pair_rest_s), group=2, rounds=p.rounds, steps=made)]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], RepsThenTimeParams] | None:
        """See Format."""
        block = only_block(entries, Task)
        if block is None or not isinstance(block.clock, Task) or block.group != 2 or len(block.steps or ()) < 2:
            return None
        steps = block.steps or []
        values = {
            "reps": steps[0].reps,
            "seconds": steps[1].seconds,
            "pair_rest_s": block.clock.group_rest_s,
            "rounds": block.rounds or 1,
        }
        return [without(step, "reps", "seconds") for step in steps], RepsThenTimeParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Rounds, with a few counts and times."""
        line = self.span("rounds")
        if hints.own is not None:
            return axes("rounds", line)
        options = ((12, 30), (10, 30), (8, 30), (10, 40))
        return [along("rounds", line, reps=reps, seconds=seconds) for reps, seconds in options]
