"""One list of steps under one of the four inner clocks: a whole block, or one visit to a station."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

from finetally.core.methods.value import Methods
from finetally.core.session.clocks import Amrap, Every, InnerClock, Intervals, Task
from finetally.core.session.document import Block
from finetally.core.session.problems import Path, refuse
from finetally.core.session.rules import round_lists
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue
from finetally.core.unfold.clock_amrap import run_amrap
from finetally.core.unfold.clock_every import in_turn, run_every, slots_of
from finetally.core.unfold.clock_intervals import run_intervals
from finetally.core.unfold.clock_run import ClockResult, ClockRun, SideMemory
from finetally.core.unfold.clock_task import run_task
from finetally.core.unfold.pace import Pacer
from finetally.core.unfold.perform import SideTurns, VisitPerformer
from finetally.core.unfold.resolve import Resolver
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import Overflow, Recorder
from finetally.core.unfold.visits import Visit, visiting_order


@dataclass(slots=True)
class LayoutContext:
    """What all runs of one session share."""

    recorder: Recorder
    pacer: Pacer
    turns: SideTurns
    resolver: Resolver
    methods: Methods
    overflows: list[Overflow] = field(default_factory=list)


@dataclass(slots=True)
class StepProgram:
    """A list of steps under a clock, with the order of visits worked out; can be run again and again."""

    clock: InnerClock
    clock_path: Path
    plans: Sequence[StepPlan]
    order: Sequence[Visit]
    slots: Sequence[Sequence[int]]
    rounds: int | None
    fill: StepPlan | None
    side_memory: SideMemory

    def run(self, context: LayoutContext, block: int, *, mirrored: bool) -> ClockResult:
        """Run the clock once from now; fatigue starts afresh."""
        context.recorder.begin_clock()
        result = self._clocked(context, block, mirrored=mirrored)
        context.recorder.end_clock()
        return result

    def _clocked(self, context: LayoutContext, block: int, *, mirrored: bool) -> ClockResult:
        run = ClockRun(
            context.recorder,
            VisitPerformer(context.pacer, context.turns, block),
            context.resolver,
            self.plans,
            self.order,
            self.clock_path,
            mirrored,
            self.side_memory,
            context.overflows,
        )
        clock = self.clock
        if isinstance(clock, Intervals):
            return run_intervals(run, clock, closing_rest=context.methods.closing_rest)
        if isinstance(clock, Amrap):
            return run_amrap(run, clock, rounds=self.rounds, fill=self.fill)
        if isinstance(clock, Every):
            return run_every(run, clock, self.slots)
        return run_task(run, clock)


def program_of(
    block: Block,
    clock: InnerClock,
    clock_path: Path,
    steps: Sequence[Step],
    plans: Sequence[StepPlan],
    rounds_value: CountValue | None,
    resolver: Resolver,
) -> StepProgram:
    """Work out the order of visits of a step list. `rounds_value` is the station's or the block's `rounds`.

    Raises DocumentError for lists that are too short.
    """
    lengths = [length for _, length in round_lists(clock_path, clock, (), steps)]
    rounds = resolver.count(rounds_value, lengths[0] if lengths else 1)
    work = StepProgram(clock, clock_path, plans, (), (), None, None, SideMemory())
    if isinstance(clock, Every):
        work.slots = slots_of(steps)
        if clock.periods is not None:
            periods = resolver.count(clock.periods)
            needed = math.ceil(periods / len(work.slots))
            if lengths and lengths[0] < needed:
                found, allowed = f"lists of {lengths[0]}", f"{needed} values for {periods} periods"
                raise refuse((*clock_path, "periods"), found, allowed, "list_length")
            work.order = in_turn(len(work.slots), periods)
            return work
    elif isinstance(clock, Amrap):
        work.rounds = rounds if lengths else None
        work.fill = next((plan for plan in plans if plan.step.fill), None)
        work.plans = [plan for plan in plans if not plan.step.fill]
        rounds = 1
    count = len(work.slots) if isinstance(clock, Every) else len(work.plans)
    work.order = visiting_order(
        count,
        visit=block.visit or "rounds",
        # Rounds of an amrap go over all steps: its groups would never be left.
        group=block.group if block.group is not None and clock.grouped else "all",
        rounds=rounds,
        strip_from=block.strip_from or "front",
    )
    return work


def is_capped(clock: InnerClock) -> bool:
    """Whether the clock is a task with a cap, whose booked time is the cap."""
    return isinstance(clock, Task) and clock.cap_s is not None
