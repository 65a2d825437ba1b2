"""The breathing trace: oxygen uptake as a share of capacity, in closed form per segment.

dV/dt = (D − V)/τ, τ on while demand D is above V, else τ off; V is cut off at 1, D is not.
First-order kinetics: Whipp & Wasserman 1972; Barstow & Molé 1991. METs: Compendium of Physical Activities
(Ainsworth 2011; Herrmann 2024). The trace is blind to load and tempo.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

from finetally.core.methods.given import PersonGiven
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.unfold.steps import DEFAULT_MET
from finetally.core.unfold.tape import Tape

HIGH_UPTAKE = 0.8


class UptakeSegment(NamedTuple):
    """Uptake over one segment: at start and end, its integrals, seconds at or above 80 %, oxygen gap."""

    demand: float
    start: float
    end: float
    integral: float
    square: float
    above_s: float
    gap_s: float


def uptake_over(demand: float, start: float, seconds: float, on_s: float, off_s: float) -> UptakeSegment:
    """Run the kinetics for `seconds` at a constant demand from uptake `start`; closed form.

    `integral` is ∫V dt, `square` ∫V² dt, `gap_s` ∫(D − V) dt where D > V (0 otherwise).
    """
    tau = on_s if demand > start else off_s
    flat_s = 0.0
    rising_s = seconds
    if demand > 1.0:
        # Uptake reaches capacity on the way and stays there.
        reach = 0.0 if start >= 1.0 else tau * math.log((demand - start) / (demand - 1.0))
        if reach < seconds:
            rising_s, flat_s = reach, seconds - reach
    decay = math.exp(-rising_s / tau)
    away = start - demand
    end = demand + away * decay
    faded = away * tau * (1 - decay)
    integral = demand * rising_s + faded
    # ∫V² = D²t + 2D∫(V − D) + ∫(V − D)², the last = away² τ/2 (1 − decay²).
    square = demand * (integral + faded) + faded * away * (1 + decay) / 2
    if flat_s > 0:
        end = 1.0
        integral += flat_s
        square += flat_s
    gap = demand * seconds - integral if demand > start else 0.0
    low = start < HIGH_UPTAKE and end < HIGH_UPTAKE
    above = 0.0 if low else _above(demand, start, end, rising_s, tau) + flat_s
    return UptakeSegment(demand, start, end, integral, square, above, gap)


def _above(demand: float, start: float, end: float, seconds: float, tau: float) -> float:
    """Seconds at 80 % or more where at least one end is there."""
    high = HIGH_UPTAKE
    if start >= high and end >= high:
        return seconds
    crossing = tau * math.log((start - demand) / (high - demand))
    return seconds - crossing if end >= high else crossing


class OxygenDemand:
    """Oxygen demand of segments as a share of capacity."""

    def __init__(self, tape: Tape, library: Library, methods: Methods, person: PersonGiven) -> None:
        self.capacity = person.capacity_met or methods.capacity_met
        self.still = methods.rest_met / self.capacity
        self._resting = []
        for of in tape.blocks:
            active = library.get(of.block.rest_as) if of.block.rest_as is not None else None
            if active is None:
                self._resting.append(self.still)
            else:
                met = active.met if active.met is not None else DEFAULT_MET
                self._resting.append(met * methods.effort_factor.easy / self.capacity)

    def resting(self, block: int) -> float:
        """Demand in a block's rests, as a share of capacity: still, or moving easily where `rest_as` says so."""
        return self._resting[block]

    def working(self, met: float, effort_factor: float) -> float:
        """Demand of work of so many MET at that effort, as a share of capacity; above 1 where it is more."""
        return met * effort_factor / self.capacity


def uptake_trace(
    tape: Tape, demand: OxygenDemand, methods: Methods, begun: Sequence[UptakeSegment] = ()
) -> list[UptakeSegment]:
    """Uptake over each segment of the tape, from rest; `begun`: the first of them, where they are known."""
    on_s, off_s = methods.tau_on_s, methods.tau_off_s
    trace = list(begun)
    value = trace[-1].end if trace else demand.still
    for segment in tape.segments[len(trace) :]:
        if segment.visit is not None:
            step = tape.visits[segment.visit].step
            wanted = demand.working(step.met, step.effort_factor)
        elif segment.kind == "rest":
            wanted = demand.resting(segment.block)
        else:
            wanted = demand.still
        uptake = uptake_over(wanted, value, segment.seconds, on_s, off_s)
        value = uptake.end
        trace.append(uptake)
    return trace
