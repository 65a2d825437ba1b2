"""Refrain: one movement between all others."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.formats.axes import DOSE_FACTOR, Axis, PlanHints, along
from finetally.core.formats.bounds import LEFT, REPS, length
from finetally.core.formats.format import Format, MovementCount, only_block
from finetally.core.formats.params import FormatParams
from finetally.core.session.clocks import Task
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import without
from finetally.core.session.step import Step


class RefrainParams(FormatParams):
    """Nothing to set: the first movement is the refrain."""


class Refrain(Format[RefrainParams]):
    """A, r, B, r, C: the first movement comes again after each of the others but the last."""

    key = "refrain"
    name = "Refrain"
    precedence = 180
    claims = ("refrain",)
    holds = MovementCount(4)
    dose = "any"
    raced = True
    usual = (length(0, 2400, "over forty minutes nobody hears the refrain"), *REPS, LEFT)
    params = RefrainParams

    def make(self, steps: Sequence[Step], p: RefrainParams) -> list[BlockOrSection]:
        """See Format."""
        refrain, *others = steps
        made: list[Step] = []
        for index, other in enumerate(others):
            # An id is there once.
            made += [other, refrain if index == 0 else without(refrain, "id")]
        return [Block(clock=Task(kind="task"), steps=made[:-1])]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], RefrainParams] | None:
        """See Format."""
        block = only_block(entries, Task)
        steps = [] if block is None or block.steps is None else block.steps
        if len(steps) < 5 or len(steps) % 2 == 0:
            return None
        return [steps[1], *steps[::2]], RefrainParams()

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Every dose taken half, three quarters, … up to three times."""
        return [along(DOSE_FACTOR, [quarters / 4 for quarters in range(2, 13)])]
