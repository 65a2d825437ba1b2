"""Where the time goes: work, rest, change, talk; density and work to rest in either school."""

from __future__ import annotations

from finetally.core.methods.value import Methods
from finetally.core.session.clocks import PauseCounted
from finetally.core.session.values import AmountRange, SecondsValue
from finetally.core.tally.figure_types import TimeFigures
from finetally.core.unfold.resolve import Resolver
from finetally.core.unfold.tape import Segment, Tape


class TimeTotals:
    """Seconds of each kind, added up. `by_clock_s`: rest and change that one school counts as work."""

    __slots__ = ("by_clock_s", "change", "rest", "talk", "work")

    def __init__(self) -> None:
        self.work = self.rest = self.change = self.talk = self.by_clock_s = 0.0

    def add(self, other: TimeTotals) -> None:
        """Add another's seconds to these."""
        self.work += other.work
        self.rest += other.rest
        self.change += other.change
        self.talk += other.talk
        self.by_clock_s += other.by_clock_s

    @property
    def total(self) -> float:
        """All seconds."""
        return self.work + self.rest + self.change + self.talk

    def figures(self, methods: Methods) -> TimeFigures:
        """As published. Density = work / (work + rest + change); work to rest = work / (rest + change)."""
        moved = self.by_clock_s if methods.density == "by-the-clock" else 0.0
        work, pause = self.work + moved, self.rest + self.change - moved
        pause = 0.0 if pause < 1e-9 else pause
        return {
            "total_s": self.total,
            "work_s": self.work,
            "rest_s": self.rest,
            "change_s": self.change,
            "talk_s": self.talk,
            "density": work / (work + pause) if work + pause > 0 else None,
            "work_to_rest": work / pause if pause > 0 else None,
        }


def counts_by_clock(segment: Segment, pauses: PauseCounted) -> bool:
    """Whether the school "by the clock" counts this rest or change as work.

    The whole window of an amrap; in a task what is taken, not what is prescribed.
    """
    if pauses == "window":
        return segment.window is not None
    return pauses == "taken" and (segment.taken or segment.kind == "change")


def told_ends(told: SecondsValue, resolver: Resolver) -> tuple[float, float]:
    """The least and the most seconds that were told: of a range its ends, else the same twice."""
    if isinstance(told, AmountRange):
        return told.low, told.high
    one = resolver.dose(told)
    return one, one


def over_told(ends: tuple[float, float], comes_to: float) -> float:
    """By how many seconds a length is over what was told of it; below 0 what is left of it; 0 within a range."""
    low, high = ends
    return comes_to - min(max(comes_to, low), high)


def clock_blocks(tape: Tape) -> list[TimeTotals]:
    """Seconds of each block of the file, over all its passes. They add up to the session."""
    clocked = [TimeTotals() for _ in tape.blocks]
    pauses = [of.work_clock.pauses for of in tape.blocks]
    for segment in tape.segments:
        mine = clocked[segment.block]
        kind = segment.kind
        if kind == "work":
            mine.work += segment.seconds
        elif kind == "talk":
            mine.talk += segment.seconds
        else:
            if kind == "rest":
                mine.rest += segment.seconds
            else:
                mine.change += segment.seconds
            if counts_by_clock(segment, pauses[segment.block]):
                mine.by_clock_s += segment.seconds
    return clocked


def counted(tape: Tape, methods: Methods) -> list[bool]:
    """For each block of the file: does its part count? All do where no block is of a part that counts."""
    seen = {run.block for run in tape.runs}
    flags = [of.part in methods.counted_parts for of in tape.blocks]
    if any(flags[number] for number in seen):
        return flags
    return [True] * len(flags)


def add_up(clocked: list[TimeTotals], chosen: list[bool]) -> TimeTotals:
    """The chosen blocks together."""
    total = TimeTotals()
    for one, yes in zip(clocked, chosen, strict=True):
        if yes:
            total.add(one)
    return total
