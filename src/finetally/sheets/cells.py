"""Cells and files that every sheet is made of."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from typing import TYPE_CHECKING

from finetally.core.session.cleaning import cleaned, no_formula

if TYPE_CHECKING:
    from openpyxl import Workbook

Cell = str | float | int | None


def safe(text: str) -> str:
    """Text as a cell: nothing that breaks a workbook, nothing that is taken for a formula."""
    return no_formula(cleaned(text))


def csv_text(rows: Sequence[Sequence[Cell]]) -> str:
    """Comma-separated, numbers to 3 places; text is made safe."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    for row in rows:
        writer.writerow(
            [round(v, 3) if isinstance(v, float) else safe(v) if isinstance(v, str) else v for v in row]
        )
    return out.getvalue()


def book_bytes(book: Workbook) -> bytes:
    """A workbook as a file."""
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
