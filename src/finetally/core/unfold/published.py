"""The published shape of the tape, versioned: what a floor timer runs on."""

from __future__ import annotations

from typing import Literal, NotRequired

from pydantic import ConfigDict, TypeAdapter, with_config
from typing_extensions import TypedDict

from finetally.core.session.json_value import JsonObject
from finetally.core.session.schema import DIALECT
from finetally.core.unfold.calls import CallKind, calls_of
from finetally.core.unfold.tape import TAPE_VERSION, Identity, Segment, Tape

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


def tape_schema() -> JsonObject:
    """JSON Schema (2020-12) of the published tape."""
    return {"$schema": DIALECT, **TypeAdapter(PublishedTape).json_schema()}


def published_tape(tape: Tape) -> JsonObject:
    """The tape with its calls, as it is published (docs/tape.schema.json); times to a thousandth of a second."""
    return {
        "tape": TAPE_VERSION,
        "total_s": round(tape.total_s, 3),
        "segments": [_segment(tape, segment) for segment in tape.segments],
        "calls": [
            {"at": round(call.at, 3), "kind": call.kind, "say": call.say, "segment": call.segment}
            for call in calls_of(tape)
        ],
    }


def _segment(tape: Tape, segment: Segment) -> JsonObject:
    made: JsonObject = {
        "start": round(segment.start, 3),
        "seconds": round(segment.seconds, 3),
        "kind": segment.kind,
        "at": {**segment.at.as_dict()},
        "ends": segment.ends,
    }
    if segment.visit is not None:
        made["movement"] = tape.visits[segment.visit].step.key
    if segment.taken:
        made["taken"] = True
    if segment.window is not None:
        window = tape.windows[segment.window]
        made["window"] = {"start": round(window.start, 3), "seconds": round(window.seconds, 3)}
    return made
