"""A session as somebody did it: which block each score is of, how long its window was, the effort it comes to."""

from __future__ import annotations

import bisect
from collections.abc import Mapping
from dataclasses import dataclass

from finetally.core.floor.document import Run
from finetally.core.floor.done_tape import done_tape
from finetally.core.floor.replay import Played, replay
from finetally.core.learn.pace import PaceModel, factor_of
from finetally.core.log.as_person import as_person
from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Amrap, Rotation
from finetally.core.session.document import Session
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally, tally, tally_of_tape
from finetally.core.unfold.tape import RunScore, Tape
from finetally.core.unfold.unfold import blocks_of


@dataclass(frozen=True, slots=True)
class WindowPlayed:
    """A self-paced window as it was played: whether to its end; how long it was where that was not as planned."""

    finished: bool
    window_s: float | None = None


class DoneSession:
    """A session as somebody did it: as planned with their options, or as a run has it. Blocks by number.

    `person`: as whom a run is looked at, as its events name them: their options and scores, while they were there.
    """

    def __init__(
        self,
        session: Session,
        *,
        library: Library,
        methods: Methods = DEFAULT_METHODS,
        given: Given = NOTHING_GIVEN,
        run: Run | None = None,
        person: str | None = None,
    ) -> None:
        self._library, self._methods = library, methods
        self._since = 0.0
        if run is not None and person is not None:
            run, self._since = as_person(run, person)
        self._run = run
        self._played: Played | None = None
        self.session, self.given = session, given
        self._windows: Mapping[tuple[int, int], WindowPlayed] | None = None
        if run is not None:
            self._played = replay(run, library=library, person=person)
            self.session, self.given = parse_session(self._played.session), self._played.given
            self._windows = _windows_of(self._played)

    @property
    def played(self) -> Played | None:
        """What was played of a run, up to when the person left; None without a run."""
        return self._played

    @property
    def session_s(self) -> float:
        """How long it was: pauses and waits in, from when the person came; as planned without a run."""
        if self._played is None:
            return self.tally().tape.total_s
        beats = [one for one in self._played.played if one.end > self._since]
        return beats[-1].end - max(beats[0].start, self._since) if beats else 0.0

    def model(self, block: int, index: int) -> PaceModel | None:
        """The block at any pace, its window as long as it was; None for a window that was not finished."""
        window_s: float | None = None
        if self._windows is not None:
            window = self._windows.get((block, index))
            if window is None or not window.finished:
                return None
            window_s = window.window_s
        return PaceModel(self.session, block, self._library, self._methods, self.given, window_s)

    def factor(self, block: int, index: int, score: RunScore) -> float | None:
        """The pace factor of a score (`factor_of`); None where it says nothing of pace, or was not finished.

        Raises DocumentError for a block that is not there.
        """
        model = self.model(block, index)
        return None if model is None else factor_of(model, index, score)

    def tally(self) -> Tally:
        """What was done, measured; without an offset of effort."""
        given = self.given
        person = given.person.model_copy(update={"effort_offset": 0})
        given = given.model_copy(update={"person": person})
        if self._run is None or self._played is None:
            return tally(self.session, library=self._library, methods=self._methods, given=given)
        last = self._played.sheets[-1]
        tape = done_tape(self._run, self._played, library=self._library, since=self._since)
        return tally_of_tape(last.session, self._run.methods, given, tape, last.unfolder)

    def effort(self) -> float:
        """The session's effort as it was done, 0 to 10, without the person's offset."""
        return self.tally().rpe


def _windows_of(played: Played) -> dict[tuple[int, int], WindowPlayed]:
    """The self-paced windows that were played, by block and which of its runs of the clock (of all its passes)."""
    found: dict[tuple[int, int], WindowPlayed] = {}
    places = [_places(laid.tape) for laid in played.sheets]
    for one in played.played:
        beat = one.item.beat
        if not (beat.self_paced and beat.kind == "work"):
            continue
        laid = played.sheets[one.item.sheet]
        starts, keys = places[one.item.sheet]
        number = bisect.bisect_right(starts, beat.first) - 1
        if number < 0:
            continue
        key, span = keys[number], laid.tape.spans[number]
        finished = beat.end >= span.clock_end and one.how != "short"
        amrap = isinstance(laid.tape.blocks[beat.block].work_clock, Amrap)
        known = found.get(key)
        if known is None or not known.finished:
            found[key] = WindowPlayed(finished, one.seconds if amrap and one.how == "long" else None)
    return found


def _places(tape: Tape) -> tuple[list[int], list[tuple[int, int]]]:
    """Where the clock's runs begin on a tape, and of each its block and which of the block's it is."""
    keys: list[tuple[int, int]] = []
    counts: dict[int, int] = {}
    for span in tape.spans:
        block = tape.segments[span.first].block if span.first < len(tape.segments) else -1
        counts[block] = counts.get(block, -1) + 1
        keys.append((block, counts[block]))
    return [span.first for span in tape.spans], keys


def scored_blocks(session: Session) -> list[int]:
    """The numbers of blocks with self-paced windows: against the clock, or done until finished."""
    return [
        number
        for number, of in enumerate(blocks_of(session))
        if isinstance(of.block.clock, Amrap)
        or of.block.clock.kind == "task"
        or (isinstance(of.block.clock, Rotation) and of.block.clock.inner.kind in ("amrap", "task"))
    ]
