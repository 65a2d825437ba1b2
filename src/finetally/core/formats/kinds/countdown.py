"""Countdown pairs: 60 and 60, 50 and 50, … and up again."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, along
from finetally.core.formats.bounds import LEFT, Bound, length, window
from finetally.core.formats.format import Format, MovementCount, as_whole, only_block
from finetally.core.formats.kinds.rising import MOST_WINDOWS
from finetally.core.formats.params import CannotMakeError, FormatParams, ParamSpec
from finetally.core.session.clocks import Intervals
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed, without
from finetally.core.session.step import Step
from finetally.core.session.values import Count, SecondsValue


class CountdownParams(FormatParams):
    """The longest window, by how much they shrink, and the rest before they grow again."""

    top_s: Annotated[Count, ParamSpec("from", "seconds", 1, 1000)] = 60
    by_s: Annotated[Count, ParamSpec("by", "seconds", 1, 1000)] = 10
    turn_rest_s: Annotated[SecondsValue | None, ParamSpec("between turns", "seconds")] = 60


class Countdown(Format[CountdownParams]):
    """Two movements a window length, pair after pair, down and then mirrored."""

    key = "countdown-pairs"
    name = "Countdown pairs"
    precedence = 40
    claims = ("countdown",)
    holds = MovementCount(2, None, 2)
    dose = "window"
    usual = (
        window(20, 90, "windows start at a minute or so; over a minute and a half the pair is a trudge"),
        Bound("shortest", 10, None, "in less than ten seconds nobody gets going"),
        length(0, 1800, "half an hour down and up is a session of its own"),
        LEFT,
    )
    params = CountdownParams

    def make(self, steps: Sequence[Step], p: CountdownParams) -> list[BlockOrSection]:
        """See Format."""
        top, by, pairs = p.top_s, p.by_s, len(steps) // 2
        if top % by or top > by * MOST_WINDOWS:
            raise CannotMakeError(f"{top} s does not count down by {by} s")
        levels = top // by
        if levels % pairs:
            raise CannotMakeError(f"{levels} windows do not share out evenly among {pairs} pairs")
        turns = levels // pairs
        made = []
        for index, step in enumerate(steps):
            windows: list[float] = [top - by * (turn * pairs + index // 2) for turn in range(turns)]
            made.append(changed(step, seconds=windows if turns > 1 else windows[0]))
        clock = Intervals(kind="intervals", work_s=top, rest_s=0)
        block = Block(clock=clock, rounds=turns, repeat=2, mirror=True, steps=made)
        return [block if p.turn_rest_s is None else changed(block, rest_between_repeats_s=p.turn_rest_s)]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], CountdownParams] | None:
        """See Format."""
        block = only_block(entries, Intervals)
        if block is None or not block.mirror or not block.steps:
            return None
        windows = [step.seconds if isinstance(step.seconds, list) else [step.seconds] for step in block.steps]
        top, by = as_whole([windows[0][0], windows[-1][-1]])
        values = {"top_s": top, "by_s": by, "turn_rest_s": block.rest_between_repeats_s or 0}
        return [without(step, "seconds") for step in block.steps], CountdownParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Tops whose windows share out evenly among the pairs; down by 10 s, by 15 or by 20."""
        pairs = max(1, count // 2)
        tops = self.span("window")
        return [along("top_s", [t for t in tops if t % (by * pairs) == 0], by_s=by) for by in (10, 15, 20)]
