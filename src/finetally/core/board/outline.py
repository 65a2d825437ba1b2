"""A session as it is read at a glance: what each block is, in numbers, and its movements."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from typing_extensions import TypedDict

from finetally.core.board.names import NameBook
from finetally.core.board.writer import WallWriter, headings
from finetally.core.movements.library import Library
from finetally.core.movements.patterns import ROW_OF, UNASSIGNED
from finetally.core.session.document import Session
from finetally.core.session.entries import blocks_in


class OutlineStep(TypedDict):
    """A movement: the code of the row it works most, its words, and whether nobody knows it yet."""

    code: str
    words: str
    movement: str
    provisional: bool


class OutlineBlock(TypedDict):
    """A block: its part and title, its heading in numbers, its movements."""

    part: str
    title: str | None
    heading: str
    steps: list[OutlineStep]


def outline_of(document: dict[str, Any], session: Session, library: Library) -> list[OutlineBlock]:
    """The blocks of a document in their order; a section's line stands in front of its first block's heading."""
    named = library.with_definitions(session.movements)
    wall = WallWriter(NameBook(named), quoting=False)
    lines = iter(headings(document))
    made: list[OutlineBlock] = []
    for entry in document["blocks"]:
        before = f"{next(lines)}: " if "section" in entry else ""
        for block in blocks_in(entry):
            made.append(
                {
                    "part": block.get("part") or "main",
                    "title": block.get("title"),
                    "heading": before + next(lines),
                    "steps": _outlined(block, wall, named),
                }
            )
            before = ""
    return made


def _outlined(block: dict[str, Any], wall: WallWriter, library: Library) -> list[OutlineStep]:
    made: list[OutlineStep] = []
    joined = False
    for step in _steps(block):
        one = _step(step, wall, library)
        # What shares a start with the one before it.
        made.append({**one, "words": f"+ {one['words']}"} if joined else one)
        joined = step.get("chain") is True
    return made


def _steps(block: dict[str, Any]) -> Iterator[dict[str, Any]]:
    stations = block["clock"].get("stations") or ()
    yield from (step for station in stations for step in station["steps"])
    yield from block.get("steps") or ()


def _step(step: dict[str, Any], wall: WallWriter, library: Library) -> OutlineStep:
    movement = library.get(step["movement"])
    patterns = movement.patterns if movement is not None else {}
    row = ROW_OF[max(patterns, key=lambda name: patterns[name])] if patterns else UNASSIGNED
    return {
        "code": row.code,
        "words": wall.piece(step),
        "movement": step["movement"],
        "provisional": movement is None,
    }
