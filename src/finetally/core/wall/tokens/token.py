"""A piece of a line: its kind, and its value by that kind."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from typing_extensions import TypedDict

from finetally.core.wall.parts import Amount, LoadPart


class SaidLoad(TypedDict):
    """A load as it is said: the heavier one, the other behind a stroke, and whether it was a range."""

    load: LoadPart
    other: LoadPart | None
    range: bool


@dataclass(slots=True)
class Token:
    """A piece of a line: what kind, its words, its value, and where it stands (columns from 0).

    The kind says what the value is; the readers below give it with its type.
    """

    kind: str
    text: str
    value: Any
    start: int
    end: int

    @property
    def number(self) -> float:
        """Of NUM, SUM, RPE, RIR, PACE, RATIO; of EVERYT and LRTIME in seconds."""
        value: float = self.value
        return value

    @property
    def amount(self) -> Amount:
        """Of TIME in seconds, of DIST in metres, of NUM."""
        value: Amount = self.value
        return value

    @property
    def pair(self) -> tuple[float, float]:
        """The two numbers of PAIR, RANGE or LRPAIR, as they are written."""
        value: tuple[float, float] = self.value
        return value

    @property
    def listed(self) -> list[int]:
        """Of LIST, GROWING; of TIMELIST in seconds, of DISTLIST in metres."""
        value: list[int] = self.value
        return value

    @property
    def load(self) -> SaidLoad:
        """Of LOAD."""
        value: SaidLoad = self.value
        return value

    @property
    def loads(self) -> list[LoadPart]:
        """Of LOADLIST."""
        value: list[LoadPart] = self.value
        return value
