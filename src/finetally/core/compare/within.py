"""Whether what was made lies within the bounds in which coaches use its format (core/formats/bounds.py)."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import NamedTuple

from finetally.core.compare.ingredients import Ingredients, loaded
from finetally.core.formats.bounds import Bound, Measure
from finetally.core.methods.value import Methods
from finetally.core.tally.effort import possible_reps
from finetally.core.unfold.pace import EPS
from finetally.core.unfold.tape import Done, Tape


class Breach(NamedTuple):
    """A bound that is not kept, what was measured, and of which movement (a key; empty where it is of none)."""

    bound: Bound
    value: float
    movement: str = ""

    @property
    def over(self) -> bool:
        """Whether it is too much, not too little."""
        return self.bound.high is not None and self.value > self.bound.high + EPS


class Run(NamedTuple):
    """Work on one movement without rest or another one: its visit, seconds, and reps called or paced a side."""

    done: Done
    seconds: float
    reps: float


def runs_of(tape: Tape) -> Iterator[Run]:
    """Stretches of work on one movement; breathers and change-overs end none, rests do."""
    done: Done | None = None
    seconds = reps = 0.0
    for segment in tape.segments:
        if segment.kind == "work" and segment.visit is not None:
            now = tape.visits[segment.visit]
            if done is not None and now.step.key != done.step.key:
                yield Run(done, seconds, reps)
                seconds = reps = 0.0
            done = now
            seconds += segment.seconds
            counted = (now.called + now.paced) / (2 if now.per_side else 1)
            reps += counted * segment.seconds / now.seconds if now.seconds else counted
        elif segment.kind in ("rest", "talk") and not segment.taken and done is not None:
            yield Run(done, seconds, reps)
            done, seconds, reps = None, 0.0, 0.0
    if done is not None:
        yield Run(done, seconds, reps)


def _dose_of(done: Done) -> float:
    return (done.called + done.paced) / (2 if done.per_side else 1)


class Yardstick:
    """Measures tapes of one comparison's ingredients. `plan`: the tape of the plan alone, where there is one."""

    def __init__(self, of: Ingredients, methods: Methods, plan: Tape | None = None) -> None:
        self._of = of
        self._methods = methods
        self._asked: dict[str, float] = {}
        for step, dose in zip(of.steps, of.doses, strict=True):
            reps = dose.get("reps")
            self._ask(step.movement, float(reps) if isinstance(reps, int) else 0.0)
        for run in runs_of(plan) if plan is not None else ():
            self._ask(run.done.step.key, run.reps)

    def _ask(self, movement: str, reps: float) -> None:
        self._asked[movement] = max(self._asked.get(movement, 0.0), reps)

    def breaches(self, bounds: Sequence[Bound], tape: Tape) -> list[Breach]:
        """Every bound that a tape breaks, `left` apart."""
        runs = list(runs_of(tape))
        found = []
        for bound in bounds:
            measure = MEASURES.get(bound.measure)
            if measure is None:
                continue
            value, movement = measure(self, tape, runs)
            if (bound.high is not None and value > bound.high + EPS) or (
                bound.low is not None and value < bound.low - EPS
            ):
                found.append(Breach(bound, value, movement))
        return found

    def movements(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """How many movements there are."""
        return len(self._of.steps), ""

    def length(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """Seconds in all."""
        return tape.total_s, ""

    def window(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """The longest work on one movement, in seconds."""
        longest = max(runs, key=lambda run: run.seconds, default=None)
        return (0.0, "") if longest is None else (longest.seconds, longest.done.step.key)

    def shortest(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """The shortest work on one movement, in seconds."""
        least = min(runs, key=lambda run: run.seconds, default=None)
        return (0.0, "") if least is None else (least.seconds, least.done.step.key)

    def dose(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """The most reps of one turn of a movement, a side."""
        most = max(tape.visits, key=_dose_of, default=None)
        return (0.0, "") if most is None else (_dose_of(most), most.step.key)

    def rounds(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """How often the movement comes up that comes up most, beside how often it stands in the ingredients."""
        visits: dict[str, int] = {}
        for done in tape.visits:
            visits[done.step.key] = visits.get(done.step.key, 0) + 1
        stands: dict[str, int] = {}
        for step in self._of.steps:
            stands[step.movement] = stands.get(step.movement, 0) + 1
        key = max(visits, key=lambda one: visits[one] / stands.get(one, 1), default="")
        return (visits[key] / stands.get(key, 1), key) if key else (0.0, "")

    def in_a_row(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """The most reps in a row without a load."""
        return self._most(runs, lambda run: 0.0 if loaded(run.done.load) else run.reps)

    def loaded_in_a_row(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """The most reps in a row with one."""
        return self._most(runs, lambda run: run.reps if loaded(run.done.load) else 0.0)

    def possible(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """Reps in a row as a share of those that are possible at a share of the one-rep maximum."""
        return self._most(runs, self._share)

    def _share(self, run: Run) -> float:
        percent = run.done.load.pct_1rm if run.done.load is not None else None
        return run.reps / max(1.0, possible_reps(percent / 100, self._methods.one_rm)) if percent else 0.0

    def _most(self, runs: Sequence[Run], value: Callable[[Run], float]) -> tuple[float, str]:
        # What the plan itself asks for in a row is the coach's own.
        other = [run for run in runs if run.reps > self._asked.get(run.done.step.key, 0.0) + EPS]
        most = max(other, key=value, default=None)
        return (0.0, "") if most is None else (value(most), most.done.step.key)

    def heavy_rest(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """The shortest time between two heavy sets of a movement; endless where none follows another."""
        shortest, movement = math.inf, ""
        ends: dict[str, float] = {}
        heavy = set(self._of.heavy)
        for segment in tape.segments if heavy else ():
            if segment.kind != "work" or segment.visit is None:
                continue
            key = tape.visits[segment.visit].step.key
            if key in heavy:
                gap = segment.start - ends.get(key, -math.inf)
                if EPS < gap < shortest:
                    shortest, movement = gap, key
                ends[key] = segment.start + segment.seconds
        return shortest, movement

    def filled(self, tape: Tape, runs: Sequence[Run]) -> tuple[float, str]:
        """The fullest window's share of work; not a number where all of them are heavy sets."""
        heavy = set(self._of.heavy)
        work = [0.0] * len(tape.windows)
        movement = [""] * len(tape.windows)
        for segment in tape.segments:
            if segment.window is not None and segment.kind in ("work", "change") and segment.visit is not None:
                work[segment.window] += segment.seconds
                movement[segment.window] = tape.visits[segment.visit].step.key
        shares = [
            (seconds / window.seconds, key)
            for seconds, key, window in zip(work, movement, tape.windows, strict=True)
            if window.seconds and key not in heavy
        ]
        return max(shares, default=(math.nan, ""))


Measuring = Callable[[Yardstick, Tape, Sequence[Run]], tuple[float, str]]
MEASURES: Mapping[Measure, Measuring] = {
    "movements": Yardstick.movements,
    "length": Yardstick.length,
    "window": Yardstick.window,
    "shortest": Yardstick.shortest,
    "dose": Yardstick.dose,
    "rounds": Yardstick.rounds,
    "in-a-row": Yardstick.in_a_row,
    "loaded-in-a-row": Yardstick.loaded_in_a_row,
    "possible": Yardstick.possible,
    "heavy-rest": Yardstick.heavy_rest,
    "filled": Yardstick.filled,
}
