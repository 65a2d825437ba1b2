"""Rising windows: a slot that stays, of which ever more is work."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, along
from finetally.core.formats.bounds import LEFT, length, rounds, window
from finetally.core.formats.format import Format, as_whole, only_block
from finetally.core.formats.params import CannotMakeError, FormatParams, ParamSpec
from finetally.core.session.clocks import Intervals
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed
from finetally.core.session.step import Step
from finetally.core.session.values import Count

MOST_WINDOWS = 1_000
"""Windows in a list that is made of two numbers: a wish for millions is refused, not tried."""


class RisingParams(FormatParams):
    """The slot, by how much the work in it grows, and whether its rest comes first."""

    slot_s: Annotated[Count, ParamSpec("slot", "seconds", 2, 1000)] = 30
    by_s: Annotated[Count, ParamSpec("by", "seconds", 1, 1000)] = 5
    rest_first: Annotated[bool, ParamSpec("rest first", "flag")] = False


class Rising(Format[RisingParams]):
    """5 s on and 25 s off, 10 and 20, … 30 and 0."""

    key = "rising-windows"
    name = "Rising windows"
    precedence = 30
    trade = ("fixed slot", "split shifts")
    claims = ("rising windows",)
    dose = "window"
    usual = (
        window(
            20, 60, "the last window is as long as the slot: over a minute of one movement is no sprint to the end"
        ),
        rounds(4, 10, "with fewer than four windows nothing rises, over ten nobody knows where they are"),
        length(0, 1800, "half an hour of slots is a session of its own"),
        LEFT,
    )
    params = RisingParams

    def make(self, steps: Sequence[Step], p: RisingParams) -> list[BlockOrSection]:
        """See Format."""
        slot, by = p.slot_s, p.by_s
        if slot % by or slot > by * MOST_WINDOWS:
            raise CannotMakeError(f"a slot of {slot} s does not divide into steps of {by} s")
        work: list[float] = list(range(by, slot + 1, by))
        if len(work) < 2:
            raise CannotMakeError(f"a slot of {slot} s in steps of {by} s is one window: nothing rises")
        clock = Intervals(kind="intervals", work_s=work, rest_s=[slot - on for on in work])
        if p.rest_first:
            clock = changed(clock, rest_first=True)
        return [Block(clock=clock, rounds=len(work), steps=list(steps))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], RisingParams] | None:
        """See Format."""
        block = only_block(entries, Intervals)
        if block is None or not isinstance(block.clock, Intervals) or not isinstance(block.clock.work_s, list):
            return None
        work = as_whole(block.clock.work_s)
        read = RisingParams(slot_s=work[-1], by_s=work[0], rest_first=bool(block.clock.rest_first))
        return block.steps or (), read

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Slots by 5 s, or by 10."""
        slots, windows = self.span("window", 5), self.span("rounds")
        return [
            along("slot_s", [s for s in slots if s % by == 0 and s // by in windows], by_s=by) for by in (5, 10)
        ]
