"""Strength sets: one movement after the other, its sets with a rest between them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, along, axes
from finetally.core.formats.bounds import BODY_IN_A_ROW, HEAVY_REST, LEFT, POSSIBLE, Bound, length, rounds
from finetally.core.formats.format import Format, only_block
from finetally.core.formats.params import CannotMakeError, FormatParams, ParamSpec
from finetally.core.session.clocks import Task
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed, without
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, RepsDose, SecondsDose


class SetsParams(FormatParams):
    """Sets, their reps (None: as each movement has them; a list: set by set), and the rest between sets."""

    sets: Annotated[CountValue, ParamSpec("sets", "count", 1, 1000)] = 5
    reps: Annotated[RepsDose | None, ParamSpec("reps", "reps", 0, 10_000)] = 5
    rest_s: Annotated[SecondsDose | None, ParamSpec("rest", "seconds")] = 180


class Sets(Format[SetsParams]):
    """5 × 5, three minutes."""

    key = "strength-sets"
    name = "Strength sets"
    precedence = 170
    trade = ("sets", "5 × 5")
    claims = ("strength sets",)
    dose = "any"
    keeps_sets = True
    usual = (
        rounds(2, 8, "one set is a test, and over eight sets of a movement the last ones are worth little"),
        length(0, 3600, "an hour of sets is a session of its own"),
        BODY_IN_A_ROW,
        Bound("loaded-in-a-row", None, 15, "a set of more than 15 is for endurance, not for strength"),
        POSSIBLE,
        HEAVY_REST,
        LEFT,
    )
    params = SetsParams

    def make(self, steps: Sequence[Step], p: SetsParams) -> list[BlockOrSection]:
        """See Format."""
        if isinstance(p.reps, list) and p.sets != len(p.reps):
            raise CannotMakeError(f"{len(p.reps)} counts of reps for {p.sets} sets")
        made = list(steps) if p.reps is None else [_with_reps(step, p.reps) for step in steps]
        undosed = [one.movement for one in made if one.reps is None and one.seconds is None and one.metres is None]
        if undosed:
            raise CannotMakeError(f"{undosed[0]} has no reps of its own")
        clock = Task(kind="task", rest_s=p.rest_s or 0)
        return [Block(clock=clock, group=1, rounds=p.sets, steps=made)]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], SetsParams] | None:
        """See Format."""
        block = only_block(entries, Task)
        if block is None or not isinstance(block.clock, Task) or block.group != 1 or not block.steps:
            return None
        first = block.steps[0].reps
        same = first is not None and all(step.reps == first for step in block.steps)
        sets = len(first) if same and isinstance(first, list) else block.rounds or 1
        values = {"sets": sets, "reps": first if same else None, "rest_s": block.clock.rest_s or 0}
        steps = [without(step, "reps") for step in block.steps] if same else block.steps
        return steps, SetsParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Sets of the movements' own reps, with a few rests; of sets that differ, the rest between them."""
        line = self.span("rounds")
        if isinstance(hints.own, SetsParams) and isinstance(hints.own.reps, list):
            return [along("rest_s", range(60, 301, 15))]
        if hints.own is not None:
            return axes("sets", line)
        return axes("sets", line, reps=(None,), rest_s=(120, 90, 180, 150, 60))


def _with_reps(step: Step, reps: RepsDose) -> Step:
    return changed(without(step, "seconds", "metres"), reps=reps)
