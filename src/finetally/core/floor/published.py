"""The published shapes of the floor, versioned: the sheet, and what was played."""

from __future__ import annotations

from typing import Literal, NotRequired

from pydantic import ConfigDict, TypeAdapter, with_config
from typing_extensions import TypedDict

from finetally.core.floor.beats import Beat, BeatEnd, BeatKind
from finetally.core.floor.document import Run
from finetally.core.floor.lines import LineWriter, TodoLine
from finetally.core.floor.marks import MarkFinder, MarkKind
from finetally.core.floor.queue import Layout
from finetally.core.floor.replay import Played
from finetally.core.floor.sheet import Sheet
from finetally.core.floor.timer import How
from finetally.core.formats.names import format_of
from finetally.core.session.json_value import JsonObject
from finetally.core.session.schema import DIALECT
from finetally.core.unfold.published import PublishedAddress
from finetally.core.unfold.tape import LocatedBlock

_CLOSED = ConfigDict(extra="forbid")
MOST_SAID = 4
"""Movements that are said of a beat to come: more are not remembered."""


@with_config(_CLOSED)
class PublishedMark(TypedDict):
    """A moment in a beat: seconds from its start, its kind, and what it says beyond that."""

    at_s: float
    kind: MarkKind
    say: str


@with_config(_CLOSED)
class PublishedBeat(TypedDict):
    """A beat. `set`, `entry`, `passage` are opaque: alike where the round, the entry, the pass are the same."""

    kind: BeatKind
    ends: BeatEnd
    s: float
    expected_s: NotRequired[float]
    self_paced: bool
    block: int
    run: int
    set: int | None
    entry: str
    passage: str
    at: PublishedAddress
    lines: list[TodoLine]
    next: str
    marks: list[PublishedMark]


@with_config(_CLOSED)
class SheetBlock(TypedDict):
    """A block of the file, by its number: its id (or place), title, part, and whether it may be left out."""

    id: str | int
    title: str
    part: str
    optional: NotRequired[str]


@with_config(_CLOSED)
class PublishedSheet(TypedDict):
    """A session as beats. `fine_tally_sheet` is the version of this shape; times in seconds."""

    fine_tally_sheet: Literal[1]
    title: str
    total_s: float
    blocks: list[SheetBlock]
    beats: list[PublishedBeat]


@with_config(_CLOSED)
class NumberedBeat(TypedDict):
    """A beat with its number on the sheet that it is of."""

    number: int
    beat: PublishedBeat


@with_config(_CLOSED)
class PublishedLayout(TypedDict):
    """A session laid out anew while it runs: passes by name in `order`, and the beats of those that `changed`.

    `blocks`: as they now are, where they are others; `numbers`: of which of them each pass of `order` is.
    """

    order: list[str]
    numbers: list[int]
    blocks: NotRequired[list[SheetBlock]]
    changed: list[str]
    beats: list[NumberedBeat]


@with_config(_CLOSED)
class NowPlaying(TypedDict):
    """What runs: `beat`, the seconds it ran and has left (none where a tap ends it); while waiting, the `next`."""

    mode: Literal["playing", "paused", "waiting"]
    beat: int | None
    ran_s: float | None
    left_s: float | None
    next: NotRequired[int]
    sheet: NotRequired[int]


@with_config(_CLOSED)
class PublishedPlayedBeat(TypedDict):
    """A beat as it was played. `beat`: its number on the sheet; `sheet`: on which, where laid out anew."""

    beat: int
    start: float
    end: float
    paused_s: float
    how: How
    added: bool
    sheet: NotRequired[int]


@with_config(_CLOSED)
class PublishedPlayed(TypedDict):
    """A run as it stands: seconds since its start; `laps` by number in `played`."""

    over: bool
    now: NowPlaying | None
    played: list[PublishedPlayedBeat]
    skipped: list[int] | None
    laps: dict[str, list[float]]
    work_s: float
    rest_s: float
    talk_s: float
    paused_s: float
    waited_s: float


def sheet_schema() -> JsonObject:
    """JSON Schema (2020-12) of the published sheet."""
    return {"$schema": DIALECT, **TypeAdapter(PublishedSheet).json_schema()}


def run_schema() -> JsonObject:
    """JSON Schema (2020-12) of a run's file; its session has a schema of its own, as methods do."""
    made: JsonObject = {"$schema": DIALECT, **Run.model_json_schema(by_alias=True)}
    made["properties"]["methods"] = {"type": "object", "description": "What differs from the default methods."}  # type: ignore[index,call-overload]
    return made


def published_sheet(of: Sheet) -> PublishedSheet:
    """A sheet as it is published (docs/sheet.schema.json)."""
    return {
        "fine_tally_sheet": 1,
        "title": of.session.title,
        "total_s": round(of.tape.total_s, 3),
        "blocks": [_block(block) for block in of.tape.blocks],
        "beats": _beats(of),
    }


def published_layout(of: Sheet, layout: Layout, *, before: Sheet | None = None) -> PublishedLayout:
    """A new layout as it is published: whoever plays the run needs no more of it.

    `before`: a sheet that whoever plays it has; blocks that are the same there are not told again.
    """
    beats = _beats(of)
    numbers = {beat["passage"]: beat["block"] for beat in beats}
    made: PublishedLayout = {
        "order": list(layout.order),
        "numbers": [numbers[passage] for passage in layout.order],
        "changed": sorted(layout.changed),
        "beats": [{"number": n, "beat": beat} for n, beat in enumerate(beats) if beat["passage"] in layout.changed],
    }
    blocks = [_block(block) for block in of.tape.blocks]
    if before is None or blocks != [_block(block) for block in before.tape.blocks]:
        made["blocks"] = blocks
    return made


def _block(of: LocatedBlock) -> SheetBlock:
    made: SheetBlock = {"id": of.ident, "title": of.block.title or format_of(of.block)["name"], "part": of.part}
    if of.block.optional:
        made["optional"] = of.block.optional
    return made


def _beats(of: Sheet) -> list[PublishedBeat]:
    writer = LineWriter(of.unfolder, of.tape)
    finder = MarkFinder(of.tape, of.beats, of.unfolder.resolver)
    lines = [writer.lines(beat) for beat in of.beats]
    said = _said_of_next(of.beats, lines)
    return [_beat(of, beat, lines[number], said[number], finder, number) for number, beat in enumerate(of.beats)]


def _beat(
    of: Sheet, beat: Beat, lines: list[TodoLine], said: str, finder: MarkFinder, number: int
) -> PublishedBeat:
    made: PublishedBeat = {
        "kind": beat.kind,
        "ends": beat.ends,
        # Not rounded: a browser that plays the sheet adds hundreds of them up.
        "s": beat.s,
        "self_paced": beat.self_paced,
        "block": beat.block,
        "run": beat.run,
        "set": beat.set,
        "entry": beat.entry,
        "passage": beat.passage,
        "at": of.tape.segments[beat.first].at.as_dict(),  # type: ignore[typeddict-item]
        "lines": lines,
        "next": said,
        "marks": [
            {"at_s": round(mark.at_s, 3), "kind": mark.kind, "say": mark.say} for mark in finder.marks(number, said)
        ],
    }
    if beat.expected_s is not None:
        made["expected_s"] = beat.expected_s
    return made


def _said_of_next(beats: list[Beat], lines: list[list[TodoLine]]) -> list[str]:
    """For each beat what is said of the next work after it: its movements and sides; nothing of stations."""
    said: list[str] = []
    coming = ""
    for number in range(len(beats) - 1, -1, -1):
        said.append(coming)
        if beats[number].kind == "work":
            coming = _said(lines[number])
    said.reverse()
    return said


def _said(lines: list[TodoLine]) -> str:
    if any("station" in line for line in lines):
        return ""
    words = [f"{line['name']}, {line['side']}" if "side" in line else line["name"] for line in lines]
    return ", ".join(words[:MOST_SAID])


def published_played(of: Played) -> PublishedPlayed:
    """What was played, as it is published; times to a thousandth of a second."""
    timer = of.timer
    return {
        "over": of.over,
        "now": _now(of),
        "played": [
            {
                "beat": one.item.number,
                "start": round(one.start, 3),
                "end": round(one.end, 3),
                "paused_s": round(one.paused_s, 3),
                "how": one.how,
                "added": one.added,
                **({"sheet": one.item.sheet} if one.item.sheet else {}),  # type: ignore[typeddict-item]
            }
            for one in of.played
        ],
        "skipped": of.skipped if of.over else None,
        "laps": {str(at): [round(s, 3) for s in laps] for at, laps in sorted(timer.laps.items())},
        "work_s": round(of.seconds("work"), 3),
        "rest_s": round(of.seconds("rest"), 3),
        "talk_s": round(of.seconds("talk"), 3),
        "paused_s": round(timer.paused_by(of.until), 3),
        "waited_s": round(timer.waited_by(of.until), 3),
    }


def _now(of: Played) -> NowPlaying | None:
    timer = of.timer
    item, mode = timer.queue.here, timer.mode
    if item is None or mode == "before" or mode == "over":
        return None
    made: NowPlaying = {"mode": mode, "beat": None, "ran_s": None, "left_s": None}
    if mode == "waiting":
        made["next"] = item.number
    else:
        left = timer.left_s(of.until)
        made["beat"], made["ran_s"] = item.number, round(timer.ran_s(of.until), 3)
        made["left_s"] = None if left is None else round(left, 3)
    if item.sheet:
        made["sheet"] = item.sheet
    return made
