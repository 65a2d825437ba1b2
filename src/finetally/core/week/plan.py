"""What a week is meant to be: its phase's load, each day's intent, and the rules that hold."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Literal

from finetally.core.week.balance import Target

Intent = Literal["hard", "medium", "easy", "rest"]
PhaseKind = Literal["build", "hold", "ease", "test"]

INTENT_PARTS: Mapping[str, float] = MappingProxyType({"hard": 3.0, "medium": 2.0, "easy": 1.0, "rest": 0.0})
"""A day's share of the week's load goes by these parts, unless the coach gives it a share."""

BAND = 0.05
"""A target load without ends of its own is met within so much of it."""


@dataclass(frozen=True, slots=True)
class Band:
    """The load a week is to come to: from `low` to `high`."""

    low: float
    high: float

    @classmethod
    def around(cls, load: float) -> Band:
        """The band around one target, BAND of it to either side (load: effort × minutes)."""
        return cls(load * (1 - BAND), load * (1 + BAND))

    @property
    def middle(self) -> float:
        """The load in the middle."""
        return (self.low + self.high) / 2

    def off(self, load: float) -> float:
        """By how much a load is over the band; below 0 by how much it falls short; 0 within it, ends included."""
        return max(0.0, load - self.high) or min(0.0, load - self.low)


@dataclass(frozen=True, slots=True)
class Rules:
    """What holds in a week. Days are numbered from its first, 0 to 6.

    `rest_days`: nothing is put there; `no_hall`: no session, other training may be. `gone_days` are over: what
    stands there stays as it is, and nothing is put there. `clash_hours` None: clashes are allowed. `landings_cap`
    is of the week. `hard_load` None: only effort makes a day hard.
    """

    band: Band | None = None
    intents: Mapping[int, Intent] = field(default_factory=dict)
    shares: Mapping[int, float] = field(default_factory=dict)
    rest_days: frozenset[int] = frozenset()
    no_hall: frozenset[int] = frozenset()
    gone_days: frozenset[int] = frozenset()
    most_a_day: int | None = 2
    no_two_hard: bool = True
    clash_hours: float | None = 48
    landings_cap: float | None = None
    hard_effort: float = 7
    hard_load: float | None = None
    monotony_under: bool = True
    targets: Sequence[Target] = ()


def intended(rules: Rules, week_load: float, planned: Sequence[float]) -> dict[int, float]:
    """The load each day with an intent is to carry, of a week that comes to `week_load`. Empty without any.

    Days with a share of their own take it. Days without an intent keep what is `planned` on them (loads of the
    seven days); the days with one share what is left by their intents' parts.
    """
    if not rules.intents and not rules.shares:
        return {}
    given = {day: share for day, share in rules.shares.items() if 0 <= day < len(planned)}
    parts = {day: INTENT_PARTS[intent] for day, intent in rules.intents.items() if day not in given}
    kept = sum(load for day, load in enumerate(planned) if day not in given and day not in parts)
    left = max(0.0, week_load * (1 - sum(given.values())) - kept)
    total = sum(parts.values())
    made = {day: share * week_load for day, share in given.items()}
    made.update({day: left * part / total if total else 0.0 for day, part in parts.items()})
    return dict(sorted(made.items()))
