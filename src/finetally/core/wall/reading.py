"""`read_wall`: any text becomes a session."""

from __future__ import annotations

import re
from collections.abc import Mapping
from functools import lru_cache

from finetally.core.movements.library import Library
from finetally.core.movements.names import EverydayNames
from finetally.core.session.cleaning import cleaned
from finetally.core.wall.assumptions import Assumptions
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.wall.reader import Reading, TextReader
from finetally.core.wall.unread import Unread


@lru_cache(maxsize=8)
def everyday_names(library: Library) -> EverydayNames:
    """The everyday names of a library."""
    return EverydayNames(library)


def read_wall(
    text: str, *, library: Library, settled: Mapping[str, int] | None = None, habits: Mapping[str, int] | None = None
) -> Reading:
    """Read any text. Never raises for what is written; what it cannot read is kept and told."""
    assumed = Assumptions(settled or {}, habits or {})
    lines = cleaned(text).replace("\r\n", "\n").replace("\r", "\n")
    reading = TextReader(library, everyday_names(library), assumed).read(lines)
    return whole(reading)


_BLOCK = re.compile(r"blocks\[(\d+)\]")


def whole(reading: Reading) -> Reading:
    """A reading whose document is sound: a block that no session can hold becomes a note that is told."""
    for _ in range(MOST_TRIES):
        try:
            parse_session(reading.document)
        except DocumentError as error:
            _without(reading, {int(m[1]) for p in error.problems if (m := _BLOCK.match(p.path))})
        else:
            return reading
    blocks = reading.document["blocks"]
    _without(reading, set(range(len(blocks))))
    return reading


MOST_TRIES = 5


def _without(reading: Reading, numbers: set[int]) -> None:
    document = reading.document
    gone = numbers or set(range(len(document["blocks"]) // 2, len(document["blocks"])))
    words = []
    for number in sorted(gone):
        if number < len(document["blocks"]):
            line = reading.lines.get(f"blocks[{number}]", (1, 1))[0]
            said = reading.said.get(line, "")
            words.append(said)
            reading.unread.append(Unread(line, said))
    document["blocks"] = [one for number, one in enumerate(document["blocks"]) if number not in gone]
    notes = "\n".join([*([document["notes"]] if "notes" in document else []), *words])[:20_000]
    if notes.strip():
        document["notes"] = notes
