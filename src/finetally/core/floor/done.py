"""`done`: the figures of what was played, from a tape made of it."""

from __future__ import annotations

from finetally.core.figures import Figures
from finetally.core.floor.document import Run
from finetally.core.floor.done_tape import done_tape
from finetally.core.floor.replay import Played, replay
from finetally.core.methods.given import Given
from finetally.core.movements.library import Library
from finetally.core.tally.measure import Tally, measured, tally_of_tape


def done(run: Run, *, library: Library) -> Figures:
    """The figures of a run as it was done: what was played of each beat, pauses and waits as rest.

    Cut windows hold fewer reps, drawn out ones more; work that a tap ended took what it took; a scored window is
    unfolded at the pace that makes the score. A run played whole with scores as predicted gives the planned ones.
    Exits, spread, checks and warnings are of plans, and empty here. Raises DocumentError as `replay` does.
    """
    t = tally_of_run(run, replay(run, library=library), library=library, given=run.given)
    return {**measured(t), "exits": [], "spread": {}, "checks": [], "warnings": []}


def tally_of_run(run: Run, played: Played, *, library: Library, given: Given, since: float = 0.0) -> Tally:
    """What was played of a run from second `since` on, measured; `given`: what was known of the day when it was."""
    last = played.sheets[-1]
    tape = done_tape(run, played, library=library, since=since)
    return tally_of_tape(last.session, run.methods, given, tape, last.unfolder)
