"""What is told beside a session that was read, as it is published: places count from 1."""

from __future__ import annotations

from typing_extensions import TypedDict

from finetally.core.movements.library import Library
from finetally.core.movements.names import canonical
from finetally.core.wall.reader import Reading
from finetally.core.wall.tokens.tokens import plain

AssumedTold = TypedDict(
    "AssumedTold",
    {
        "id": str, "line": int, "column": int, "length": int, "rule": str, "said": str, "read_as": str,
        "or": list[str], "readings": list[str], "chosen": int, "settled": bool, "habit": bool,
    },
)  # fmt: skip
"""A place that could be meant another way: what it was read as, the others, and all in their order."""


class UnreadTold(TypedDict):
    """A line that is in no figure."""

    line: int
    text: str


class Told(TypedDict):
    """What was assumed, what was not read, which names are new."""

    assumed: list[AssumedTold]
    unread: list[UnreadTold]
    unknown: list[str]


class NameTold(TypedDict):
    """A new name at one of its places, with the nearest names of the library."""

    key: str
    words: str
    line: int
    column: int
    length: int
    nearest: list[str]


def _place(reading: Reading, line: int, words: str) -> tuple[int, int]:
    """Column and length of words on a line; the whole line where they do not stand as such."""
    row = reading.rows[line - 1] if 0 < line <= len(reading.rows) else ""
    at = plain(row).find(plain(words.strip())) if words.strip() else -1
    if at >= 0:
        return at + 1, len(words.strip())
    return len(row) - len(row.lstrip()) + 1, max(1, len(row.strip()))


def told_of(reading: Reading) -> Told:
    """What is told of a reading."""
    assumed: list[AssumedTold] = []
    for one in sorted(reading.assumed.made, key=lambda one: one.line):
        column, length = _place(reading, one.line, one.said)
        others = [r for n, r in enumerate(one.readings) if n != one.chosen]
        assumed.append(
            {
                "id": one.id, "line": one.line, "column": column, "length": length, "rule": one.rule,
                "said": one.said, "read_as": one.readings[one.chosen], "or": others,
                "readings": list(one.readings), "chosen": one.chosen, "settled": one.settled,
                "habit": one.habit,
            }
        )  # fmt: skip
    unread: list[UnreadTold] = [{"line": one.line, "text": one.text} for one in reading.unread]
    return {"assumed": assumed, "unread": unread, "unknown": reading.unknown}


MAX_NAME_LOOKUPS = 60
"""New names of one text that the nearest are looked up for."""


def new_names(reading: Reading, library: Library) -> list[NameTold]:
    """Every place of a new name."""
    near: dict[str, list[str]] = {}
    made: list[NameTold] = []
    for key, words, line in reading.places:
        if key not in near:
            found = library.nearest(" ".join(canonical(key))) if len(near) < MAX_NAME_LOOKUPS else []
            near[key] = [library[one].name or one for one in found]
        column, length = _place(reading, line, words)
        made.append(
            {"key": key, "words": words, "line": line, "column": column, "length": length, "nearest": near[key]}
        )
    return made
