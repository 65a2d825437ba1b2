"""A beat's segments as they were played: cut, drawn out, or stretched; what was counted goes with them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from finetally.core.methods.value import Methods
from finetally.core.session.clocks import Intervals
from finetally.core.unfold.pace import TIME_EPS_S, Pacer
from finetally.core.unfold.perform import LEFT, RIGHT, SideTurns, VisitPerformer
from finetally.core.unfold.tape import EmptyVisit, PerformedVisit, Segment, Tape


@dataclass(frozen=True, slots=True)
class Piece:
    """Some segments of a tape in a row, with the visits that they show by their index on that tape.

    `empty`: visits that take no time, each with how many of the segments lie before it.
    """

    segments: list[Segment]
    visits: dict[int, PerformedVisit]
    empty: tuple[tuple[int, PerformedVisit], ...] = ()

    @property
    def seconds(self) -> float:
        """How long they last together."""
        return sum(segment.seconds for segment in self.segments)


def piece_of(tape: Tape, first: int, end: int) -> Piece:
    """The segments from `first` to before `end` as they stand."""
    segments = tape.segments[first:end]
    visits = {s.visit: tape.visits[s.visit] for s in segments if s.visit is not None}
    empty = tuple(
        (one.before - first, tape.visits[one.visit])
        for one in tape.empty_visits
        if first <= _segment_beside(tape, one) < end
    )
    return Piece(segments, visits, empty)


def _segment_beside(tape: Tape, empty: EmptyVisit) -> int:
    """The segment whose beat a visit of no time belongs to: the next one of its window, else the one before it."""
    following = tape.segments[empty.before] if empty.before < len(tape.segments) else None
    return empty.before if following is not None and following.window == empty.window else empty.before - 1


def stretched(piece: Piece, seconds: float) -> Piece:
    """The same work and rests, all slower or quicker, so that they last so long; as much is counted."""
    whole = piece.seconds
    if abs(whole - seconds) <= TIME_EPS_S or whole <= 0:
        return piece
    by = seconds / whole
    return Piece(
        [segment._replace(seconds=segment.seconds * by) for segment in piece.segments],
        {
            index: replace(visit, seconds=visit.seconds * by, left_s=visit.left_s * by, right_s=visit.right_s * by)
            for index, visit in piece.visits.items()
        },
        piece.empty,
    )


def fitted(piece: Piece, seconds: float, tape: Tape, clock_first: int, methods: Methods) -> Piece:
    """The segments cut at so many seconds, or the last one drawn out to them; reps as that time holds.

    `clock_first`: the first segment of the clock's run on the tape, from which fatigue counts.
    """
    if abs(piece.seconds - seconds) <= TIME_EPS_S or not piece.segments:
        return piece
    kept: list[Segment] = []
    left = seconds
    for segment in piece.segments:
        if left <= TIME_EPS_S:
            break
        kept.append(segment._replace(seconds=min(segment.seconds, left)))
        left -= segment.seconds
    if kept and left > TIME_EPS_S:
        kept[-1] = kept[-1]._replace(seconds=kept[-1].seconds + left)
    worked = _worked_before(tape, clock_first, piece)
    visits: dict[int, PerformedVisit] = {}
    for index, visit in piece.visits.items():
        mine = [segment for segment in kept if segment.visit == index]
        if mine:
            visits[index] = _done_again(tape, mine, visit, worked[index], methods)
    whole = sum(one.seconds >= source.seconds for one, source in zip(kept, piece.segments, strict=False))
    return Piece(kept, visits, tuple(one for one in piece.empty if one[0] <= whole))


def _worked_before(tape: Tape, clock_first: int, piece: Piece) -> dict[int, float]:
    """Working seconds of the clock's run before each visit."""
    found: dict[int, float] = {}
    worked = 0.0
    last = max(piece.visits, default=-1)
    for segment in tape.segments[clock_first:]:
        if segment.visit is not None:
            if segment.visit > last:
                break
            found.setdefault(segment.visit, worked)
            worked += segment.seconds
    return found


def _done_again(
    tape: Tape, mine: Sequence[Segment], visit: PerformedVisit, worked_s: float, methods: Methods
) -> PerformedVisit:
    """A visit in as many seconds as its segments now last."""
    seconds = sum(segment.seconds for segment in mine)
    if abs(seconds - visit.seconds) <= TIME_EPS_S:
        return visit
    step, round_ = visit.step, mine[0].owner.round_ or 0
    side = RIGHT if mine[0].owner.side == "right" or visit.right > visit.left else LEFT
    performer = VisitPerformer(Pacer(methods), SideTurns(), visit.block)
    performer.worked_s = worked_s
    fixed = isinstance(tape.blocks[visit.block].work_clock, Intervals)
    if fixed or step.step.fill:
        made = performer.window(step, round_, seconds, side)
        if made.called and seconds < visit.seconds:
            made.called = math.floor(visit.called * seconds / visit.seconds + 1e-9)
        return made
    if seconds > visit.seconds:
        return replace(visit, seconds=seconds)
    return performer.dose(step, round_, seconds, "paced" if visit.paced else "called", side)
