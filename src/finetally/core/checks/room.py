"""Checks of what is there: kit, stations, space, and the label on the block."""

from __future__ import annotations

from collections.abc import Iterator

from finetally.core.checks.check import Finding, edit_path, set_edit
from finetally.core.formats.names import claimed
from finetally.core.formats.table import recognise
from finetally.core.session.clocks import Rotation
from finetally.core.session.document import Session
from finetally.core.tally.kit import kit_needed, people_at_once
from finetally.core.tally.measure import Tally

SQUARE_METRES_EACH = 4.0
"""Room that one person needs to lie down and swing an arm: about 2 × 2 m."""


def named_otherwise(t: Tally) -> Iterator[Finding]:
    """The coach's label claims one format, the numbers are another's."""
    for number, of in enumerate(t.tape.blocks):
        title = of.block.title
        formats = claimed(title) if title else []
        if not formats:
            continue
        found = recognise([of.block])
        if {one.format.key for one in found} & {one.key for one in formats}:
            continue
        is_named = found[0].format.name if found else None
        fields: dict[str, str | int | float] = {
            "label": title or "",
            "claimed": formats[0].name,
            "is": is_named or "none of the named",
        }
        mend = set_edit(f"call it {is_named}", edit_path(of, "title"), is_named) if is_named else None
        yield Finding((*of.path, "title"), fields, block=number, mend=mend)


def kit_short(t: Tally) -> Iterator[Finding]:
    """More implements are needed at once than the squad has."""
    if t.session.people is None:
        return
    told: set[str] = set()
    for kit, _, needed, visit in kit_needed(t):
        there = t.given.kit.get(kit)
        if there is not None and needed > there and kit not in told:
            told.add(kit)
            fields: dict[str, str | int | float] = {"kit": kit, "needed": needed, "there": there}
            yield Finding(visit.step.path, fields, needed - there, block=visit.block)


def station_full(t: Tally) -> Iterator[Finding]:
    """More people come to a station than it holds."""
    people = t.session.people
    if people is None:
        return
    for number, of in enumerate(t.tape.blocks):
        clock = of.block.clock
        if not isinstance(clock, Rotation):
            continue
        each = people_at_once(of, people)
        for index, station in enumerate(clock.stations):
            if station.capacity is not None and each > station.capacity:
                fields: dict[str, str | int | float] = {
                    "station": station.name,
                    "people": each,
                    "capacity": station.capacity,
                }
                yield Finding((*of.path, "clock", "stations", index), fields, each - station.capacity, block=number)


def floor_area(session: Session) -> float | None:
    """Square metres of the room planned for: a number, [width, length], or none known."""
    space = session.space_m
    if isinstance(space, list) and len(space) == 2:
        return space[0] * space[1]
    return float(space) if isinstance(space, int | float) else None


def space_short(t: Tally) -> Iterator[Finding]:
    """Less than about 2 × 2 m for each person."""
    area, people = floor_area(t.session), t.session.people
    if area is not None and people and area / people < SQUARE_METRES_EACH:
        fields: dict[str, str | int | float] = {
            "each": f"{area / people:.1f}",
            "needed": f"{SQUARE_METRES_EACH:g}",
            "people": people,
        }
        yield Finding(("space_m",), fields, area / people)
