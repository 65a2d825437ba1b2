"""What a coach chooses from or reads by name, once: keys of the document and the words for them."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import get_args

from finetally.core.checks.check import Severity
from finetally.core.measures import Measured
from finetally.core.people.limits import Joint, LimitSide
from finetally.core.people.teams import SPLIT_WAYS, SplitBy
from finetally.core.schools import SCHOOLS_TOLD
from finetally.core.session.document import PARTS, Block
from finetally.core.session.movement import MovementDef, Sides
from finetally.core.session.step import Effort, Option
from finetally.core.week.load import CURRENCIES, Currency
from finetally.core.week.plan import INTENT_PARTS, PhaseKind


@dataclass(frozen=True, slots=True)
class NamedKey:
    """A key as documents and requests have it, and the words that a coach sees for it."""

    key: str
    label: str


@dataclass(frozen=True, slots=True)
class NamedCurrency:
    """What load is counted in; `unit`: kilograms where it is a mass, for whoever reads pounds."""

    key: Currency
    label: str
    unit: Measured | None


@dataclass(frozen=True, slots=True)
class School:
    """A method of which there are several schools: the setting's key, its name, and what it may be set to."""

    key: str
    label: str
    choices: tuple[NamedKey, ...]


@dataclass(frozen=True, slots=True)
class Phrases:
    """What the board's editor offers: heads of a line, phrases of a head, qualities of a step."""

    heads: tuple[str, ...]
    phrases: tuple[str, ...]
    qualities: tuple[str, ...]


def _as_they_are(keys: Iterable[str]) -> tuple[NamedKey, ...]:
    return tuple(NamedKey(key, key) for key in keys)


def _literals(model: type, field: str) -> tuple[str, ...]:
    """The words that a field of a document may be, without None."""
    of = model.model_fields[field].annotation  # type: ignore[attr-defined]
    return tuple(word for one in get_args(of) for word in get_args(one) if isinstance(word, str))


PART_NAMES = _as_they_are(PARTS)
EFFORTS = _as_they_are(get_args(Effort))
OPTION_LEVELS = _as_they_are(_literals(Option, "level"))
LANDING_GRADES = _as_they_are(_literals(MovementDef, "landing_grade"))
INTENTS = _as_they_are(INTENT_PARTS)
PHASES = _as_they_are(get_args(PhaseKind))

_SIDES: dict[Sides, str] = {
    "both": "both sides",
    "each": "each side",
    "alternate": "sides take turns",
    "swap": "sides swap",
    "left": "left",
    "right": "right",
}
SIDES = tuple(NamedKey(key, _SIDES[key]) for key in get_args(Sides))

_OPTIONAL = {"exit": "the session may end before it", "skip": "may be left out"}
OPTIONAL = tuple(NamedKey(key, _OPTIONAL[key]) for key in _literals(Block, "optional"))

_SEVERITIES: dict[Severity, str] = {"stop": "Will not work", "look": "Look", "note": "Note"}
SEVERITIES = tuple(NamedKey(key, _SEVERITIES[key]) for key in get_args(Severity))

JOINT_NAMES = _as_they_are(get_args(Joint))
_LIMIT_SIDES: dict[LimitSide, str] = {"both": "both sides", "left": "left", "right": "right"}
LIMIT_SIDE_NAMES = tuple(NamedKey(key, _LIMIT_SIDES[key]) for key in get_args(LimitSide))
_SPLITS: dict[SplitBy, str] = {"pace": "by pace", "lot": "by lot"}
SPLIT_NAMES = tuple(NamedKey(key, _SPLITS[key]) for key in SPLIT_WAYS)

LOAD_UNITS = (
    NamedKey("kg", "kg"),
    NamedKey("lb", "lb"),
    NamedKey("pct_1rm", "% of 1RM"),
    NamedKey("bodyweight", "× body weight"),
)
"""How a load is told: the document keeps kilograms, a share of the maximum or of the body's weight."""

_CURRENCIES: dict[Currency, str] = {
    "load": "Load",
    "work-min": "Work minutes",
    "reps-called": "Reps called",
    "reps-paced": "Reps paced",
    "reps-estimated": "Reps guessed",
    "reps-mixed": "Reps, kind not kept",
    "volume-kg": "Volume load",
    "hard-sets": "Hard sets",
    "landings-low": "Landings, low",
    "landings-medium": "Landings, medium",
    "landings-high": "Landings, high",
    "landings-mixed": "Landings, grade not kept",
}
CURRENCY_NAMES = tuple(
    NamedCurrency(key, _CURRENCIES[key], "kg" if key == "volume-kg" else None) for key in CURRENCIES
)

_ON_THE_BENCH = {"density": "density", "balance": "rows", "balance_by": "weighed by"}
SCHOOLS = tuple(
    School(one.key, _ON_THE_BENCH[one.key], tuple(NamedKey(str(view.value), view.label) for view in one.views))
    for one in SCHOOLS_TOLD
    if one.key in _ON_THE_BENCH
)
"""The schools that the Bench lets one look through (methods.md); a squad sets these and more."""

_HEADS = """
Warm-up:\u0020
Main:\u0020
Finisher:\u0020
Cool-down:\u0020
rest 1:00
note:\u0020
together "", 3 times, 1:00 between:
end together
"""
_PHRASES = """
30 s each
20 s on / 10 s off
8 rounds
strict 20/10
20/10 pairs
movement pyramid
every 1:00
until 0:45
as many rounds as fit in 7:00
for time
cap 15:00
45 s on / 15 s off
one at a time
in pairs
1:00 between groups
1:00 between rounds
stations, 2 laps
30 s to move on
at each station
rest first
mirrored
building up
talk 1:00
hard
all-out
"""
_QUALITIES = """
each side
sides take turns
sides swap
to fill
16 kg
2 in reserve
rest 1:00
"""


def _lines(text: str) -> tuple[str, ...]:
    return tuple(text.strip("\n").split("\n"))


EDITOR_PHRASES = Phrases(heads=_lines(_HEADS), phrases=_lines(_PHRASES), qualities=_lines(_QUALITIES))
