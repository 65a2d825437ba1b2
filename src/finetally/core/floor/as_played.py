"""One beat's segments as they were played: cut, drawn out, stretched, or at the pace that makes its score."""

from __future__ import annotations

import bisect
from dataclasses import dataclass, replace

from finetally.core.floor.document import Run
from finetally.core.floor.events import ScoreMade
from finetally.core.floor.recut import Piece, fitted, piece_of, stretched
from finetally.core.floor.replay import Played
from finetally.core.floor.sheet import Sheet
from finetally.core.floor.timer import PlayedBeat
from finetally.core.learn.pace import PaceModel, factor_of
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Amrap
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.tape import Address, ClockSpan, RunScore, Tape


@dataclass(frozen=True, slots=True)
class PlayedPiece:
    """What was played of a beat: its segments, of which tape, how many of them are the clock's, and its score.

    `span`: the run of the clock that it is of, as its number on the sheet's tape; None outside of clocks.
    """

    piece: Piece
    tape: Tape
    clocked: int
    span: int | None
    score: RunScore | None = None


class PieceMaker:
    """Makes pieces of the beats that were played."""

    def __init__(self, run: Run, played: Played, library: Library) -> None:
        self._methods = run.methods
        self._played = played
        self._library = library
        self._starts = [[span.first for span in laid.tape.spans] for laid in played.sheets]

    def sheet(self, one: PlayedBeat) -> Sheet:
        """The sheet that a beat is of."""
        return self._played.sheets[one.item.sheet]

    def piece(self, index: int, one: PlayedBeat) -> PlayedPiece:
        """What was played of the beat that is number `index` of those played."""
        tape, beat = self.sheet(one).tape, one.item.beat
        number = bisect.bisect_right(self._starts[one.item.sheet], beat.first) - 1
        span = tape.spans[number] if number >= 0 else None
        whole = piece_of(tape, beat.first, beat.end)
        if span is None or not span.first <= beat.first < span.end:
            return PlayedPiece(fitted(whole, one.seconds, tape, beat.first, self._methods), tape, 0, None)
        clocked = span.end - beat.first
        if beat.kind == "work" and beat.ends == "tap":
            return PlayedPiece(stretched(whole, one.seconds), tape, clocked, number)
        if beat.kind == "work" and beat.self_paced:
            return self._scored(index, one, whole, span, number)
        return PlayedPiece(fitted(whole, one.seconds, tape, span.first, self._methods), tape, clocked, number)

    def predicted(self, one: PlayedBeat, number: int) -> RunScore | None:
        """What the plan expects of the run of the clock that is span `number` of the beat's sheet."""
        scores = self.sheet(one).tape.runs[one.item.beat.run].scores
        place = self._place(one, number)
        return scores[place] if place < len(scores) else None

    def _place(self, one: PlayedBeat, number: int) -> int:
        """Which of the clock's runs of its pass a span is."""
        source = self.sheet(one).tape.runs[one.item.beat.run]
        return number - bisect.bisect_left(self._starts[one.item.sheet], source.first_segment)

    def _scored(self, index: int, one: PlayedBeat, whole: Piece, span: ClockSpan, number: int) -> PlayedPiece:
        """A self-paced window: at the pace that makes its score, else as predicted for as long as it was played."""
        tape, clocked = self.sheet(one).tape, span.end - span.first
        predicted = self.predicted(one, number)
        made = self._score(index, one, predicted)
        if made is not None and predicted is not None and not same_score(made, predicted):
            other = self._at_pace(one, number, made)
            if other is not None:
                return other
        if one.item.beat.ends == "cap" and one.seconds > whole.seconds:
            # Not known to be done before the cap: the work took until then.
            return PlayedPiece(stretched(whole, one.seconds), tape, clocked, number, made)
        return PlayedPiece(fitted(whole, one.seconds, tape, span.first, self._methods), tape, clocked, number, made)

    def _score(self, index: int, one: PlayedBeat, predicted: RunScore | None) -> RunScore | None:
        """What was made: as told; the time of a task that a tap ended; else, played whole, as predicted."""
        told = self._played.scores.get(index)
        score = told_score(told) if told is not None else None
        if score is None:
            if one.item.beat.ends == "cap" and not one.by_clock:
                score = {"time_s": one.seconds}
            else:
                score = predicted if one.how == "whole" else None
        if score is not None and predicted is not None and "station" in predicted:
            return {**score, "station": predicted["station"]}
        return score

    def _at_pace(self, one: PlayedBeat, number: int, score: RunScore) -> PlayedPiece | None:
        """The window unfolded at the pace that makes a score; None where no pace does."""
        sheet, beat = self.sheet(one), one.item.beat
        amrap = isinstance(sheet.tape.blocks[beat.block].work_clock, Amrap)
        window = one.seconds if amrap and one.how != "whole" and one.seconds > 0 else None
        given = sheet.unfolder.given
        model = PaceModel(sheet.session, beat.block, self._library, self._methods, given, window)
        place = self._place(one, number)
        factor = factor_of(model, place, score)
        if factor is None:
            return None
        tape = model.tape(factor)
        span = tape.spans[place % len(tape.spans)]
        piece = piece_of(tape, span.first, span.clock_end)
        piece = fitted(piece, one.seconds, tape, span.first, self._methods)
        # A block that was unfolded by itself has other addresses: they become those of the beat.
        at = sheet.tape.segments[beat.first].owner
        owned = [segment._replace(owner=_at(at, segment.owner)) for segment in piece.segments]
        return PlayedPiece(replace(piece, segments=owned), tape, len(owned), number, score)


def told_score(event: ScoreMade) -> RunScore | None:
    """A score as windows have it: a time, or rounds and reps; None for a rung."""
    if event.time_s is not None:
        return {"time_s": event.time_s}
    if event.rounds is None and event.reps is None:
        return None
    return {"rounds": event.rounds or 0, "reps": event.reps or 0}


def same_score(one: RunScore, other: RunScore) -> bool:
    """Whether two scores are the same, wherever they were made."""
    if "time_s" in one and "time_s" in other:
        return abs(one["time_s"] - other["time_s"]) <= TIME_EPS_S
    return (one.get("rounds"), one.get("reps")) == (other.get("rounds"), other.get("reps"))


def _at(place: Address, inside: Address) -> Address:
    """The pass, block and repeat of one address, with the round, visit, step and side of another."""
    return inside._replace(
        section_pass=place.section_pass, section=place.section, block=place.block, repeat=place.repeat
    )
