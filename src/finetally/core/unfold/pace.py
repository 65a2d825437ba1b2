"""Pace of self-paced work: fatigue, change-overs, breathers (docs/methods.md, "Pace of self-paced work")."""

from __future__ import annotations

import math

from finetally.core.methods.value import Methods
from finetally.core.session.limits import MAX_PACED_UNITS
from finetally.core.session.problems import refuse

TIME_EPS_S = 1e-6
"""Times closer than this are equal."""


def whole_units(x: float) -> int:
    """Whole reps in `x`: floor with room for rounding."""
    return math.floor(x + 1e-9)


class Pacer:
    """Times reps and metres under fatigue. Counts what it paced, so that a file cannot ask for hours of it."""

    def __init__(self, methods: Methods) -> None:
        self._f = methods.fatigue
        self._t = methods.fatigue_time_s
        self._change = methods.change
        self._breathers = methods.breathers
        self._paced = 0

    @property
    def paced(self) -> int:
        """Reps and metres paced so far."""
        return self._paced

    def fatigue(self, worked_s: float) -> float:
        """Factor on the seconds a rep takes after `worked_s` of work in this clock: 1 + F (1 − e^(−w/T))."""
        if self._f == 0:
            return 1.0
        return 1 + self._f * (1 - math.exp(-worked_s / self._t))

    def series(self, units: float, unit_s: float, worked_s: float, limit_s: float) -> tuple[float, float]:
        """Do `units` (reps, or metres with a last part of one), each `unit_s` fresh, within `limit_s`.

        Returns seconds spent and units done. A cut last unit costs its seconds and is not done: then the seconds
        are `limit_s` and the units are fewer than asked. Raises DocumentError for too many.
        """
        self._paced += math.ceil(units)
        if self._paced > MAX_PACED_UNITS:
            raise refuse(
                (), f"over {MAX_PACED_UNITS} reps and metres", f"{MAX_PACED_UNITS} in one session", "too_many"
            )
        if self._f == 0:
            total = units * unit_s
            if total <= limit_s + TIME_EPS_S:
                return total, units
            return limit_s, min(float(whole_units(limit_s / unit_s)), units)
        # Cost of a unit: unit_s (1 + F (1 − e^(−w/T))), written so that the loop does little else than the power.
        spent, rate, exp = 0.0, -1 / self._t, math.exp
        most, gain, room = unit_s * (1 + self._f), unit_s * self._f, limit_s + TIME_EPS_S
        full = int(units)
        for index in range(full):
            after = spent + most - gain * exp((worked_s + spent) * rate)
            if after > room:
                return limit_s, float(index)
            spent = after
        if full < units:
            after = spent + (units - full) * (most - gain * exp((worked_s + spent) * rate))
            if after > room:
                return limit_s, float(full)
            spent = after
        return spent, units

    def estimate(self, seconds: float, unit_s: float | None, worked_s: float) -> int:
        """Whole reps that a window of `seconds` holds after `worked_s` of work; none without a pace."""
        if unit_s is None:
            return 0
        return whole_units(seconds / (unit_s * self.fatigue(worked_s)))

    def change_over(self, same: bool, new_kit: bool, was_down: bool, is_down: bool) -> float:
        """Seconds between neighbouring visits with no rest between them."""
        if same:
            return 0
        change = self._change
        seconds = change.step + (change.kit if new_kit else 0)
        if is_down and not was_down:
            seconds += change.down
        if was_down and not is_down:
            seconds += change.up
        return seconds

    def breather(self, seconds: float, effort: str) -> float:
        """Rest taken, not prescribed, after a self-paced visit of `seconds`."""
        return seconds * self._breathers.of(effort)
