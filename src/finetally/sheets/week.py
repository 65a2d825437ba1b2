"""A week as a table for other programs: its entries, then what they make."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, time

from finetally.core.week.balance import WeekRow
from finetally.core.week.load import CURRENCIES, LoadGauge, WeekLoad
from finetally.sheets.cells import Cell, book_bytes, csv_text, safe

HEAD: list[Cell] = ["day", "time", "what", "for", "minutes", "effort", "load", "state"]
GAUGES: Mapping[str, str] = {
    "monotony": "monotony", "strain": "strain", "change": "change", "acwr_coupled": "coupled",
    "acwr_uncoupled": "uncoupled", "acwr_ewma": "weighted",
}  # fmt: skip
"""Keys of a week's gauges, and what they are called in the table."""
WIDTHS = (12, 8, 40, 16, 10, 10, 10, 12)


@dataclass(frozen=True, slots=True)
class WeekLine:
    """An entry of the week as a line."""

    day: date
    time: time | None
    title: str
    group: str
    minutes: float
    effort: float
    load: float
    state: str


def week_table(lines: Sequence[WeekLine], load: WeekLoad, rows: Sequence[WeekRow]) -> list[list[Cell]]:
    """All lines of the table; a figure that there is not says why."""
    table: list[list[Cell]] = [list(HEAD)]
    for one in lines:
        when = one.time.strftime("%H:%M") if one.time is not None else ""
        table.append(
            [one.day.isoformat(), when, one.title, one.group, one.minutes, one.effort, one.load, one.state]
        )
    table.append([])
    table.append(["in the week", "", "", "", "", "", load["totals"]["load"], ""])
    table.extend([name, "", "", "", "", "", load["totals"][name], ""] for name in CURRENCIES if name != "load")
    for name, label in GAUGES.items():
        gauge: LoadGauge = load[name]  # type: ignore[literal-required]
        table.append([label, "", gauge["why"] or "", "", "", "", gauge["value"], ""])
    table.append([])
    table.append(["row", "", "", "", "", "", "work, min", "share"])
    table.extend([row["name"], "", "", "", "", "", row["work_s"] / 60, row["share"]] for row in rows)
    return table


def week_csv(table: Sequence[Sequence[Cell]]) -> str:
    """The table, comma-separated."""
    return csv_text(table)


def week_xlsx(table: Sequence[Sequence[Cell]]) -> bytes:
    """The table as a workbook with one sheet. Raises ValueError for a workbook without a sheet."""
    # Loaded when a workbook is first asked for, not at the start.
    from openpyxl import Workbook
    from openpyxl.styles import Font

    book = Workbook()
    sheet = book.active
    if sheet is None:
        raise ValueError("a new workbook has a sheet")
    sheet.title = "Week"
    for row in table:
        sheet.append([safe(cell) if isinstance(cell, str) else cell for cell in row])
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for number, width in enumerate(WIDTHS):
        sheet.column_dimensions["ABCDEFGH"[number]].width = width
    for line in sheet.iter_rows(min_row=2, min_col=5, max_col=8):
        for cell in line:
            cell.number_format = "0.0"
    sheet.freeze_panes = "A2"
    return book_bytes(book)
