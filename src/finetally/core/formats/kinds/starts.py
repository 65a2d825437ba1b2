"""Minute starts: one movement starts every minute (or every so often), plain or with a filler."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from finetally.core.formats.axes import Axis, PlanHints, axes
from finetally.core.formats.bounds import HEAVY_REST, LEFT, REPS, Bound, length, rounds
from finetally.core.formats.format import Format, MovementCount, only_block
from finetally.core.formats.params import CannotMakeError, FormatParams, ParamSpec
from finetally.core.session.clocks import Every
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed, without
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, RepsDose, SecondsValue

Order = Literal["in-turn", "straight"]
STARTS_LENGTH = length(0, 2400, "over forty minutes nobody starts on the minute any more")
START_COUNT = rounds(2, 20, "one start is none, and over twenty of a movement nobody counts right")


def _every(entries: Sequence[BlockOrSection]) -> tuple[Block, Every] | None:
    block = only_block(entries, Every)
    if block is None or not isinstance(block.clock, Every) or block.clock.free:
        # Starts that stay free are no part of these formats.
        return None
    return block, block.clock


def _group(order: Order) -> int | Literal["all"]:
    return "all" if order == "in-turn" else 1


def _order(block: Block) -> Order:
    return "straight" if block.group == 1 else "in-turn"


class StartsParams(FormatParams):
    """How often a start comes, rounds, and whether movements take turns."""

    period_s: Annotated[SecondsValue, ParamSpec("every", "seconds", 1)] = 60
    rounds: Annotated[CountValue, ParamSpec("rounds", "count", 1, 1000)] = 5
    order: Annotated[Order, ParamSpec("order", "choice")] = "in-turn"


class Starts(Format[StartsParams]):
    """A dose at each start; what is left of the minute is rest."""

    key = "minute-starts"
    name = "Minute starts"
    precedence = 210
    trade = ("EMOM", "every minute on the minute")
    claims = ("emom", "minute starts")
    dose = "any"
    keeps_sets = True
    usual = (
        START_COUNT,
        STARTS_LENGTH,
        Bound(
            "filled",
            0.15,
            0.85,
            "a start that is nearly all work leaves no rest before the next, and one that is hardly any is waiting",
        ),
        HEAVY_REST,
        *REPS,
        LEFT,
    )
    params = StartsParams

    def make(self, steps: Sequence[Step], p: StartsParams) -> list[BlockOrSection]:
        """See Format."""
        clock = Every(kind="every", period_s=p.period_s)
        return [Block(clock=clock, group=_group(p.order), rounds=p.rounds, steps=list(steps))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], StartsParams] | None:
        """See Format."""
        found = _every(entries)
        if found is None:
            return None
        block, clock = found
        values = {"period_s": clock.period_s, "rounds": block.rounds or 1, "order": _order(block)}
        return block.steps or (), StartsParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Rounds: every minute, or so much longer as the doses need."""
        line = self.span("rounds")
        if hints.own is not None:
            return axes("rounds", line)
        return axes("rounds", line, period_s=(60, 90, 120, 180, 240))


class FillParams(FormatParams):
    """How often a start comes, until when is worked, reps of what is counted, rounds, and whether they take turns."""

    period_s: Annotated[SecondsValue, ParamSpec("every", "seconds", 1)] = 60
    mark_s: Annotated[SecondsValue, ParamSpec("work until", "seconds", 1)] = 45
    reps: Annotated[RepsDose, ParamSpec("reps", "reps", 0, 10_000)] = 12
    rounds: Annotated[CountValue, ParamSpec("rounds", "count", 1, 1000)] = 3
    order: Annotated[Order, ParamSpec("order", "choice")] = "in-turn"


class Fill(Format[FillParams]):
    """12 reps, then another movement until 0:45."""

    key = "minute-starts-fill"
    name = "Minute starts with a filler"
    precedence = 200
    trade = ("EMOM with filler",)
    holds = MovementCount(2, None, 2)
    dose = "made"
    usual = (
        rounds(2, 12, "a pair that starts more than a dozen times is drudgery"),
        STARTS_LENGTH,
        *REPS,
        LEFT,
    )
    params = FillParams

    def make(self, steps: Sequence[Step], p: FillParams) -> list[BlockOrSection]:
        """See Format."""
        mark, period = p.mark_s, p.period_s
        if isinstance(mark, int | float) and isinstance(period, int | float) and mark > period:
            raise CannotMakeError(f"the mark at {mark:g} s lies beyond the {period:g} s of a start", "mark_s")
        made = []
        for index, step in enumerate(steps):
            bare = without(step, "reps", "seconds", "metres", "chain", "fill")
            made.append(changed(bare, fill=True) if index % 2 else changed(bare, reps=p.reps, chain=True))
        clock = Every(kind="every", period_s=p.period_s, work_until_s=p.mark_s)
        return [Block(clock=clock, group=_group(p.order), rounds=p.rounds, steps=made)]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], FillParams] | None:
        """See Format."""
        found = _every(entries)
        if found is None or found[1].work_until_s is None or not found[0].steps:
            return None
        block, clock = found
        steps = block.steps or []
        values = {
            "period_s": clock.period_s,
            "mark_s": clock.work_until_s,
            "reps": steps[0].reps,
            "rounds": block.rounds or 1,
            "order": _order(block),
        }
        return [without(step, "reps", "chain", "fill") for step in steps], FillParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Rounds of the most reps that leave something to fill."""
        line = self.span("rounds")
        if hints.own is not None:
            return axes("rounds", line)
        return axes("rounds", line, reps=(12, 10, 8, 6))
