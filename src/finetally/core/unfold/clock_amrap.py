"""The `amrap` clock: as many rounds as the window holds, self-paced."""

from __future__ import annotations

from finetally.core.session.clocks import Amrap
from finetally.core.unfold.doing import full_length, is_cut, side_word
from finetally.core.unfold.run import Count, Outcome, Run, at_end, refuse_empty_round
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.visits import Visit


def run_amrap(run: Run, clock: Amrap, *, rounds: int | None, fill: StepPlan | None) -> Outcome:
    """Write one window. `rounds` bounds the rounds where lists do; `fill` takes the time that is then left."""
    recorder, doer = run.recorder, run.doer
    window = run.resolver.dose(clock.window_s)
    end = recorder.now + window
    recorder.open_window(window)
    count = Count()
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
            done = doer.dose(plan, round_, left, "paced", side)
            cut = is_cut(done, full_length(doer, plan, round_, side)) if at_end(left - done.seconds) else False
            recorded = recorder.begin_visit(done, round_, side_word(plan, side))
            recorder.write("work", done.seconds, "cap" if cut else "done", recorded)
            doer.settle(done, side)
            count.book(done, ends_round=visit.ends_set and not cut)
            last = visit.last and rounds is not None and round_ == rounds - 1
            rest = 0.0 if last else run.rest_between(clock, visit, visit)
            previous = plan if rest <= 0 else None
            if rest > 0:
                recorder.write("rest", min(rest, end - recorder.now))
            elif not last or fill is not None:
                breather = doer.pacer.breather(done.seconds, plan.effort)
                recorder.write("rest", min(breather, max(0.0, end - recorder.now)), "done", taken=True)
        if recorder.now <= began:
            refuse_empty_round(run, "window_s")
            break
        round_ += 1
    _close(run, fill, previous, end)
    recorder.window = None
    return Outcome(score=count.score())


def _close(run: Run, fill: StepPlan | None, previous: StepPlan | None, end: float) -> None:
    recorder = run.recorder
    left = end - recorder.now
    if at_end(left):
        return
    if fill is not None:
        change = run.change_before(fill, previous)
        if change < left:
            recorder.write("change", change, "done")
            seconds = end - recorder.now
            side = run.doer.side_now(fill)
            done = run.doer.window(fill, 0, seconds, side)
            recorded = recorder.begin_visit(done, 0, side_word(fill, side))
            recorder.write("work", seconds, "clock", recorded)
            run.doer.settle(done, side)
            return
    recorder.outside_visits()
    recorder.write("rest", left)
