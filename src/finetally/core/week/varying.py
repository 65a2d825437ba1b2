"""Weeks that vary: how far one could, whatever is chosen, and a first try at one."""

from __future__ import annotations

import itertools
from collections.abc import Mapping, Sequence

from finetally.core.week.aims import LOAD_SCALE, load_units, varied
from finetally.core.week.load import WEEK
from finetally.core.week.plan import Rules
from finetally.core.week.proposal import Choice, Slot
from finetally.core.week.review import stays


def _chunks(loads: Sequence[int], most: int) -> list[int]:
    """Seven days filled with the largest loads first, so many a day: no other week varies more."""
    ordered = sorted(loads, reverse=True)
    return [sum(ordered[day * most : (day + 1) * most]) for day in range(WEEK)]


def could_vary(slots: Sequence[Slot], rules: Rules) -> bool:
    """False where no choice makes the week's monotony less than 2; True says nothing.

    98·Q - 17·S² is convex in the load of each day alone, so it is greatest where each is as large or as small as
    it can be; days of the largest and the smallest versions, filled in order, are wider than any real ones.
    """
    most = rules.most_a_day
    staying = [sum(slot.day == day and stays(slot, rules) for slot in slots) for day in range(WEEK)]
    if most is None or not slots or max(staying) > most or len(slots) > WEEK * most:
        return True
    ranges = [
        [load_units(version.summary) for version in (slot.versions[:1] if stays(slot, rules) else slot.versions)]
        for slot in slots
    ]
    low, high = _chunks([min(one) for one in ranges], most), _chunks([max(one) for one in ranges], most)
    return any(
        varied(days) for days in itertools.product(*(sorted({*pair}) for pair in zip(low, high, strict=True)))
    )


def varied_try(slots: Sequence[Slot], rules: Rules, chosen: Choice) -> dict[str, tuple[int, int]]:
    """A first try at a week that varies: heavy versions beside heavy ones, light beside light, with few changes.

    Of the rules only the number a day and the band are looked at, the latter as far as it goes.
    """
    found = chosen
    for heavy in range(len(slots) + 1):
        made = _placed(slots, rules, _heaviest(slots, rules, chosen, heavy))
        if _is_better(slots, rules, made, found):
            found = made
    for slot in slots:
        # What need not be changed is as it was.
        was = (chosen[slot.key][0], found[slot.key][1])
        made = {**found, slot.key: was}
        if not _is_better(slots, rules, found, made):
            found = made
    return dict(found)


def _is_better(slots: Sequence[Slot], rules: Rules, one: Choice, other: Choice) -> bool:
    return _worth(slots, rules, one) > _worth(slots, rules, other)


def _worth(slots: Sequence[Slot], rules: Rules, chosen: Choice) -> tuple[bool, bool]:
    days = [0] * WEEK
    for slot in slots:
        version, day = chosen[slot.key]
        days[day] += load_units(slot.versions[version].summary)
    band = rules.band
    inside = band is None or band.low <= sum(days) / LOAD_SCALE <= band.high
    return varied(days), inside


def _heaviest(slots: Sequence[Slot], rules: Rules, chosen: Choice, heavy: int) -> Choice:
    """So many slots in their heaviest version, the others in their lightest; what stays as it is."""
    free = [slot for slot in slots if not stays(slot, rules)]
    loads = {slot.key: [load_units(version.summary) for version in slot.versions] for slot in free}
    ordered = sorted(free, key=lambda slot: (-max(loads[slot.key]), slot.key))
    made = dict(chosen)
    for number, slot in enumerate(ordered):
        own = loads[slot.key]
        made[slot.key] = (own.index(max(own) if number < heavy else min(own)), chosen[slot.key][1])
    return made


def _placed(slots: Sequence[Slot], rules: Rules, chosen: Choice) -> Choice:
    """The same versions on other days: filled one after the other with the heaviest."""
    most = rules.most_a_day or len(slots)
    made = dict(chosen)
    left = {day: most - sum(s.day == day and stays(s, rules) for s in slots) for day in range(WEEK)}
    left = {day: room for day, room in left.items() if day not in rules.gone_days | rules.rest_days and room > 0}
    waiting = sorted(
        (slot for slot in slots if not stays(slot, rules)),
        key=lambda slot: (-load_units(slot.versions[chosen[slot.key][0]].summary), slot.key),
    )
    while waiting and left:
        day = max(left, key=lambda one: (_at_home(waiting[: left[one]], chosen, one), -one))
        for slot in waiting[: left[day]]:
            made[slot.key] = (chosen[slot.key][0], day)
        del waiting[: left.pop(day)]
    return made


def _at_home(slots: Sequence[Slot], chosen: Mapping[str, tuple[int, int]], day: int) -> int:
    return sum(chosen[slot.key][1] == day for slot in slots)
