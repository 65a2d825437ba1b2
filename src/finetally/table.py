"""Figures as a table for the command line."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from finetally.core.figures import Figures
from finetally.core.tally.figure_types import TimeFigures
from finetally.core.wall.reader import Reading
from finetally.core.wall.told import told_of
from finetally.core.words import clock_text


def _share(value: float | None) -> str:
    return "–" if value is None else f"{value:.0%}"


def _ratio(value: float | None) -> str:
    return "–" if value is None else f"{value:.2f}"


def grid(rows: Iterable[Sequence[str]]) -> list[str]:
    """Rows of cells as lines: the first column to the left, the others to the right."""
    table = [list(row) for row in rows]
    widths = [max(len(row[column]) for row in table) for column in range(len(table[0]))]
    return [
        "  ".join(
            cell.ljust(width) if column == 0 else cell.rjust(width)
            for column, (cell, width) in enumerate(zip(row, widths, strict=True))
        ).rstrip()
        for row in table
    ]


def _times(name: str, figures: TimeFigures, rpe: str) -> list[str]:
    return [
        name,
        clock_text(figures["total_s"]),
        clock_text(figures["work_s"]),
        clock_text(figures["rest_s"]),
        clock_text(figures["change_s"]),
        clock_text(figures["talk_s"]),
        _share(figures["density"]),
        _ratio(figures["work_to_rest"]),
        rpe,
    ]


def figures_table(figures: Figures) -> str:
    """All of a session that fits on a screen: times by part and block, reps, effort, balance, exits."""
    effort, reps = figures["effort"], figures["reps"]
    rows = [["", "total", "work", "rest", "change", "talk", "density", "work:rest", "effort"]]
    rows.append(_times("counted parts", figures["headline"], f"{effort['rpe']:.1f}"))
    rows.append(_times("whole session", figures, ""))
    rows.extend(_times(f"  {name}", part, "") for name, part in figures["parts"].items())
    rows.extend(
        _times(f"  block {block['title'] or block['id']}", block, f"{block['rpe']:.1f}")
        for block in figures["blocks"]
    )
    rows.extend(_times(f"  exit before {one['before']}", one, "") for one in figures["exits"])
    lines = [figures["title"], *grid(rows), ""]
    lines.append(
        f"reps       {reps['called']} called, {reps['paced']} paced, {reps['estimated']} guessed,"
        f" {reps['contained']} contained; left {reps['left']:g}, right {reps['right']:g}"
    )
    lines.append(
        f"volume     {figures['volume_kg']:,.0f} kg ({figures['volume_called_kg']:,.0f} kg of called reps)"
    )
    landings = figures["landings"]
    lines.append(f"landings   {landings['low']} low, {landings['medium']} medium, {landings['high']} high")
    lines.append(
        f"uptake     mean {effort['mean_uptake']:.0%}, peak {effort['peak_uptake']:.0%},"
        f" {clock_text(effort['above_80_s'])} at 80 % or more"
    )
    lines.append(f"load       {effort['load']:.0f}{'' if effort['complete'] else ' (some loads not judged)'}")
    lines.append(f"timetable  {clock_text(figures['timetable_s'])}")
    shares = [f"{name} {row['share']:.0%}" for name, row in figures["balance"]["rows"].items() if row["share"]]
    if shares:
        lines.append(f"patterns   {', '.join(shares)}")
    lines.extend(f"warning    {warned['path']}: {warned['code']}" for warned in figures["warnings"])
    return "\n".join(lines) + "\n"


def reading_table(reading: Reading) -> str:
    """What is told beside a text that was read."""
    lines = []
    for one in told_of(reading)["assumed"]:
        others = f" (or: {'; '.join(one['or'])})" if one["or"] else ""
        lines.append(f"line {one['line']}: “{one['said']}” read as: {one['read_as']}{others}")
    lines.extend(f"line {one.line}: not in the figures: {one.text}" for one in reading.unread)
    if reading.unknown:
        lines.append(f"new names, guessed: {', '.join(reading.unknown)}")
    return "\n".join(lines)
