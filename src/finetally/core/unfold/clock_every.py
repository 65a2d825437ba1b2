"""The `every` clock: one slot starts every period; what is left of the period is rest."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.session.clocks import Every
from finetally.core.session.step import Step
from finetally.core.unfold.clock_run import ClockResult, ClockRun, at_end
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.perform import is_cut, side_word, whole_dose
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


def run_every(run: ClockRun, clock: Every, slots: Sequence[Sequence[int]]) -> ClockResult:
    """Write one run; the items of `run.order` are slots. Every period has its full length."""
    period = run.resolver.dose(clock.period_s)
    mark = min(period, run.resolver.dose(clock.work_until_s, period))
    before: Visit | None = None
    for visit in run.order:
        if run.starts_set(before, visit, backwards=False):
            run.recorder.begin_set()
        before = visit
        run.recorder.open_window(period)
        end = run.recorder.now + period
        _slot(run, [run.steps[index] for index in slots[visit.item]], visit.round_, period, mark)
        run.recorder.write("rest", max(0.0, end - run.recorder.now))
        run.recorder.now = end
        run.recorder.window = None
        if clock.free and visit.ends_set:
            run.recorder.write("rest", period * clock.free)
    return ClockResult()


def _slot(run: ClockRun, plans: Sequence[StepPlan], round_: int, period: float, mark: float) -> None:
    recorder, performer = run.recorder, run.performer
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
            side = performer.side_now(plan)
            performed = performer.window(plan, round_, seconds, side)
            recorded = recorder.begin_visit(performed, round_, side_word(plan, side))
            recorder.write("work", seconds, "clock", recorded)
        else:
            side = performer.side_now(plan)
            if at_end(left - change):
                needed += change + whole_dose(performer, plan, round_, side).seconds
                recorder.write("change", max(0.0, left), "cap")
                previous = plan
                continue
            recorder.write("change", change, "done")
            performed = performer.dose(plan, round_, left - change, "called", side)
            # Only what goes up to the end of the period can have been cut there.
            full = (
                whole_dose(performer, plan, round_, side)
                if at_end(left - change - performed.seconds)
                else performed
            )
            needed += change + full.seconds
            recorded = recorder.begin_visit(performed, round_, side_word(plan, side))
            recorder.write("work", performed.seconds, "cap" if is_cut(performed, full) else "done", recorded)
        first = first or recorder.here
        performer.commit(performed, side)
        previous = plan
    if needed > period + TIME_EPS_S and first is not None:
        run.overflows.append(Overflow(first, needed, period))
