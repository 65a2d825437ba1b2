"""The five clocks of a block: how time passes in it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, ClassVar, Literal

from pydantic import Discriminator, Field, Tag

from finetally.core.session.limits import MAX_STEPS
from finetally.core.session.problems import Path
from finetally.core.session.step import Step
from finetally.core.session.values import (
    AmountRange,
    Count,
    CountValue,
    DocumentObject,
    SecondsDose,
    SecondsValue,
    Typed,
)

PauseCounted = Literal["none", "window", "taken"]
"""What of the pauses a school that counts by the clock takes for work: none of them, all in a window that the
clock sets, or what is taken and not prescribed."""

ClockBreach = tuple[Path, str, str, str]
"""Where in the clock, what was found, what is allowed, and the code of it."""


class ClockModel(DocumentObject):
    """Base of every clock. What is so of all blocks under a clock is said in its class, and read from there.

    `called`: what a block is called that fits no format. `windowed`: a window ends each turn, so steps need no
    dose. `slotted`: starts are of slots, into which `chain` puts several steps. `self_paced`: people go at their
    own pace, so when turns begin is only expected. `fillers`: how many steps may fill the time that is left (None:
    no rule). `rounds_said`: rounds are as many as are said, and not as many as fit. `grouped`: movements may go in
    groups. `mirrored`: a repeat may go backwards. `pauses`: see PauseCounted. `above_zero`: lengths that are none
    at zero.
    """

    called: ClassVar[str]
    windowed: ClassVar[bool] = False
    slotted: ClassVar[bool] = False
    self_paced: ClassVar[bool] = False
    fillers: ClassVar[int | None] = None
    rounds_said: ClassVar[bool] = True
    grouped: ClassVar[bool] = True
    mirrored: ClassVar[bool] = False
    pauses: ClassVar[PauseCounted] = "none"
    above_zero: ClassVar[tuple[str, ...]] = ()

    def breaches(self) -> Iterator[ClockBreach]:
        """Breaches of what holds between several keys of the clock."""
        for key in self.above_zero:
            yield from _not_above_zero((key,), getattr(self, key))

    def idle_keys(self) -> tuple[str, ...]:
        """Keys of a block that say nothing under this clock as it stands."""
        return ()


def _not_above_zero(path: Path, value: SecondsValue) -> Iterator[ClockBreach]:
    low = value.low if isinstance(value, AmountRange) else value
    if isinstance(low, int | float) and low <= 0:
        yield path, str(low), "a number above 0", "number"


class Intervals(ClockModel):
    """A work window for each step, then rest."""

    called = "Intervals"
    windowed = True
    mirrored = True

    kind: Literal["intervals"]
    work_s: SecondsDose | None = None
    rest_s: SecondsDose | None = None
    round_rest_s: SecondsDose | None = None
    group_rest_s: SecondsDose | None = None
    closing_rest: bool | None = None
    rest_first: bool | None = None


class Every(ClockModel):
    """One slot starts every period; what is left of the period is rest.

    `free`: starts that are left free (rest) each time all slots had their turn.
    """

    called = "Timed starts"
    slotted = True
    above_zero = ("period_s",)

    kind: Literal["every"]
    period_s: SecondsValue
    work_until_s: SecondsValue | None = None
    periods: CountValue | None = None
    free: Count | None = None

    def breaches(self) -> Iterator[ClockBreach]:
        """Work goes on no longer than the period."""
        yield from super().breaches()
        period, until = self.period_s, self.work_until_s
        if isinstance(period, int | float) and isinstance(until, int | float) and until > period:
            yield ("work_until_s",), str(until), f"at most the period, {period}", "number"

    def idle_keys(self) -> tuple[str, ...]:
        """A number of periods says all of how often."""
        return () if self.periods is None else ("rounds", "group", "visit")


class Amrap(ClockModel):
    """As many rounds as the window holds, self-paced."""

    called = "Rounds against the clock"
    self_paced = True
    fillers = 1
    rounds_said = False
    grouped = False
    pauses = "window"
    above_zero = ("window_s",)

    kind: Literal["amrap"]
    window_s: SecondsValue
    rest_s: SecondsDose | None = None
    round_rest_s: SecondsDose | None = None


class Pulse(DocumentObject):
    """After each `work_s` of working time everyone rests `rest_s`; the count goes on where it was."""

    work_s: SecondsValue
    rest_s: SecondsValue


class Task(ClockModel):
    """The doses, self-paced, until done or capped."""

    called = "Work until done"
    self_paced = True
    fillers = 0
    mirrored = True
    pauses = "taken"

    kind: Literal["task"]
    rest_s: SecondsDose | None = None
    round_rest_s: SecondsDose | None = None
    group_rest_s: SecondsDose | None = None
    cap_s: SecondsValue | None = None
    pulse: Pulse | None = None
    then: Literal["stop", "restart", "reverse"] | None = None

    def breaches(self) -> Iterator[ClockBreach]:
        """What starts over needs a cap that ends it; a pulse works for some time."""
        if self.then == "restart" and self.cap_s is None:
            yield ("cap_s",), "nothing", "a cap, since then is restart", "missing"
        if self.pulse is not None:
            yield from _not_above_zero(("pulse", "work_s"), self.pulse.work_s)


class Station(DocumentObject):
    """A place with its own steps; `capacity` people fit there, `kit` lies there."""

    id: str | None = Field(default=None, min_length=1, max_length=64)
    name: str = Field(max_length=200)
    steps: list[Step] = Field(min_length=1, max_length=MAX_STEPS)
    rounds: CountValue | None = None
    capacity: Count | None = None
    kit: list[str] | None = None


CLOCK_KINDS = ("intervals", "every", "amrap", "task", "rotation")


def _kind(value: Typed) -> str | None:
    kind = value.get("kind") if isinstance(value, dict) else getattr(value, "kind", None)
    return f"~{kind}" if kind in CLOCK_KINDS else None


def _inner_kind(value: Typed) -> str | None:
    kind = _kind(value)
    return None if kind == "~rotation" else kind


InnerClock = Annotated[
    Annotated[Intervals, Tag("~intervals")]
    | Annotated[Every, Tag("~every")]
    | Annotated[Amrap, Tag("~amrap")]
    | Annotated[Task, Tag("~task")],
    Discriminator(
        _inner_kind,
        custom_error_type="clock",
        custom_error_message="{allowed}",
        custom_error_context={"allowed": "a clock with kind intervals, every, amrap or task"},
    ),
]


RestClock = Intervals | Amrap | Task
"""A clock with rests after visits."""


class Rotation(ClockModel):
    """Stations worked with the inner clock; all move on together."""

    called = "Stations"
    rounds_said = False

    kind: Literal["rotation"]
    stations: list[Station] = Field(min_length=1, max_length=MAX_STEPS)
    inner: InnerClock
    rotate_s: SecondsValue | None = None
    laps: CountValue | None = None


Clock = Annotated[
    Annotated[Intervals, Tag("~intervals")]
    | Annotated[Every, Tag("~every")]
    | Annotated[Amrap, Tag("~amrap")]
    | Annotated[Task, Tag("~task")]
    | Annotated[Rotation, Tag("~rotation")],
    Discriminator(
        _kind,
        custom_error_type="clock",
        custom_error_message="{allowed}",
        custom_error_context={"allowed": f"a clock with kind {', '.join(CLOCK_KINDS[:-1])} or rotation"},
    ),
]
