"""What is held still while formats are compared: total time, work time, reps called, or load."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from finetally.core.tally.measure import Tally
from finetally.core.unfold.tape import Tape

Hold = Literal["total", "work", "reps", "load"]


@dataclass(frozen=True, slots=True)
class Held:
    """What is held still: seconds, or load; or reps called by movement (`reps`). `target` is None for reps.

    `plans`: whether it is the plan's own figure, so that the plan itself is the closest there is.
    """

    what: Hold
    target: float | None = None
    reps: Mapping[str, int] = field(default_factory=dict)
    plans: bool = False

    @property
    def amount(self) -> float:
        """All of it: reps, else seconds or load, as `what` says."""
        return float(sum(self.reps.values())) if self.what == "reps" else float(self.target or 0)


def held_of(t: Tally, what: Hold) -> Held:
    """The plan's own figure, held still. `t` is the tally of the plan's blocks alone."""
    if what == "reps":
        called = {key: one["called"] for key, one in t.reps.movements.items() if one["called"]}
        return Held("reps", None, called, plans=True)
    return Held(what, {"total": t.whole.total, "work": t.whole.work, "load": t.load}[what], plans=True)


def called_by_movement(tape: Tape) -> dict[str, int]:
    """Reps called, by movement."""
    called: dict[str, int] = {}
    for done in tape.visits:
        if done.called:
            called[done.step.key] = called.get(done.step.key, 0) + done.called
    return called
