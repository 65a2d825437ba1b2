"""A session as it is read at a glance: what each block is, in numbers, and its movements."""

from __future__ import annotations

from typing_extensions import TypedDict

from finetally.core.board.names import NameBook
from finetally.core.board.writer import WallWriter, headings
from finetally.core.movements.library import Library
from finetally.core.movements.patterns import ROW_OF, UNASSIGNED
from finetally.core.session.document import Block, Section, Session
from finetally.core.session.parts import blocks_of_entry, steps_of_block
from finetally.core.session.step import Step


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


def outline_of(session: Session, library: Library) -> list[OutlineBlock]:
    """The blocks of a session in their order; a section's line stands in front of its first block's heading."""
    named = library.with_definitions(session.movements)
    wall = WallWriter(NameBook(named), quoting=False)
    lines = iter(headings(session.blocks))
    made: list[OutlineBlock] = []
    for entry in session.blocks:
        before = f"{next(lines)}: " if isinstance(entry, Section) else ""
        for block in blocks_of_entry(entry):
            made.append(
                {
                    "part": block.part or "main",
                    "title": block.title,
                    "heading": before + next(lines),
                    "steps": _outlined(block, wall, named),
                }
            )
            before = ""
    return made


def _outlined(block: Block, wall: WallWriter, library: Library) -> list[OutlineStep]:
    made: list[OutlineStep] = []
    joined = False
    for step in steps_of_block(block):
        one = _step(step, wall, library)
        # What shares a start with the one before it.
        made.append({**one, "words": f"+ {one['words']}"} if joined else one)
        joined = step.chain is True
    return made


def _step(step: Step, wall: WallWriter, library: Library) -> OutlineStep:
    movement = library.get(step.movement)
    patterns = movement.patterns if movement is not None else {}
    row = ROW_OF[max(patterns, key=lambda name: patterns[name])] if patterns else UNASSIGNED
    return {
        "code": row.code,
        "words": wall.piece(step),
        "movement": step.movement,
        "provisional": movement is None,
    }
