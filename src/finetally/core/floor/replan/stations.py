"""Stations for the people who are here: how many come to each, what does not fit, and ways to lay them out anew."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

from typing_extensions import TypedDict

from finetally.core.edits.edit import Edit, InsertEdit, RemoveEdit, SetEdit, apply_edits, edit_json
from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Rotation, Station
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.problems import DocumentError, PathPart
from finetally.core.session.reading import parse_session
from finetally.core.tally.kit import FIXTURES
from finetally.core.tally.measure import booked_s
from finetally.core.unfold.resolve import AT_PLAN, Resolver
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import LocatedBlock
from finetally.core.unfold.unfold import Unfolder, blocks_of, unfold

StationsKind = Literal["as-planned", "twice", "wait", "leave-out"]
MOST_ADDED = 8
"""Stations added to one rotation at most: beyond that it is another session."""

WAITING, WAITING_S = "walk", 30
"""What is done at a place to wait, and its seconds where the clock asks for a dose."""


class StationsWay(TypedDict):
    """One way to lay a block's stations out, `block` its number.

    `stations`: their names in order, `groups`: how many come to each at the start; `fits`: whether all of them fit
    everywhere. `s`: seconds of the whole session then. `edits`: none as planned.
    """

    block: int
    kind: StationsKind
    stations: list[str]
    groups: list[int]
    fits: bool
    s: float
    edits: list[JsonObject]


def stations_for(
    document: JsonObject,
    people: int,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    given: Given = NOTHING_GIVEN,
) -> list[StationsWay]:
    """Ways to lay out each rotation of a session for so many people; as planned comes first.

    Too many for a station's capacity or kit (`given.kit`): the fullest station twice, or places to wait, as many as
    it takes. Fewer people than stations: the last stations left out. Raises DocumentError where the session cannot
    be laid out; ValueError for less than one person.
    """
    if people < 1:
        raise ValueError(f"{people} people")
    session = parse_session(document)
    unfolder = Unfolder(session, library, methods, given)
    finder = _Ways(document, people, library, methods, given)
    found: list[StationsWay] = []
    for number, of in enumerate(blocks_of(session)):
        if isinstance(of.block.clock, Rotation):
            needs = [_needs(programs.plans) for programs in unfolder.programs[number]]
            found.extend(finder.of_block(number, of, of.block.clock, needs))
    return found


def group_sizes(people: int, stations: int) -> list[int]:
    """How many of `people` begin at each of so many stations: as even as can be, the larger first."""
    each, more = divmod(people, stations)
    return [each + (index < more) for index in range(stations)]


def _needs(plans: Sequence[StepPlan]) -> dict[str, int]:
    """Pieces of kit that one person takes at a station."""
    needs: dict[str, int] = {}
    for plan in plans:
        load = plan.load(0)
        count = (load.count or 1) if load is not None else 1
        for name in plan.kit:
            needs[name] = max(needs.get(name, 0), 1 if name in FIXTURES else count)
    return needs


class _Ways:
    def __init__(self, document: JsonObject, people: int, library: Library, methods: Methods, given: Given) -> None:
        self._document = document
        self._people = people
        self._library = library
        self._methods = methods
        self._given = given

    def of_block(
        self, number: int, of: LocatedBlock, clock: Rotation, needs: Sequence[Mapping[str, int]]
    ) -> Iterator[StationsWay]:
        """The ways of one rotation."""
        names = [station.name for station in clock.stations]
        rooms = [self._room(station, need) for station, need in zip(clock.stations, needs, strict=True)]
        said: Edit = SetEdit(path=["people"], value=self._people)
        planned = self._way(number, "as-planned", names, rooms, [said])
        if planned is None:
            return
        yield planned
        stations: list[PathPart] = [*of.edit_path, "clock", "stations"]
        if not planned["fits"]:
            yield from self._twice(number, stations, clock, rooms)
            yield from self._waiting(number, stations, clock, rooms)
        elif self._people < len(names):
            gone = [RemoveEdit(path=stations, index=i) for i in range(len(names) - 1, self._people - 1, -1)]
            kept = names[: self._people]
            fewer = self._way(number, "leave-out", kept, rooms[: self._people], [*gone, said])
            if fewer is not None:
                yield fewer

    def _room(self, station: Station, needs: Mapping[str, int]) -> float:
        """How many people fit at a station at once: by its capacity, and by the kit that is there."""
        room = float("inf") if station.capacity is None else float(station.capacity)
        for kit, each in needs.items():
            there = self._given.kit.get(kit)
            if there is not None:
                room = min(room, there // each)
        return room

    def _twice(
        self, number: int, path: list[PathPart], clock: Rotation, rooms: list[float]
    ) -> Iterator[StationsWay]:
        """The fullest station a second time, further ones too, until all fit; where capacity is what is short."""
        names, room, edits = [station.name for station in clock.stations], list(rooms), list[Edit]()
        of = list(range(len(names)))
        for _ in range(MOST_ADDED):
            tight = min(range(len(names)), key=lambda index: room[index])
            station = clock.stations[of[tight]]
            again = f"{station.name} {of.count(of[tight]) + 1}"
            copy: JsonObject = {**_without_ids(station.model_dump(mode="json", exclude_unset=True)), "name": again}
            edits.append(InsertEdit(path=path, index=tight + 1, value=copy))
            names.insert(tight + 1, again)
            room.insert(tight + 1, room[tight])
            of.insert(tight + 1, of[tight])
            if max(group_sizes(self._people, len(names))) <= min(room):
                way = self._way(
                    number, "twice", names, room, [*edits, SetEdit(path=["people"], value=self._people)]
                )
                if way is not None:
                    yield way
                return

    def _waiting(
        self, number: int, path: list[PathPart], clock: Rotation, rooms: list[float]
    ) -> Iterator[StationsWay]:
        """Places to wait a turn, as many as it takes."""
        names = [station.name for station in clock.stations]
        walked: JsonObject = {"movement": WAITING, **({} if clock.inner.windowed else {"seconds": WAITING_S})}
        least = min(rooms)
        for added in range(1, MOST_ADDED + 1):
            if max(group_sizes(self._people, len(names) + added)) > least:
                continue
            waits = [f"Wait {n}" if added > 1 else "Wait" for n in range(1, added + 1)]
            edits: list[Edit] = [
                InsertEdit(path=path, index=len(names) + n, value={"name": name, "steps": [walked]})
                for n, name in enumerate(waits)
            ]
            room = [*rooms, *(float("inf") for _ in waits)]
            edits.append(SetEdit(path=["people"], value=self._people))
            way = self._way(number, "wait", [*names, *waits], room, edits)
            if way is not None:
                yield way
            return

    def _way(
        self, number: int, kind: StationsKind, names: list[str], rooms: Sequence[float], edits: Sequence[Edit]
    ) -> StationsWay | None:
        """A way with its minutes; None where the session cannot be laid out so."""
        groups = group_sizes(self._people, len(names))
        try:
            seconds = self._seconds(apply_edits(self._document, edits)[0])
        except DocumentError:
            if kind == "as-planned":
                raise
            return None
        return {
            "block": number,
            "kind": kind,
            "stations": list(names),
            "groups": groups,
            "fits": max(groups) <= min(rooms),
            "s": seconds,
            "edits": [] if kind == "as-planned" else [edit_json(edit) for edit in edits],
        }

    def _seconds(self, document: JsonObject) -> float:
        session = parse_session(document)
        tape = unfold(session, library=self._library, methods=self._methods, given=self._given)
        return booked_s(tape, session, Resolver(AT_PLAN, self._given.scores))


def _without_ids(value: JsonValue) -> JsonObject:
    """A station without the ids of itself and its steps: they are unique in a file."""
    made = {key: part for key, part in value.items() if key != "id"} if isinstance(value, dict) else {}
    steps = made.get("steps")
    if isinstance(steps, list):
        made["steps"] = [{k: v for k, v in step.items() if k != "id"} for step in steps if isinstance(step, dict)]
    return made
