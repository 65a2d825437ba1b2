"""Checks of time: does it add up, does it fit, is there rest where it is needed."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence

from finetally.core.checks.check import (
    Fields,
    Finding,
    Severity,
    block_name,
    counted_blocks,
    edit_path,
    set_edit,
)
from finetally.core.session.clocks import Rotation, Task
from finetally.core.session.problems import Path, PathPart
from finetally.core.tally.measure import Tally, timetable_s
from finetally.core.tally.times import over_told, told_ends
from finetally.core.unfold.pace import TIME_EPS_S, Pacer
from finetally.core.unfold.tape import BlockRun
from finetally.core.unfold.unfold import unfold
from finetally.core.words import clock_text

OVER_S, OVER_SHARE = 120, 0.05
LONG_DENSE_S, LONG_DENSE = 600, 0.85
HARD_EFFORTS = ("hard", "all-out")
SEEN_S = 1.0
WORTH_SHARE, WORTH_S = 0.1, 2.0
"""A change-over counts from two seconds and a tenth of the work that it comes off, or shortens the rest before."""


def announced_differs(t: Tally) -> Iterator[Finding]:
    """A length is over what was told of it by over 2 min or 5 %; under it, a quiet word on the slack.

    The session's is its timetable; a block's is its clock, over all its passes, booked up to its cap.
    """
    if t.session.announced_s is not None:
        told = told_ends(t.session.announced_s, t.resolver)
        yield from _told(told, timetable_s(t), ("announced_s",), ["announced_s"])
    for number, of in enumerate(t.tape.blocks):
        if of.block.announced_s is not None:
            runs = [run for run in t.tape.runs if run.block == number]
            comes_to = sum(run.clock_end - run.clock_start + run.cap_slack_s for run in runs)
            told, at = told_ends(of.block.announced_s, t.resolver), edit_path(of, "announced_s")
            yield from _told(told, comes_to, (*of.path, "announced_s"), at, block_name(of, number), number)


def _told(
    told: tuple[float, float],
    comes_to: float,
    path: Path,
    at: list[PathPart],
    name: str = "",
    block: int | None = None,
) -> Iterator[Finding]:
    low, high = told
    over = over_told(told, comes_to)
    says = clock_text(low) if low == high else f"{clock_text(low)} to {clock_text(high)}"
    fields: dict[str, str | int | float] = {
        "about": f"{name}: told" if name else "Told",
        "told": says,
        "comes_to": clock_text(comes_to),
    }
    if over > min(OVER_S, OVER_SHARE * high):
        minutes = math.ceil(comes_to / 60) * 60
        mend = set_edit(f"tell {clock_text(minutes)}", at, minutes)
        yield Finding(
            path, {**fields, "by": f"{clock_text(over)} over"}, over, block=block, severity="look", mend=mend
        )
    elif over < -TIME_EPS_S:
        yield Finding(path, {**fields, "by": f"{clock_text(-over)} slack"}, over, block=block, severity="note")


def slot_overflow(t: Tally) -> Iterator[Finding]:
    """What is asked for in a period does not fit in it."""
    seen: set[tuple[object, ...]] = set()
    for overflow in t.tape.overflows:
        key = (overflow.at.section, overflow.at.block, overflow.at.step)
        # A part of a second is no overflow that anybody could see.
        if key in seen or overflow.needed_s - overflow.period_s < SEEN_S:
            continue
        seen.add(key)
        number = next(
            n
            for n, of in enumerate(t.tape.blocks)
            if (of.section, of.ident) == (overflow.at.section, overflow.at.block)
        )
        of = t.tape.blocks[number]
        needed = math.ceil(overflow.needed_s / 5) * 5
        fields = {"needed": clock_text(overflow.needed_s), "period": clock_text(overflow.period_s)}
        inner = ("clock", "inner") if isinstance(of.block.clock, Rotation) else ("clock",)
        yield Finding(
            (*of.path, *inner, "period_s"),
            {**fields, "block": block_name(of, number)},
            overflow.needed_s - overflow.period_s,
            overflow.at.as_dict(),
            number,
            mend=set_edit(f"a start every {clock_text(needed)}", edit_path(of, *inner, "period_s"), needed),
        )


def cap_unlikely(t: Tally) -> Iterator[Finding]:
    """At the planned pace the cap comes before the task is done; says what pace it would take."""
    for number, of in enumerate(t.tape.blocks):
        clock = of.block.clock.inner if isinstance(of.block.clock, Rotation) else of.block.clock
        if not isinstance(clock, Task) or clock.cap_s is None or clock.then == "restart":
            continue
        capped = [s for run in t.tape.runs if run.block == number for s in run.scores if "time_s" not in s]
        if not capped:
            continue
        factor = _factor_to_finish(t, number)
        path = (
            (*of.path, "clock", "inner", "cap_s")
            if isinstance(of.block.clock, Rotation)
            else (*of.path, "clock", "cap_s")
        )
        cap = t.resolver.dose(clock.cap_s)
        how = "no pace would do it: what is not work takes too long"
        if factor is not None:
            how = f"it would take {1 / factor - 1:.0%} more speed ({factor:.0%} of the planned time a rep)"
        fields: Fields = {"block": block_name(of, number), "cap": clock_text(cap), "how": how}
        yield Finding(path, fields, factor or 0.0, block=number)


def _factor_to_finish(t: Tally, number: int) -> float | None:
    """The largest pace factor (of what is planned) that finishes the block before its cap; None: no pace does."""
    base = t.given.person.pace_factor or t.methods.pace_factor
    alone = t.session.model_copy(update={"blocks": [t.tape.blocks[number].block]})

    def finishes(factor: float) -> bool:
        """Whether the block ends before its cap at so many times the seconds a rep."""
        person = t.given.person.model_copy(update={"pace_factor": base * factor})
        given = t.given.model_copy(update={"person": person})
        tape = unfold(alone, library=t.library, methods=t.methods, given=given)
        return all("time_s" in score for run in tape.runs for score in run.scores)

    low, high = 0.05, 1.0
    if not finishes(low):
        return None
    for _ in range(7):
        middle = (low + high) / 2
        low, high = (middle, high) if finishes(middle) else (low, middle)
    return low


def change_eats_rest(t: Tally) -> Iterator[Finding]:
    """Under a fixed clock the change-over takes half the rest before a window or more, or eats into the work."""
    pacer = Pacer(t.methods)
    worst: dict[int, tuple[float, float, Finding]] = {}
    changes: dict[tuple[int, int], float] = {}
    windowed = [of.work_clock.windowed for of in t.tape.blocks]
    for (_, before, left), (_, segment, visit) in itertools.pairwise(t.worked):
        if not windowed[segment.block] or before.block != segment.block:
            continue
        last, step = left.step, visit.step
        pair = id(last), id(step)
        if pair not in changes:
            changes[pair] = pacer.change_over(
                step.key == last.key, bool(step.kit - last.kit), last.on_floor, step.on_floor
            )
        change = changes[pair]
        rest = segment.start - before.start - before.seconds
        if change < max(WORTH_S, rest / 2, WORTH_SHARE * segment.seconds) - TIME_EPS_S:
            continue
        known = worst.get(segment.block)
        if known is not None and known[0] - known[1] >= change - rest:
            continue
        of = t.tape.blocks[segment.block]
        fields: dict[str, str | int | float] = {
            "block": block_name(of, segment.block),
            "from": last.name,
            "to": step.name,
            "change": f"{change:g}",
            "effect": _effect(rest, change),
        }
        severity: Severity = "look" if t.counted[segment.block] else "note"
        finding = Finding(of.path, fields, change, segment.at.as_dict(), segment.block, severity)
        worst[segment.block] = (change, rest, finding)
    for _, _, finding in worst.values():
        yield finding


def _effect(rest: float, change: float) -> str:
    """What is left of a rest after the change-over."""
    if rest <= TIME_EPS_S:
        return "and there is no rest, so it comes off the next window"
    if change > rest + TIME_EPS_S:
        return f"of {rest:g} s rest, so the next window begins late"
    return f"of {rest:g} s rest; {rest - change:g} s is left to breathe"


def long_dense(t: Tally) -> Iterator[Finding]:
    """Density over 85 % for over 10 minutes at hard or above, counting prescribed rest only."""
    for number, of, _ in counted_blocks(t):
        runs = [run for run in t.tape.runs if run.block == number]
        total = sum(run.clock_end - run.clock_start for run in runs)
        if total <= LONG_DENSE_S:
            continue
        inside = [s for run in runs for s in t.tape.segments[run.first_segment : run.last_segment]]
        rest = sum(s.seconds for s in inside if s.kind == "rest" and not s.taken and _in_clock(runs, s.start))
        hard = any(t.tape.visits[s.visit].step.effort in HARD_EFFORTS for s in inside if s.visit is not None)
        if hard and (total - rest) / total > LONG_DENSE:
            density = (total - rest) / total
            fields: dict[str, str | int | float] = {
                "block": block_name(of, number),
                "minutes": clock_text(total),
                "density": f"{density:.1%}",
                "rest": f"{clock_text(rest)} of rest in it" if rest > TIME_EPS_S else "no rest is prescribed in it",
            }
            yield Finding(of.path, fields, density, block=number)


def _in_clock(runs: Sequence[BlockRun], start: float) -> bool:
    return any(run.clock_start - TIME_EPS_S <= start < run.clock_end - TIME_EPS_S for run in runs)


def rest_missing(t: Tally) -> Iterator[Finding]:
    """No rest, talk or change of part before a hard block."""
    runs = t.tape.runs
    for before, after in itertools.pairwise(runs):
        one, other = t.tape.blocks[before.block], t.tape.blocks[after.block]
        hard = (other.block.effort or "hard") in HARD_EFFORTS and other.part in ("main", "finisher")
        gap = (before.end - before.clock_end) + (after.clock_start - after.start)
        if hard and one.part == other.part and gap <= TIME_EPS_S and before.block != after.block:
            yield Finding(
                (*one.path, "rest_after_s"),
                {"block": block_name(other, after.block), "before": block_name(one, before.block)},
                0,
                block=after.block,
                mend=set_edit("60 s of rest before it", edit_path(one, "rest_after_s"), 60),
            )
