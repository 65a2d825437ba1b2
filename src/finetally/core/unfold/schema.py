"""The published shape of the tape, versioned: what a floor timer runs on."""

from __future__ import annotations

from typing import Any, Literal, NotRequired

from pydantic import ConfigDict, TypeAdapter, with_config
from typing_extensions import TypedDict

from finetally.core.session.schema import DIALECT
from finetally.core.unfold.calls import CallKind
from finetally.core.unfold.tape import Identity

_CLOSED = ConfigDict(extra="forbid")

# `pass` is a keyword, so this one shape is written as a call.
PublishedAddress = TypedDict(
    "PublishedAddress",
    {
        "pass": NotRequired[int],
        "section": NotRequired[Identity],
        "block": Identity,
        "repeat": NotRequired[int],
        "round": NotRequired[int],
        "visit": NotRequired[int],
        "station": NotRequired[Identity],
        "step": NotRequired[Identity],
        "side": NotRequired[str],
        "piece": NotRequired[int],
    },
)


@with_config(_CLOSED)
class PublishedWindow(TypedDict):
    """A stretch that the clock sets, in seconds from the start."""

    start: float
    seconds: float


@with_config(_CLOSED)
class PublishedSegment(TypedDict):
    """A stretch of time of one kind; `taken` marks a breather; `ends` says what ends it."""

    start: float
    seconds: float
    kind: Literal["work", "rest", "change", "talk"]
    at: PublishedAddress
    ends: Literal["clock", "done", "cap"]
    movement: NotRequired[str]
    taken: NotRequired[bool]
    window: NotRequired[PublishedWindow]


@with_config(_CLOSED)
class PublishedCall(TypedDict):
    """What is called out, when, and for which segment."""

    at: float
    kind: CallKind
    say: str
    segment: int


@with_config(_CLOSED)
class PublishedTape(TypedDict):
    """A whole session in time. `tape` is the version of this shape."""

    tape: Literal[1]
    total_s: float
    segments: list[PublishedSegment]
    calls: list[PublishedCall]


def tape_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the published tape."""
    return {"$schema": DIALECT, **TypeAdapter(PublishedTape).json_schema()}
