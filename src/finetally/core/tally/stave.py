"""The stave: what is drawn of a session. One row per pattern, marks where it works, sums at the end, a ribbon.

Everything that the browser shows of it is worked out here; it only scales seconds to pixels.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

from typing_extensions import TypedDict

from finetally.core.movements.patterns import EIGHT_ROWS, MOBILITY, ROW_OF
from finetally.core.tally.measure import Tally
from finetally.core.unfold.tape import Done, Segment

LEVELS = 5
"""Steps of the ink ramp: effort 0-2, 2-4, … 8-10."""

RIBBON_POINTS = 240
"""Points of the uptake ribbon: as many as the eye tells apart on a desk screen."""


class StaveRow(TypedDict):
    """A row with its sum over the whole session, in seconds of work."""

    name: str
    code: str
    work_s: float


class StaveMark(TypedDict):
    """A block of ink: `row` counts from the top; `level` 0-4 is its ink; `half` the side; `segment` its window."""

    row: int
    start: float
    seconds: float
    level: int
    half: str | None
    segment: int


class StaveLine(TypedDict):
    """What is said of a window when it is pointed at. `counted` tells which kind `reps` are."""

    start: float
    seconds: float
    movement: str
    name: str
    block: int
    step: str
    reps: int
    counted: str
    metres: float
    side: str | None
    kg: float | None
    effort: float


class StaveBracket(TypedDict):
    """A block's stretch of time, with what stands over it."""

    block: int
    title: str
    part: str
    start: float
    end: float


class Stave(TypedDict):
    """All that is drawn. `lines` by segment number as text; `ribbon` is uptake at even steps of time."""

    total_s: float
    rows: list[StaveRow]
    marks: list[StaveMark]
    lines: dict[str, StaveLine]
    brackets: list[StaveBracket]
    ribbon: list[float]


def level_of(effort: float) -> int:
    """The ink of an effort 0-10."""
    return min(LEVELS - 1, max(0, int(effort / 10 * LEVELS)))


def stave_of(t: Tally) -> Stave:
    """Draw a tally. Rows are the eight patterns, and mobility where there is some."""
    rows = list(EIGHT_ROWS)
    if any("mobility" in done.step.movement.patterns for done in t.tape.visits):
        rows.append(MOBILITY)
    numbers = {row.name: index for index, row in enumerate(rows)}
    sums = [0.0] * len(rows)
    marks: list[StaveMark] = []
    lines: dict[str, StaveLine] = {}
    for index, segment in enumerate(t.tape.segments):
        if segment.visit is None:
            continue
        done = t.tape.visits[segment.visit]
        effort = t.effort.windows[index]
        drawn: dict[int, float] = {}
        for pattern, weight in done.step.movement.patterns.items():
            row = numbers[ROW_OF[pattern].name]
            drawn[row] = drawn.get(row, 0.0) + weight
        for row, weight in drawn.items():
            sums[row] += segment.seconds * weight
            marks.extend(_marks(segment, done, row, level_of(effort), index))
        lines[str(index)] = _line(t, segment, done, effort)
    return {
        "total_s": t.tape.total_s,
        "rows": [{"name": r.name, "code": r.code, "work_s": s} for r, s in zip(rows, sums, strict=True)],
        "marks": marks,
        "lines": lines,
        "brackets": list(_brackets(t)),
        "ribbon": _ribbon(t),
    }


def _marks(segment: Segment, done: Done, row: int, level: int, index: int) -> Iterator[StaveMark]:
    def mark(start: float, seconds: float, half: str | None) -> StaveMark:
        return {
            "row": row,
            "start": start,
            "seconds": seconds,
            "level": level,
            "half": half,
            "segment": index,
        }

    if done.per_side and done.seconds > 0:
        left = segment.seconds * done.left_s / done.seconds
        yield mark(segment.start, left, "left")
        if segment.seconds > left:
            yield mark(segment.start + left, segment.seconds - left, "right")
    else:
        yield mark(segment.start, segment.seconds, segment.at.side)


def _line(t: Tally, segment: Segment, done: Done, effort: float) -> StaveLine:
    counted = "called" if done.called else "paced" if done.paced else "estimated"
    load = done.load
    kg = load.kg * (load.count or 1) if load is not None and load.kg is not None else None
    side = "each" if done.per_side else segment.at.side
    return {
        "start": segment.start,
        "seconds": segment.seconds,
        "movement": done.step.key,
        "name": done.step.movement.name or done.step.key,
        "block": segment.block,
        "step": str(done.step.ident),
        "reps": done.reps,
        "counted": counted,
        "metres": done.metres or done.metres_estimated,
        "side": side or ("alternate" if done.step.sides == "alternate" else None),
        "kg": kg,
        "effort": effort,
    }


def _brackets(t: Tally) -> Iterator[StaveBracket]:
    for run in t.tape.runs:
        of = t.tape.blocks[run.block]
        yield {
            "block": run.block,
            "title": of.block.title or of.part,
            "part": of.part,
            "start": run.clock_start,
            "end": run.clock_end,
        }


def _ribbon(t: Tally) -> list[float]:
    total = t.tape.total_s
    if total <= 0:
        return []
    segments, points, index = t.tape.segments, [], 0
    for number in range(RIBBON_POINTS + 1):
        moment = total * number / RIBBON_POINTS
        while index < len(segments) - 1 and segments[index].start + segments[index].seconds < moment:
            index += 1
        breath = t.trace[index]
        tau = t.methods.tau_on_s if breath.demand > breath.start else t.methods.tau_off_s
        since = max(0.0, moment - segments[index].start)
        value = breath.demand + (breath.start - breath.demand) * math.exp(-since / tau)
        points.append(round(min(1.0, value), 4))
    return points
