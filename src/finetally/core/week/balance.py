"""Balance over a week: minutes by row of the stave and day, beams, and the week's targets."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from typing_extensions import TypedDict

from finetally.core.movements.patterns import EIGHT_ROWS, PATTERN_BEAMS, ROW_OF
from finetally.core.week.load import WEEK
from finetally.core.week.planned_load import PlannedLoad


@dataclass(frozen=True, slots=True)
class Target:
    """What a row is to get in a week: minutes, or a share (0 to 1) of all rows' work; either end may be open."""

    row: str
    by: Literal["minutes", "share"] = "minutes"
    low: float | None = None
    high: float | None = None


class WeekRow(TypedDict):
    """A row: seconds each day, their sum, its share of all rows, and how it stands to its target."""

    name: str
    code: str
    days: list[float]
    work_s: float
    share: float
    target: str | None
    low: float | None
    high: float | None
    off: float


class WeekBeam(TypedDict):
    """Two sides of the week in seconds; `left_share` None where both are nothing."""

    name: str
    left_name: str
    right_name: str
    left: float
    right: float
    left_share: float | None


def row_seconds(patterns: Mapping[str, float]) -> dict[str, float]:
    """Seconds by row of the stave; mobility apart."""
    rows = {row.name: 0.0 for row in EIGHT_ROWS}
    for pattern, seconds in patterns.items():
        name = ROW_OF[pattern].name
        if name in rows:
            rows[name] += seconds
    return rows


def week_rows(entries: Sequence[PlannedLoad], begins: date, targets: Sequence[Target] = ()) -> list[WeekRow]:
    """The week's stave: every row over seven days. `off`: minutes or share beyond the nearer end, signed."""
    days = [{row.name: 0.0 for row in EIGHT_ROWS} for _ in range(WEEK)]
    for entry in entries:
        index = (entry.day - begins).days
        if 0 <= index < WEEK:
            for name, seconds in row_seconds(entry.summary.patterns).items():
                days[index][name] += seconds
    sums = {row.name: sum(day[row.name] for day in days) for row in EIGHT_ROWS}
    total = sum(sums.values())
    aimed = {target.row: target for target in targets}
    made: list[WeekRow] = []
    for row in EIGHT_ROWS:
        share = sums[row.name] / total if total else 0.0
        target = aimed.get(row.name)
        made.append(
            {
                "name": row.name,
                "code": row.code,
                "days": [day[row.name] for day in days],
                "work_s": sums[row.name],
                "share": share,
                "target": target.by if target else None,
                "low": target.low if target else None,
                "high": target.high if target else None,
                "off": off_target(target, sums[row.name], share) if target else 0.0,
            }
        )
    return made


def off_target(target: Target, work_s: float, share: float) -> float:
    """How far a row is from its target, in minutes or as a share: below 0 too little, above too much, 0 within."""
    value = work_s / 60 if target.by == "minutes" else share
    if target.low is not None and value < target.low:
        return value - target.low
    if target.high is not None and value > target.high:
        return value - target.high
    return 0.0


def week_beams(entries: Sequence[PlannedLoad], begins: date) -> list[WeekBeam]:
    """The week's beams, by work seconds."""
    patterns: dict[str, float] = {}
    left_s = right_s = 0.0
    for entry in entries:
        if 0 <= (entry.day - begins).days < WEEK:
            left_s += entry.summary.left_s
            right_s += entry.summary.right_s
            for pattern, seconds in entry.summary.patterns.items():
                patterns[pattern] = patterns.get(pattern, 0.0) + seconds
    beams = [
        _beam(
            beam.name, beam.left, beam.right,
            sum(patterns.get(name, 0.0) * weight for name, weight in beam.left_weights),
            sum(patterns.get(name, 0.0) * weight for name, weight in beam.right_weights),
        )
        for beam in PATTERN_BEAMS
    ]  # fmt: skip
    return [*beams, _beam("left-right", "left", "right", left_s, right_s)]


def _beam(name: str, left_name: str, right_name: str, left: float, right: float) -> WeekBeam:
    total = left + right
    return {
        "name": name, "left_name": left_name, "right_name": right_name, "left": left, "right": right,
        "left_share": left / total if total > 0 else None,
    }  # fmt: skip
