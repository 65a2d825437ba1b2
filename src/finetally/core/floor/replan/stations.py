"""Stations for the people who are here: how many come to each, what does not fit, and ways to lay them out anew."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from typing_extensions import TypedDict

from finetally.core.edits.edit import Edit, InsertEdit, RemoveEdit, SetEdit, apply_edits, edit_json
from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Rotation
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

    Too many for a station's capacity: the smallest station twice; for that, or for the kit that all of them take at
    once (`given.kit`): places to wait, as many as it takes. Fewer people than stations: the last ones left out.
    Raises DocumentError where the session cannot be laid out; ValueError for less than one person.
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


@dataclass(frozen=True, slots=True)
class _Place:
    """A station: how many people it holds (None: as many as come), and the kit that each of them takes there."""

    name: str
    capacity: int | None
    needs: Mapping[str, int]


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
        places = [_Place(one.name, one.capacity, need) for one, need in zip(clock.stations, needs, strict=True)]
        planned = self._way(number, "as-planned", places, [])
        if planned is None:
            return
        yield planned
        path: list[PathPart] = [*of.edit_path, "clock", "stations"]
        ways: list[StationsWay | None] = []
        if not planned["fits"]:
            ways = [self._twice(number, path, clock, places), self._waiting(number, path, clock, places)]
        elif self._people < len(places):
            gone = [RemoveEdit(path=path, index=i) for i in range(len(places) - 1, self._people - 1, -1)]
            ways = [self._way(number, "leave-out", places[: self._people], gone)]
        yield from (way for way in ways if way is not None)

    def _fits(self, places: Sequence[_Place]) -> bool:
        """Whether capacity and kit hold in every turn: all stations are worked at the same time."""
        groups = group_sizes(self._people, len(places))
        if any(place.capacity is not None and max(groups) > place.capacity for place in places):
            return False
        for kit, there in self._given.kit.items():
            each = [place.needs.get(kit, 0) for place in places]
            for turn in range(len(places)):
                if sum(groups[station - turn] * pieces for station, pieces in enumerate(each)) > there:
                    return False
        return True

    def _twice(
        self, number: int, path: list[PathPart], clock: Rotation, planned: Sequence[_Place]
    ) -> StationsWay | None:
        """The smallest station a second time, further ones too, until all fit; None where that does not help."""
        places, of, edits = list(planned), list(range(len(planned))), list[Edit]()
        for _ in range(MOST_ADDED):
            held = [index for index, place in enumerate(places) if place.capacity is not None]
            if not held:
                return None
            tight = min(held, key=lambda index: places[index].capacity or 0)
            station = clock.stations[of[tight]]
            again = f"{station.name} {of.count(of[tight]) + 1}"
            copy: JsonObject = {**_without_ids(station.model_dump(mode="json", exclude_unset=True)), "name": again}
            edits.append(InsertEdit(path=path, index=tight + 1, value=copy))
            places.insert(tight + 1, replace(places[tight], name=again))
            of.insert(tight + 1, of[tight])
            if self._fits(places):
                return self._way(number, "twice", places, edits)
        return None

    def _waiting(
        self, number: int, path: list[PathPart], clock: Rotation, planned: Sequence[_Place]
    ) -> StationsWay | None:
        """Places to wait a turn, as many as it takes; None where so many would be another session."""
        walked: JsonObject = {"movement": WAITING, **({} if clock.inner.windowed else {"seconds": WAITING_S})}
        for added in range(1, MOST_ADDED + 1):
            names = [f"Wait {n}" if added > 1 else "Wait" for n in range(1, added + 1)]
            places = [*planned, *(_Place(name, None, {}) for name in names)]
            if not self._fits(places):
                continue
            first = len(planned)
            edits = [
                InsertEdit(path=path, index=first + n, value={"name": name, "steps": [walked]})
                for n, name in enumerate(names)
            ]
            return self._way(number, "wait", places, edits)
        return None

    def _way(
        self, number: int, kind: StationsKind, places: Sequence[_Place], edits: Sequence[Edit]
    ) -> StationsWay | None:
        """A way with its seconds; None where the session cannot be laid out so."""
        told = [*edits, SetEdit(path=["people"], value=self._people)]
        try:
            seconds = self._seconds(apply_edits(self._document, told)[0])
        except DocumentError:
            if kind == "as-planned":
                raise
            return None
        return {
            "block": number,
            "kind": kind,
            "stations": [place.name for place in places],
            "groups": group_sizes(self._people, len(places)),
            "fits": self._fits(places),
            "s": seconds,
            "edits": [] if kind == "as-planned" else [edit_json(edit) for edit in told],
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
