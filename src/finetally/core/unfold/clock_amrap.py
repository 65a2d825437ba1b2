"""The `amrap` clock: as many rounds as the window holds, self-paced."""

from __future__ import annotations

from finetally.core.session.clocks import Amrap
from finetally.core.unfold.clock_run import ClockResult, ClockRun, RoundCounter, at_end, refuse_empty_round
from finetally.core.unfold.perform import is_cut, side_word, whole_dose
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.visits import Visit


def run_amrap(run: ClockRun, clock: Amrap, *, rounds: int | None, fill: StepPlan | None) -> ClockResult:
    """Write one window. `rounds` bounds the rounds where lists do; `fill` takes the time that is then left."""
    recorder, performer = run.recorder, run.performer
    window = run.resolver.dose(clock.window_s)
    end = recorder.now + window
    recorder.open_window(window)
    count = RoundCounter()
    previous: StepPlan | None = None
    round_ = 0
    while not at_end(end - recorder.now) and (rounds is None or round_ < rounds):
        began = recorder.now
        for index, planned in enumerate(run.order):
            # Rounds go on until the window ends, so no visit leaves its group for good.
            visit = Visit(planned.item, round_, planned.ends_set, False, planned.last)
            plan = run.steps[visit.item]
            recorder.write("change", min(run.change_before(plan, previous), end - recorder.now), "done")
            left = end - recorder.now
            if at_end(left):
                break
            side = run.side_of(index, plan)
            performed = performer.dose(plan, round_, left, "paced", side)
            cut = (
                is_cut(performed, whole_dose(performer, plan, round_, side))
                if at_end(left - performed.seconds)
                else False
            )
            recorded = recorder.begin_visit(performed, round_, side_word(plan, side))
            recorder.write("work", performed.seconds, "cap" if cut else "done", recorded)
            performer.commit(performed, side)
            count.book(performed, ends_round=visit.ends_set and not cut)
            last = visit.last and rounds is not None and round_ == rounds - 1
            rest = 0.0 if last else run.rest_between(clock, visit, visit)
            previous = plan if rest <= 0 else None
            if rest > 0:
                recorder.write("rest", min(rest, end - recorder.now))
            elif not last or fill is not None:
                breather = performer.pacer.breather(performed.seconds, plan.effort)
                recorder.write("rest", min(breather, max(0.0, end - recorder.now)), "done", taken=True)
        if recorder.now <= began:
            refuse_empty_round(run, "window_s")
            break
        round_ += 1
    _close(run, fill, previous, end)
    recorder.window = None
    return ClockResult(score=count.score())


def _close(run: ClockRun, fill: StepPlan | None, previous: StepPlan | None, end: float) -> None:
    recorder = run.recorder
    left = end - recorder.now
    if at_end(left):
        return
    if fill is not None:
        change = run.change_before(fill, previous)
        if change < left:
            recorder.write("change", change, "done")
            seconds = end - recorder.now
            side = run.performer.side_now(fill)
            performed = run.performer.window(fill, 0, seconds, side)
            recorded = recorder.begin_visit(performed, 0, side_word(fill, side))
            recorder.write("work", seconds, "clock", recorded)
            run.performer.commit(performed, side)
            return
    recorder.outside_visits()
    recorder.write("rest", left)
