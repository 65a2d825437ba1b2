"""Every figure of a whole session, declared once: its names, its unit, which way is better, where it is told.

The rows of a comparison, what may be wished for, the tally beside the blocks and the API's tables follow from here.
How a figure is measured stands in measure.py, how it opens in explain/, both under its dotted name.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

FigureUnit = Literal["s", "share", "ratio", "count", "reps", "per-min", "kg", "effort", "load", "split"]
"""Seconds; 0 to 1; first per second; counts; reps; a minute; kilograms; 0 to 10; effort × minutes; 0 to 1 of two."""
Sense = Literal["more", "less", "even", "none"]
Family = Literal["time", "volume", "effort", "balance", "plan"]
ToldWhen = Literal["always", "there", "above-zero"]


@dataclass(frozen=True, slots=True)
class TallyLine:
    """How the tally tells a figure: its place in the family (from 1), its label there (None: its own), when
    it is left out.

    `unless_same_as`: it is left out where that figure has the same value. `when`: told always, only where there is a
    value, or only where it is above 0.
    """

    order: int
    label: str | None = None
    unless_same_as: str | None = None
    when: ToldWhen = "always"


@dataclass(frozen=True, slots=True)
class FigureSpec:
    """One figure. `figure`: its dotted name among the published ones, which opens (None: it is made of several).

    `key`: what comparisons and wishes call it (None: it is not compared); `sense`: which way is usually wished for.
    A split is a share from 0 to 1 of what stands first in its label; even is 0.5.
    """

    key: str | None
    label: str
    unit: FigureUnit
    figure: str | None
    sense: Sense
    family: Family
    tally: TallyLine | None = None


COUNTED = "main and finisher"

FIGURES: tuple[FigureSpec, ...] = (
    FigureSpec(None, "Work time", "s", "headline.work_s", "more", "time"),
    FigureSpec(None, "Work : rest", "ratio", "headline.work_to_rest", "more", "time"),
    FigureSpec(None, f"Density, {COUNTED}", "share", "headline.density", "more", "time", TallyLine(1)),
    FigureSpec(None, f"Length, {COUNTED}", "s", "headline.total_s", "less", "time", TallyLine(2, unless_same_as="total_s")),
    FigureSpec("total", "Total", "s", "total_s", "less", "time", TallyLine(3, "Length, whole session")),
    FigureSpec("timetable", "Timetable", "s", "timetable_s", "less", "time", TallyLine(6, "To book the hall for", "total_s")),
    FigureSpec("work", "Work", "s", "work_s", "more", "time", TallyLine(4, "Work, whole session", "headline.work_s")),
    FigureSpec("density", "Density", "share", "density", "more", "time", TallyLine(5, "Density, whole session", "headline.density")),
    FigureSpec("work-to-rest", "Work to rest", "ratio", "work_to_rest", "more", "time"),
    FigureSpec("called", "Reps called", "reps", "reps.called", "more", "volume"),
    FigureSpec("paced", "Reps paced", "reps", "reps.paced", "more", "volume"),
    FigureSpec("guessed", "Reps guessed", "reps", "reps.estimated", "more", "volume"),
    FigureSpec("reps-per-min", "Reps a minute", "per-min", "rates.reps_per_min", "more", "volume", TallyLine(5, when="there")),
    FigureSpec("volume", "Volume load", "kg", "volume_kg", "more", "volume", TallyLine(1)),
    FigureSpec("mean-uptake", "Mean uptake", "share", "effort.mean_uptake", "less", "effort", TallyLine(1)),
    FigureSpec("peak-uptake", "Peak uptake", "share", "effort.peak_uptake", "less", "effort", TallyLine(2)),
    FigureSpec("above-80", "Above 80 %", "s", "effort.above_80_s", "less", "effort", TallyLine(3, "Time above 80 %")),
    FigureSpec("oxygen-gap", "Oxygen gap", "s", "effort.oxygen_gap_s", "less", "effort"),
    FigureSpec("effort", "Effort", "effort", "effort.rpe", "less", "effort"),
    FigureSpec("load", "Load", "load", "effort.load", "less", "effort", TallyLine(4, "Session load, effort × minutes")),
    FigureSpec("push-pull", "Push : pull", "split", "balance.beams.push-pull.left_share", "even", "balance"),
    FigureSpec("knee-hip", "Knee : hip", "split", "balance.beams.knee-hip.left_share", "even", "balance"),
    FigureSpec("left-right", "Left : right", "split", "balance.beams.left-right.left_share", "even", "balance"),
    FigureSpec("landings", "Landings", "count", "landings", "less", "volume"),
    FigureSpec(None, "Landings, low", "count", "landings.low", "less", "volume", TallyLine(2, when="above-zero")),
    FigureSpec(None, "Landings, medium", "count", "landings.medium", "less", "volume", TallyLine(3)),
    FigureSpec(None, "Landings, high", "count", "landings.high", "less", "volume", TallyLine(4)),
    FigureSpec("change", "Change-overs", "s", "change_s", "less", "time"),
    FigureSpec("kit", "Kit at once", "count", None, "less", "plan"),
    FigureSpec("checks", "Checks", "count", None, "less", "plan"),
)  # fmt: skip
"""In the order in which comparisons show them."""


def tally_figures() -> list[tuple[FigureSpec, TallyLine]]:
    """What the tally tells in lines, in its order within each family."""
    told = [(one, one.tally) for one in FIGURES if one.tally is not None]
    return sorted(told, key=lambda pair: pair[1].order)
