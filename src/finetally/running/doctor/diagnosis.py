"""What the doctor says of one thing it looked at."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from finetally.running.installation import Installation


class Level(StrEnum):
    """Well; worth a look; wrong, so that something has to be done."""

    WELL = "well"
    LOOK = "look"
    WRONG = "wrong"


@dataclass(frozen=True, slots=True)
class Diagnosis:
    """About what (a fixed word), how it is, what was found, and what to do; nothing to do where it is well."""

    about: str
    level: Level
    says: str
    do: str = ""


@dataclass(frozen=True, slots=True)
class Patient:
    """What is looked at: the installation, and what the machine says of itself.

    `now` carries a time zone; `python`: its version, major and minor first; `free`: bytes that the disk has left.
    """

    installation: Installation
    now: datetime
    python: tuple[int, ...]
    free: int


Look = Callable[[Patient], Iterator[Diagnosis]]
"""One thing that is looked at."""


def well(about: str, says: str) -> Diagnosis:
    """Nothing to do."""
    return Diagnosis(about, Level.WELL, says)


def look(about: str, says: str, do: str) -> Diagnosis:
    """Worth a look."""
    return Diagnosis(about, Level.LOOK, says, do)


def wrong(about: str, says: str, do: str) -> Diagnosis:
    """Something has to be done."""
    return Diagnosis(about, Level.WRONG, says, do)


NEARLY = 0.98
"""Of an hour, say: so much of it is called one."""


def span(seconds: float) -> str:
    """A time as people say it: 40 seconds, 12 minutes, 3 hours, 9 days."""
    for size, name in ((86_400, "day"), (3_600, "hour"), (60, "minute")):
        number = round(seconds / size)
        if seconds >= NEARLY * size:
            return f"{number} {name}" + ("s" if number != 1 else "")
    return f"{round(seconds)} seconds"
