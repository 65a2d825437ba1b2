"""The `every` clock: one slot starts every period; what is left of the period is rest."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.session.clocks import Every
from finetally.core.session.step import Step
from finetally.core.unfold.doing import full_length, is_cut, side_word
from finetally.core.unfold.pace import EPS
from finetally.core.unfold.run import Outcome, Run, at_end
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import Address, Overflow
from finetally.core.unfold.visits import Visit


def slots_of(steps: Sequence[Step]) -> list[list[int]]:
    """Indices of the steps of each slot: `chain` puts the next step into the same slot."""
    slots: list[list[int]] = [[]]
    for index, step in enumerate(steps):
        slots[-1].append(index)
        if not step.chain and index < len(steps) - 1:
            slots.append([])
    return slots


def in_turn(slots: int, periods: int) -> list[Visit]:
    """Slots one after the other, over and over, until the periods are used up."""
    return [
        Visit(index % slots, index // slots, index % slots == slots - 1, False, index == periods - 1)
        for index in range(periods)
    ]


def run_every(run: Run, clock: Every, slots: Sequence[Sequence[int]]) -> Outcome:
    """Write one run; the items of `run.order` are slots. Every period has its full length."""
    period = run.resolver.dose(clock.period_s)
    mark = min(period, run.resolver.dose(clock.work_until_s, period))
    for visit in run.order:
        run.recorder.open_window(period)
        end = run.recorder.now + period
        _slot(run, [run.steps[index] for index in slots[visit.item]], visit.round_, period, mark)
        run.recorder.write("rest", max(0.0, end - run.recorder.now))
        run.recorder.now = end
        run.recorder.window = None
        if clock.free and visit.ends_set:
            run.recorder.write("rest", period * clock.free)
    return Outcome()


def _slot(run: Run, plans: Sequence[StepPlan], round_: int, period: float, mark: float) -> None:
    recorder, doer = run.recorder, run.doer
    start = recorder.now
    needed = 0.0
    first: Address | None = None
    previous: StepPlan | None = None
    for plan in plans:
        change = run.change_before(plan, previous)
        left = period - (recorder.now - start)
        if plan.step.fill:
            seconds = mark - (recorder.now - start) - change
            if at_end(seconds):
                break
            recorder.write("change", change, "done")
            side = doer.side_now(plan)
            done = doer.window(plan, round_, seconds, side)
            recorded = recorder.begin_visit(done, round_, side_word(plan, side))
            recorder.write("work", seconds, "clock", recorded)
        else:
            side = doer.side_now(plan)
            if at_end(left - change):
                needed += change + full_length(doer, plan, round_, side).seconds
                recorder.write("change", max(0.0, left), "cap")
                previous = plan
                continue
            recorder.write("change", change, "done")
            done = doer.dose(plan, round_, left - change, "called", side)
            # Only what goes up to the end of the period can have been cut there.
            full = full_length(doer, plan, round_, side) if at_end(left - change - done.seconds) else done
            needed += change + full.seconds
            recorded = recorder.begin_visit(done, round_, side_word(plan, side))
            recorder.write("work", done.seconds, "cap" if is_cut(done, full) else "done", recorded)
        first = first or recorder.here
        doer.settle(done, side)
        previous = plan
    if needed > period + EPS and first is not None:
        run.overflows.append(Overflow(first, needed, period))
