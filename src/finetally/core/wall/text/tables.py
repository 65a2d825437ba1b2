"""Tables pasted from a sheet: a head of sets, reps, load, rest; each row becomes the line a coach would write."""

from __future__ import annotations

import re

TABLE_HEADS = {
    "sets": re.compile(r"sets?|rounds?", re.IGNORECASE),
    "reps": re.compile(r"reps?|dose|time|work|reps?\s*/\s*time", re.IGNORECASE),
    "load": re.compile(r"load|weights?|kgs?|lbs?|%|intensity", re.IGNORECASE),
    "rest": re.compile(r"rests?|pause|recovery", re.IGNORECASE),
    "name": re.compile(r"exercises?|movements?|name|lift|what", re.IGNORECASE),
    "note": re.compile(r"notes?|cues?|tempo|comments?", re.IGNORECASE),
}
_NOTHING = re.compile(r"\s*[-–—.]*\s*")


def _cells(line: str) -> list[str]:
    parts = line.split("\t") if "\t" in line else line.strip("|").split("|") if line.count("|") > 2 else []
    return [one.strip() for one in parts]


def _head(cells: list[str]) -> dict[int, str] | None:
    found: dict[int, str] = {}
    for index, cell in enumerate(cells):
        for name, pattern in TABLE_HEADS.items():
            if name not in found.values() and pattern.fullmatch(cell):
                found[index] = name
                if name == "load" and cell.lower() in ("kg", "lb", "lbs", "kgs", "%"):
                    found[-1] = cell.lower()
                break
    named = set(found.values())
    return found if len(named & {"sets", "reps", "load", "rest"}) > 1 else None


def without_tables(text: str) -> str:
    """The text with the rows of its tables as lines of words, line for line."""
    if "\t" not in text and "|" not in text:
        return text
    head: dict[int, str] | None = None
    lines = []
    for line in text.split("\n"):
        cells = _cells(line)
        if head is not None and (not line.strip() or len([c for c in cells if c]) < 2):
            head = None
        if head is None and cells:
            head = _head(cells)
            if head is not None:
                lines.append("")
                continue
        lines.append(_row(cells, head) if head is not None and cells else line)
    return "\n".join(lines)


def _row(cells: list[str], head: dict[int, str]) -> str:
    values = {head[i]: cell for i, cell in enumerate(cells) if i in head and not _NOTHING.fullmatch(cell)}
    loose = [cell for i, cell in enumerate(cells) if i not in head and not _NOTHING.fullmatch(cell)]
    label = ""
    if loose and re.fullmatch(r"\d{1,2}|[A-Za-z]?\d?[a-z]?", loose[0]) and len(loose) + ("name" in values) > 1:
        label = loose.pop(0)
    name = values.get("name") or (loose.pop(0) if loose else "")
    sets, reps = values.get("sets", ""), values.get("reps", "")
    dose = f"{sets} x {reps}" if sets and reps else reps or (f"{sets} sets" if sets else "")
    load = values.get("load", "")
    if load and re.fullmatch(r"[\d.,/x\s]+", load):
        unit = head.get(-1, "kg")
        load = f"{load} {unit}" if unit != "%" else f"{load} %"
    rest = f"rest {values['rest']}" if "rest" in values else ""
    match = re.fullmatch(r"(\d{1,2})([a-z])", label)
    if match:
        label = f"{chr(64 + min(26, int(match[1])))}{ord(match[2]) - 96}"
    elif label.isdigit():
        label = f"{label}."
    parts = [f"{label} {name} {dose}".strip(), load, rest, *loose]
    return ", ".join(one for one in parts if one)
