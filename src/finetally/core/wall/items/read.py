"""A line as it is read: what it says of time, and its movements."""

from __future__ import annotations

from dataclasses import dataclass

from finetally.core.wall.items.item import Item
from finetally.core.wall.items.names import trimmed
from finetally.core.wall.parts import Dose
from finetally.core.wall.text.lines import Line
from finetally.core.wall.tokens.rules import Fact, Scanned
from finetally.core.wall.tokens.words import KIT_WORDS

STARTING = frozenset(
    {
        "amrap",
        "every",
        "windows",
        "each",
        "rounds",
        "pyramid",
        "superset",
        "stations",
        "growlist",
        "deathby",
        "forlong",
    }
)
"""Facts that begin a block."""
HEADS = STARTING | {"laps", "total", "turns", "cap", "fortime", "grow", "repeat"}
"""Facts that are said of a block as a whole."""


@dataclass(slots=True)
class ReadLine:
    """A line with its facts and items."""

    line: Line
    scanned: Scanned
    items: list[Item]
    block_label: bool = False

    @property
    def heads(self) -> list[Fact]:
        """Facts that say how time passes."""
        return [f for f in self.scanned.facts if f.kind in HEADS]

    @property
    def rests(self) -> list[Fact]:
        """Facts of rests."""
        return [f for f in self.scanned.facts if f.kind == "rest"]

    @property
    def lengths(self) -> bool:
        """Whether lengths of a lane are counted on the line."""
        return any(t.kind == "LENGTH" for t in self.scanned.tokens)

    @property
    def starts(self) -> bool:
        """Whether the line begins a block by what it says."""
        return self.scanned.has(*STARTING)

    @property
    def named(self) -> list[Item]:
        """The items that have words."""
        return [one for one in self.items if one.words]


def head_list(one: ReadLine) -> tuple[list[int], bool] | None:
    """A list of numbers that stands on a head by itself: `21-15-9`, `Squad ladder: 3, 6, 9`."""
    ladder = any(t.kind == "LADDER" for t in one.scanned.tokens)
    for item in one.items:
        if isinstance(item.reps, list) and (
            not item.words or (ladder and not item.sets and len(one.items) == 1 and item.label == "heading")
        ):
            return [int(one) for one in item.reps], item.ladder
        if (
            ladder
            and isinstance(item.reps, list)
            and item.words
            and all(t.kind == "LADDER" or t.kind in ("ALT",) for t in item.words)
        ):
            return [int(one) for one in item.reps], item.ladder
        if item.ranged is not None and not item.words and (item.ladder or 1 in item.ranged or ladder):
            return counting(*item.ranged), False
    return None


def counting(a: int, b: int) -> list[int]:
    """The whole numbers from one to another, up or down; at most 200."""
    step = 1 if b >= a else -1
    return list(range(a, b + step, step))[:200]


def name_text(item: Item) -> str:
    """The words that name an item, filler left out."""
    return " ".join(trimmed([t.text for t in item.words]))


def longest(value: Dose | None) -> float:
    """The most that an amount may be, in its unit; 0 of a list or nothing."""
    if isinstance(value, dict):
        return float(value["high"])
    return float(value) if isinstance(value, int | float) else 0.0


def seconds_only(one: ReadLine) -> bool:
    """Whether no movement of a line has reps or metres."""
    return all(i.reps is None and i.metres is None for i in one.items)


def tool_of(item: Item) -> str:
    """The kit that a heading names for all its lines: `sandbag:`, `one bell:`; empty if it names none."""
    words = [t.text for t in item.words if t.text not in ("one", "a", "the", "single")]
    alone = item.label == "heading" or (item.load is not None and not item.dosed)
    return words[0] if alone and len(words) == 1 and words[0] in KIT_WORDS else ""
