"""What a second reading is written with: units of time, a line of them, and the scissors that cut it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Any

CLOSE = 1e-6


@dataclass(frozen=True)
class Unit:
    """A stretch of time: a rep, a metre, a hold, a window; or rest, change, talk. Counted if it is done whole."""

    kind: str
    seconds: float
    visit: int = -1
    movement: str = ""
    called: int = 0
    paced: int = 0
    pace: float | None = None
    side: int = -1
    halves: bool = False


@dataclass
class Line:
    """What has been written so far."""

    segments: list[list[Any]] = field(default_factory=list)
    counts: dict[str, list[int]] = field(default_factory=dict)
    guessed: dict[tuple[int, int], tuple[float, Unit]] = field(default_factory=dict)
    now: float = 0.0

    def write(self, unit: Unit) -> None:
        """Time goes on; neighbouring units of a visit become one segment."""
        if unit.seconds > CLOSE:
            last = self.segments[-1] if self.segments else None
            if last is not None and last[3] == unit.visit and last[2] == "work" == unit.kind:
                last[1] += unit.seconds
            else:
                self.segments.append([self.now, unit.seconds, unit.kind, unit.visit, unit.movement])
        self.now += unit.seconds
        if unit.visit >= 0:
            count = self.counts.setdefault(unit.movement, [0, 0, 0])
            count[0] += unit.called
            count[1] += unit.paced
            if unit.pace:
                place = unit.visit, unit.side
                self.guessed[place] = self.guessed.get(place, (0.0, unit))[0] + unit.seconds, unit

    def guess(self) -> None:
        """Whole reps that holds and windows have room for, each side of a visit by itself."""
        for seconds, unit in self.guessed.values():
            parts = 2 if unit.halves else 1
            assert unit.pace
            self.counts[unit.movement][2] += parts * math.floor(seconds / parts / unit.pace + 1e-9)


def clipped(units: Iterator[Unit], room: float) -> Iterator[Unit]:
    """The units that fit: what is cut keeps its seconds and loses its count."""
    for unit in units:
        if room <= CLOSE:
            return
        if unit.seconds > room + CLOSE:
            yield replace(unit, seconds=room, called=0, paced=0)
            return
        yield unit
        room -= unit.seconds
