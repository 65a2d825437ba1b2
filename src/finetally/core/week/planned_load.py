"""A planned load: what one entry of the plan gives to its day, a session or any other training."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta

from finetally.core.movements.patterns import EIGHT_ROWS, MAIN_SHARE, ROW_OF
from finetally.core.tally.measure import Tally

HARD_SET_EFFORT = 7.0
"""A visit at this effort or above is a hard set."""


@dataclass(frozen=True, slots=True)
class PatternLoad:
    """Main work of a pattern or on a joint: seconds, and hard sets."""

    seconds: float = 0.0
    hard_sets: int = 0

    def plus(self, seconds: float, hard_sets: int) -> PatternLoad:
        """With so many seconds and hard sets more."""
        return PatternLoad(self.seconds + seconds, self.hard_sets + hard_sets)


@dataclass(frozen=True, slots=True)
class LoadSummary:
    """What a session comes to in every currency, and where it falls on the body.

    `reps` by how they are known, `landings` by grade: kinds are never added up ("mixed": kept by an older release,
    which did). Load, effort and minutes are the whole session's (or what the methods say), reps, kilograms and
    landings the whole session's, the rest that of the parts that count.

    `patterns`: seconds of work by fine pattern, and `left_s`, `right_s`, of the counted parts. `main`: work of the
    main part by row of the stave; `joints`: by joint that it stresses. Other training has load and minutes alone.
    """

    load: float = 0.0
    effort: float = 0.0
    minutes: float = 0.0
    work_s: float = 0.0
    reps: Mapping[str, int] = field(default_factory=dict)
    volume_kg: float = 0.0
    landings: Mapping[str, int] = field(default_factory=dict)
    hard_sets: int = 0
    patterns: Mapping[str, float] = field(default_factory=dict)
    left_s: float = 0.0
    right_s: float = 0.0
    main: Mapping[str, PatternLoad] = field(default_factory=dict)
    joints: Mapping[str, PatternLoad] = field(default_factory=dict)

    @property
    def limited_landings(self) -> int:
        """The landings that a limit is about: medium and high ones, as `landings-high` has it (NSCA)."""
        return sum(self.landings.get(grade, 0) for grade in ("medium", "high", "mixed"))


@dataclass(frozen=True, slots=True)
class PlannedLoad:
    """One entry of the plan: its day, what it comes to, when it starts (with its time zone; None: no time).

    `people`: who it is for, by name or number; None: everybody.
    """

    key: str
    day: date
    summary: LoadSummary
    starts: datetime | None = None
    title: str = ""
    logged: bool = False
    people: frozenset[str] | None = None

    def shares_people(self, other: PlannedLoad) -> bool:
        """Whether somebody is to do both."""
        return self.people is None or other.people is None or bool(self.people & other.people)


GAP_MIN = 30
"""Minutes that people need between two sessions (house assumption: to rest, drink, and get there)."""


def overlaps(one: PlannedLoad, other: PlannedLoad) -> bool:
    """Whether one begins before the other is over, and 30 minutes more, for somebody who is to do both."""
    if one.starts is None or other.starts is None or not one.shares_people(other):
        return False
    first = one if one.starts <= other.starts else other
    minutes = abs(other.starts - one.starts) / timedelta(minutes=1)
    return minutes < first.summary.minutes + GAP_MIN - 1e-6


def other_training(minutes: float, effort: float) -> LoadSummary:
    """A hike, a match: load = effort (0-10) × minutes (Foster 2001), nothing else is known of it."""
    return LoadSummary(load=effort * minutes, effort=effort, minutes=minutes)


def summary_of(t: Tally) -> LoadSummary:
    """What a tallied session comes to."""
    counted_rows = {row.name for row in EIGHT_ROWS}
    patterns: dict[str, float] = {}
    left_s = right_s = 0.0
    main: dict[str, PatternLoad] = {}
    joints: dict[str, PatternLoad] = {}
    hard_sets = 0
    efforts = _visit_efforts(t)
    for number, visit in enumerate(t.tape.visits):
        if not t.counted[visit.block] or visit.seconds <= 0:
            continue
        hard = int(efforts[number] >= HARD_SET_EFFORT)
        hard_sets += hard
        left_s += visit.left_s
        right_s += visit.right_s
        shares: dict[str, float] = {}
        for pattern, weight in visit.step.movement.patterns.items():
            name = ROW_OF[pattern].name
            shares[name] = shares.get(name, 0.0) + weight
            patterns[pattern] = patterns.get(pattern, 0.0) + visit.seconds * weight
        if t.tape.blocks[visit.block].part != "main":
            continue
        for name, share in shares.items():
            if name in counted_rows:
                mainly = hard if share >= MAIN_SHARE else 0
                main[name] = main.get(name, PatternLoad()).plus(visit.seconds * share, mainly)
        for joint in visit.step.movement.stresses or ():
            joints[joint] = joints.get(joint, PatternLoad()).plus(visit.seconds, hard)
    reps, landings = t.reps.reps, t.reps.landings
    return LoadSummary(
        load=t.load,
        effort=t.rpe,
        minutes=t.tape.total_s / 60,
        work_s=t.headline.work,
        reps={"called": reps["called"], "paced": reps["paced"], "estimated": reps["estimated"]},
        volume_kg=t.reps.volume_kg,
        landings={"low": landings["low"], "medium": landings["medium"], "high": landings["high"]},
        hard_sets=hard_sets,
        patterns=patterns,
        left_s=left_s,
        right_s=right_s,
        main=main,
        joints=joints,
    )


def _visit_efforts(t: Tally) -> list[float]:
    """The effort of each visit: the highest of its windows."""
    efforts = [0.0] * len(t.tape.visits)
    for segment, effort in zip(t.tape.segments, t.effort.windows, strict=True):
        if segment.visit is not None:
            efforts[segment.visit] = max(efforts[segment.visit], effort)
    return efforts


def hours_between(one: PlannedLoad, other: PlannedLoad) -> float:
    """Hours from one start to the other; between days of the calendar, 24 each, where either has no time.

    Two of one day are no hours apart: nothing recovers between a morning and an evening.
    """
    if one.day == other.day:
        return 0.0
    if one.starts is not None and other.starts is not None:
        return abs(other.starts - one.starts) / timedelta(hours=1)
    return abs((other.day - one.day).days) * 24.0
