"""The five clocks of a block: how time passes in it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Discriminator, Field, Tag

from finetally.core.session.limits import MAX_STEPS
from finetally.core.session.step import Step
from finetally.core.session.values import Count, CountValue, DocumentObject, SecondsDose, SecondsValue, Typed


class Intervals(DocumentObject):
    """A work window for each step, then rest."""

    kind: Literal["intervals"]
    work_s: SecondsDose | None = None
    rest_s: SecondsDose | None = None
    round_rest_s: SecondsDose | None = None
    group_rest_s: SecondsDose | None = None
    closing_rest: bool | None = None
    rest_first: bool | None = None


class Every(DocumentObject):
    """One slot starts every period; what is left of the period is rest.

    `free`: starts that are left free (rest) each time all slots had their turn.
    """

    kind: Literal["every"]
    period_s: SecondsValue
    work_until_s: SecondsValue | None = None
    periods: CountValue | None = None
    free: Count | None = None


class Amrap(DocumentObject):
    """As many rounds as the window holds, self-paced."""

    kind: Literal["amrap"]
    window_s: SecondsValue
    rest_s: SecondsDose | None = None
    round_rest_s: SecondsDose | None = None


class Pulse(DocumentObject):
    """After each `work_s` of working time everyone rests `rest_s`; the count goes on where it was."""

    work_s: SecondsValue
    rest_s: SecondsValue


class Task(DocumentObject):
    """The doses, self-paced, until done or capped."""

    kind: Literal["task"]
    rest_s: SecondsDose | None = None
    round_rest_s: SecondsDose | None = None
    group_rest_s: SecondsDose | None = None
    cap_s: SecondsValue | None = None
    pulse: Pulse | None = None
    then: Literal["stop", "restart", "reverse"] | None = None


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


class Rotation(DocumentObject):
    """Stations worked with the inner clock; all move on together."""

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
