"""A movement as it is written on a line, and the kinds of words that belong to one."""

from __future__ import annotations

from dataclasses import dataclass, field

from finetally.core.wall.parts import Dose, LoadPart, LoadsPart
from finetally.core.wall.tokens.token import Token

LADDER_RATIO = 2.5
"""A range of reps goes up to so many times its low end; what goes further is more likely a ladder."""


@dataclass(slots=True)
class Item:
    """One movement as it is written: its words and where they stand (columns from 0), its dose, its qualities."""

    words: list[Token] = field(default_factory=list)
    reps: Dose | None = None
    seconds: Dose | None = None
    metres: Dose | None = None
    sets: int | None = None
    sides: str | None = None
    shared: bool = False
    load: LoadsPart | None = None
    other_load: LoadPart | None = None
    other_reps: int | None = None
    kit: list[str] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    tempo: list[float] | None = None
    reserve: int | None = None
    rpe: float | None = None
    failure: bool = False
    double: int = 1
    fill: bool = False
    easy: bool = False
    ladder: bool = False
    turn: int | None = None
    letter: str = ""
    after_dose: bool = False
    loose_time: Dose | None = None
    pair: tuple[float, float] | None = None
    ranged: tuple[int, int] | None = None
    first: int = 0
    joined: bool = False
    row: int = 0
    label: str = ""
    minutes: bool = False
    rest_after: Dose | None = None
    rest_turn: bool = False
    before: int = 0
    finish: bool = False
    in_window: bool = False
    each_word: bool = False
    cash: bool = False
    """Whether it is done when the window is over: `cash out 50 sit-ups`."""
    either: bool = False
    """Whether it stands behind an `or`: one of the two is done."""
    behind: bool = False
    """Whether its sets are told behind it: `10 squats x 3`."""
    cal: bool = False
    """Whether its reps are calories of a machine."""
    pace: float | None = None
    """Seconds a metre that are told."""

    @property
    def dosed(self) -> bool:
        """Whether a dose is written."""
        return self.failure or any(v is not None for v in (self.reps, self.seconds, self.metres))

    @property
    def empty(self) -> bool:
        """Whether nothing is written at all."""
        return not self.words and not self.dosed and self.load is None and self.sets is None


SOFT_WORDS = frozenset({"walk", "jog", "off", "spin", "walking", "jogging"})
"""What is done between sets, in a bracket behind them."""

HALF_NAMES = frozenset({"up", "over", "out", "clean", "step", "stand"})
"""Words that go on behind an `and`: `step up and over`."""

GOING = frozenset({"walk", "jog", "run", "row", "bike", "ski", "march", "skip", "skipping", "ride", "swim"})
"""What stands before another movement without a comma: `2 min walk hamstring stretch 30 s`."""

NAMING = frozenset(
    [
        "W",
        "HARD",
        "ALT",
        "MAX",
        "SOFT",
        "WORK",
        "START",
        "LEFT",
        "RIGHT",
        "MINUTE",
        "LADDER",
        "STATION",
        "R",
        "CIRCUIT",
        "MOVE",
        "OVER",
        "THROUGH",
        "BWLOAD",
        "PAIRS",
        "ON",
        "OFF",
        "ODD",
        "EVEN",
        "TIMES",
        "TOTAL",
        "LENGTH",
        "LAP",
        "ORDINAL",
        "TO",
        "ADD",
        "BUYIN",
        "BACKDOWN",
        "REST",
        "SUPERSET",
        "SET",
        "NO",
        "STAY",
        "DASH",
        "EVERY",
    ]
)
"""Kinds of words that may be part of a name when nothing else was made of them."""

DOSE_TOKENS = frozenset(
    {"NUM", "RANGE", "LIST", "GROWING", "PAIR", "LRPAIR", "TIME", "TIMELIST", "DIST", "DISTLIST", "LRTIME"}
)
