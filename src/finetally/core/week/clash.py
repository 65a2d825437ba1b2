"""Clashes: the same pattern or joint worked on two days with too few hours between (docs/methods.md, "Load")."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from typing_extensions import TypedDict

from finetally.core.week.bout import Bout, Work, hours_between

CLASH_S = 180.0
CLASH_SETS = 3
EPS = 1e-6
SLACK_H = 48
"""Hours between two starts fall short of the days between by a day, and by what clocks are put forward."""


class Clash(TypedDict):
    """Two bouts, what both work enough of (patterns and joints), the hours between, and those wanted."""

    first: str
    second: str
    days: list[str]
    patterns: list[str]
    joints: list[str]
    hours: float
    wanted: float


def enough(work: Work) -> bool:
    """Whether main work of a pattern or joint counts: 3 minutes or 3 hard sets."""
    return work.seconds >= CLASH_S - EPS or work.hard_sets >= CLASH_SETS


def _shared(one: Mapping[str, Work], other: Mapping[str, Work]) -> list[str]:
    return sorted(name for name in one if name in other and enough(one[name]) and enough(other[name]))


def clash_of(one: Bout, other: Bout, wanted: float) -> Clash | None:
    """The clash of two bouts of different days; None if there is none. In whichever order they come."""
    first, second = (one, other) if (one.day, one.key) <= (other.day, other.key) else (other, one)
    if first.day == second.day:
        return None
    hours = hours_between(first, second)
    if hours >= wanted - EPS:
        return None
    patterns = _shared(first.amount.main, second.amount.main)
    joints = _shared(first.amount.joints, second.amount.joints)
    if not patterns and not joints:
        return None
    return {
        "first": first.key, "second": second.key, "days": [first.day.isoformat(), second.day.isoformat()],
        "patterns": patterns, "joints": joints, "hours": hours, "wanted": wanted,
    }  # fmt: skip


def clashes(bouts: Sequence[Bout], wanted: float) -> list[Clash]:
    """All clashes in order of days. Only bouts whose days are near enough are held against each other."""
    ordered = sorted(bouts, key=lambda bout: (bout.day, bout.key))
    return list(_pairs(ordered, wanted))


def _pairs(ordered: Sequence[Bout], wanted: float) -> Iterator[Clash]:
    for index, one in enumerate(ordered):
        for other in ordered[index + 1 :]:
            if (other.day - one.day).days * 24 >= wanted + SLACK_H:
                break
            found = clash_of(one, other, wanted)
            if found is not None:
                yield found
