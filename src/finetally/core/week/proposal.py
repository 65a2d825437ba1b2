"""What a week is levelled with, and what comes of it: slots, edits, the answer, and a watch over the work."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta
from typing import Any

from finetally.core.week.alternatives import Alternative
from finetally.core.week.bout import Bout
from finetally.core.week.load import WEEK

UNMET, EDIT = 1_000_000, 10_000
"""One aim unmet outweighs all edits, one edit outweighs all weights."""


@dataclass(frozen=True, slots=True)
class Slot:
    """An entry of the week that may be changed: its versions (the first as it is), its day, whether it is locked.

    `times`: when it starts on each of the seven days (None: no time is set); `hall`: it needs the hall.
    """

    key: str
    day: int
    versions: Sequence[Alternative]
    locked: bool = False
    hall: bool = True
    times: Sequence[datetime | None] = (None,) * WEEK


@dataclass(frozen=True, slots=True)
class LevelEdit:
    """One change of the week: a session's version, or its day."""

    slot: str
    kind: str
    what: str
    version: int | None = None
    day: int | None = None


@dataclass(frozen=True, slots=True)
class Levelled:
    """The answer: for each slot its version and day, the edits, aims that stay unmet; or the rules that clash."""

    chosen: Mapping[str, tuple[int, int]] = field(default_factory=dict)
    edits: tuple[LevelEdit, ...] = ()
    unmet: tuple[str, ...] = ()
    clashing_rules: tuple[str, ...] = ()
    proven: bool = True


class Watch:
    """Looks on while a week is levelled: how many answers were found, how good the best is, and a way to stop.

    May be asked and stopped from another thread.
    """

    def __init__(self) -> None:
        self.found = 0
        self.unmet: int | None = None
        self.edits: int | None = None
        self.stopped = False
        self._solver: Any = None

    def begin(self, solver: Any) -> None:
        """A solver starts."""
        self._solver = solver

    def note(self, objective: float) -> None:
        """An answer was found."""
        self.found += 1
        self.unmet, rest = divmod(round(objective), UNMET)
        self.edits = rest // EDIT

    def stop(self) -> None:
        """Be content with the best so far."""
        self.stopped = True
        if self._solver is not None:
            self._solver.stop_search()


def move_words(day: int, to: int) -> str:
    """What a move is called; days from 0."""
    return f"moves from day {day + 1} to day {to + 1}"


def bouts_of(slots: Sequence[Slot], chosen: Mapping[str, tuple[int, int]], begins: date) -> list[Bout]:
    """The week's bouts with versions and days as chosen; slots that are not named stay as they are."""
    made = []
    for slot in slots:
        version, day = chosen.get(slot.key, (0, slot.day))
        amount = slot.versions[version].amount
        made.append(Bout(slot.key, begins + timedelta(days=day), amount, slot.times[day], logged=False))
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
