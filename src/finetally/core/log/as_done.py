"""A session as somebody did it: which block each score is of, how long its window was, the effort it comes to."""

from __future__ import annotations

import bisect
from collections.abc import Mapping
from dataclasses import dataclass

from finetally.core.floor.document import Run
from finetally.core.floor.done import tally_of_run
from finetally.core.floor.replay import Played, replay
from finetally.core.learn.pace import PaceModel, factor_of
from finetally.core.log.as_person import as_person
from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Amrap
from finetally.core.session.document import Session
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally, tally
from finetally.core.unfold.tape import RunScore, Tape


@dataclass(frozen=True, slots=True)
class WindowPlayed:
    """A self-paced window as it was played: whether to its end; how long it was where that was not as planned.

    `sheet`, `block`: where it stands, as a change may have given its block another number.
    """

    finished: bool
    window_s: float | None
    sheet: int
    block: int


class DoneSession:
    """A session as somebody did it: as planned with their options, or as a run has it. Blocks by number, as
    planned.

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
        self._windows: Mapping[tuple[int, int], WindowPlayed] = {}
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
        if self._played is None:
            return PaceModel(self.session, block, self._library, self._methods, self.given)
        window = self._windows.get((block, index))
        if window is None or not window.finished:
            return None
        laid = self._played.sheets[window.sheet]
        given = laid.unfolder.given
        return PaceModel(laid.session, window.block, self._library, self._methods, given, window.window_s)

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
        return tally_of_run(self._run, self._played, library=self._library, given=given, since=self._since)

    def effort(self) -> float:
        """The session's effort as it was done, 0 to 10, without the person's offset."""
        return self.tally().rpe


def _windows_of(played: Played) -> dict[tuple[int, int], WindowPlayed]:
    """The self-paced windows that were played, by block as planned and which of its runs of the clock (of all
    passes).

    What was put in since has no number there, and is left out.
    """
    found: dict[tuple[int, int], WindowPlayed] = {}
    planned = {(of.section, of.ident): n for n, of in enumerate(played.sheets[0].tape.blocks)}
    places = [_places(laid.tape) for laid in played.sheets]
    for one in played.played:
        beat, at = one.item.beat, one.item.sheet
        if not (beat.self_paced and beat.kind == "work"):
            continue
        tape = played.sheets[at].tape
        of = tape.blocks[beat.block]
        starts, which = places[at]
        number = bisect.bisect_right(starts, beat.first) - 1
        block = planned.get((of.section, of.ident))
        if number < 0 or block is None:
            continue
        finished = beat.end >= tape.spans[number].clock_end and one.how != "short"
        longer = one.seconds if isinstance(of.work_clock, Amrap) and one.how == "long" else None
        known = found.get((block, which[number]))
        if known is None or not known.finished:
            found[block, which[number]] = WindowPlayed(finished, longer, at, beat.block)
    return found


def _places(tape: Tape) -> tuple[list[int], list[int]]:
    """Where the clock's runs begin on a tape, and which of its block's each is."""
    which: list[int] = []
    counts: dict[int, int] = {}
    for span in tape.spans:
        block = tape.segments[span.first].block if span.first < len(tape.segments) else -1
        counts[block] = counts.get(block, -1) + 1
        which.append(counts[block])
    return [span.first for span in tape.spans], which
