"""One visit done: how long a dose takes, what is counted in it, and on which side."""

from __future__ import annotations

import math
from typing import Literal

from finetally.core.unfold.pace import TIME_EPS_S, Pacer
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import PerformedVisit

CountedAs = Literal["called", "paced"]
LEFT, RIGHT = 0, 1
ENDLESS = math.inf


class SideTurns:
    """Whose turn it is: the side that each alternating or swapping step begins with next; left first."""

    def __init__(self, turns: dict[int, int] | None = None) -> None:
        self._turns = dict(turns or {})

    def copy(self) -> SideTurns:
        """A scratch copy, for dry runs."""
        return SideTurns(self._turns)

    def next_side(self, step: StepPlan) -> int:
        """The side that the step's next visit begins with."""
        return self._turns.get(id(step.step), LEFT)

    def advance(self, step: StepPlan, side: int, performed: PerformedVisit) -> None:
        """Carry the turn on past a visit that began with `side`."""
        if step.sides == "swap":
            self._turns[id(step.step)] = 1 - side
        elif step.sides == "alternate":
            self._turns[id(step.step)] = (side + performed.reps) % 2


class VisitPerformer:
    """Does visits of one run of a clock: keeps `worked_s`, the working seconds that fatigue goes by."""

    def __init__(self, pacer: Pacer, turns: SideTurns, block: int) -> None:
        self.pacer = pacer
        self.turns = turns
        self.block = block
        self.worked_s = 0.0

    def side_now(self, step: StepPlan) -> int:
        """The side that a visit of the step begins with now."""
        return self.turns.next_side(step)

    def window(self, step: StepPlan, round_: int, seconds: float, side: int) -> PerformedVisit:
        """A fixed window (intervals, fill): all of it is work; a reps dose is called, else reps are estimated."""
        sides = 2 if step.sides == "each" else 1
        performed = PerformedVisit(step, step.load(round_), self.block, seconds)
        if step.step.reps is None and (step.option is None or step.option.reps is None):
            performed.estimated = sides * self.pacer.estimate(seconds / sides, step.pace_s, self.worked_s)
        else:
            performed.called = sides * (step.reps(round_) or 0)
        metres = step.metres(round_)
        speed = step.movement.speed_mps
        if metres is not None:
            performed.metres = metres * sides
        elif speed:
            performed.metres_estimated = seconds * speed
        if step.sides != "both":
            reps = performed.reps
            performed.per_side = sides == 2
            self._put_on_sides(performed, side, (seconds / 2, seconds / 2), (reps // 2, reps - reps // 2))
        return performed

    def dose(self, step: StepPlan, round_: int, limit_s: float, counted: CountedAs, side: int) -> PerformedVisit:
        """A dose at pace, within `limit_s` seconds; what does not fit is not counted, its seconds are work."""
        performed = PerformedVisit(step, step.load(round_), self.block, 0.0)
        if step.sides == "both":
            self._do(performed, round_, limit_s, counted)
        elif step.sides != "each":
            self._do(performed, round_, limit_s, counted)
            self._put_on_sides(performed, side, None, None)
        else:
            self._do(performed, round_, limit_s, counted)
            left_s, left = performed.seconds, performed.reps
            self._do(performed, round_, max(0.0, limit_s - left_s), counted)
            performed.per_side = True
            self._put_on_sides(performed, side, (left_s, performed.seconds - left_s), (left, performed.reps - left))
        return performed

    def _do(self, performed: PerformedVisit, round_: int, limit_s: float, counted: CountedAs) -> None:
        """Do the dose once (of `each`: on one side) and add it to what is done already."""
        step, worked = performed.step, self.worked_s + performed.seconds
        seconds_dose = step.seconds(round_)
        limit = limit_s if seconds_dose is None else min(limit_s, seconds_dose)
        reps = step.reps(round_)
        if reps is not None:
            spent, units = self.pacer.series(reps, step.dose_rep_s, worked, limit)
            performed.seconds += spent
            if counted == "called":
                performed.called += int(units)
            else:
                performed.paced += int(units)
            return
        metres = step.metres(round_)
        if metres is not None:
            spent, units = self.pacer.series(metres, step.metre_s, worked, limit)
            performed.seconds += spent
            performed.metres += units
            return
        performed.seconds += limit
        # Either side is estimated as at the visit's start, so that both get as much, as in a window.
        performed.estimated += self.pacer.estimate(limit, step.pace_s, self.worked_s)
        if step.movement.speed_mps:
            performed.metres_estimated += limit * step.movement.speed_mps

    def _put_on_sides(
        self,
        performed: PerformedVisit,
        side: int,
        each_s: tuple[float, float] | None,
        each_reps: tuple[int, int] | None,
    ) -> None:
        """Fill in what was done left and right; `side` is where an alternating or swapping step begins."""
        reps, seconds, sides = performed.reps, performed.seconds, performed.step.sides
        if sides == "each" and each_s is not None and each_reps is not None:
            performed.left_s, performed.right_s = each_s
            performed.left, performed.right = each_reps
        elif sides == "alternate":
            first, second = (reps + 1) // 2, reps // 2
            performed.left, performed.right = (first, second) if side == LEFT else (second, first)
            performed.left_s = seconds * performed.left / reps if reps else seconds / 2
            performed.right_s = seconds - performed.left_s
        elif sides == "left" or (sides == "swap" and side == LEFT):
            performed.left, performed.left_s = reps, seconds
        else:
            performed.right, performed.right_s = reps, seconds

    def commit(self, performed: PerformedVisit, side: int, *, carry: bool = True) -> None:
        """Book a visit: its seconds tire, and the turn goes on (unless it only repeats another's side)."""
        self.worked_s += performed.seconds
        if carry and performed.step.takes_turns:
            self.turns.advance(performed.step, side, performed)


def whole_dose(performer: VisitPerformer, step: StepPlan, round_: int, side: int) -> PerformedVisit:
    """The whole dose, with no limit."""
    return performer.dose(step, round_, ENDLESS, "called", side)


def side_word(step: StepPlan, side: int) -> str | None:
    """The side of a visit for its address; None where it works both or takes turns inside."""
    if step.sides in ("left", "right"):
        return step.sides
    if step.sides == "swap":
        return "left" if side == LEFT else "right"
    return None


def is_cut(performed: PerformedVisit, full: PerformedVisit) -> bool:
    """Whether a dose was cut: less was done than the dose asks for."""
    return (
        performed.seconds < full.seconds - TIME_EPS_S
        or performed.reps < full.reps
        or performed.metres < full.metres - TIME_EPS_S
    )


__all__ = ["SideTurns", "VisitPerformer", "is_cut", "side_word", "whole_dose"]
