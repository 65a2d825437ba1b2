"""Stations: everyone works at a place and then moves on."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, along, axes
from finetally.core.formats.bounds import LEFT, REPS, length, rounds, window
from finetally.core.formats.format import Format, MovementCount, RepOrigin, only_block
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Amrap, InnerClock, Intervals, Rotation, Station
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, SecondsValue

LAPS = (2, 1, 3)


def _rotation(
    steps: Sequence[Step], size: int, inner: InnerClock, laps: CountValue, rotate_s: SecondsValue
) -> Rotation:
    stations = [
        Station(name=f"station {index // size + 1}", steps=list(steps[index : index + size]))
        for index in range(0, len(steps), size)
    ]
    return Rotation(kind="rotation", laps=laps, rotate_s=rotate_s, inner=inner, stations=stations)


def _read(entries: Sequence[BlockOrSection]) -> tuple[Block, Rotation, list[Step]] | None:
    block = only_block(entries, Rotation)
    if block is None or not isinstance(block.clock, Rotation):
        return None
    return block, block.clock, [step for station in block.clock.stations for step in station.steps]


class DensityParams(FormatParams):
    """The window at a station, the time to move on, and laps."""

    window_s: Annotated[SecondsValue, ParamSpec("window", "seconds", 1)] = 150
    rotate_s: Annotated[SecondsValue, ParamSpec("to move on", "seconds")] = 30
    laps: Annotated[CountValue, ParamSpec("laps", "count", 1, 100)] = 2


class Density(Format[DensityParams]):
    """Two movements back and forth at each station, as often as a window holds."""

    key = "density-stations"
    name = "Density stations"
    precedence = 220
    holds = MovementCount(4, None, 2)
    dose = "reps"
    usual = (
        length(0, 2700, "over three quarters of an hour of stations is a session of its own"),
        *REPS,
        LEFT,
    )
    params = DensityParams

    def rep_origin(self, p: FormatParams) -> RepOrigin:
        """See Format."""
        return "paced"

    def make(self, steps: Sequence[Step], p: DensityParams) -> list[BlockOrSection]:
        """See Format."""
        return [Block(clock=_rotation(steps, 2, Amrap(kind="amrap", window_s=p.window_s), p.laps, p.rotate_s))]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], DensityParams] | None:
        """See Format."""
        found = _read(entries)
        if found is None or not isinstance(found[1].inner, Amrap):
            return None
        _, clock, steps = found
        values = {
            "window_s": found[1].inner.window_s,
            "rotate_s": clock.rotate_s or 0,
            "laps": clock.laps or 1,
        }
        return steps, DensityParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Windows from one to five minutes by a quarter of one; twice round, once, or three times."""
        line = range(60, 301, 15)
        return axes("window_s", line) if hints.own is not None else axes("window_s", line, laps=LAPS)


class StationsParams(FormatParams):
    """Work and rest, rounds at each station, the time to move on, and laps."""

    work_s: Annotated[SecondsValue, ParamSpec("work", "seconds", 1)] = 40
    rest_s: Annotated[SecondsValue | None, ParamSpec("rest", "seconds")] = 20
    rounds: Annotated[CountValue, ParamSpec("rounds", "count", 1, 1000)] = 2
    rotate_s: Annotated[SecondsValue, ParamSpec("to move on", "seconds")] = 30
    laps: Annotated[CountValue, ParamSpec("laps", "count", 1, 100)] = 2


class IntervalStations(Format[StationsParams]):
    """Windows at each station."""

    key = "interval-stations"
    name = "Interval stations"
    precedence = 230
    trade = ("stations", "circuit stations")
    holds = MovementCount(2)
    dose = "window"
    usual = (
        window(15, 60, "under 15 s the change-over eats the window, over a minute it is no interval"),
        rounds(1, 12, "a movement that comes up more than a dozen times is drudgery"),
        length(0, 2700, "over three quarters of an hour of stations is a session of its own"),
        LEFT,
    )
    params = StationsParams

    def make(self, steps: Sequence[Step], p: StationsParams) -> list[BlockOrSection]:
        """See Format."""
        inner = Intervals(kind="intervals", work_s=p.work_s, rest_s=p.rest_s or 0)
        return [Block(clock=_rotation(steps, 1, inner, p.laps, p.rotate_s), rounds=p.rounds)]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], StationsParams] | None:
        """See Format."""
        found = _read(entries)
        if found is None or not isinstance(found[1].inner, Intervals):
            return None
        block, clock, steps = found
        values = {
            "work_s": found[1].inner.work_s,
            "rest_s": found[1].inner.rest_s or 0,
            "rounds": block.rounds or 1,
            "rotate_s": clock.rotate_s or 0,
            "laps": clock.laps or 1,
        }
        return steps, StationsParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Rounds at a station, with a few laps and windows."""
        line = range(1, 5)
        if hints.own is not None:
            return axes("rounds", line)
        options = ((2, 40, 20), (1, 40, 20), (2, 30, 30), (1, 30, 30), (3, 40, 20))
        return [along("rounds", line, laps=laps, work_s=work, rest_s=rest) for laps, work, rest in options]
