"""The `rotation` clock: stations worked with the inner clock; all move on together."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from finetally.core.session.budget import spend
from finetally.core.session.clocks import Amrap, Rotation, Station
from finetally.core.session.problems import refuse
from finetally.core.unfold.clock_run import ClockResult
from finetally.core.unfold.perform import SideTurns
from finetally.core.unfold.program import LayoutContext, StepProgram
from finetally.core.unfold.tape import BlockRun, Identity, Recorder, Tape


class HasContext(Protocol):
    """What can give a clock something to write on."""

    def fresh_context(self, turns: SideTurns) -> LayoutContext:
        """An empty tape, with these turns of sides."""


def station_ident(station: Station, index: int) -> Identity:
    """The station's id, else its index."""
    return station.id if station.id is not None else index


def _first(stations: Sequence[Station], start: int | str | None) -> int:
    if start is None:
        return 0
    for index, station in enumerate(stations):
        if start in (station.id, station.name) or start == index:
            return index
    names = ", ".join(repr(station.name) for station in stations)
    raise refuse(("start_station",), repr(start), f"0 to {len(stations) - 1}, or one of {names}", "station")


def turn_length(programs: Sequence[StepProgram], context: LayoutContext, block: int) -> float:
    """Seconds that a turn lasts: the slowest station's, found by a dry run of each where the clock does not say.

    0 for a single station: its turn is as long as it takes.
    """
    if len(programs) == 1:
        return 0.0
    inner = programs[0].clock
    if isinstance(inner, Amrap):
        return context.resolver.dose(inner.window_s)
    longest = 0.0
    for work in programs:
        scratch = LayoutContext(Recorder(), context.pacer, context.turns.copy(), context.resolver, context.methods)
        work.run(scratch, block, mirrored=False)
        longest = max(longest, scratch.recorder.now)
    return longest


def run_rotation(
    context: LayoutContext,
    clock: Rotation,
    programs: Sequence[StepProgram],
    run: BlockRun,
    start: int | str | None,
    cap_s: float,
) -> None:
    """Write all laps as one person goes through them, beginning at the station `start`.

    `cap_s` is the inner task's cap (0 without one): the hall is booked for turns of that length.
    """
    recorder, stations = context.recorder, clock.stations
    first = _first(stations, start)
    rotate = context.resolver.rest(clock.rotate_s)
    turns = context.resolver.count(clock.laps) * len(stations)
    length = turn_length(programs, context, run.block)
    for turn in range(turns):
        index = (first + turn) % len(stations)
        recorder.station = station_ident(stations[index], index)
        begun = recorder.now
        end = begun + length
        outcome: ClockResult = programs[index].run(context, run.block, mirrored=False)
        if outcome.score is not None:
            run.scores.append({**outcome.score, "station": stations[index].name})
        run.cap_slack_s += max(0.0, cap_s - max(length, recorder.now - begun))
        recorder.wait_for_slowest(end - recorder.now if end - recorder.now > 1e-6 else 0)
        if turn < turns - 1:
            recorder.write("rest", rotate)
    recorder.station = None


class StationsAlone:
    """Each station of a rotation worked by itself, lap after lap: what whoever stands there does in that turn."""

    def __init__(self, programs: Sequence[StepProgram], unfolder: HasContext, block: int) -> None:
        self._programs = programs
        self._unfolder = unfolder
        self._block = block
        self._turns = [SideTurns() for _ in programs]
        self._laps: list[list[Tape]] = [[] for _ in programs]

    def tape(self, station: int, lap: int) -> Tape:
        """The station's tape in a lap (both from 0), from its own second 0."""
        laps = self._laps[station]
        while len(laps) <= lap:
            context = self._unfolder.fresh_context(self._turns[station])
            self._programs[station].run(context, self._block, mirrored=False)
            spend(1 + len(context.recorder.tape.segments))
            laps.append(context.recorder.tape)
        return laps[lap]
