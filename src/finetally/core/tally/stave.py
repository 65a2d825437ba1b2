"""The stave: what is drawn of a session. One row per pattern, marks where it works, sums at the end, a ribbon.

Everything that the browser shows of it is worked out here; it only scales seconds to pixels.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from typing import NamedTuple

from typing_extensions import TypedDict

from finetally.core.movements.patterns import EIGHT_ROWS, MOBILITY, ROW_OF, UNASSIGNED, PatternRow
from finetally.core.tally.measure import Tally
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import PerformedVisit, Segment

INK_LEVELS = 5
"""Steps of the ink ramp: effort 0-2, 2-4, … 8-10."""

RIBBON_POINTS = 240
"""Points of the uptake ribbon: as many as the eye tells apart on a desk screen."""


class StaveRow(TypedDict):
    """A row with its sum over the whole session, in seconds of work."""

    name: str
    code: str
    work_s: float


StaveMark = tuple[int, float, float, int, int, int]
"""A block of ink: row from the top, start, seconds, level 0-4 of its ink, half (0 whole, 1 left, 2 right), segment.

A row of numbers, not a record: a long session has thousands, and they are sent at every keystroke.
"""

StaveLine = tuple[int, int, float, float, int, float, float]
"""A window when it is pointed at: segment, number of its kind, start, seconds, reps, metres, effort."""

HALVES = {None: 0, "left": 1, "right": 2}


class StaveKind(TypedDict):
    """What many windows have in common. `counted` tells which kind their reps are."""

    movement: str
    name: str
    block: int
    step: str
    counted: str
    side: str | None
    kg: float | None
    provisional: bool


class StaveBracket(TypedDict):
    """A block's stretch of time, with what stands over it."""

    block: int
    title: str
    part: str
    start: float
    end: float


class Stave(TypedDict):
    """All that is drawn, to 3 places. `work_s`: all rows together.

    `lines` in order of time; `ribbon` is uptake at even steps of time.
    """

    total_s: float
    work_s: float
    rows: list[StaveRow]
    marks: list[StaveMark]
    kinds: list[StaveKind]
    lines: list[StaveLine]
    brackets: list[StaveBracket]
    ribbon: list[float]


class Thumbnail(TypedDict):
    """The stave small: marks as (row, start, seconds, level) in seconds."""

    total_s: float
    rows: int
    marks: list[tuple[int, float, float, int]]


def thumbnail_of(t: Tally) -> Thumbnail:
    """The stave small, for lists and columns: ink alone."""
    rows, marks = ink_of(t)
    return {"total_s": round(t.tape.total_s, 3), "rows": len(rows), "marks": marks}


def ink_of(t: Tally) -> tuple[list[str], list[tuple[int, float, float, int]]]:
    """The names of the rows, and the ink in them: marks as (row, start, seconds, level)."""
    rows, marks, _ = _ink(t)
    return [row.name for row in rows], [(row, start, lasts, level) for row, start, lasts, level, _, _ in marks]


def level_of(effort: float) -> int:
    """The ink of an effort 0-10."""
    return min(INK_LEVELS - 1, max(0, int(effort / 10 * INK_LEVELS)))


def stave_of(t: Tally) -> Stave:
    """Draw a tally. Rows are the eight patterns; mobility, and what has no pattern, where there is some."""
    rows, marks, sums = _ink(t)
    lines: list[StaveLine] = []
    kinds: dict[_KindKey, int] = {}
    for index, segment in enumerate(t.tape.segments):
        if segment.visit is None:
            continue
        visit = t.tape.visits[segment.visit]
        kind = kinds.setdefault(_kind_key(segment, visit), len(kinds))
        start, seconds = round(segment.start, 3), round(segment.seconds, 3)
        metres = round(visit.metres or visit.metres_estimated, 3)
        lines.append((index, kind, start, seconds, visit.reps, metres, round(t.effort.windows[index], 3)))
    return {
        "total_s": round(t.tape.total_s, 3),
        "work_s": round(sum(sums), 3),
        "rows": [{"name": r.name, "code": r.code, "work_s": round(s, 3)} for r, s in zip(rows, sums, strict=True)],
        "marks": marks,
        "kinds": [_kind(key, provisional=key.step.key in t.tape.provisional) for key in kinds],
        "lines": lines,
        "brackets": list(_brackets(t)),
        "ribbon": ribbon_of(t),
    }


def _ink(t: Tally) -> tuple[list[PatternRow], list[StaveMark], list[float]]:
    """The rows, all marks, and each row's seconds."""
    rows = list(EIGHT_ROWS)
    if any("mobility" in visit.step.movement.patterns for visit in t.tape.visits):
        rows.append(MOBILITY)
    if any(not visit.step.movement.patterns for visit in t.tape.visits):
        rows.append(UNASSIGNED)
    numbers = {row.name: index for index, row in enumerate(rows)}
    sums = [0.0] * len(rows)
    marks: list[StaveMark] = []
    drawn: dict[int, list[tuple[int, float]]] = {}
    visits, windows = t.tape.visits, t.effort.windows
    for index, segment in enumerate(t.tape.segments):
        if segment.visit is None:
            continue
        visit = visits[segment.visit]
        mine = drawn.get(id(visit.step))
        if mine is None:
            mine = drawn[id(visit.step)] = _rows_of(visit, numbers)
        start, seconds = segment.start, segment.seconds
        level = level_of(windows[index])
        if visit.per_side and visit.seconds > 0:
            left = seconds * visit.left_s / visit.seconds
            halves = [(round(start, 3), round(left, 3), 1)]
            if seconds > left:
                halves.append((round(start + left, 3), round(seconds - left, 3), 2))
        else:
            halves = [(round(start, 3), round(seconds, 3), HALVES.get(segment.owner.side, 0))]
        for row, weight in mine:
            sums[row] += seconds * weight
            for begins, lasts, half in halves:
                marks.append((row, begins, lasts, level, half, index))
    return rows, marks, sums


def _rows_of(visit: PerformedVisit, numbers: Mapping[str, int]) -> list[tuple[int, float]]:
    """The rows that a movement is drawn in, with its weight in each."""
    rows: dict[int, float] = {}
    for pattern, weight in visit.step.movement.patterns.items():
        row = numbers[ROW_OF[pattern].name]
        rows[row] = rows.get(row, 0.0) + weight
    return list(rows.items()) or [(numbers[UNASSIGNED.name], 1.0)]


class _KindKey(NamedTuple):
    step: StepPlan
    block: int
    counted: str
    side: str | None
    kg: float | None


def _kind_key(segment: Segment, visit: PerformedVisit) -> _KindKey:
    counted = "called" if visit.called else "paced" if visit.paced else "estimated"
    load = visit.load
    kg = load.kg * (load.count or 1) if load is not None and load.kg is not None else None
    side = "each" if visit.per_side else segment.owner.side
    side = side or ("alternate" if visit.step.sides == "alternate" else None)
    return _KindKey(visit.step, segment.block, counted, side, kg)


def _kind(key: _KindKey, *, provisional: bool) -> StaveKind:
    step = key.step
    return {
        "provisional": provisional,
        "movement": step.key,
        "name": step.movement.name or step.key,
        "block": key.block,
        "step": str(step.ident),
        "counted": key.counted,
        "side": key.side,
        "kg": key.kg,
    }


def _brackets(t: Tally) -> Iterator[StaveBracket]:
    for run in t.tape.runs:
        of = t.tape.blocks[run.block]
        yield {
            "block": run.block,
            "title": of.block.title or of.part,
            "part": of.part,
            "start": round(run.clock_start, 3),
            "end": round(run.clock_end, 3),
        }


def ribbon_of(t: Tally) -> list[float]:
    """Uptake at even steps of time, from the closed form of each segment's kinetics."""
    total, segments, trace = t.tape.total_s, t.tape.segments, t.trace
    if total <= 0:
        return []
    on_s, off_s, exp = t.methods.tau_on_s, t.methods.tau_off_s, math.exp
    points: list[float] = []
    moments = [total * number / RIBBON_POINTS for number in range(RIBBON_POINTS + 1)]
    number, last = 0, len(segments) - 1
    for index, (segment, uptake) in enumerate(zip(segments, trace, strict=True)):
        begins, demand, away = segment.start, uptake.demand, uptake.start - uptake.demand
        ends = begins + segment.seconds if index < last else math.inf
        rate = -1 / (on_s if away < 0 else off_s)
        while number <= RIBBON_POINTS and moments[number] <= ends:
            since = moments[number] - begins
            value = demand + away * (exp(since * rate) if since > 0 else 1.0)
            points.append(round(value, 4) if value < 1.0 else 1.0)
            number += 1
    return points
