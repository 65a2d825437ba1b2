"""The `task` clock: the doses, self-paced, until done or capped; a pulse may stop everyone in between."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from finetally.core.session.clocks import Task
from finetally.core.unfold.clock_run import ClockResult, ClockRun, RoundCounter, at_end, refuse_empty_round
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.perform import is_cut, side_word, whole_dose
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import PerformedVisit
from finetally.core.unfold.visits import Visit


class _DueVisit(NamedTuple):
    """A visit to come: its place in the order, the visit, the rest due after it, whether any follows.

    `starts_set`: a round or set begins with it.
    """

    place: int
    visit: Visit
    rest_s: float
    more: bool
    starts_set: bool


def _way(run: ClockRun, clock: Task) -> Iterator[_DueVisit]:
    order = list(enumerate(run.order))
    gaps = [run.rest_between(clock, a, a) for a in run.order[:-1]]
    if run.mirrored:
        order.reverse()
        gaps.reverse()
    starts = _set_starts(run, [visit for _, visit in order], backwards=run.mirrored)
    if clock.then == "reverse":
        order = order + order[-2::-1]
        gaps = gaps + gaps[::-1]
        back = [visit for _, visit in order[len(starts) :]]
        starts += _set_starts(run, back, backwards=not run.mirrored)
    last = len(order) - 1
    while True:
        for place, (index, visit) in enumerate(order):
            if place < last:
                yield _DueVisit(index, visit, gaps[place], True, starts[place])
            elif clock.then == "restart":
                # Here the block goes on, so the last visit ends a round like any other.
                again = visit._replace(leaves_group=False)
                yield _DueVisit(index, visit, run.rest_between(clock, again, again), True, starts[place])
            else:
                yield _DueVisit(index, visit, 0, False, starts[place])
                return


def _set_starts(run: ClockRun, visits: Sequence[Visit], *, backwards: bool) -> list[bool]:
    befores = [None, *visits[:-1]]
    return [run.starts_set(b, v, backwards=backwards) for b, v in zip(befores, visits, strict=False)]


class _Pulse:
    """The second clock: counts working seconds since everyone last rested."""

    def __init__(self, work_s: float, rest_s: float) -> None:
        self.work_s = work_s
        self.rest_s = rest_s
        self.since = 0.0

    @property
    def room(self) -> float:
        """Seconds of work until the next rest of all."""
        return self.work_s - self.since

    @property
    def due(self) -> bool:
        """Whether everyone rests now."""
        return self.room <= TIME_EPS_S


NO_PULSE = math.inf


class _TaskRun:
    def __init__(self, run: ClockRun, clock: Task) -> None:
        self.run = run
        self.clock = clock
        self.recorder = run.recorder
        self.start = run.recorder.now
        cap = run.resolver.dose(clock.cap_s) if clock.cap_s is not None else None
        self.end = math.inf if cap is None else self.start + cap
        if cap is not None:
            run.recorder.open_window(cap)
        pulse = clock.pulse
        self.pulse = _Pulse(
            run.resolver.dose(pulse.work_s) if pulse else NO_PULSE,
            run.resolver.rest(pulse.rest_s) if pulse else 0,
        )
        self.count = RoundCounter()
        self.previous: StepPlan | None = None

    @property
    def left(self) -> float:
        """Seconds until the cap."""
        return self.end - self.recorder.now

    def _way(self) -> Iterator[_DueVisit]:
        """The stops, round after round; a task that starts over ends when a whole round took no time."""
        began, places = self.start, 0
        for stop in _way(self.run, self.clock):
            if places == len(self.run.order):
                if self.recorder.now <= began + TIME_EPS_S:
                    refuse_empty_round(self.run, "then")
                    self.recorder.write("rest", self.left)
                    return
                began, places = self.recorder.now, 0
            places += 1
            yield stop

    def go(self) -> ClockResult:
        """Write the run; its score is its time, or what was done by the cap."""
        finished = all(self._stop(stop) for stop in self._way())
        self.recorder.window = None
        capped = self.end < math.inf
        if not finished:
            return ClockResult(score=self.count.score())
        slack = max(0.0, self.left) if capped else 0.0
        return ClockResult(score={"time_s": self.recorder.now - self.start}, cap_slack_s=slack)

    def _stop(self, stop: _DueVisit) -> bool:
        """Do one visit and the rest after it; False when the cap ended the task."""
        run, recorder = self.run, self.recorder
        plan = run.steps[stop.visit.item]
        recorder.enter_visit()
        if stop.starts_set:
            recorder.begin_set()
        recorder.write("change", min(run.change_before(plan, self.previous), max(0.0, self.left)), "done")
        side = run.side_of(stop.place, plan)
        limit = self._work_before_cap()
        if at_end(limit):
            return self._nothing_to_do(plan, stop)
        performed = run.performer.dose(plan, stop.visit.round_, limit, "called", side)
        at_limit = at_end(limit - performed.seconds)
        cut = at_limit and is_cut(performed, whole_dose(run.performer, plan, stop.visit.round_, side))
        if performed.seconds > 0:
            self._lay(plan, performed, stop.visit.round_, side, cut)
            run.performer.commit(performed, side, carry=not run.mirrored)
        run.remember(stop.place, side)
        self.count.book(performed, ends_round=stop.visit.ends_set and not cut)
        if cut:
            # Cut by a pulse that reaches to the cap: everyone rests until it.
            recorder.write("rest", max(0.0, self.left) if self.pulse.due else 0.0)
            return False
        return not stop.more or self._pause(plan, performed, stop.rest_s)

    def _nothing_to_do(self, plan: StepPlan, stop: _DueVisit) -> bool:
        # Nothing of this visit fits before the cap: done only if it asks for nothing and nothing follows.
        full = whole_dose(self.run.performer, plan, stop.visit.round_, 0)
        return full.seconds <= TIME_EPS_S and not stop.more

    def _work_before_cap(self) -> float:
        """Working seconds that fit before the cap, with the pulse's rests in between."""
        left, pulse = self.left, self.pulse
        if left == math.inf or pulse.work_s == NO_PULSE:
            return left
        work = min(left, pulse.room)
        left -= work
        cycle = pulse.work_s + pulse.rest_s
        whole_cycles = math.floor((left + TIME_EPS_S) / cycle)
        work += whole_cycles * pulse.work_s
        left -= whole_cycles * cycle
        return work + min(max(0.0, left - pulse.rest_s), pulse.work_s)

    def _lay(self, plan: StepPlan, performed: PerformedVisit, round_: int, side: int, cut: bool) -> None:
        """Write a visit's work, cut into pieces where the pulse stops everyone."""
        recorder, pulse = self.recorder, self.pulse
        recorded = recorder.begin_visit(performed, round_, side_word(plan, side))
        remaining = performed.seconds
        while remaining > pulse.room + TIME_EPS_S:
            piece = pulse.room
            recorder.write("work", piece, "clock", recorded)
            remaining -= piece
            recorder.write("rest", min(pulse.rest_s, max(0.0, self.left)))
            pulse.since = 0.0
        recorder.write("work", remaining, "cap" if cut else "done", recorded)
        pulse.since += remaining

    def _pause(self, plan: StepPlan, performed: PerformedVisit, rest_s: float) -> bool:
        """Rest before the next visit: prescribed, or by the pulse, or a breather. False at the cap."""
        if self.pulse.due:
            rest_s = max(rest_s, self.pulse.rest_s)
            self.pulse.since = 0.0
        self.previous = plan if rest_s <= 0 else None
        room = max(0.0, self.left)
        if rest_s > 0:
            self.recorder.write("rest", min(rest_s, room))
        elif self.clock.pulse is None:
            breather = self.run.performer.pacer.breather(performed.seconds, plan.effort)
            self.recorder.write("rest", min(breather, room), "done", taken=True)
        return True


def run_task(run: ClockRun, clock: Task) -> ClockResult:
    """Write one run of the task; the score is its time, or rounds and reps if the cap ended it."""
    return _TaskRun(run, clock).go()
