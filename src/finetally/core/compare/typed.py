"""Movements typed as on a wall, with or without doses: what is poured where there is no plan."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.session.movement import MovementDef
from finetally.core.session.parts import steps_of_entry, without
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Step
from finetally.core.wall.reader import Reading
from finetally.core.wall.reading import read_wall

A_CLOCK = "40/20"
"""A heading under which a movement needs no dose."""


@dataclass(frozen=True, slots=True)
class TypedMovements:
    """Steps in order, without ids; names that are not known; lines that say no movement."""

    steps: tuple[Step, ...]
    definitions: tuple[MovementDef, ...] = ()
    unknown: tuple[str, ...] = ()
    unread: tuple[str, ...] = ()


def read_movements(text: str, *, library: Library) -> TypedMovements:
    """Read movements line by line (or with commas between them); anything else that a wall says is left aside.

    A line with a dose is read as it stands; one without as what is done in a window. Raises BoardError for a text
    that is too large.
    """
    steps: list[Step] = []
    definitions: dict[str, MovementDef] = {}
    unknown: list[str] = []
    unread: list[str] = []
    for line in filter(None, (line.strip() for line in text.splitlines())):
        session, reading = _read(line, library)
        found = _steps(session)
        if not found or reading.unread:
            session, reading = _read(f"{A_CLOCK}\n{line}", library)
            found = _steps(session)
        new = [name for name in reading.unknown if name.lower() in line.lower()]
        if not found or len(new) < len(reading.unknown):
            # Nothing, or a name that the reader had to make up.
            unread.append(line)
            continue
        steps += found
        unknown += new
        definitions.update({one.key: one for one in session.movements or ()})
    return TypedMovements(
        tuple(steps), tuple(definitions.values()), tuple(dict.fromkeys(unknown)), tuple(dict.fromkeys(unread))
    )


def _read(text: str, library: Library) -> tuple[Session, Reading]:
    reading = read_wall(text, library=library)
    return parse_session(reading.document), reading


def _steps(session: Session) -> Sequence[Step]:
    return [without(step, "id", "rest_s", "effort") for entry in session.blocks for step in steps_of_entry(entry)]
