"""What was taken one of several ways: told at its place, with the other readings, each of which can be chosen."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field


@dataclass(frozen=True, slots=True)
class Assumption:
    """A place that could be meant another way. `chosen` counts into `readings`.

    `settled` if somebody chose it here, `habit` if the habit of reading did.
    """

    id: str
    line: int
    column: int
    length: int
    rule: str
    said: str
    readings: tuple[str, ...]
    chosen: int
    settled: bool
    habit: bool = False


@dataclass(slots=True)
class Assumptions:
    """Collects assumptions while a text is read. `settled`: what was chosen, by assumption; `habits`: by rule."""

    settled: Mapping[str, int] = field(default_factory=dict)
    habits: Mapping[str, int] = field(default_factory=dict)
    made: list[Assumption] = field(default_factory=list)
    _seen: dict[str, int] = field(default_factory=dict)

    def pick(
        self,
        rule: str,
        line: int,
        said: str,
        readings: Sequence[str],
        *,
        column: int = 0,
        length: int = 0,
        first: int = 0,
    ) -> int:
        """Which reading holds: the one chosen for this place, the habit, else `first`. The place is told anyway.

        A place is known by its rule and its words, so that it keeps what was chosen when lines above it change.
        """
        name = hashlib.sha256(f"{rule}|{' '.join(said.lower().split())}".encode()).hexdigest()[:10]
        count = self._seen[name] = self._seen.get(name, 0) + 1
        name = name if count == 1 else f"{name}.{count}"
        chosen = self.settled.get(name)
        settled = chosen is not None and 0 <= chosen < len(readings)
        habit = False
        if not settled:
            usual = self.habits.get(rule)
            habit = usual is not None and 0 <= usual < len(readings)
            chosen = usual if habit else first
        assert chosen is not None
        if len(self.made) < MOST_TOLD:
            self.made.append(
                Assumption(name, line, column, length, rule, said.strip(), tuple(readings), chosen, settled, habit)
            )
        return chosen


MOST_TOLD = 300
"""Assumptions of one text that are told: more are read by nobody."""
