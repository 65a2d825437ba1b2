"""Recordings of watches as files: of all that they hold the time and the pulse alone are read."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator
from datetime import datetime
from typing import Any
from xml.etree.ElementTree import ParseError

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import iterparse

from finetally.core.log.pulse import PulseSample
from finetally.core.session.problems import refuse, shown

HEADINGS_OF_CSV = ("time_s", "hr")


def read_recording(kind: str, text: str) -> list[PulseSample]:
    """The samples of a file, `csv` (time_s,hr) or `tcx`, as they stand. Raises DocumentError with the line."""
    return list(_csv(text) if kind == "csv" else _tcx(text))


def _csv(text: str) -> Iterator[PulseSample]:
    rows = _rows(text)
    head = [one.strip().lower() for one in next(rows, [])]
    if not set(HEADINGS_OF_CSV) <= set(head):
        raise refuse(("text",), shown(",".join(head)[:80]), "a first line time_s,hr", "headings")
    time_at, pulse_at = head.index("time_s"), head.index("hr")
    for number, row in enumerate(rows, start=2):
        if not row:
            continue
        try:
            yield float(row[time_at]), float(row[pulse_at])
        except (ValueError, IndexError):
            raise refuse(
                ("text",), f"line {number}: {shown(','.join(row)[:60])}", "seconds and a pulse", "line"
            ) from None


def _rows(text: str) -> Iterator[list[str]]:
    """The rows of a table. Raises DocumentError for what is none (a cell without an end)."""
    rows = csv.reader(io.StringIO(text))
    try:
        yield from rows
    except csv.Error as error:
        raise refuse(("text",), f"line {rows.line_num}: {error}", "a table with commas", "line") from None


def _tcx(text: str) -> Iterator[PulseSample]:
    begun: datetime | None = None
    at: datetime | None = None
    try:
        for _, element in iterparse(io.BytesIO(text.encode("utf-8")), events=("end",), forbid_dtd=True):
            name = element.tag.rpartition("}")[2]
            if name == "Time":
                at = _moment(element.text)
            elif name == "HeartRateBpm" and at is not None:
                pulse = next(
                    (float(one.text or 0) for one in element if one.tag.rpartition("}")[2] == "Value"), None
                )
                begun = begun or at
                if pulse is not None:
                    yield (at - begun).total_seconds(), pulse
            elif name == "Trackpoint":
                element.clear()
    except (ParseError, DefusedXmlException, ValueError, TypeError, LookupError) as error:
        raise refuse(("text",), f"no such file ({type(error).__name__})", "a TCX file", "not_tcx") from None


def _moment(text: Any) -> datetime:
    return datetime.fromisoformat(str(text or "").strip().replace("Z", "+00:00"))
