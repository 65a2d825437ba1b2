"""Beats: the smallest things that a coach steps through, cut from a tape."""

from __future__ import annotations

import bisect
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from finetally.core.session.clocks import Every, InnerClock, Intervals, Rotation, Task
from finetally.core.unfold.program import is_capped
from finetally.core.unfold.tape import BlockRun, ClockSpan, Tape

BeatKind = Literal["work", "rest", "talk"]
BeatEnd = Literal["clock", "tap", "cap"]


@dataclass(frozen=True, slots=True)
class Beat:
    """One beat: what it is, what ends it, its seconds `s` as planned (the cap, where that ends it).

    `expected_s`: what a capped task is expected to take. `self_paced`: work at one's own pace, where rounds can be
    counted. `block`: its number in the file; `run`: the pass through a block on the tape; `set`: the round or set,
    the same for all its beats. `entry` and `passage` name the file's top-level entry and the pass by ids, so that
    they are found again on a sheet that is laid out anew. `first` and `end`: its segments on the tape.
    """

    kind: BeatKind
    ends: BeatEnd
    s: float
    block: int
    entry: str
    passage: str
    run: int
    first: int
    end: int
    set: int | None = None
    self_paced: bool = False
    expected_s: float | None = None


def beats_of(tape: Tape, *, apart: bool = False) -> list[Beat]:
    """The beats of a tape, in order of time; `apart`: in tasks without a cap each goes at their own pace.

    A rest after another without work between is one beat with it, unless it is of a round.
    """
    beats: list[Beat] = []
    starts = [span.first for span in tape.spans]
    for number, run in enumerate(tape.runs):
        for beat in _of_run(tape, number, run, starts, apart):
            last = beats[-1] if beats else None
            if last is not None and last.kind == beat.kind == "rest" and beat.set is None:
                beats[-1] = replace(last, s=last.s + beat.s, end=beat.end)
            else:
                beats.append(beat)
    return beats


def _of_run(tape: Tape, number: int, run: BlockRun, starts: list[int], apart: bool) -> Iterator[Beat]:
    """The beats of one pass through a block: those of its clock's runs, and talk and rests between them."""
    cut = _Cutter(tape, number, run, apart)
    here = run.first_segment
    for span in tape.spans[bisect.bisect_left(starts, here) : bisect.bisect_left(starts, run.last_segment)]:
        yield from cut.outside(here, span.first)
        yield from cut.inside(span)
        here = span.end
    yield from cut.outside(here, run.last_segment)


class _Cutter:
    """Cuts the segments of one pass through a block into beats."""

    def __init__(self, tape: Tape, number: int, run: BlockRun, apart: bool) -> None:
        of = tape.blocks[run.block]
        self._tape = tape
        self._clock: InnerClock = of.work_clock
        self._turning = isinstance(of.block.clock, Rotation)
        self._apart = apart
        self._run = number
        self._block = run.block
        section_pass = f"/{run.section_pass}" if run.section_pass is not None else ""
        self._entry = f"block {of.ident}" if of.section is None else f"section {of.section}"
        self._passage = f"{self._entry}/{of.ident}{section_pass}"

    def _beat(self, kind: BeatKind, ends: BeatEnd, first: int, end: int, set_: int | None = None) -> Beat:
        segments = self._tape.segments
        seconds = segments[end - 1].start + segments[end - 1].seconds - segments[first].start
        of = self._block, self._entry, self._passage, self._run
        return Beat(kind, ends, seconds, *of, first, end, set_)

    def outside(self, first: int, end: int) -> Iterator[Beat]:
        """Segments of no clock: talk, and rests that belong to no round."""
        for index in range(first, end):
            if self._tape.segments[index].kind == "talk":
                yield self._beat("talk", "tap", index, index + 1)
            else:
                yield self._beat("rest", "clock", index, index + 1)

    def inside(self, span: ClockSpan) -> Iterator[Beat]:
        """The segments of one run of the clock."""
        if span.first == span.end:
            return
        clock = self._clock
        if isinstance(clock, Intervals):
            yield from self._intervals(span)
        elif isinstance(clock, Every):
            yield from self._periods(span)
        elif isinstance(clock, Task) and not is_capped(clock):
            yield from self._task(span, clock)
            return
        elif span.first < span.clock_end:
            beat = replace(self._beat("work", "clock", span.first, span.clock_end), self_paced=True)
            window = self._tape.segments[span.first].window
            if isinstance(clock, Task) and window is not None:
                cap = self._tape.windows[window].seconds
                beat = replace(beat, ends="cap", s=cap, expected_s=beat.s)
            yield beat
        yield from self.outside(span.clock_end, span.end)

    def _set_at(self, span: ClockSpan, segment: int) -> int | None:
        """The set that a segment is of, as the number of that set's first segment: no two of a tape are alike."""
        place = bisect.bisect_right(span.sets, segment)
        return span.sets[place - 1] if place else None

    def _intervals(self, span: ClockSpan) -> Iterator[Beat]:
        for index in range(span.first, span.clock_end):
            kind: BeatKind = "work" if self._tape.segments[index].kind == "work" else "rest"
            yield self._beat(kind, "clock", index, index + 1, self._set_at(span, index))

    def _periods(self, span: ClockSpan) -> Iterator[Beat]:
        first = span.first
        segments = self._tape.segments
        while first < span.clock_end:
            window, end = segments[first].window, first + 1
            while end < span.clock_end and window is not None and segments[end].window == window:
                end += 1
            kind: BeatKind = "rest" if window is None else "work"
            yield self._beat(kind, "clock", first, end, self._set_at(span, first))
            first = end

    def _task(self, span: ClockSpan, clock: Task) -> Iterator[Beat]:
        """Work stretch by stretch between told rests; all of it where there is none, or each goes alone."""
        told = [] if clock.pulse is not None or self._apart or self._turning else self._told_rests(span)
        if not told:
            yield replace(self._beat("work", "tap", span.first, span.end), self_paced=True)
            return
        first, of = span.first, None
        for rest in [*told, span.clock_end]:
            if first < rest:
                of = self._set_at(span, first)
                yield replace(self._beat("work", "tap", first, rest, of), self_paced=True)
            if rest < span.clock_end:
                yield self._beat("rest", "clock", rest, rest + 1, of)
            first = rest + 1

    def _told_rests(self, span: ClockSpan) -> list[int]:
        segments = self._tape.segments
        clocked = range(span.first, span.clock_end)
        return [i for i in clocked if segments[i].kind == "rest" and not segments[i].taken]
