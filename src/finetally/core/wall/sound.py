"""What no session can hold goes out of a reading, as little of it as can be, and is told."""

from __future__ import annotations

import re

from finetally.core.movements.library import Library
from finetally.core.session.budget import budget_of
from finetally.core.session.json_value import JsonObject, objects
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.session.reading import parse_session
from finetally.core.unfold.unfold import unfold
from finetally.core.wall.reader import Reading
from finetally.core.wall.unread import Unread

MOST_TRIES = 8
MOST_UNITS = 10_000
"""Units of work of a session in a coach's own words: ten times the longest that is known; else blocks go."""
MOST_UNITS_WRITTEN = 600_000
"""Units of one in the written form, which the Bench writes of any session: as many as one request may take."""
_BLOCK = re.compile(r"blocks\[(\d+)\]")
_STEP = re.compile(r"blocks\[(\d+)\]\.steps\[(\d+)\](?:\.(\w+))?")
OPTIONAL_STEP_KEYS = frozenset(
    {"load", "reserve", "tempo", "pace_s", "effort", "rest_s", "options", "grow", "sides"}
)
"""What a step can do without: it is still in the figures when its load makes no sense."""


def sound(reading: Reading, library: Library, *, most_units: int) -> Reading:
    """A reading that can be figured within some units of work.

    A quality out of bounds goes (`10 swings 4000 kg` are ten swings), else its step, else its block; the words
    of what went are among the unread.
    """
    for _ in range(MOST_TRIES):
        try:
            with budget_of(most_units):
                unfold(parse_session(reading.document), library=library)
        except DocumentError as error:
            if not _without_parts(reading, error.problems):
                _without_blocks(reading, {int(m[1]) for p in error.problems if (m := _BLOCK.match(p.path))})
        else:
            return reading
    _without_blocks(reading, set(range(len(_blocks(reading)))))
    return reading


def _without_parts(reading: Reading, problems: tuple[Problem, ...]) -> bool:
    """Take out qualities and steps that have a problem; whether there were any that a block can do without."""
    found = {(int(m[1]), int(m[2]), m[3] or "") for p in problems if (m := _STEP.match(p.path))}
    gone: dict[int, set[int]] = {}
    done = False
    for block, number, part in sorted(found):
        step = _steps(reading, block)[number : number + 1]
        if not step:
            continue
        if part in OPTIONAL_STEP_KEYS:
            step[0].pop(part, None)
        else:
            gone.setdefault(block, set()).add(number)
        _tell(reading, block, str(step[0]["movement"]))
        done = True
    for block, numbers in gone.items():
        left = [one for at, one in enumerate(_steps(reading, block)) if at not in numbers]
        _blocks(reading)[block]["steps"] = [*left]
    empty = {number for number in gone if not _steps(reading, number)}
    reading.document["blocks"] = [one for number, one in enumerate(_blocks(reading)) if number not in empty]
    return done


def _blocks(reading: Reading) -> list[JsonObject]:
    return [*objects(reading.document["blocks"])]


def _steps(reading: Reading, block: int) -> list[JsonObject]:
    blocks = _blocks(reading)
    return [*objects(blocks[block].get("steps"))] if block < len(blocks) else []


def _tell(reading: Reading, block: int, movement: str) -> None:
    first = reading.lines.get(f"blocks[{block}]", (1, 1))[0]
    line = next((row for key, row in reading.step_rows if key == movement and row >= first), first)
    said = reading.rows[line - 1].strip() if 0 < line <= len(reading.rows) else movement
    if all(one.line != line for one in reading.unread):
        reading.unread.append(Unread(line, said))


def _without_blocks(reading: Reading, numbers: set[int]) -> None:
    document = reading.document
    blocks = _blocks(reading)
    gone = numbers or set(range(len(blocks) // 2, len(blocks)))
    words = [str(document["notes"])] if "notes" in document else []
    for number in sorted(gone):
        if number < len(blocks):
            line = reading.lines.get(f"blocks[{number}]", (1, 1))[0]
            said = reading.said.get(line, "")
            words.append(said)
            reading.unread.append(Unread(line, said))
    document["blocks"] = [one for number, one in enumerate(blocks) if number not in gone]
    notes = "\n".join(words)[:20_000]
    if notes.strip():
        document["notes"] = notes
