"""Clashes: the same pattern or joint worked twice with too few hours between (docs/methods.md, "Load")."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from typing_extensions import TypedDict

from finetally.core.week.planned_load import PatternLoad, PlannedLoad, hours_between

CLASH_S = 180.0
CLASH_SETS = 3
CLASH_EPS = 1e-6
SLACK_H = 48
"""Hours between two starts fall short of the days between by a day, and by what clocks are put forward."""


class Clash(TypedDict):
    """Two planned loads, what both work enough of (patterns and joints), the hours between, and those wanted."""

    first: str
    second: str
    days: list[str]
    patterns: list[str]
    joints: list[str]
    hours: float
    wanted: float


def enough(work: PatternLoad) -> bool:
    """Whether main work of a pattern or joint counts: 3 minutes or 3 hard sets."""
    return work.seconds >= CLASH_S - CLASH_EPS or work.hard_sets >= CLASH_SETS


def _shared(one: Mapping[str, PatternLoad], other: Mapping[str, PatternLoad]) -> list[str]:
    return sorted(name for name in one if name in other and enough(one[name]) and enough(other[name]))


def clash_of(one: PlannedLoad, other: PlannedLoad, wanted: float) -> Clash | None:
    """The clash of two planned loads that the same people do, in either order; None if there is none."""
    first, second = (one, other) if (one.day, one.key) <= (other.day, other.key) else (other, one)
    if not first.shares_people(second):
        return None
    hours = hours_between(first, second)
    if hours >= wanted - CLASH_EPS:
        return None
    patterns = _shared(first.summary.main, second.summary.main)
    joints = _shared(first.summary.joints, second.summary.joints)
    if not patterns and not joints:
        return None
    return {
        "first": first.key, "second": second.key, "days": [first.day.isoformat(), second.day.isoformat()],
        "patterns": patterns, "joints": joints, "hours": hours, "wanted": wanted,
    }  # fmt: skip


def clashes(entries: Sequence[PlannedLoad], wanted: float) -> list[Clash]:
    """All clashes in order of days. Only those whose days are near enough are held against each other."""
    ordered = sorted(entries, key=lambda entry: (entry.day, entry.key))
    return list(_pairs(ordered, wanted))


def _pairs(ordered: Sequence[PlannedLoad], wanted: float) -> Iterator[Clash]:
    for index, one in enumerate(ordered):
        for other in ordered[index + 1 :]:
            if (other.day - one.day).days * 24 >= wanted + SLACK_H:
                break
            found = clash_of(one, other, wanted)
            if found is not None:
                yield found
