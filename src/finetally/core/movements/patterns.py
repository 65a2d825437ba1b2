"""Movement patterns: the rows of the stave, the schemes of balance, the beams. One table, used everywhere."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType

from finetally.core.session.movement import FINE_PATTERNS, FinePattern

MAIN_SHARE = 0.5
"""A movement mainly works a pattern, or a row of them, that at least half of its work belongs to."""


@dataclass(frozen=True, slots=True)
class PatternRow:
    """A row of a balance scheme: its name, its two-letter code, and the fine patterns in it."""

    name: str
    code: str
    members: tuple[FinePattern, ...]


EIGHT_ROWS: tuple[PatternRow, ...] = (
    PatternRow("squat", "SQ", ("squat",)),
    PatternRow("hinge", "HI", ("hinge",)),
    PatternRow("lunge", "LU", ("lunge",)),
    PatternRow("push", "PS", ("push-level", "push-overhead")),
    PatternRow("pull", "PU", ("pull-level", "pull-overhead")),
    PatternRow("trunk", "TR", ("brace", "twist", "flex")),
    PatternRow("travel", "TV", ("travel", "carry")),
    PatternRow("jump", "JU", ("jump",)),
)
MOBILITY = PatternRow("mobility", "MO", ("mobility",))
UNASSIGNED = PatternRow("unassigned", "??", ())
"""The row of movements that have no pattern yet."""
SIX_ROOTS: tuple[PatternRow, ...] = (
    *EIGHT_ROWS[:5],
    PatternRow("gait and trunk", "GT", ("travel", "carry", "brace", "twist", "flex")),
)
FORCE_DIRECTIONS: tuple[PatternRow, ...] = tuple(
    PatternRow(name, name, (name,)) for name in FINE_PATTERNS if name != "mobility"
)
SCHEMES = MappingProxyType({"eight-rows": EIGHT_ROWS, "force-directions": FORCE_DIRECTIONS, "six-roots": SIX_ROOTS})
"""Mobility stands apart in every scheme; a pattern that a scheme has no row for (jump in six roots) is left out."""

ROW_OF: MappingProxyType[str, PatternRow] = MappingProxyType(
    {member: row for row in (*EIGHT_ROWS, MOBILITY) for member in row.members}
)
"""The row of the eight (or mobility) that a fine pattern is drawn in."""

FLOOR_POSITIONS = frozenset({"kneeling", "seated", "plank", "prone", "supine"})
"""Positions that cost time to get down to and up from."""


@dataclass(frozen=True, slots=True)
class Beam:
    """Two sides weighed against each other: a name, and weights of fine patterns on either side."""

    name: str
    left: str
    right: str
    left_weights: tuple[tuple[FinePattern, float], ...]
    right_weights: tuple[tuple[FinePattern, float], ...]


_PUSH: tuple[tuple[FinePattern, float], ...] = (("push-level", 1.0), ("push-overhead", 1.0))
_PULL: tuple[tuple[FinePattern, float], ...] = (("pull-level", 1.0), ("pull-overhead", 1.0))
_KNEE: tuple[tuple[FinePattern, float], ...] = (("squat", 1.0), ("lunge", 1.0), ("jump", 0.5))
_HIP: tuple[tuple[FinePattern, float], ...] = (("hinge", 1.0),)
_LOWER: tuple[tuple[FinePattern, float], ...] = (
    ("squat", 1.0),
    ("hinge", 1.0),
    ("lunge", 1.0),
    ("jump", 1.0),
)

PATTERN_BEAMS: tuple[Beam, ...] = (
    Beam("push-pull", "push", "pull", _PUSH, _PULL),
    Beam("knee-hip", "knee", "hip", _KNEE, _HIP),
    Beam("upper-lower", "upper", "lower", _PUSH + _PULL, _LOWER),
    Beam(
        "level-overhead",
        "level",
        "overhead",
        (("push-level", 1.0), ("pull-level", 1.0)),
        (("push-overhead", 1.0), ("pull-overhead", 1.0)),
    ),
)
