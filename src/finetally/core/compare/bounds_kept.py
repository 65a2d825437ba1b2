"""Whether what was made lies within the bounds in which coaches use its format (core/formats/bounds.py)."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import NamedTuple

from finetally.core.compare.ingredients import Ingredients, loaded
from finetally.core.formats.bounds import Bound, Measure
from finetally.core.methods.one_rep_max import possible_reps
from finetally.core.methods.value import Methods
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.tape import PerformedVisit, Tape


class Breach(NamedTuple):
    """A bound that is not kept, what was measured, and of which movement (a key; empty where it is of none)."""

    bound: Bound
    value: float
    movement: str = ""

    @property
    def over(self) -> bool:
        """Whether it is too much, not too little."""
        return self.bound.high is not None and self.value > self.bound.high + TIME_EPS_S


class WorkStretch(NamedTuple):
    """Work on one movement without rest or another one: its visit, seconds, and reps called or paced a side."""

    visit: PerformedVisit
    seconds: float
    reps: float


def stretches_of(tape: Tape) -> Iterator[WorkStretch]:
    """Stretches of work on one movement; breathers and change-overs end none, rests do."""
    visit: PerformedVisit | None = None
    seconds = reps = 0.0
    for segment in tape.segments:
        if segment.kind == "work" and segment.visit is not None:
            now = tape.visits[segment.visit]
            if visit is not None and now.step.key != visit.step.key:
                yield WorkStretch(visit, seconds, reps)
                seconds = reps = 0.0
            visit = now
            seconds += segment.seconds
            counted = (now.called + now.paced) / (2 if now.per_side else 1)
            reps += counted * segment.seconds / now.seconds if now.seconds else counted
        elif segment.kind in ("rest", "talk") and not segment.taken and visit is not None:
            yield WorkStretch(visit, seconds, reps)
            visit, seconds, reps = None, 0.0, 0.0
    if visit is not None:
        yield WorkStretch(visit, seconds, reps)


def _dose_of(visit: PerformedVisit) -> float:
    return (visit.called + visit.paced) / (2 if visit.per_side else 1)


class TapeMeasurer:
    """Measures tapes of one comparison's ingredients. `plan`: the tape of the plan alone, where there is one."""

    def __init__(self, of: Ingredients, methods: Methods, plan: Tape | None = None) -> None:
        self._of = of
        self._methods = methods
        self._asked: dict[str, float] = {}
        for step, dose in zip(of.steps, of.doses, strict=True):
            reps = dose.get("reps")
            self._ask(step.movement, float(reps) if isinstance(reps, int) else 0.0)
        for stretch in stretches_of(plan) if plan is not None else ():
            self._ask(stretch.visit.step.key, stretch.reps)

    def _ask(self, movement: str, reps: float) -> None:
        self._asked[movement] = max(self._asked.get(movement, 0.0), reps)

    def breaches(self, bounds: Sequence[Bound], tape: Tape) -> list[Breach]:
        """Every bound that a tape breaks, `left` apart."""
        stretches = list(stretches_of(tape))
        found = []
        for bound in bounds:
            measure = MEASURES.get(bound.measure)
            if measure is None:
                continue
            value, movement = measure(self, tape, stretches)
            if (bound.high is not None and value > bound.high + TIME_EPS_S) or (
                bound.low is not None and value < bound.low - TIME_EPS_S
            ):
                found.append(Breach(bound, value, movement))
        return found

    def movements(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """How many movements there are."""
        return len(self._of.steps), ""

    def length(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """Seconds in all."""
        return tape.total_s, ""

    def window(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """The longest work on one movement, in seconds."""
        longest = max(stretches, key=lambda stretch: stretch.seconds, default=None)
        return (0.0, "") if longest is None else (longest.seconds, longest.visit.step.key)

    def shortest(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """The shortest work on one movement, in seconds."""
        least = min(stretches, key=lambda stretch: stretch.seconds, default=None)
        return (0.0, "") if least is None else (least.seconds, least.visit.step.key)

    def dose(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """The most reps of one turn of a movement, a side."""
        most = max(tape.visits, key=_dose_of, default=None)
        return (0.0, "") if most is None else (_dose_of(most), most.step.key)

    def rounds(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """The most visits that a movement has for each time it stands in the ingredients, and the movement."""
        visits: dict[str, int] = {}
        for visit in tape.visits:
            visits[visit.step.key] = visits.get(visit.step.key, 0) + 1
        stands: dict[str, int] = {}
        for step in self._of.steps:
            stands[step.movement] = stands.get(step.movement, 0) + 1
        key = max(visits, key=lambda one: visits[one] / stands.get(one, 1), default="")
        return (visits[key] / stands.get(key, 1), key) if key else (0.0, "")

    def in_a_row(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """The most reps in a row without a load."""
        return self._most(stretches, lambda stretch: 0.0 if loaded(stretch.visit.load) else stretch.reps)

    def loaded_in_a_row(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """The most reps in a row with one."""
        return self._most(stretches, lambda stretch: stretch.reps if loaded(stretch.visit.load) else 0.0)

    def possible(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
        """Reps in a row as a share of those that are possible at a share of the one-rep maximum."""
        return self._most(stretches, self._share)

    def _share(self, stretch: WorkStretch) -> float:
        percent = stretch.visit.load.pct_1rm if stretch.visit.load is not None else None
        return stretch.reps / max(1.0, possible_reps(percent / 100, self._methods.one_rm)) if percent else 0.0

    def _most(self, stretches: Sequence[WorkStretch], value: Callable[[WorkStretch], float]) -> tuple[float, str]:
        # What the plan itself asks for in a row is the coach's own.
        other = [
            stretch
            for stretch in stretches
            if stretch.reps > self._asked.get(stretch.visit.step.key, 0.0) + TIME_EPS_S
        ]
        most = max(other, key=value, default=None)
        return (0.0, "") if most is None else (value(most), most.visit.step.key)

    def heavy_rest(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
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
                if TIME_EPS_S < gap < shortest:
                    shortest, movement = gap, key
                ends[key] = segment.start + segment.seconds
        return shortest, movement

    def filled(self, tape: Tape, stretches: Sequence[WorkStretch]) -> tuple[float, str]:
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


Measuring = Callable[[TapeMeasurer, Tape, Sequence[WorkStretch]], tuple[float, str]]
MEASURES: Mapping[Measure, Measuring] = {
    "movements": TapeMeasurer.movements,
    "length": TapeMeasurer.length,
    "window": TapeMeasurer.window,
    "shortest": TapeMeasurer.shortest,
    "dose": TapeMeasurer.dose,
    "rounds": TapeMeasurer.rounds,
    "in-a-row": TapeMeasurer.in_a_row,
    "loaded-in-a-row": TapeMeasurer.loaded_in_a_row,
    "possible": TapeMeasurer.possible,
    "heavy-rest": TapeMeasurer.heavy_rest,
    "filled": TapeMeasurer.filled,
}
