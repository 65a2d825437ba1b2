"""The rows of a comparison: which figures stand side by side, how each is read, and which way is the lighter."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, Literal

from finetally.core.figures import Figures
from finetally.core.tally.kit import kit_needed
from finetally.core.tally.measure import Tally

RowUnit = Literal["s", "share", "ratio", "count", "reps", "per-min", "kg", "effort", "load", "split"]
Sense = Literal["more", "less", "even", "none"]


@dataclass(frozen=True, slots=True)
class ComparisonRow:
    """One row. `figure`: the published figure that opens, by dotted name; `sense`: which way is usually wished for.

    A split is a share from 0 to 1 of what stands first in its label; even is 0.5.
    """

    key: str
    label: str
    unit: RowUnit
    figure: str | None
    sense: Sense


ROWS: tuple[ComparisonRow, ...] = (
    ComparisonRow("total", "Total", "s", "total_s", "less"),
    ComparisonRow("timetable", "Timetable", "s", "timetable_s", "less"),
    ComparisonRow("work", "Work", "s", "work_s", "more"),
    ComparisonRow("density", "Density", "share", "density", "more"),
    ComparisonRow("work-to-rest", "Work to rest", "ratio", "work_to_rest", "more"),
    ComparisonRow("called", "Reps called", "reps", "reps.called", "more"),
    ComparisonRow("paced", "Reps paced", "reps", "reps.paced", "more"),
    ComparisonRow("guessed", "Reps guessed", "reps", "reps.estimated", "more"),
    ComparisonRow("reps-per-min", "Reps a minute", "per-min", "rates.reps_per_min", "more"),
    ComparisonRow("volume", "Volume load", "kg", "volume_kg", "more"),
    ComparisonRow("mean-uptake", "Mean uptake", "share", "effort.mean_uptake", "less"),
    ComparisonRow("peak-uptake", "Peak uptake", "share", "effort.peak_uptake", "less"),
    ComparisonRow("above-80", "Above 80 %", "s", "effort.above_80_s", "less"),
    ComparisonRow("oxygen-gap", "Oxygen gap", "s", "effort.oxygen_gap_s", "less"),
    ComparisonRow("effort", "Effort", "effort", "effort.rpe", "less"),
    ComparisonRow("load", "Load", "load", "effort.load", "less"),
    ComparisonRow("push-pull", "Push : pull", "split", "balance.beams.push-pull.left_share", "even"),
    ComparisonRow("knee-hip", "Knee : hip", "split", "balance.beams.knee-hip.left_share", "even"),
    ComparisonRow("left-right", "Left : right", "split", "balance.beams.left-right.left_share", "even"),
    ComparisonRow("landings", "Landings", "count", "landings", "less"),
    ComparisonRow("change", "Change-overs", "s", "change_s", "less"),
    ComparisonRow("kit", "Kit at once", "count", None, "less"),
    ComparisonRow("checks", "Checks", "count", None, "less"),
)

ROW_BY_KEY = MappingProxyType({row.key: row for row in ROWS})


def value_at(figures: Mapping[str, Any], name: str) -> float | None:
    """A figure by its dotted name; None where there is none."""
    found: Any = figures
    for part in name.split("."):
        if not isinstance(found, Mapping) or part not in found:
            return None
        found = found[part]
    return found if isinstance(found, int | float) else None


def row_values(made: Figures, t: Tally) -> dict[str, float | None]:
    """Every row's value of a session's figures. Landings are all grades together; checks those not accepted.

    Kit is all pieces that are out at once for the people that the session is for (one, if unsaid).
    """
    values = {
        row.key: value_at(made, row.figure) for row in ROWS if row.figure is not None and row.key != "landings"
    }
    landings = made["landings"]
    values["landings"] = float(landings["low"] + landings["medium"] + landings["high"])
    values["kit"] = float(sum(one.pieces for one in kit_needed(t)))
    values["checks"] = float(sum(not one["accepted"] for one in made["checks"]))
    return {row.key: values[row.key] for row in ROWS}


def row_spread(made: Figures) -> dict[str, dict[str, float]]:
    """The lowest and highest of every row that the session's ranges leave open."""
    open_rows = {}
    for row in ROWS:
        ends = made["spread"].get(row.figure) if row.figure is not None else None
        if ends is not None and ends["high"] - ends["low"] > 1e-9:
            open_rows[row.key] = {"low": ends["low"], "high": ends["high"]}
    return open_rows


def endless_rows(values: Mapping[str, float | None]) -> list[str]:
    """Rows that have no end: work without any rest has an endless work-to-rest, which no number says."""
    return ["work-to-rest"] if values.get("work-to-rest") is None and values.get("work") else []


def ranked_values(values: Mapping[str, float | None], endless: Sequence[str]) -> dict[str, float | None]:
    """Values to rank by: what has no end is more than anything."""
    return {**values, **dict.fromkeys(endless, math.inf)}
