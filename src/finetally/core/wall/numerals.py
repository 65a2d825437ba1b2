"""Numbers of a text that are in no figure, reported in place of "everything was understood".

A number counts as used where its value, in any unit it may be in, is in the session, or in what the session's
clocks come to (starts, windows, minutes in all), or where its digits stand in a title, a name or a note.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from finetally.core.measures import UNIT_SYSTEMS
from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.unfold.tape import Tape
from finetally.core.unfold.unfold import unfold
from finetally.core.wall.reader import Reading

MINUTE_S, HOUR_S, KILO, FOOT_M = 60, 3600, 1000, 0.3048

_NUMERAL = re.compile(r"(?P<first>\d+)[:h'’](?P<second>\d\d)(?::(?P<third>\d\d))?(?!\d)|\d+(?:[.,]\d+)?")
_TEMPO = re.compile(r"(?<!\d)\d\d[\dxX]\d(?!\d)")
_LABEL = re.compile(
    r"\s*(?:[-*•–]\s*)?(?:(?:minute|station|round|set|day|week|part|block)\s+\d{1,2}\s*[:.)-]"
    r"|\(?[A-Za-z]?\d{1,2}[).:]|#\d{1,2}|[A-Za-z]\d{1,2})(?=\s)",
    re.IGNORECASE,
)
_LISTED = re.compile(r"\s*(\d{1,2})\s")


@dataclass(frozen=True, slots=True)
class UnusedNumber:
    """A number in no figure: line and column count from 1."""

    line: int
    column: int
    text: str


def unused_numbers(reading: Reading, library: Library) -> list[UnusedNumber]:
    """The numbers of a text that its session does not use, in their order; not those of lines that are marked."""
    marked = {*reading.note_lines, *(one.line for one in reading.unread)}
    values, words = _known(reading.document, library)
    tempos = set(_tempos(reading.document))
    made: list[UnusedNumber] = []
    before = 0
    for line, row in enumerate(reading.rows, start=1):
        listed = _LISTED.match(row)
        in_order = listed is not None and int(listed[1]) == before + 1
        before = int(listed[1]) if listed is not None and (in_order or listed[1] == "1") else before
        if line in marked:
            continue
        label = _LABEL.match(row) or (listed if in_order else None)
        rest = _TEMPO.sub(lambda one: "    " if one[0].lower().replace("x", "0") in tempos else one[0], row)
        for found in _NUMERAL.finditer(rest, label.end() if label else 0):
            if not (_meanings(found) & values or found[0].lower() in words):
                made.append(UnusedNumber(line, found.start() + 1, found[0]))
    return made


def _known(document: JsonObject, library: Library) -> tuple[set[float], str]:
    """All values of a session and of its tape, rounded to tenths, and all its words."""
    bare = {key: value for key, value in document.items() if key != "wall"}
    values = {round(value, 1) for value in _numbers(bare)}
    words = "\n".join(_texts(bare)).lower()
    try:
        tape = unfold(parse_session(bare), library=library)
    except DocumentError:
        return values, words
    return values | set(_derived(tape)), words


def _numbers(value: JsonValue) -> Iterator[float]:
    if isinstance(value, bool):
        return
    if isinstance(value, int | float):
        yield float(value)
    elif isinstance(value, dict):
        for one in value.values():
            yield from _numbers(one)
    elif isinstance(value, list):
        # A list by round, and what is written of it: how many, from, to, by, and all of them.
        yield float(len(value))
        plain = [one for one in value if isinstance(one, int | float) and not isinstance(one, bool)]
        if len(plain) > 1:
            yield abs(plain[1] - plain[0])
            yield float(sum(plain))
        for one in value:
            yield from _numbers(one)


def _texts(value: JsonValue) -> Iterator[str]:
    if isinstance(value, str):
        yield value
    elif isinstance(value, dict):
        for one in value.values():
            yield from _texts(one)
    elif isinstance(value, list):
        for one in value:
            yield from _texts(one)


def _tempos(value: JsonValue) -> Iterator[str]:
    """Every tempo as its four digits."""
    if isinstance(value, dict):
        tempo = value.get("tempo")
        if isinstance(tempo, list):
            yield "".join(f"{one:g}" for one in tempo if isinstance(one, int | float))
        for one in value.values():
            yield from _tempos(one)
    elif isinstance(value, list):
        for one in value:
            yield from _tempos(one)


def _derived(tape: Tape) -> Iterator[float]:
    """What clocks come to: seconds of their runs, windows and rests; how many windows, visits and sets there are.

    What is done at one's own pace takes a time of its own, which is no number that somebody wrote.
    """
    if not any(of.work_clock.self_paced for of in tape.blocks):
        yield round(tape.total_s, 1)
    for run in tape.runs:
        if tape.blocks[run.block].work_clock.self_paced:
            continue
        yield round(run.clock_end - run.clock_start, 1)
        yield round(run.end - run.start, 1)
        # A table or a running clock names when blocks begin and end.
        yield from (round(run.start, 1), round(run.end, 1))
    for span in tape.spans:
        segments = tape.segments[span.first : span.clock_end]
        yield float(len({one.window for one in segments if one.window is not None}))
        yield float(len({one.visit for one in segments if one.visit is not None}))
        yield float(len(span.sets))
    yield from (round(window.seconds, 1) for window in tape.windows)
    for segment in tape.segments:
        if segment.ends == "clock":
            yield round(segment.seconds, 1)
            yield round(segment.seconds / 2, 1)


def _meanings(found: re.Match[str]) -> set[float]:
    """What a number may come to: itself, seconds, metres or kilograms, a clock, the digits of a tempo."""
    if found["first"] is not None:
        first, second, third = int(found["first"]), int(found["second"]), int(found["third"] or 0)
        return {float(first * MINUTE_S + second), float(first * HOUR_S + second * MINUTE_S + third)}
    plain = float(found[0].replace(",", "."))
    factors = [MINUTE_S, HOUR_S, KILO, FOOT_M, 2, 1 / 2]
    factors += [unit.each for system in UNIT_SYSTEMS.values() for units in system.values() for unit in units]
    return {round(plain * factor, 1) for factor in [1, *factors]}
