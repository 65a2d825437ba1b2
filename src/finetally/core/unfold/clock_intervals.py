"""The `intervals` clock: a work window for each step, then rest."""

from __future__ import annotations

import itertools

from finetally.core.session.clocks import Intervals
from finetally.core.session.problems import refuse
from finetally.core.unfold.clock_run import ClockResult, ClockRun
from finetally.core.unfold.perform import side_word
from finetally.core.unfold.visits import Visit


def run_intervals(run: ClockRun, clock: Intervals, *, closing_rest: bool) -> ClockResult:
    """Write the windows and rests of one run. `closing_rest` is the methods' habit, if the clock has none."""
    order, recorder = run.order, run.recorder
    before, gaps, after = _rests(run, clock, closing_rest)
    indices = list(range(len(order)))
    if run.mirrored:
        indices.reverse()
        gaps = gaps[::-1]
    recorder.begin_set()
    recorder.write("rest", before)
    for place, index in enumerate(indices):
        visit = order[index]
        plan = run.steps[visit.item]
        side = run.side_of(index, plan)
        seconds = _window(run, clock, visit)
        performed = run.performer.window(plan, visit.round_, seconds, side)
        recorder.open_window(seconds)
        recorded = recorder.begin_visit(performed, visit.round_, side_word(plan, side))
        recorder.write("work", seconds, visit=recorded)
        recorder.window = None
        run.performer.commit(performed, side, carry=not run.mirrored)
        run.remember(index, side)
        if place < len(gaps):
            new_set = run.starts_set(visit, order[indices[place + 1]], backwards=run.mirrored)
            # The rest is of the round before it, but of the one that it precedes where rests come first.
            if new_set and clock.rest_first:
                recorder.begin_set()
            recorder.write("rest", gaps[place])
            if new_set and not clock.rest_first:
                recorder.begin_set()
    recorder.write("rest", after)
    return ClockResult()


def _rests(run: ClockRun, clock: Intervals, closing_rest: bool) -> tuple[float, list[float], float]:
    order = run.order
    pairs = list(itertools.pairwise(order))
    if clock.rest_first:
        # Each window is preceded by its rest; a round or group rest stands before the next one's first window.
        return run.own_rest(clock, order[0]), [run.rest_between(clock, a, b) for a, b in pairs], 0
    closing = clock.closing_rest if clock.closing_rest is not None else closing_rest
    # Played backwards, the window that comes last is the one that came first.
    last = order[0] if run.mirrored else order[-1]
    after = run.own_rest(clock, last) if closing else 0
    return 0, [run.rest_between(clock, a, a) for a, _ in pairs], after


def _window(run: ClockRun, clock: Intervals, visit: Visit) -> float:
    plan = run.steps[visit.item]
    seconds = plan.seconds(visit.round_)
    if seconds is not None:
        # A dose of the step's own is per side, as everywhere; the clock's window is shared by both.
        return seconds * 2 if plan.sides == "each" else seconds
    if clock.work_s is None:
        raise refuse((*run.clock_path, "work_s"), "nothing", "work_s, or seconds on every step", "missing")
    return run.resolver.dose_in(clock.work_s, visit.round_, run.clock_path, "work_s")
