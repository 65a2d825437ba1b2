"""`read_wall`: any text becomes a session."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from finetally.core.movements.library import Library
from finetally.core.movements.names import EverydayNames
from finetally.core.session.cleaning import cleaned
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.reader import Reading, TextReader


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
    return TextReader(library, everyday_names(library), assumed).read(lines)
