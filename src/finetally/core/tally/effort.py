"""Effort: of a window, a block and the session, 0 to 10 (docs/methods.md, "Effort")."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from finetally.core.methods.given import PersonGiven
from finetally.core.methods.one_rep_max import possible_reps
from finetally.core.methods.value import Methods
from finetally.core.session.problems import path_text
from finetally.core.tally.uptake import UptakeSegment
from finetally.core.unfold.tape import PerformedVisit, Tape


def scaled(share: float, scale: Sequence[tuple[float, float]]) -> float:
    """Effort for a share of capacity: linear between the scale's points, level beyond its ends."""
    below, level = scale[0]
    if share <= below:
        return level
    for above, next_level in scale:
        if share < above:
            return level + (next_level - level) * (share - below) / (above - below)
        below, level = above, next_level
    return level


@dataclass(frozen=True, slots=True)
class RatedSet:
    """A resisted set: `effort` if it can be told, and whether a load was there that could not be judged."""

    effort: float | None
    not_judged: bool
    share: float | None = None
    reserve: float | None = None


UNLOADED = RatedSet(None, False)


def resisted(visit: PerformedVisit, methods: Methods, person: PersonGiven) -> RatedSet:
    """Effort = 10 − reserve, within 1 to 10 (Zourdos 2016); reserve as planned, or possible − done reps."""
    step, load = visit.step, visit.load
    if step.step.reserve is not None:
        reserve = step.step.reserve
        return RatedSet(_ten(10 - reserve), False, None, reserve)
    if step.to_failure:
        return RatedSet(10.0, False, None, 0)
    if load is None:
        return UNLOADED
    share: float | None = None
    if load.pct_1rm is not None:
        share = load.pct_1rm / 100
    elif load.kg is not None:
        maximum = person.one_rm.get(step.key)
        if maximum is None:
            return RatedSet(None, load.kg > 0)
        share = load.kg * (load.count or 1) / maximum
    if share is None or share <= 0:
        return RatedSet(None, False)
    reps = visit.reps / 2 if visit.per_side else visit.reps
    if reps == 0:
        return RatedSet(None, False)
    reserve = possible_reps(share, methods.one_rm) - reps
    return RatedSet(_ten(10 - reserve), False, share, reserve)


def _ten(effort: float) -> float:
    return min(10.0, max(1.0, effort))


def felt_trace(tape: Tape, methods: Methods) -> list[float]:
    """What typed effort words have made felt by the end of each segment, 0 to 10.

    df/dt = (F − f)/τ: towards the word's floor F while working (τ `floor_on_s` where that is above, else
    `floor_off_s`), towards 0 in rest, change, talk and work without a typed word; from 0 at the start, through the
    whole session (docs/methods.md, "Effort").
    """
    on_s, off_s = methods.floor_on_s, methods.floor_off_s
    if all(visit.step.effort_typed is None for visit in tape.visits):
        return [0.0] * len(tape.segments)
    felt, value = [], 0.0
    for segment in tape.segments:
        floor = tape.visits[segment.visit].step.effort_floor if segment.visit is not None else 0.0
        if floor or value:
            value = floor + (value - floor) * math.exp(-segment.seconds / (on_s if floor > value else off_s))
        felt.append(value)
    return felt


class EffortTally:
    """Window efforts, block efforts and the session's, from a tape and its breathing trace."""

    def __init__(self, tape: Tape, trace: Sequence[UptakeSegment], methods: Methods, person: PersonGiven) -> None:
        self._tape = tape
        self._trace = trace
        self._methods = methods
        self._person = person
        self.judged = [resisted(visit, methods, person) for visit in tape.visits]
        self.felt = felt_trace(tape, methods)
        self.windows = self._windows()
        self.clock_s, self.rms, self.blocks = self._blocks()

    def _windows(self) -> list[float]:
        """Effort of each work segment; 0 for the others."""
        methods = self._methods
        scale = methods.effort_scale
        made = []
        for segment, uptake, felt in zip(self._tape.segments, self._trace, self.felt, strict=True):
            if segment.visit is None:
                made.append(0.0)
                continue
            known = self.judged[segment.visit].effort
            effort = known if known is not None else scaled(uptake.integral / segment.seconds, scale)
            made.append(max(effort, felt))
        return made

    def _blocks(self) -> tuple[list[float], list[tuple[float, float]], list[float]]:
        tape = self._tape
        size = len(tape.blocks)
        clock, square, work, heavy = [0.0] * size, [0.0] * size, [0.0] * size, [0.0] * size
        for run in tape.runs:
            number = run.block
            for index in range(run.first_segment, run.last_segment):
                segment = tape.segments[index]
                if not run.clock_start - 1e-9 <= segment.start < run.clock_end - 1e-9:
                    continue
                clock[number] += segment.seconds
                square[number] += self._trace[index].square
                if segment.visit is not None:
                    work[number] += segment.seconds
                    heavy[number] += self.windows[index] ** 2 * segment.seconds
        rms = [
            (
                math.sqrt(square[n] / clock[n]) if clock[n] > 0 else 0.0,
                math.sqrt(heavy[n] / work[n]) if work[n] > 0 else 0.0,
            )
            for n in range(size)
        ]
        blocks = []
        for number, (breathed, worked) in enumerate(rms):
            typed = tape.blocks[number].block.rpe
            estimate = _ten(max(scaled(breathed, self._methods.effort_scale), worked))
            blocks.append(float(typed) if typed is not None else estimate)
        return clock, rms, blocks

    def estimate(self, counted: Sequence[bool]) -> float | None:
        """RMS of the counted blocks' efforts (0 to 10), weighted by their clocks' lengths; None where none runs."""
        total = sum(c for c, yes in zip(self.clock_s, counted, strict=True) if yes)
        if total <= 0:
            return None
        squares = sum(c * e * e for c, e, yes in zip(self.clock_s, self.blocks, counted, strict=True) if yes)
        return math.sqrt(squares / total)

    def session(self, counted: Sequence[bool], typed: float | None) -> float:
        """The estimate as this person feels it, within 0 to 10; a typed effort replaces it."""
        if typed is not None:
            return float(typed)
        estimate = self.estimate(counted)
        return 0.0 if estimate is None else min(10.0, max(0.0, estimate + self._person.effort_offset))

    def guessed(self) -> list[str]:
        """Paths of the doses that take the time of an unknown movement."""
        steps = {id(visit.step): visit.step for visit in self._tape.visits if visit.step.guessed}
        return sorted({path_text((*step.path, dose)) for step in steps.values() for dose in step.guessed})

    def not_judged(self) -> list[str]:
        """Paths of the steps whose kilograms cannot be judged."""
        visits = zip(self._tape.visits, self.judged, strict=True)
        steps = {id(visit.step): visit.step for visit, judged in visits if judged.not_judged}
        return sorted({path_text((*step.path, "load")) for step in steps.values()})


def load_of(rpe: float, session_s: float, counted_s: float, methods: Methods) -> float:
    """Session load = effort × minutes (Foster 2001); whose minutes is a setting."""
    seconds = session_s if methods.load_minutes == "session" else counted_s
    return rpe * seconds / 60
