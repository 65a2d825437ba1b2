"""What stands in the written form is read as written, unless it could be meant another way.

Then it is read like any other text, and told. Works on whole texts, and on single blocks of a text that a coach
went on with.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from finetally.core.board.problems import BoardError
from finetally.core.board.reader import PART_HEAD, TITLE_WORD, BoardReading, read_lines
from finetally.core.board.values import reps_text
from finetally.core.movements.library import Library
from finetally.core.movements.sides import one_sided_hold
from finetally.core.session.clocks import Amrap, Every, Intervals, Task
from finetally.core.session.document import Block, Session
from finetally.core.session.json_value import JsonObject, objects
from finetally.core.session.parts import slot_count, steps_of_block
from finetally.core.session.problems import DocumentError, path_text
from finetally.core.session.reading import parse_session
from finetally.core.session.rules import blocks_with_paths
from finetally.core.session.values import CountRange

_PAIR = re.compile(r"(?<![\d/.])\d+(?:\.\d+)?\s*/\s*\d+(?:\.\d+)?(?!\s*/|[\d.])(?!\s*(?:s\s*)?(?:off|pairs))")
_QUOTED = re.compile(r'"[^"]*"|“[^”]*”')
_PRESET = re.compile(r"strict\s+20\s*/\s*10|20\s*/\s*10\s+pairs", re.IGNORECASE)
_MINUTES = re.compile(r"^\s+\d+(?:\.\d+)?\s*(?:min|mins|minutes|')\b", re.IGNORECASE)
_REST = re.compile(r"rest\b", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Written:
    """A stretch of lines (from, to: counted from 0) in the written form, and the entries of the document in it."""

    first: int
    last: int
    entries: list[JsonObject]
    board: BoardReading


def written_whole(lines: list[str], library: Library) -> BoardReading | None:
    """The text, if all of it is in the written form and none of it could be meant another way."""
    first = next((line for line in lines if line.strip()), "")
    if not TITLE_WORD.match(first) and not any(PART_HEAD.match(line) for line in lines):
        return None
    try:
        board = read_lines(lines, library=library)
        session = parse_session(board.document)
    except (BoardError, DocumentError):
        return None
    if any(not stub.quoted for stub in board.stubs) or doubtful(board, session, lines, library):
        return None
    return board


def written_blocks(lines: list[str], library: Library) -> Iterator[Written]:
    """The blocks and sections of a text that stand in the written form."""
    at = 0
    while at < len(lines):
        line = lines[at]
        section = line.lower().startswith("together")
        if not section and not PART_HEAD.match(line):
            at += 1
            continue
        last = _end_of_section(lines, at) if section else _end_of_block(lines, at)
        made = written_whole([*lines[at:last]], library) if last > at + 1 else None
        entries = [] if made is None else [*objects(made.document["blocks"])]
        if made is not None and entries:
            yield Written(at, last, entries, made)
            at = last
        else:
            at += 1


def _end_of_block(lines: list[str], at: int) -> int:
    last = at + 1
    while last < len(lines) and (lines[last][:1].isspace() and lines[last].strip()):
        last += 1
    return last


def _end_of_section(lines: list[str], at: int) -> int:
    for number in range(at + 1, len(lines)):
        if lines[number].strip().lower() == "end together":
            return number + 1
    return at


def doubtful(board: BoardReading, session: Session, lines: list[str], library: Library) -> bool:
    """Whether a text in the written form could be meant another way by whoever wrote it."""
    text = [_QUOTED.sub('""', _PRESET.sub("", line)) for line in lines]
    if any(_PAIR.search(line) for line in text if not _is_note(line) and not TITLE_WORD.match(line)):
        return True
    said = "\n".join(lines)
    for place, block in blocks_with_paths(session):
        path = path_text(place)
        head, below = _lines_of(board, path, lines)
        if _doubtful_block(block, board.explicit.get(path, set()), head, below, library) or _wide(block, said):
            return True
    return _doubtful_end(board, lines)


def _is_note(line: str) -> bool:
    return bool(re.match(r"\s*(?:notes?|cautions?|tags?|space)\s*:", line, re.IGNORECASE))


def _lines_of(board: BoardReading, path: str, lines: list[str]) -> tuple[str, list[str]]:
    first = board.lines[path][0] - 1
    starts = sorted(place[0] - 1 for key, place in board.lines.items() if key.endswith("]") and ".steps" not in key)
    after = next((one for one in starts if one > first), len(lines))
    return lines[first], lines[first + 1 : after]


def _doubtful_block(block: Block, explicit: set[str], head: str, below: list[str], library: Library) -> bool:
    clock = block.clock
    steps = block.steps or []
    if isinstance(clock, Every) and slot_count(steps) > 1 and block.group is None and "turns" not in explicit:
        return True
    if isinstance(clock, Task | Amrap) and clock.rest_s and "after each" not in head.lower():
        return True
    if block.part == "cool-down" and isinstance(clock, Intervals):
        for number, step in enumerate(steps):
            open_window = step.seconds is None and f"shared {number}" not in explicit
            if open_window and one_sided_hold(library.get(step.movement), step.movement):
                return True
    one_sided = any((m := library.get(step.movement)) is not None and m.sides == "each" for step in steps)
    return one_sided and any(_MINUTES.match(line) for line in below)


def _wide(block: Block, said: str) -> bool:
    """Whether reps are a range that would be written out, and is not: a ladder to whoever wrote it."""
    steps = [*steps_of_block(block)]
    told = " ".join(said.lower().split())
    doses = [part.reps for step in steps for part in (step, *(step.options or ()))]
    for reps in doses:
        text = reps_text(reps) if isinstance(reps, CountRange) else None
        if text is not None and text.startswith("between") and text not in told:
            return True
    return False


def _doubtful_end(board: BoardReading, lines: list[str]) -> bool:
    """A rest below the last block: behind it, or between its rounds?"""
    last = next((line for line in reversed(lines) if line.strip()), "")
    return bool(_REST.match(last)) and "after" not in last.lower()
