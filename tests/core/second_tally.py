"""A second reckoning of effort and balance, from docs/methods.md: small steps where the core has closed forms.

It takes the tape and the visits on it as they are; what it makes of them is written apart from core/tally.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from finetally.core.methods.value import Methods
from finetally.core.session.document import Session
from finetally.core.session.values import ToFailure
from finetally.core.unfold.tape import Segment, Tape

STEPS = 400
"""Steps in which a segment is breathed through."""

POINTS = [(0.125, 0.0), (0.40, 3.0), (0.60, 5.0), (0.75, 6.7), (0.90, 8.5), (1.00, 10.0)]
FLOORS = {"easy": 1.0, "steady": 3.0, "hard": 5.0, "all-out": 7.0}
FACTORS = {"easy": 0.7, "steady": 1.0, "hard": 1.25, "all-out": 1.5}
COUNTED = ("main", "finisher")


def scale(share: float) -> float:
    """The effort that goes with a share of capacity: linear between the points."""
    if share <= POINTS[0][0]:
        return POINTS[0][1]
    for (left, low), (right, high) in itertools.pairwise(POINTS):
        if share <= right:
            return low + (high - low) * (share - left) / (right - left)
    return POINTS[-1][1]


@dataclass
class Breathed:
    """Sums of uptake over one segment."""

    sum: float = 0.0
    squares: float = 0.0
    above: float = 0.0
    gap: float = 0.0
    peak: float = 0.0


@dataclass
class Reckoned:
    """What comes out, by the names of the published figures."""

    mean: float = 0.0
    peak: float = 0.0
    above_80_s: float = 0.0
    oxygen_gap_s: float = 0.0
    blocks: list[float] = field(default_factory=list)
    rpe: float = 0.0
    load: float = 0.0
    shares: dict[str, float] = field(default_factory=dict)


class Reckoner:
    """Reckons one tape."""

    def __init__(self, tape: Tape, session: Session, methods: Methods) -> None:
        self.tape, self.session, self.methods = tape, session, methods
        self.breaths = list(self.breathe())
        self.felt = list(self.feel())

    def demand(self, segment: Segment) -> float:
        """Oxygen demand as a share of capacity."""
        capacity = 12.0
        if segment.visit is not None:
            step = self.tape.visits[segment.visit].step
            return (step.movement.met or 5.0) * FACTORS[step.effort] / capacity
        rest_as = self.tape.blocks[segment.block].block.rest_as
        if segment.kind == "rest" and rest_as:
            movement = self.tape.library.get(rest_as)
            assert movement is not None
            return (movement.met or 5.0) * 0.7 / capacity
        return 1.5 / capacity

    def breathe(self) -> Iterator[Breathed]:
        """dV/dt = (D − V)/τ in small steps, τ 35 s upward and 60 s downward; V never over 1."""
        uptake = 1.5 / 12
        for segment in self.tape.segments:
            wanted, made = self.demand(segment), Breathed(peak=uptake)
            h = segment.seconds / STEPS
            for _ in range(STEPS):
                tau = 35.0 if wanted > uptake else 60.0
                # Half a step to the middle, and the slope there for the whole of it.
                middle = min(1.0, uptake + (wanted - uptake) / tau * h / 2)
                after = min(1.0, uptake + (wanted - middle) / tau * h)
                made.sum += middle * h
                made.squares += middle * middle * h
                made.above += h if middle >= 0.8 else 0.0
                made.gap += (wanted - middle) * h if wanted > middle else 0.0
                uptake = after
                made.peak = max(made.peak, uptake)
            yield made

    def feel(self) -> Iterator[float]:
        """What typed words have made felt by the end of each segment, in small steps: τ 20 s up, 60 s down."""
        felt = 0.0
        for segment in self.tape.segments:
            typed = None
            if segment.visit is not None:
                step = self.tape.visits[segment.visit].step.step
                typed = step.effort or self.tape.blocks[segment.block].block.effort
            floor = FLOORS[typed] if typed else 0.0
            h = segment.seconds / STEPS
            tau = 20.0 if floor > felt else 60.0
            for _ in range(STEPS):
                middle = felt + (floor - felt) / tau * h / 2
                felt += (floor - middle) / tau * h
            yield felt

    def window_effort(self, segment: Segment, breath: Breathed, felt: float) -> float:
        """Resisted effort where it is known, else the scale of mean uptake; at least what typed words made felt."""
        assert segment.visit is not None
        done = self.tape.visits[segment.visit]
        step, load = done.step.step, done.load
        effort = scale(breath.sum / segment.seconds)
        reps = done.reps / (2 if done.per_side else 1)
        if step.reserve is None and isinstance(step.reps, ToFailure):
            effort = 10.0
        elif step.reserve is not None:
            effort = min(10.0, max(1.0, 10 - step.reserve))
        elif load is not None and load.pct_1rm is not None and reps:
            possible = 30 * (1 / (load.pct_1rm / 100) - 1)
            effort = min(10.0, max(1.0, 10 - (possible - reps)))
        return max(effort, felt)

    def reckon(self) -> Reckoned:
        """Everything."""
        made = Reckoned()
        total = sum(segment.seconds for segment in self.tape.segments)
        made.mean = sum(one.sum for one in self.breaths) / total if total else 0.0
        made.peak = max((one.peak for one in self.breaths), default=0.0)
        made.above_80_s = sum(one.above for one in self.breaths)
        pairs = list(zip(self.tape.segments, self.breaths, strict=True))
        felt = {id(segment): value for segment, value in zip(self.tape.segments, self.felt, strict=True)}
        made.oxygen_gap_s = sum(breath.gap for segment, breath in pairs if segment.kind == "work")
        lengths: list[float] = []
        for number, of in enumerate(self.tape.blocks):
            clock = [pair for pair in pairs if pair[0].block == number and self.in_clock(pair[0])]
            length = sum(segment.seconds for segment, _ in clock)
            work = [(segment, breath) for segment, breath in clock if segment.kind == "work"]
            squares = sum(self.window_effort(s, b, felt[id(s)]) ** 2 * s.seconds for s, b in work)
            worked = sum(segment.seconds for segment, _ in work)
            breathed = math.sqrt(sum(b.squares for _, b in clock) / length) if length else 0.0
            effort = max(scale(breathed), math.sqrt(squares / worked) if worked else 0.0)
            lengths.append(length)
            made.blocks.append(of.block.rpe if of.block.rpe is not None else min(10.0, max(1.0, effort)))
        counts = [of.part in COUNTED for of in self.tape.blocks]
        counts = counts if any(counts) else [True] * len(counts)
        weighed = [(n, e * e * n) for n, e, yes in zip(lengths, made.blocks, counts, strict=True) if yes]
        clocked = sum(n for n, _ in weighed)
        made.rpe = math.sqrt(sum(s for _, s in weighed) / clocked) if clocked else 0.0
        made.load = made.rpe * total / 60
        made.shares = self.shares(counts)
        return made

    def in_clock(self, segment: Segment) -> bool:
        """Between the start of its block's clock and its end: no talk, no rest after the block."""
        return any(
            run.clock_start - 1e-9 <= segment.start < run.clock_end - 1e-9
            for run in self.tape.runs
            if run.block == segment.block
        )

    def shares(self, counts: list[bool]) -> dict[str, float]:
        """Work seconds by fine pattern, as shares of all, in the parts that count."""
        seconds: dict[str, float] = {}
        for segment in self.tape.segments:
            if segment.visit is not None and counts[segment.block]:
                movement: Any = self.tape.visits[segment.visit].step.movement
                for pattern, weight in movement.patterns.items():
                    seconds[pattern] = seconds.get(pattern, 0.0) + weight * segment.seconds
        everything = sum(seconds.values())
        return {pattern: one / everything for pattern, one in seconds.items()} if everything else {}
