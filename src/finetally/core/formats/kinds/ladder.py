"""Rep ladders: up, down, or up and down; all movements on each rung, or a rung a movement; plain or under a pulse."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from finetally.core.formats.axes import Axis, PlanHints
from finetally.core.formats.bounds import LEFT, REPS, length, rounds
from finetally.core.formats.format import Format, as_whole, only_block
from finetally.core.formats.params import CannotMakeError, FormatParams, ParamSpec
from finetally.core.session.clocks import Pulse, Task
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.parts import changed, without
from finetally.core.session.step import Step
from finetally.core.session.values import FieldValue, Reps, SecondsValue

MOST_RUNGS = 1_000
STEPS = ((2, False), (1, False), (1, True), (5, False), (2, True), (3, False), (10, False))
"""How steep ladders are, and whether they come down again; usual ones first."""
RUNGS = rounds(3, 10, "with fewer than three rungs nothing climbs, and over ten nobody knows which one it is")
LADDER_LENGTH = length(0, 2400, "over forty minutes a ladder is not climbed but survived")


class LadderParams(FormatParams):
    """From which rung to which, by how many reps, and back; how it is laid out; a cap."""

    start: Annotated[Reps, ParamSpec("from", "reps", 1, 1000)] = 10
    end: Annotated[Reps, ParamSpec("to", "reps", 1, 1000)] = 40
    by: Annotated[Reps, ParamSpec("by", "reps", 1, 1000)] = 10
    back: Annotated[bool, ParamSpec("and back down", "flag")] = False
    layout: Annotated[Literal["rounds", "one-a-movement"], ParamSpec("layout", "choice")] = "rounds"
    cap_s: Annotated[SecondsValue | None, ParamSpec("cap", "seconds", 1)] = 900


class PulsedParams(LadderParams):
    """A ladder during which everyone rests together."""

    pulse_work_s: Annotated[SecondsValue, ParamSpec("on", "seconds", 1)] = 45
    pulse_rest_s: Annotated[SecondsValue, ParamSpec("off", "seconds", 1)] = 15


def rungs_of(start: int, end: int, by: int, *, back: bool) -> list[int]:
    """The rungs from `start` to `end` by `by`, and back again if asked. Raises CannotMakeError."""
    if abs(end - start) > by * MOST_RUNGS:
        raise CannotMakeError(f"a ladder has at most {MOST_RUNGS} rungs")
    rungs = list(range(start, end + 1, by) if end >= start else range(start, end - 1, -by))
    if len(rungs) < 2:
        raise CannotMakeError("a ladder needs two rungs or more")
    if rungs[-1] != end:
        raise CannotMakeError(f"{start} to {end} is not reached by steps of {by}")
    return rungs + rungs[-2::-1] if back else rungs


def _block(steps: Sequence[Step], p: LadderParams, clock: Task) -> Block:
    rungs = rungs_of(p.start, p.end, p.by, back=p.back)
    if p.cap_s is not None:
        clock = changed(clock, cap_s=p.cap_s)
    if p.layout == "rounds":
        return Block(clock=clock, rounds=len(rungs), steps=[changed(step, reps=list(rungs)) for step in steps])
    if len(rungs) != len(steps):
        raise CannotMakeError(f"{len(rungs)} rungs for {len(steps)} movements: one dose a movement needs as many")
    return Block(clock=clock, steps=[changed(step, reps=n) for step, n in zip(steps, rungs, strict=True)])


def _read(block: Block, clock: Task) -> tuple[list[Step], dict[str, FieldValue]] | None:
    steps = block.steps or []
    in_rounds = all(isinstance(step.reps, list) for step in steps)
    first = steps[0].reps
    doses = first if isinstance(first, list) and in_rounds else [step.reps for step in steps]
    if len(doses) < 2:
        return None
    rungs = as_whole(doses)
    back = len(rungs) > 2 and rungs == rungs[::-1]
    values: dict[str, FieldValue] = {
        "start": rungs[0],
        "end": rungs[len(rungs) // 2] if back else rungs[-1],
        "by": abs(rungs[1] - rungs[0]),
        "back": back,
        "layout": "rounds" if in_rounds else "one-a-movement",
        "cap_s": clock.cap_s,
    }
    return [without(step, "reps") for step in steps], values


def _search(span: Sequence[int], hints: PlanHints) -> list[Axis]:
    """From one step of the ladder up to a top, in twos, ones, threes, fives or tens, and back; all of it, no cap.

    A coach's own ladder first: as steep as it is, to another top.
    """
    found: list[Axis] = []
    if isinstance(hints.own, LadderParams) and hints.own.layout == "rounds":
        found.append(_as_steep(span, hints.own))
    for by, back in STEPS:
        tops = [rungs for rungs in span if (2 * rungs - 1 if back else rungs) in span]
        line = [{"start": by, "end": by * rungs} for rungs in tops]
        found.append([{**one, "by": by, "back": back, "layout": "rounds", "cap_s": None} for one in line])
    return found


def _as_steep(span: Sequence[int], own: LadderParams) -> Axis:
    low = min(own.start, own.end)
    tops = [low + own.by * (n - 1) for n in span if not own.back or 2 * n - 1 in span]
    if own.start > own.end:
        return [{"start": top, "end": low} for top in tops]
    return [{"start": low, "end": top} for top in tops]


class Ladder(Format[LadderParams]):
    """2, 4, 6, 8, 10 of every movement."""

    key = "rep-ladder"
    name = "Rep ladder"
    precedence = 150
    trade = ("ladder", "pyramid of reps")
    claims = ("ladder",)
    dose = "made"
    raced = True
    usual = (RUNGS, LADDER_LENGTH, *REPS, LEFT)
    params = LadderParams

    def make(self, steps: Sequence[Step], p: LadderParams) -> list[BlockOrSection]:
        """See Format."""
        return [_block(steps, p, Task(kind="task"))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], LadderParams] | None:
        """See Format."""
        block = only_block(entries, Task)
        if block is None or not isinstance(block.clock, Task) or block.clock.pulse is not None:
            return None
        read = _read(block, block.clock)
        return None if read is None else (read[0], LadderParams.model_validate(read[1]))

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """See `_search`."""
        return _search(self.span("rounds"), hints)


class Pulsed(Format[PulsedParams]):
    """The same, 45 s on and 15 s off; the count carries on."""

    key = "rep-ladder-pulse"
    name = "Rep ladder under a pulse"
    precedence = 140
    trade = ("ladder",)
    claims = ("ladder",)
    dose = "made"
    usual = (RUNGS, LADDER_LENGTH, *REPS, LEFT)
    params = PulsedParams

    def make(self, steps: Sequence[Step], p: PulsedParams) -> list[BlockOrSection]:
        """See Format."""
        pulse = Pulse(work_s=p.pulse_work_s, rest_s=p.pulse_rest_s)
        return [_block(steps, p, Task(kind="task", pulse=pulse))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], PulsedParams] | None:
        """See Format."""
        block = only_block(entries, Task)
        if block is None or not isinstance(block.clock, Task) or block.clock.pulse is None:
            return None
        read = _read(block, block.clock)
        if read is None:
            return None
        pulse = {"pulse_work_s": block.clock.pulse.work_s, "pulse_rest_s": block.clock.pulse.rest_s}
        return read[0], PulsedParams.model_validate({**read[1], **pulse})

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """See `_search`."""
        return _search(self.span("rounds"), hints)
