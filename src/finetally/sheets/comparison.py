"""A comparison as a table for other programs: CSV, and a workbook."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.compare.columns import Column
from finetally.core.compare.rows import ROWS
from finetally.core.tally.figure_table import FigureSpec
from finetally.sheets.cells import Cell, book_bytes, csv_text, safe

UNITS = {
    "s": "s", "share": "0 to 1", "ratio": "work per rest", "count": "", "reps": "reps", "per-min": "reps a minute",
    "kg": "kg", "effort": "0 to 10", "load": "effort × minutes", "split": "share of the first, 0 to 1",
}  # fmt: skip
NUMBER_FORMATS = {"s": "[m]:ss", "share": "0 %", "ratio": "0.00", "per-min": "0.0", "effort": "0.0", "split": "0 %"}
WIDEST = 34


def _lines(columns: Sequence[Column]) -> list[tuple[str, str, list[Cell], FigureSpec | None]]:
    """Every line: what it is, its unit, a value a column, and the row it comes from."""
    lines: list[tuple[str, str, list[Cell], FigureSpec | None]] = [
        ("How it goes", "", ["; ".join(c["wall"]) or c["why"] or "" for c in columns], None),
        ("Left over", "as held", [c["left"] for c in columns], None),
    ]
    for key, row in ROWS.items():
        lines.append((row.label, UNITS[row.unit], [c["values"].get(key) for c in columns], row))
        if any(key in c["spread"] for c in columns):
            for end in ("low", "high"):
                ends: list[Cell] = [c["spread"][key][end] if key in c["spread"] else None for c in columns]
                lines.append((f"{row.label}, {end}est", UNITS[row.unit], ends, row))
    lines.append(("Checks say", "", ["; ".join(k["text"] for k in c["checks"]) for c in columns], None))
    return lines


def comparison_csv(columns: Sequence[Column]) -> str:
    """Comma-separated, times in seconds, numbers to 3 places."""
    head: list[Cell] = ["", "unit", *(column["name"] for column in columns)]
    return csv_text([head, *([label, unit, *values] for label, unit, values, _ in _lines(columns))])


def comparison_xlsx(columns: Sequence[Column]) -> bytes:
    """A workbook with one sheet: times as times, shares as percentages, the head kept in sight.

    Raises ValueError for a workbook without a sheet.
    """
    # Loaded when a workbook is first asked for, not at the start.
    from openpyxl import Workbook
    from openpyxl.styles import Alignment, Font
    from openpyxl.utils import get_column_letter

    book = Workbook()
    sheet = book.active
    if sheet is None:
        raise ValueError("a new workbook has a sheet")
    sheet.title = "Side by side"
    sheet.append(["", "unit", *(safe(column["name"]) for column in columns)])
    for label, unit, values, row in _lines(columns):
        timed = row is not None and row.unit == "s"
        # A day is 1 to a spreadsheet.
        cells = [
            v / 86_400 if timed and isinstance(v, int | float) else safe(v) if isinstance(v, str) else v
            for v in values
        ]
        sheet.append([label, "min:s" if timed else unit, *cells])
        for cell in sheet[sheet.max_row][2:]:
            cell.number_format = NUMBER_FORMATS.get(row.unit, "0") if row is not None else "0.00"
            cell.alignment = Alignment(wrap_text=isinstance(cell.value, str), vertical="top")
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for number, head in enumerate(sheet[1], start=1):
        width = min(WIDEST, max(len(str(head.value or "")) + 2, 14))
        sheet.column_dimensions[get_column_letter(number)].width = width
    sheet.freeze_panes = "C2"
    return book_bytes(book)
