"""What a week is levelled with, and what comes of it: slots, edits, the answer, and a watch over the work."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta
from typing import Literal, Protocol

from finetally.core.week.alternatives import Alternative
from finetally.core.week.load import WEEK
from finetally.core.week.planned_load import PlannedLoad

Choice = Mapping[str, tuple[int, int]]
"""By the key of a slot: the number of the version that is chosen, and its day (0 to 6)."""
UNMET, EDIT, MOVE_COST = 1_000_000, 10_000, 5
"""One aim unmet outweighs all edits, one edit outweighs all weights; a move weighs by its days."""


@dataclass(frozen=True, slots=True)
class Slot:
    """An entry of the week that may be changed: its versions (the first as it is), its day, whether it is locked.

    `times`: when it starts on each of the seven days (None: no time is set); `hall`: it needs the hall; `people`:
    who it is for (None: everybody).
    """

    key: str
    day: int
    versions: Sequence[Alternative]
    locked: bool = False
    hall: bool = True
    times: Sequence[datetime | None] = (None,) * WEEK
    people: frozenset[str] | None = None


@dataclass(frozen=True, slots=True)
class LevelEdit:
    """One change of the week: a session's version, or its day."""

    slot: str
    kind: str
    what: str
    version: int | None = None
    day: int | None = None


SearchEnd = Literal["proven", "time", "stopped"]
"""Why the search ended: nothing better can be; its time was over; somebody was content."""


@dataclass(frozen=True, slots=True)
class Levelled:
    """The answer: for each slot its version and day, the edits, aims met and unmet, how the search ended.

    Or, where the hard rules contradict each other, those that do: then nothing is chosen. Nothing is chosen either
    where no week that keeps the rules was found in time.
    """

    chosen: Choice = field(default_factory=dict)
    edits: tuple[LevelEdit, ...] = ()
    met: tuple[str, ...] = ()
    unmet: tuple[str, ...] = ()
    clashing_rules: tuple[str, ...] = ()
    end: SearchEnd = "proven"

    @property
    def proven(self) -> bool:
        """Whether nothing better can be."""
        return self.end == "proven"


@dataclass(frozen=True, slots=True)
class SearchLimit:
    """How long a search may last: `seconds` of the clock on the wall (None: any), and the solver's own time.

    The latter is the same on every machine, about as many seconds on a common one.
    """

    seconds: float | None = 10.0
    deterministic: float = 10.0


class StoppableSearch(Protocol):
    """A search that ends with the best so far when it is told to."""

    def stop_search(self) -> None:
        """End the search; may be called from another thread."""


class SearchObserver:
    """Looks on while a week is levelled: how many answers were found, the best so far, and a way to stop.

    May be asked and stopped from another thread.
    """

    def __init__(self) -> None:
        self.found = 0
        self.best: Choice | None = None
        self.price: int | None = None
        self.stopped = False
        self._solver: StoppableSearch | None = None

    @property
    def unmet(self) -> int | None:
        """Aims that the best so far does not meet."""
        return None if self.price is None else self.price // UNMET

    @property
    def edits(self) -> int | None:
        """Edits of the best so far."""
        return None if self.price is None else self.price % UNMET // EDIT

    def begin(self, solver: StoppableSearch) -> None:
        """A solver starts."""
        self._solver = solver
        if self.stopped:
            solver.stop_search()

    def note(self, chosen: Choice, price: int) -> None:
        """A better answer than those before was found."""
        self.found += 1
        self.best, self.price = chosen, price

    def stop(self) -> None:
        """Be content with the best so far."""
        self.stopped = True
        if self._solver is not None:
            self._solver.stop_search()


def move_words(day: int, to: int) -> str:
    """What a move is called; days from 0."""
    return f"moves from day {day + 1} to day {to + 1}"


def entries_of(slots: Sequence[Slot], chosen: Choice, begins: date) -> list[PlannedLoad]:
    """The week's planned loads with versions and days as chosen; slots that are not named stay as they are."""
    made = []
    for slot in slots:
        version, day = chosen.get(slot.key, (0, slot.day))
        summary = slot.versions[version].summary
        made.append(
            PlannedLoad(slot.key, begins + timedelta(days=day), summary, slot.times[day], people=slot.people)
        )
    return made


def taken(slots: Sequence[Slot], edits: Sequence[LevelEdit]) -> dict[str, tuple[int, int]]:
    """What is chosen when only these edits are taken: every subset of a proposal is a week of its own."""
    chosen = {slot.key: (0, slot.day) for slot in slots}
    for edit in edits:
        version, day = chosen[edit.slot]
        chosen[edit.slot] = (
            version if edit.version is None else edit.version,
            day if edit.day is None else edit.day,
        )
    return chosen


def edits_of(slots: Sequence[Slot], chosen: Choice) -> tuple[LevelEdit, ...]:
    """The edits that make a choice out of the plan."""
    edits: list[LevelEdit] = []
    for slot in slots:
        version, day = chosen[slot.key]
        if version:
            edits.append(LevelEdit(slot.key, "version", slot.versions[version].what, version=version))
        if day != slot.day:
            edits.append(LevelEdit(slot.key, "day", move_words(slot.day, day), day=day))
    return tuple(edits)
