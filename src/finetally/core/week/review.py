"""How a week stands to its own rules and aims: what it breaks, what it does not meet, what it changes.

For any choice of versions and days: the plan as it is, the leveller's answer, and every part of it.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from finetally.core.week.aims import Aim, aims_of, is_met, load_units
from finetally.core.week.clash import clash_of
from finetally.core.week.load import WEEK, is_hard
from finetally.core.week.plan import Rules
from finetally.core.week.planned_load import LoadSummary, PlannedLoad, overlaps
from finetally.core.week.proposal import EDIT, MOVE_COST, UNMET, Choice, Slot, entries_of

RULE_WORDS: Mapping[str, str] = {
    "rest-days": "nothing on rest days",
    "hall": "no session on days without the hall",
    "most-a-day": "so many sessions a day at most",
    "overlap": "no two sessions of the same people at one time",
    "hard-days": "no two hard sessions on a day or on days in a row",
    "clashes": "hours between the same pattern or joint",
    "landings": "the week's landings at most",
}
"""The hard rules, in the words that coaches read."""


@dataclass(frozen=True, slots=True)
class RuleBreak:
    """A rule that does not hold: which, on what days (-1 and 7 are those beside the week), by which entries.

    `given`: what is locked, over or outside the week breaks it alone; nothing that may be changed can mend it.
    """

    rule: str
    days: tuple[int, ...]
    slots: tuple[str, ...]
    names: tuple[str, ...] = ()
    given: bool = False


@dataclass(frozen=True, slots=True)
class ChoiceReview:
    """What a choice breaks, meets and does not meet; its edits, and their weight."""

    broken: tuple[RuleBreak, ...]
    met: tuple[str, ...]
    unmet: tuple[str, ...]
    edits: int
    weight: int

    @property
    def keeps_rules(self) -> bool:
        """Whether everything holds that could be made to hold."""
        return all(one.given for one in self.broken)

    @property
    def price(self) -> int:
        """Lower is better: first the aims unmet, then the edits, then their weight."""
        return UNMET * len(self.unmet) + EDIT * self.edits + self.weight


def stays(slot: Slot, rules: Rules) -> bool:
    """Whether a slot is not to be touched: locked, or on a day that is over."""
    return slot.locked or slot.day in rules.gone_days


def planned_day_loads(slots: Sequence[Slot]) -> list[int]:
    """The loads of the seven days as planned, in whole thousandths."""
    days = [0] * WEEK
    for slot in slots:
        days[slot.day] += load_units(slot.versions[0].summary)
    return days


def as_planned(slots: Sequence[Slot]) -> dict[str, tuple[int, int]]:
    """The choice that changes nothing."""
    return {slot.key: (0, slot.day) for slot in slots}


def review(
    slots: Sequence[Slot], chosen: Choice, rules: Rules, *, around: Sequence[PlannedLoad] = (), begins: date
) -> ChoiceReview:
    """How a choice stands. `around`: planned loads of the days before and after the week."""
    summaries = [_placed(slot, chosen) for slot in slots]
    aims: list[Aim] = aims_of(rules, planned_day_loads(slots))
    met = {aim.name: is_met(aim, summaries) for aim in aims}
    edits = weight = 0
    for slot in slots:
        version, day = chosen[slot.key]
        edits += int(version != 0) + int(day != slot.day)
        weight += slot.versions[version].cost + MOVE_COST * abs(day - slot.day)
    return ChoiceReview(
        tuple(breaks(slots, chosen, rules, around=around, begins=begins)),
        tuple(name for name, is_so in met.items() if is_so),
        tuple(name for name, is_so in met.items() if not is_so),
        edits,
        weight,
    )


def _placed(slot: Slot, chosen: Choice) -> tuple[int, LoadSummary]:
    version, day = chosen[slot.key]
    return day, slot.versions[version].summary


def breaks(
    slots: Sequence[Slot], chosen: Choice, rules: Rules, *, around: Sequence[PlannedLoad] = (), begins: date
) -> Iterator[RuleBreak]:
    """Every rule that does not hold, in the order of the rules and the days."""
    free = {slot.key for slot in slots if not stays(slot, rules)}
    entries = entries_of(slots, chosen, begins)
    yield from _places(slots, chosen, rules, free)
    yield from _crowds(entries, rules, begins, free)
    yield from _overlapping(entries, begins, free)
    if rules.no_two_hard:
        yield from _hard_days(entries, rules, around, begins, free)
        yield from _hard_twice(entries, rules, begins, free)
    if rules.clash_hours is not None:
        yield from _clashing(entries, around, rules.clash_hours, begins, free)
    if rules.landings_cap is not None:
        yield from _landings(entries, rules.landings_cap, free)


def _places(slots: Sequence[Slot], chosen: Choice, rules: Rules, free: set[str]) -> Iterator[RuleBreak]:
    for slot in slots:
        day = chosen[slot.key][1]
        if slot.key in free and day in rules.rest_days:
            yield RuleBreak("rest-days", (day,), (slot.key,))
        if slot.key in free and slot.hall and day in rules.no_hall:
            yield RuleBreak("hall", (day,), (slot.key,))


def _crowds(entries: Sequence[PlannedLoad], rules: Rules, begins: date, free: set[str]) -> Iterator[RuleBreak]:
    if rules.most_a_day is None:
        return
    for day in range(WEEK):
        there = _on(entries, begins, day)
        if len(there) > rules.most_a_day:
            keys = tuple(one.key for one in there)
            yield RuleBreak("most-a-day", (day,), keys, given=not free & set(keys))


def _overlapping(entries: Sequence[PlannedLoad], begins: date, free: set[str]) -> Iterator[RuleBreak]:
    """Two sessions of the same people at the same time."""
    for one, other in itertools.combinations(entries, 2):
        if one.day == other.day and overlaps(one, other):
            day = (one.day - begins).days
            yield RuleBreak("overlap", (day,), (one.key, other.key), given=not free & {one.key, other.key})


def _hard_twice(entries: Sequence[PlannedLoad], rules: Rules, begins: date, free: set[str]) -> Iterator[RuleBreak]:
    """Two hard sessions of the same people on one day."""
    hard = [one for one in entries if one.summary.effort >= rules.hard_effort - EFFORT_EPS]
    for one, other in itertools.combinations(hard, 2):
        if one.day == other.day and one.shares_people(other):
            day = (one.day - begins).days
            yield RuleBreak("hard-days", (day,), (one.key, other.key), given=not free & {one.key, other.key})


EFFORT_EPS = 1e-9


def _hard_days(
    entries: Sequence[PlannedLoad], rules: Rules, around: Sequence[PlannedLoad], begins: date, free: set[str]
) -> Iterator[RuleBreak]:
    """Hard days in a row; the days beside the week count, and cannot be changed."""
    days = {day: _on(around if day in (-1, WEEK) else entries, begins, day) for day in range(-1, WEEK + 1)}
    for day in range(-1, WEEK):
        both = days[day], days[day + 1]
        if all(is_hard(one, rules.hard_effort, rules.hard_load) for one in both):
            staying = [[entry for entry in one if entry.key not in free] for one in both]
            given = all(is_hard(one, rules.hard_effort, rules.hard_load) for one in staying)
            keys = tuple(entry.key for one in both for entry in one)
            yield RuleBreak("hard-days", (day, day + 1), keys, given=given)


def _clashing(
    entries: Sequence[PlannedLoad], around: Sequence[PlannedLoad], wanted: float, begins: date, free: set[str]
) -> Iterator[RuleBreak]:
    pairs = itertools.chain(itertools.combinations(entries, 2), itertools.product(entries, around))
    for one, other in pairs:
        found = clash_of(one, other, wanted)
        if found is not None:
            keys = (found["first"], found["second"])
            days = tuple((date.fromisoformat(day) - begins).days for day in found["days"])
            names = (*found["patterns"], *(f"joint {name}" for name in found["joints"]))
            yield RuleBreak("clashes", days, keys, names, given=not free & set(keys))


def _landings(entries: Sequence[PlannedLoad], cap: float, free: set[str]) -> Iterator[RuleBreak]:
    if sum(entry.summary.limited_landings for entry in entries) > cap:
        keys = tuple(entry.key for entry in entries if entry.summary.limited_landings)
        staying = sum(entry.summary.limited_landings for entry in entries if entry.key not in free)
        yield RuleBreak("landings", (), keys, given=staying > cap)


def _on(entries: Sequence[PlannedLoad], begins: date, day: int) -> list[PlannedLoad]:
    return [entry for entry in entries if entry.day == begins + timedelta(days=day)]
