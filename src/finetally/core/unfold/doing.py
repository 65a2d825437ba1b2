"""One visit done: how long a dose takes, what is counted in it, and on which side."""

from __future__ import annotations

import math
from typing import Literal

from finetally.core.unfold.pace import EPS, Pacer
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import Done

Counted = Literal["called", "paced"]
LEFT, RIGHT = 0, 1
ENDLESS = math.inf


class Turns:
    """Whose turn it is: the side that each alternating or swapping step begins with next; left first."""

    def __init__(self, turns: dict[int, int] | None = None) -> None:
        self._turns = dict(turns or {})

    def copy(self) -> Turns:
        """A scratch copy, for dry runs."""
        return Turns(self._turns)

    def next_side(self, step: StepPlan) -> int:
        """The side that the step's next visit begins with."""
        return self._turns.get(id(step.step), LEFT)

    def advance(self, step: StepPlan, side: int, done: Done) -> None:
        """Carry the turn on past a visit that began with `side`."""
        if step.sides == "swap":
            self._turns[id(step.step)] = 1 - side
        elif step.sides == "alternate":
            self._turns[id(step.step)] = (side + done.reps) % 2


class Doer:
    """Does visits of one run of a clock: keeps `worked_s`, the working seconds that fatigue goes by."""

    def __init__(self, pacer: Pacer, turns: Turns, block: int) -> None:
        self.pacer = pacer
        self.turns = turns
        self.block = block
        self.worked_s = 0.0

    def side_now(self, step: StepPlan) -> int:
        """The side that a visit of the step begins with now."""
        return self.turns.next_side(step)

    def window(self, step: StepPlan, round_: int, seconds: float, side: int) -> Done:
        """A fixed window (intervals, fill): all of it is work; a reps dose is called, else reps are estimated."""
        sides = 2 if step.sides == "each" else 1
        done = Done(step, step.load(round_), self.block, seconds)
        if step.step.reps is None and (step.option is None or step.option.reps is None):
            done.estimated = sides * self.pacer.estimate(seconds / sides, step.pace_s, self.worked_s)
        else:
            done.called = sides * (step.reps(round_) or 0)
        metres = step.metres(round_)
        speed = step.movement.speed_mps
        if metres is not None:
            done.metres = metres * sides
        elif speed:
            done.metres_estimated = seconds * speed
        if step.sides != "both":
            reps = done.reps
            done.per_side = sides == 2
            self._put_on_sides(done, side, (seconds / 2, seconds / 2), (reps // 2, reps - reps // 2))
        return done

    def dose(self, step: StepPlan, round_: int, limit_s: float, counted: Counted, side: int) -> Done:
        """A dose at pace, within `limit_s` seconds; what does not fit is not counted, its seconds are work."""
        done = Done(step, step.load(round_), self.block, 0.0)
        if step.sides == "both":
            self._do(done, round_, limit_s, counted)
        elif step.sides != "each":
            self._do(done, round_, limit_s, counted)
            self._put_on_sides(done, side, None, None)
        else:
            self._do(done, round_, limit_s, counted)
            left_s, left = done.seconds, done.reps
            self._do(done, round_, max(0.0, limit_s - left_s), counted)
            done.per_side = True
            self._put_on_sides(done, side, (left_s, done.seconds - left_s), (left, done.reps - left))
        return done

    def _do(self, done: Done, round_: int, limit_s: float, counted: Counted) -> None:
        """Do the dose once (of `each`: on one side) and add it to what is done already."""
        step, worked = done.step, self.worked_s + done.seconds
        seconds_dose = step.seconds(round_)
        limit = limit_s if seconds_dose is None else min(limit_s, seconds_dose)
        reps = step.reps(round_)
        if reps is not None:
            spent, units = self.pacer.series(reps, step.dose_rep_s, worked, limit)
            done.seconds += spent
            if counted == "called":
                done.called += int(units)
            else:
                done.paced += int(units)
            return
        metres = step.metres(round_)
        if metres is not None:
            spent, units = self.pacer.series(metres, step.metre_s, worked, limit)
            done.seconds += spent
            done.metres += units
            return
        done.seconds += limit
        # Either side is estimated as at the visit's start, so that both get as much, as in a window.
        done.estimated += self.pacer.estimate(limit, step.pace_s, self.worked_s)
        if step.movement.speed_mps:
            done.metres_estimated += limit * step.movement.speed_mps

    def _put_on_sides(
        self,
        done: Done,
        side: int,
        each_s: tuple[float, float] | None,
        each_reps: tuple[int, int] | None,
    ) -> None:
        """Fill in what was done left and right; `side` is where an alternating or swapping step begins."""
        reps, seconds, sides = done.reps, done.seconds, done.step.sides
        if sides == "each" and each_s is not None and each_reps is not None:
            done.left_s, done.right_s = each_s
            done.left, done.right = each_reps
        elif sides == "alternate":
            first, second = (reps + 1) // 2, reps // 2
            done.left, done.right = (first, second) if side == LEFT else (second, first)
            done.left_s = seconds * done.left / reps if reps else seconds / 2
            done.right_s = seconds - done.left_s
        elif sides == "left" or (sides == "swap" and side == LEFT):
            done.left, done.left_s = reps, seconds
        else:
            done.right, done.right_s = reps, seconds

    def settle(self, done: Done, side: int, *, carry: bool = True) -> None:
        """Book a visit: its seconds tire, and the turn goes on (unless it only repeats another's side)."""
        self.worked_s += done.seconds
        if carry and done.step.takes_turns:
            self.turns.advance(done.step, side, done)


def full_length(doer: Doer, step: StepPlan, round_: int, side: int) -> Done:
    """The whole dose, with no limit."""
    return doer.dose(step, round_, ENDLESS, "called", side)


def side_word(step: StepPlan, side: int) -> str | None:
    """The side of a visit for its address; None where it works both or takes turns inside."""
    if step.sides in ("left", "right"):
        return step.sides
    if step.sides == "swap":
        return "left" if side == LEFT else "right"
    return None


def is_cut(done: Done, full: Done) -> bool:
    """Whether a dose was cut: less was done than the dose asks for."""
    return done.seconds < full.seconds - EPS or done.reps < full.reps or done.metres < full.metres - EPS


__all__ = ["Doer", "Turns", "full_length", "is_cut", "side_word"]
