"""`replay`: what the events of a run make of its session. The one definition of what events mean."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from finetally.core.edits.edit import EditError, apply_edits
from finetally.core.floor.document import Run
from finetally.core.floor.events import Event, RunChange, ScoreMade, Undo
from finetally.core.floor.from_score import takes_from
from finetally.core.floor.queue import Layout
from finetally.core.floor.sheet import Sheet, sheet
from finetally.core.floor.timer import PlayedBeat, Timer
from finetally.core.methods.given import Given, Score
from finetally.core.movements.library import Library
from finetally.core.session.budget import spend
from finetally.core.session.json_value import JsonObject
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.unfold.tape import LocatedBlock


@dataclass
class Played:
    """A run as it stands at `until`: the timer, the sheets it was laid out on in order, and what was scored.

    `session`, `given`: as they are now, changes and scores in. `scores`: by number in `timer.played`, where that
    window was played.
    """

    timer: Timer
    until: float
    sheets: list[Sheet]
    session: JsonObject
    given: Given
    scores: dict[int, ScoreMade] = field(default_factory=dict)

    @property
    def over(self) -> bool:
        """Whether the run has ended."""
        return self.timer.mode == "over"

    @property
    def played(self) -> list[PlayedBeat]:
        """The beats that were played, in order; the running one is not among them."""
        return self.timer.played

    @property
    def skipped(self) -> list[int]:
        """The numbers of beats that were never played."""
        seen = {(one.item.sheet, one.item.number) for one in self.played}
        return [number for at, number in self.timer.queue.in_force if (at, number) not in seen]

    def seconds(self, kind: str) -> float:
        """Seconds played in beats of a kind, without pauses."""
        return sum(one.seconds for one in self.played if one.item.beat.kind == kind)


def replay(run: Run, *, library: Library, person: str | None = None) -> Played:
    """Play a run's events in order of time, up to `until`.

    `person`: whose own scores stand in the place of the session's in their windows. Raises DocumentError where the
    session cannot be laid out.
    """
    return Replay(run, library, person).play()


class Replay:
    """One replay. `layouts`, `laid_out`: what scores and changes laid out anew, by their place in `events`.

    `planned`: of each score, by its place, the number that its block had when the run began; None for one put in
    since.
    """

    def __init__(self, run: Run, library: Library, person: str | None = None) -> None:
        self._run = run
        self._person = person
        self._library = library
        events = sorted(run.events, key=lambda event: event.t)
        last = events[-1].t if events else 0.0
        self._until = run.until if run.until is not None else last
        self.events = [event for event in events if event.t <= self._until]
        self._laid: dict[str, Sheet] = {}
        self._session, self._given = run.session, run.given
        self._sheets: list[Sheet] = []
        self._timer = Timer([], run.hold)
        self._scores: list[_Scored] = []
        self._own: list[_Scored] = []
        self.planned: dict[int, int | None] = {}
        self._place = 0
        self.layouts: dict[int, Layout] = {}
        self.laid_out: dict[int, Sheet] = {}

    def play(self) -> Played:
        """Events one by one; an undo plays all again without what it takes back."""
        taken_back: set[int] = set()
        while not self._through(taken_back):
            pass
        self._timer.advance(self._until)
        played = Played(self._timer, self._until, self._sheets, self._session, self._given)
        for one in (*self._scores, *self._own):
            at = _window(played, one)
            if at is not None:
                played.scores[at] = one.score
        return played

    def _through(self, taken_back: set[int]) -> bool:
        """Play what is not taken back; False once an undo has taken something back."""
        self._session, self._given = self._run.session, self._run.given
        first = self._lay_out()
        self._sheets, self._scores, self._own = [first], [], []
        self._timer = Timer(first.beats, self._run.hold)
        self.layouts, self.laid_out, self.planned = {}, {}, {}
        did: list[int] = []
        spend(len(self.events) + len(first.beats))
        for index, event in enumerate(self.events):
            self._place = index
            if index in taken_back:
                continue
            self._timer.advance(event.t)
            if isinstance(event, Undo):
                taken_back.add(index)
                if did:
                    taken_back.add(did[-1])
                    return False
            elif self._take(event):
                did.append(index)
        return True

    def _take(self, event: Event) -> bool:
        if isinstance(event, ScoreMade):
            self._scored(event)
        elif isinstance(event, RunChange):
            self._changed(event)
        return self._timer.apply(event)

    def _lay_out(self) -> Sheet:
        """The sheet of the session as it is now; each is laid out once."""
        key = repr((self._given.scores, self._session))
        if key not in self._laid:
            self._laid[key] = sheet(
                parse_session(self._session),
                library=self._library,
                methods=self._run.methods,
                given=self._given,
                apart=self._run.apart,
            )
        return self._laid[key]

    def _scored(self, event: ScoreMade) -> None:
        """A score is made: what takes a value from it and has not begun is laid out with it.

        One person's is kept, and nothing follows from it: the others did as they did.
        """
        now = self._sheets[-1]
        if event.block >= len(now.tape.blocks):
            return
        scored = _Scored(event, _identity(now.tape.blocks[event.block]))
        first = (n for n, of in enumerate(self._sheets[0].tape.blocks) if _identity(of) == scored.block)
        self.planned[self._place] = next(first, None)
        if event.person is not None:
            if event.person == self._person:
                self._own.append(scored)
            return
        self._scores.append(scored)
        ident = now.tape.blocks[event.block].block.id
        if ident is None or event.time_s is not None or self._was_skipped(scored):
            return
        depending = [of for of in now.tape.blocks if takes_from(self._session, of, ident)]
        if not depending:
            return
        score = Score(rounds=event.rounds, reps=event.reps, rung=event.rung)
        self._given = self._given.model_copy(update={"scores": {**self._given.scores, ident: score}})
        self._relay(self._lay_out(), {id(of) for of in depending})

    def _was_skipped(self, scored: _Scored) -> bool:
        """Whether the window left the queue without being played, on whichever sheet it stands."""
        windows = _windows(self._sheets, scored)
        return bool(windows) and not any((i.sheet, i.number) in windows for i in self._timer.queue.items)

    def _relay(self, made: Sheet, changed_blocks: set[int]) -> None:
        old = self._sheets[-1]
        self._sheets.append(made)
        changed = {of.ident for of in old.tape.blocks if id(of) in changed_blocks}
        passages = {beat.passage for beat in made.beats if made.tape.blocks[beat.block].ident in changed}
        self._put(made, passages)

    def _changed(self, event: RunChange) -> None:
        """The session is edited: what has not begun is laid out anew. Edits that do not fit do nothing."""
        before, old = self._session, self._sheets[-1]
        try:
            self._session, _ = apply_edits(before, event.edits)
            made = self._lay_out()
        except (EditError, DocumentError):
            self._session = before
            return
        self._sheets.append(made)
        same = {_identity(of): of.block for of in old.tape.blocks}
        changed = {
            beat.passage
            for beat in made.beats
            if same.get(_identity(made.tape.blocks[beat.block])) != made.tape.blocks[beat.block].block
        }
        self._put(made, changed)

    def _put(self, made: Sheet, changed: set[str]) -> None:
        order = list(dict.fromkeys(beat.passage for beat in made.beats))
        timer = self._timer
        running = timer.mode in ("playing", "paused")
        layout = self.layouts[self._place] = Layout(order, frozenset(changed), made.beats)
        self.laid_out[self._place] = made
        timer.queue.lay_out(layout, running=running)


def _identity(of: LocatedBlock) -> tuple[object, object]:
    return of.section, of.ident


@dataclass(frozen=True, slots=True)
class _Scored:
    """A score, and which block it is of: a change may give that another number."""

    score: ScoreMade
    block: tuple[object, object]


def _windows(sheets: Sequence[Sheet], of: _Scored) -> set[tuple[int, int]]:
    """The beat that a score is of on each sheet, as sheet and number: the `index`-th scored window of that pass."""
    found: set[tuple[int, int]] = set()
    for at, laid in enumerate(sheets):
        runs = list(
            dict.fromkeys(beat.run for beat in laid.beats if _identity(laid.tape.blocks[beat.block]) == of.block)
        )
        if of.score.section_pass < len(runs):
            run = runs[of.score.section_pass]
            scored = [
                n for n, beat in enumerate(laid.beats) if beat.run == run and beat.self_paced and beat.set is None
            ]
            found.update((at, n) for n in scored[of.score.index : of.score.index + 1])
    return found


def _window(played: Played, of: _Scored) -> int | None:
    """Which of the played beats a score is of; None where that window was not played."""
    windows = _windows(played.sheets, of)
    places = (n for n, one in enumerate(played.played) if (one.item.sheet, one.item.number) in windows)
    return next(places, None)
