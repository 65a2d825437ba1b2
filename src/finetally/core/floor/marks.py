"""Marks: the moments inside a beat at which something is called."""

from __future__ import annotations

import bisect
import math
from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple

from finetally.core.floor.beats import Beat
from finetally.core.session.clocks import Every, Task
from finetally.core.unfold.calls import COUNT_IN_S, HALF_FROM_S, TEN_LEFT_FROM_S
from finetally.core.unfold.resolve import Resolver
from finetally.core.unfold.tape import ClockSpan, Tape
from finetally.core.words import clock_text

LAST_FIVE_FROM_S = 20
"""Windows from here on have their last five seconds told."""

MINUTES_FROM_S = 120
"""Self-paced windows from here on have their minutes told."""

PULSE_BEYOND = 2
"""A pulse without a cap is told for so many times as long as the work is expected to take."""

MarkKind = Literal[
    "count-in",
    "half",
    "ten-left",
    "last-five",
    "switch",
    "work-until",
    "pulse-rest",
    "pulse-work",
    "minute",
    "last-round",
    "own",
]


class FloorMark(NamedTuple):
    """A moment in a beat, in seconds from its start: which kind of call, and what it says beyond its kind."""

    at_s: float
    kind: MarkKind
    say: str


class MarkFinder:
    """Finds the marks of a tape's beats."""

    def __init__(self, tape: Tape, beats: Sequence[Beat], resolver: Resolver) -> None:
        self._tape = tape
        self._beats = beats
        self._resolver = resolver
        self._starts = [span.first for span in tape.spans]

    def marks(self, number: int, next_said: str) -> list[FloorMark]:
        """The marks of a beat, in order of time; `next_said`: what is said of the next one."""
        beat = self._beats[number]
        if beat.kind == "talk":
            return []
        found = list(self._pause(number, next_said) if beat.kind == "rest" else self._work(number))
        ends = beat.s if beat.ends != "tap" else math.inf
        return sorted((mark for mark in found if 0 <= mark.at_s <= ends), key=lambda mark: mark.at_s)

    def _pause(self, number: int, next_said: str) -> Iterator[FloorMark]:
        beat = self._beats[number]
        following = self._beats[number + 1] if number + 1 < len(self._beats) else None
        if following is not None and following.kind == "work":
            if beat.s >= TEN_LEFT_FROM_S:
                yield FloorMark(beat.s - 10, "ten-left", "")
            yield FloorMark(max(0.0, beat.s - COUNT_IN_S), "count-in", next_said)

    def _work(self, number: int) -> Iterator[FloorMark]:
        beat = self._beats[number]
        span = self._tape.spans[bisect.bisect_right(self._starts, beat.first) - 1]
        if beat.ends != "tap":
            yield from self._of_window(beat)
        if beat.self_paced and beat.s >= MINUTES_FROM_S:
            last = beat.s - 10 if beat.ends != "tap" else beat.s
            for minute in range(1, int(last // 60) + 1):
                yield FloorMark(60.0 * minute, "minute", clock_text(60 * minute))
        yield from self._sides(beat)
        yield from self._pulse(beat, span)
        before = self._beats[number - 1] if number else None
        if len(span.sets) > 1 and beat.set == span.sets[-1] and (before is None or before.set != beat.set):
            yield FloorMark(0.0, "last-round", "")

    def _of_window(self, beat: Beat) -> Iterator[FloorMark]:
        of, s = self._tape.blocks[beat.block], beat.s
        clock = of.work_clock
        if isinstance(clock, Every):
            until = self._resolver.dose(clock.work_until_s, s)
            if until < s:
                yield FloorMark(until, "work-until", "")
        if of.block.calls is not None:
            for call in of.block.calls:
                if call.at_s is not None:
                    at = float(call.at_s)
                else:
                    at = s - call.before_end_s if call.before_end_s is not None else s / 2
                if 0 <= at <= s:
                    yield FloorMark(at, "own", call.say)
            return
        if s >= HALF_FROM_S:
            yield FloorMark(s / 2, "half", "")
        if s >= TEN_LEFT_FROM_S:
            yield FloorMark(s - 10, "ten-left", "")
        if s >= LAST_FIVE_FROM_S:
            yield FloorMark(s - 5, "last-five", "")

    def _sides(self, beat: Beat) -> Iterator[FloorMark]:
        """The change of sides in work that fills its window by the clock."""
        start = self._tape.segments[beat.first].start
        for segment in self._tape.segments[beat.first : beat.end]:
            if segment.visit is None or segment.ends != "clock" or beat.self_paced:
                continue
            performed = self._tape.visits[segment.visit]
            if performed.per_side and performed.left_s < segment.seconds:
                yield FloorMark(segment.start - start + performed.left_s, "switch", "right")

    def _pulse(self, beat: Beat, span: ClockSpan) -> Iterator[FloorMark]:
        """When all rest and go on under a pulse: as on the tape, then on and on as long as the work may take."""
        clock = self._tape.blocks[beat.block].work_clock
        if not isinstance(clock, Task) or clock.pulse is None:
            return
        work_s, rest_s = self._resolver.dose(clock.pulse.work_s), self._resolver.rest(clock.pulse.rest_s)
        start = self._tape.segments[beat.first].start
        goes_on = 0.0
        for segment in self._tape.segments[beat.first : span.clock_end]:
            if segment.kind == "rest" and not segment.taken:
                yield FloorMark(segment.start - start, "pulse-rest", "")
                goes_on = segment.start - start + segment.seconds
                yield FloorMark(goes_on, "pulse-work", "")
        until = beat.s if beat.ends == "cap" else PULSE_BEYOND * beat.s
        while goes_on + work_s < until:
            yield FloorMark(goes_on + work_s, "pulse-rest", "")
            goes_on += work_s + rest_s
            yield FloorMark(goes_on, "pulse-work", "")
