"""The tape of what was played: beat after beat, pauses and waits as rest."""

from __future__ import annotations

from dataclasses import replace

from finetally.core.floor.as_played import PieceMaker, PlayedPiece
from finetally.core.floor.document import Run
from finetally.core.floor.replay import Played
from finetally.core.floor.timer import PlayedBeat
from finetally.core.movements.library import Library
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.tape import Address, BlockRun, Segment, Tape


def done_tape(run: Run, played: Played, *, library: Library, since: float = 0.0) -> Tape:
    """The tape of what was played from second `since` on; blocks that an edit took away are numbered last.

    Of a beat that had begun by `since` as much is taken as was still played of it.
    """
    return _DoneTape(run, played, library, since).made()


def _from(one: PlayedBeat, since: float) -> PlayedBeat:
    """What of a beat was played from a second on."""
    if one.start >= since:
        return one
    left = one.end - since
    return replace(one, start=since, paused_s=min(one.paused_s, left), how="short")


class _DoneTape:
    def __init__(self, run: Run, played: Played, library: Library, since: float) -> None:
        self._played = played
        self._since = since
        self._pieces = PieceMaker(run, played, library)
        last = played.sheets[-1]
        self._numbers = {(of.section, of.ident): n for n, of in enumerate(last.tape.blocks)}
        self._tape = Tape(
            blocks=list(last.tape.blocks), library=last.tape.library, provisional=last.tape.provisional
        )
        self._now = 0.0
        self._run_key: int | None = None
        self._clocked = False
        self._span: tuple[int, int | None] | None = None
        self._span_s = 0.0

    def made(self) -> Tape:
        """All that was played, beat by beat."""
        before: PlayedBeat | None = None
        for index, whole in enumerate(self._played.played):
            if whole.end <= self._since and self._since > 0:
                continue
            one = _from(whole, self._since)
            if before is not None:
                self._rest(before, one.start - before.end)
            self._open(one)
            made = self._pieces.piece(index, one)
            self._copy(one, made)
            self._score(one, made)
            self._rest(one, one.paused_s)
            before = one
        self._close()
        self._tape.total_s = self._now
        return self._tape

    def _number(self, one: PlayedBeat) -> int:
        """The block's number in the session as it is now, or after all others where it is no longer in it."""
        of = self._pieces.sheet(one).tape.blocks[one.item.beat.block]
        number = self._numbers.get((of.section, of.ident))
        if number is None:
            number = self._numbers[of.section, of.ident] = len(self._tape.blocks)
            self._tape.blocks.append(of)
        return number

    def _open(self, one: PlayedBeat) -> None:
        """Another run begins, unless it is the one that is being written."""
        if self._run_key == one.item.run:
            return
        self._close()
        self._run_key, self._clocked, self._span = one.item.run, False, None
        source = self._pieces.sheet(one).tape.runs[one.item.beat.run]
        made = BlockRun(self._number(one), source.section_pass, self._now)
        made.first_segment = len(self._tape.segments)
        self._tape.runs.append(made)

    def _close(self) -> None:
        if self._tape.runs:
            run = self._tape.runs[-1]
            run.end, run.last_segment = self._now, len(self._tape.segments)
            if not self._clocked:
                run.clock_start = run.clock_end = self._now

    def _rest(self, one: PlayedBeat, seconds: float) -> None:
        """A pause in a beat, or a wait after it."""
        if seconds > TIME_EPS_S:
            at = self._pieces.sheet(one).tape.segments[one.item.beat.first].owner
            owner = Address(at.section_pass, at.section, at.block, at.repeat)
            self._write(Segment(0, seconds, "rest", None, owner, 0, self._number(one), "done", False, None))

    def _write(self, segment: Segment) -> None:
        # Numbered through, so that no two addresses are alike where a beat was played twice.
        self._tape.segments.append(segment._replace(start=self._now, piece=len(self._tape.segments)))
        self._now += segment.seconds

    def _copy(self, one: PlayedBeat, made: PlayedPiece) -> None:
        """Copy segments with their visits and windows; the run's clock goes from its first segment to its last."""
        tape, block = self._tape, self._number(one)
        run = tape.runs[-1]
        visits: dict[int, int] = {}
        windows: dict[int, int] = {}
        tape.visits.extend(replace(visit, block=block) for _, visit in made.piece.empty)
        for place, segment in enumerate(made.piece.segments):
            visit, window = segment.visit, segment.window
            if visit is not None:
                if visit not in visits:
                    visits[visit] = len(tape.visits)
                    tape.visits.append(replace(made.piece.visits[visit], block=block))
                visit = visits[visit]
            if window is not None:
                if window not in windows:
                    windows[window] = len(tape.windows)
                    tape.windows.append(made.tape.windows[window]._replace(start=self._now))
                window = windows[window]
            clocked = place < made.clocked
            if clocked and not self._clocked:
                self._clocked, run.clock_start = True, self._now
            self._write(segment._replace(visit=visit, window=window, block=block))
            if clocked:
                run.clock_end = self._now

    def _score(self, one: PlayedBeat, made: PlayedPiece) -> None:
        """What the run scored with a beat, and what was left under its cap."""
        if made.span is None:
            return
        key = (one.item.sheet, made.span)
        self._span_s = one.seconds if self._span != key else self._span_s + one.seconds
        self._span = key
        beat, run = one.item.beat, self._tape.runs[-1]
        source = self._pieces.sheet(one).tape
        span = source.spans[made.span]
        score = made.score
        if beat.ends == "tap" and beat.end >= span.clock_end:
            # The task is done: it took the time of its stretches and rests, without the wait for the slowest.
            waited = sum(s.seconds for s in made.piece.segments[span.clock_end - beat.first :])
            score = {"time_s": self._span_s - waited}
            predicted = self._pieces.predicted(one, made.span)
            if predicted is not None and "station" in predicted:
                score["station"] = predicted["station"]
        if score is not None:
            run.scores.append(score)
        if beat.ends == "cap":
            turn = (
                sum(s.seconds for s in source.segments[span.first : span.end]) if span.end > span.clock_end else 0
            )
            run.cap_slack_s += max(0.0, beat.s - max(one.seconds, turn))
