"""What to do in a beat: a line for each movement, with its dose, side, load, option, kit and cue."""

from __future__ import annotations

import bisect
from collections.abc import Sequence
from typing import NotRequired

from typing_extensions import TypedDict

from finetally.core.floor.beats import Beat
from finetally.core.session.clocks import InnerClock, Rotation
from finetally.core.unfold.clock_rotation import StationsAlone
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import Tape
from finetally.core.unfold.unfold import Unfolder

ShownDose = float | list[float]


class LoadShown(TypedDict):
    """What is moved: kilograms and how many, or a share of the one-rep maximum or of body weight."""

    kg: NotRequired[float]
    count: NotRequired[float]
    pct_1rm: NotRequired[float]
    bodyweight: NotRequired[float]
    unit: NotRequired[str]


class TodoLine(TypedDict):
    """A movement and its dose; a dose that differs from round to round is a list. `resting`: nothing to do there.

    `step` names the step by id, or by its place; `times`: how often it comes in the beat, where that is told and
    more than once; `grow`: reps that each round adds. `sides`: how sides are shared.
    """

    movement: NotRequired[str]
    name: NotRequired[str]
    step: NotRequired[str | int]
    times: NotRequired[int]
    reps: NotRequired[ShownDose]
    seconds: NotRequired[ShownDose]
    metres: NotRequired[ShownDose]
    to_failure: NotRequired[bool]
    grow: NotRequired[int]
    fill: NotRequired[bool]
    sides: NotRequired[str]
    side: NotRequired[str]
    load: NotRequired[LoadShown]
    option: NotRequired[str]
    kit: NotRequired[list[str]]
    cue: NotRequired[str]
    station: NotRequired[str]
    resting: NotRequired[bool]


class LineWriter:
    """Writes the lines of a tape's beats."""

    def __init__(self, unfolder: Unfolder, tape: Tape) -> None:
        self._tape = tape
        self._unfolder = unfolder
        self._starts = [span.first for span in tape.spans]
        self._alone: dict[int, StationsAlone] = {}
        self._turns: dict[int, tuple[int, int]] = {}
        self._count_turns()

    def _count_turns(self) -> None:
        """For each span of a rotation: its block, and which turn of it that is."""
        counts: dict[int, int] = {}
        for number, span in enumerate(self._tape.spans):
            if span.first == span.end:
                continue
            block = self._tape.segments[span.first].block
            if isinstance(self._tape.blocks[block].block.clock, Rotation):
                self._turns[number] = block, counts.get(block, 0)
                counts[block] = counts.get(block, 0) + 1

    def lines(self, beat: Beat) -> list[TodoLine]:
        """What is done in a beat; none in rests and talk."""
        if beat.kind != "work":
            return []
        clock = self._tape.blocks[beat.block].work_clock
        span = bisect.bisect_right(self._starts, beat.first) - 1
        turn = self._turns.get(span)
        if turn is None:
            return _lines_of(self._tape, beat.first, beat.end, clock=clock)
        block, number = turn
        rotation = self._tape.blocks[block].block.clock
        if not isinstance(rotation, Rotation):
            raise TypeError(rotation)
        offset = self._tape.segments[beat.first].start - self._tape.segments[self._tape.spans[span].first].start
        alone = self._alone.setdefault(block, StationsAlone(self._unfolder.programs[block], self._unfolder, block))
        lap = number // len(rotation.stations)
        found: list[TodoLine] = []
        for index, station in enumerate(rotation.stations):
            tape = alone.tape(index, lap)
            first, end = _between(tape, offset, offset + beat.s)
            lines = _lines_of(tape, first, end, clock=clock) or [TodoLine(resting=True)]
            found += [{**line, "station": station.name} for line in lines]
        return found


def _between(tape: Tape, start: float, end: float) -> tuple[int, int]:
    """The segments that lie, if only in part, between two times."""
    segments = tape.segments
    first = 0
    while first < len(segments) and segments[first].start + segments[first].seconds <= start + TIME_EPS_S:
        first += 1
    last = first
    while last < len(segments) and segments[last].start < end - TIME_EPS_S:
        last += 1
    return first, last


def _lines_of(tape: Tape, first: int, end: int, *, clock: InnerClock) -> list[TodoLine]:
    """A line for each step and side that is worked in these segments, in the order in which they are entered."""
    rounds: dict[tuple[int, str | None], list[int]] = {}
    visits: dict[tuple[int, str | None], set[int]] = {}
    plans: dict[int, StepPlan] = {}
    for segment in tape.segments[first:end]:
        if segment.visit is None:
            continue
        step = tape.visits[segment.visit].step
        plans[id(step)] = step
        seen = rounds.setdefault((id(step), segment.owner.side), [])
        visits.setdefault((id(step), segment.owner.side), set()).add(segment.visit)
        round_ = segment.owner.round_ or 0
        if not seen or seen[-1] != round_:
            seen.append(round_)
    lines = []
    for (key, side), seen in rounds.items():
        line = _line(plans[key], side, seen, clock=clock)
        times = len(visits[key, side])
        if times > 1 and clock.rounds_said:
            line["times"] = times
        lines.append(line)
    return lines


def _line(plan: StepPlan, side: str | None, rounds: Sequence[int], *, clock: InnerClock) -> TodoLine:
    line: TodoLine = {"movement": plan.key, "name": plan.name, "step": plan.ident}
    if plan.step.fill:
        line["fill"] = True
    else:
        _put_dose(line, plan, rounds, clock=clock)
    if side is not None:
        line["side"] = side
    elif plan.sides != "both":
        line["sides"] = plan.sides
    load = plan.load(rounds[0])
    if load is not None:
        line["load"] = LoadShown(**load.model_dump(exclude_none=True))  # type: ignore[typeddict-item]
    if plan.option is not None:
        line["option"] = plan.option.label
    if plan.kit:
        line["kit"] = sorted(plan.kit)
    if plan.movement.cues:
        line["cue"] = plan.movement.cues[0]
    return line


def _put_dose(line: TodoLine, plan: StepPlan, rounds: Sequence[int], *, clock: InnerClock) -> None:
    grow = plan.step.grow
    shown = rounds[:1] if grow else rounds
    reps = _dose([plan.reps(round_) for round_ in shown])
    if reps is not None:
        line["reps"] = reps
        if plan.to_failure:
            line["to_failure"] = True
        if grow:
            line["grow"] = grow
    # Under a fixed clock the seconds are the beat's own.
    seconds = None if clock.windowed else _dose([plan.seconds(round_) for round_ in shown])
    if seconds is not None:
        line["seconds"] = seconds
    metres = _dose([plan.metres(round_) for round_ in shown])
    if metres is not None:
        line["metres"] = metres


def _dose(values: Sequence[float | None]) -> ShownDose | None:
    """One number where all rounds have the same; None where there is none."""
    told = [value for value in values if value is not None]
    if not told:
        return None
    return told[0] if len(set(told)) == 1 else told
