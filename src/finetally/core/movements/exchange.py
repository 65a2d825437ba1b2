"""Movements as a table (CSV) or a list (JSON), in and out. A wrong file says where, and nothing is taken of it."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Iterable, Sequence

from pydantic import ValidationError

from finetally.core.session.cleaning import cleaned, formula_again, no_formula
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.movement import MovementDef
from finetally.core.session.problems import DocumentError, Problem, path_text, shown
from finetally.core.session.reading import read_json

MAX_MOVEMENTS = 2_000
"""Movements of one file: ten times the shipped library."""

COLUMNS = (
    "key", "name", "aliases", "patterns", "muscles", "relieves", "plane", "position", "sides", "rep_is", "pace_s",
    "speed_mps", "met", "met_source", "landings", "landing_grade", "skilled", "stresses", "kit", "contains",
    "easier", "harder", "kit_swaps", "cues", "cautions",
)  # fmt: skip
NUMBERS = frozenset({"pace_s", "speed_mps", "met", "landings"})
WEIGHTS = frozenset({"patterns", "muscles"})
LISTS = frozenset({"aliases", "relieves", "stresses", "kit", "easier", "harder", "kit_swaps", "cues", "cautions"})

ALLOWED = {
    "contains": "reps and movements such as 2 push-up; 1 squat-jump",
    **dict.fromkeys(WEIGHTS, "weights such as squat 0.6; hinge 0.4"),
}


def cell_text(name: str, value: JsonValue) -> str:
    """A field of a definition as a table has it: lists parted by semicolons, weights as `squat 0.6`.

    What a rep contains is written `2 push-up; 1 squat-jump`.
    """
    if value is None:
        return ""
    if name == "contains" and isinstance(value, list):
        return "; ".join(_contained(one) for one in value if isinstance(one, dict))
    if isinstance(value, dict):
        return "; ".join(f"{part} {weight:g}" for part, weight in value.items() if isinstance(weight, int | float))
    if isinstance(value, list):
        return "; ".join(no_formula(str(one)) for one in value)
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:g}" if isinstance(value, int | float) else no_formula(value)


def _contained(one: JsonObject) -> str:
    reps = one.get("reps")
    return f"{reps:g} {one.get('movement')}" if isinstance(reps, int | float) else str(one.get("movement"))


def movements_csv(movements: Iterable[MovementDef]) -> str:
    """One movement a line; lists parted by semicolons, weights as `squat 0.6; hinge 0.4`."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for movement in movements:
        given = movement.model_dump(mode="json", exclude_unset=True)
        writer.writerow(cell_text(name, given.get(name)) for name in COLUMNS)
    return out.getvalue()


def movements_json(movements: Iterable[MovementDef]) -> str:
    """A list of definitions as written."""
    listed = [movement.model_dump(mode="json", exclude_unset=True) for movement in movements]
    return json.dumps(listed, ensure_ascii=False, indent=1) + "\n"


def read_movements_json(data: str) -> list[MovementDef]:
    """Read a list of definitions. Raises DocumentError with the path of every problem."""
    value = read_json(data)
    if not isinstance(value, list):
        raise DocumentError([Problem("(document)", shown(value), "a list of movements", "list_type")])
    return _validated([(f"[{index}]", one) for index, one in enumerate(value)])


def read_movements_csv(data: str) -> list[MovementDef]:
    """Read a table with a head line. Raises DocumentError; places are `line 3, patterns`."""
    try:
        rows = list(csv.reader(io.StringIO(cleaned(data).lstrip("\ufeff")), strict=True))
    except csv.Error as error:
        raise DocumentError([Problem("(document)", str(error), "comma-separated text", "not_csv")]) from None
    head = [name.strip() for name in rows[0]] if rows else []
    if "key" not in head:
        found = shown(", ".join(head)) if head else "nothing"
        raise DocumentError([Problem("line 1", found, "a head line with at least key and patterns", "head")])
    unknown = [name for name in head if name not in COLUMNS]
    if unknown:
        raise DocumentError([Problem("line 1", shown(unknown[0]), ", ".join(COLUMNS), "head")])
    problems: list[Problem] = []
    found_rows: list[tuple[str, JsonValue]] = []
    for number, row in enumerate(rows[1:], start=2):
        if any(cell.strip() for cell in row):
            found_rows.append((f"line {number}", _row(head, row, f"line {number}", problems)))
    if problems:
        raise DocumentError(problems)
    return _validated(found_rows)


def _row(head: list[str], row: list[str], place: str, problems: list[Problem]) -> JsonObject:
    made: JsonObject = {}
    if len(row) > len(head):
        problems.append(Problem(place, f"{len(row)} cells", f"at most {len(head)}", "cells"))
    for name, cell in zip(head, row, strict=False):
        text = cell.strip()
        if text:
            try:
                made[name] = _read_cell(name, text)
            except ValueError:
                allowed = ALLOWED.get(name, "a number")
                problems.append(Problem(f"{place}, {name}", shown(text), allowed, "number"))
    return made


def _read_cell(name: str, text: str) -> JsonValue:
    if name in NUMBERS:
        number = float(text)
        return int(number) if number.is_integer() else number
    if name in WEIGHTS:
        pairs = [part.rsplit(None, 1) for part in text.split(";") if part.strip()]
        return {part.strip(): float(weight) for part, weight in pairs}
    if name == "contains":
        parts = [part.split(None, 1) for part in text.split(";") if part.strip()]
        return [{"reps": int(reps), "movement": formula_again(movement.strip())} for reps, movement in parts]
    if name in LISTS:
        return [formula_again(part.strip()) for part in text.split(";") if part.strip()]
    return text.lower() in ("yes", "true", "1") if name == "skilled" else formula_again(text)


def _validated(rows: Sequence[tuple[str, JsonValue]]) -> list[MovementDef]:
    if len(rows) > MAX_MOVEMENTS:
        raise DocumentError([Problem("(document)", f"{len(rows)} movements", f"up to {MAX_MOVEMENTS}", "too_many")])
    problems: list[Problem] = []
    made: list[MovementDef] = []
    seen: set[str] = set()
    for place, row in rows:
        try:
            movement = MovementDef.model_validate(row)
        except ValidationError as error:
            for detail in error.errors(include_url=False):
                where = path_text(tuple(part for part in detail["loc"] if part != "[key]"))
                allowed = str((detail.get("ctx") or {}).get("allowed", detail["msg"].lower()))
                path = f"{place}, {where}" if where != "(document)" else place
                problems.append(Problem(path, shown(detail["input"]), allowed, detail["type"]))
            continue
        if movement.key in seen:
            problems.append(Problem(f"{place}, key", repr(movement.key), "each key once", "duplicate_key"))
        elif not movement.patterns:
            problems.append(Problem(f"{place}, patterns", "nothing", "pattern weights that add up to 1", "missing"))
        seen.add(movement.key)
        made.append(movement)
    if problems:
        raise DocumentError(problems)
    return made
