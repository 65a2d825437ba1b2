"""The rows of a comparison: the values of the figures that stand side by side (core/tally/figure_table.py)."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import Any

from finetally.core.figures import Figures
from finetally.core.tally.figure_table import FIGURES, FigureSpec
from finetally.core.tally.kit import kit_needed
from finetally.core.tally.measure import Tally

ROWS: Mapping[str, FigureSpec] = MappingProxyType({one.key: one for one in FIGURES if one.key is not None})
"""What stands side by side, by key, in the order of the table of figures."""


def value_at(figures: Mapping[str, Any], name: str) -> float | None:
    """A figure by its dotted name, in its own unit; None where there is none."""
    found: Any = figures
    for part in name.split("."):
        if not isinstance(found, Mapping) or part not in found:
            return None
        found = found[part]
    return found if isinstance(found, int | float) else None


def row_values(made: Figures, t: Tally) -> dict[str, float | None]:
    """Every row's value of a session's figures, in its unit. Landings are all grades together, checks not accepted.

    Kit is all pieces that are out at once for the people that the session is for (one, if unsaid).
    """
    values = {
        key: value_at(made, row.figure) for key, row in ROWS.items() if row.figure is not None and key != "landings"
    }
    landings = made["landings"]
    values["landings"] = float(landings["low"] + landings["medium"] + landings["high"])
    values["kit"] = float(sum(one.pieces for one in kit_needed(t)))
    values["checks"] = float(sum(not one["accepted"] for one in made["checks"]))
    return {key: values[key] for key in ROWS}


def row_spread(made: Figures) -> dict[str, dict[str, float]]:
    """The lowest and highest of every row that the session's ranges leave open, in the row's unit."""
    open_rows = {}
    for key, row in ROWS.items():
        ends = made["spread"].get(row.figure) if row.figure is not None else None
        if ends is not None and ends["high"] - ends["low"] > 1e-9:
            open_rows[key] = {"low": ends["low"], "high": ends["high"]}
    return open_rows


def endless_rows(values: Mapping[str, float | None]) -> list[str]:
    """Rows that have no end: work without any rest has an endless work-to-rest, which no number says."""
    return ["work-to-rest"] if values.get("work-to-rest") is None and values.get("work") else []


def ranked_values(values: Mapping[str, float | None], endless: Sequence[str]) -> dict[str, float | None]:
    """Values to rank by, each in its row's unit: what has no end is more than anything."""
    return {**values, **dict.fromkeys(endless, math.inf)}
