"""Changes that make a session shorter or longer, in series from little to much."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from finetally.core.edits.edit import Edit, RemoveEdit, SetEdit
from finetally.core.methods.given import Given
from finetally.core.session.document import Block, Section, Session
from finetally.core.session.json_value import JsonObject
from finetally.core.session.problems import Path, PathPart
from finetally.core.session.reading import parse_session
from finetally.core.tally.exits import exit_places
from finetally.core.unfold.tape import LocatedBlock
from finetally.core.unfold.unfold import blocks_of
from finetally.core.words import clock_text

MOST_ROUNDS_MORE = 20
MOST_WINDOW_STEPS = 40
WINDOW_STEP_S, LEAST_WINDOW_S = 30, 60
SHORTER = (0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3)
LONGER = (1.1, 1.2, 1.3, 1.5, 1.75, 2.0)
LEAST_REST_S = 10
CLOCK_RESTS = ("rest_s", "round_rest_s", "group_rest_s")

ChangeKind = Literal["exit", "skip", "rounds", "window", "rests"]


@dataclass(frozen=True, slots=True)
class PlanChange:
    """Edits of one kind, and what they do in words."""

    kind: ChangeKind
    what: str
    edits: tuple[Edit, ...]


def series_of(document: JsonObject, *, longer: bool) -> Iterator[list[PlanChange]]:
    """Series of rounds, windows and rests; the timetable goes one way along each. Warm-up and cool-down stay."""
    blocks = blocks_of(parse_session(document))
    main = [of for of in blocks if of.part in ("main", "finisher")] or blocks
    for of in main:
        at, name = of.edit_path, of.block.title or of.part
        yield from _rounds(of.block, at, name, longer=longer)
        yield list(_windows(of.block, at, name, longer=longer))
    yield list(_rests(blocks, longer=longer))


def cuts_of(document: JsonObject, given: Given) -> Iterator[PlanChange]:
    """Whole parts that can go: the exits that are marked, and blocks that may be left out."""
    yield from _exits(document, given)
    yield from _skips(document)


def without(session: Session, gone: Sequence[LocatedBlock]) -> tuple[RemoveEdit, ...]:
    """Edits that take blocks out, last first so that paths hold; a section goes with its last block."""
    edits: list[RemoveEdit] = []
    inner: dict[int, int] = {}
    for path in sorted((of.path for of in gone), reverse=True):
        number = _index(path, 1)
        section = session.blocks[number]
        if not isinstance(section, Section):
            edits.append(RemoveEdit(path=["blocks"], index=number))
            continue
        inner[number] = inner.get(number, 0) + 1
        within: list[PathPart] = ["blocks", number, "blocks"]
        if inner[number] == len(section.blocks):
            edits = [one for one in edits if one.path != within]
            edits.append(RemoveEdit(path=["blocks"], index=number))
        else:
            edits.append(RemoveEdit(path=within, index=_index(path, 3)))
    return tuple(edits)


def _index(path: Path, at: int) -> int:
    return int(path[at])


def _exits(document: JsonObject, given: Given) -> Iterator[PlanChange]:
    session = parse_session(document)
    blocks = blocks_of(session)
    for ident, _ in exit_places(session, given):
        first = next(index for index, of in enumerate(blocks) if of.ident == ident)
        gone = [of for of in blocks[first:] if of.part != "cool-down"]
        if len(gone) < len(blocks):
            name = blocks[first].block.title or blocks[first].part
            yield PlanChange("exit", f"stop before {name}", without(session, gone))


def _skips(document: JsonObject) -> Iterator[PlanChange]:
    """Blocks that may be left out; where none is marked so, any of several that count."""
    session = parse_session(document)
    blocks = blocks_of(session)
    marked = [of for of in blocks if of.block.optional == "skip"]
    spare = [of for of in blocks if of.part in ("main", "finisher")]
    if len(blocks) > 1:
        for of in marked or (spare if len(spare) > 1 else []):
            yield PlanChange("skip", f"leave out {of.block.title or of.part}", without(session, [of]))


def _rounds(block: Block, at: list[PathPart], name: str, *, longer: bool) -> Iterator[list[PlanChange]]:
    for key, words, under in (("rounds", "round", False), ("periods", "start", True), ("laps", "lap", True)):
        holder = block.clock if under else block
        now = getattr(holder, key, None)
        if key == "rounds" and now is None and block.clock.rounds_said:
            now = 1
        if not isinstance(now, int):
            continue
        where: list[PathPart] = [*at, "clock", key] if under else [*at, key]
        counts = range(now + 1, now + MOST_ROUNDS_MORE + 1) if longer else range(now - 1, 0, -1)
        series = []
        for count in counts:
            by = abs(count - now)
            said = f"{name}: {by} {words}{'s' if by > 1 else ''} {'more' if longer else 'fewer'}"
            series.append(PlanChange("rounds", said, (SetEdit(path=where, value=count),)))
        yield series


def _windows(block: Block, at: list[PathPart], name: str, *, longer: bool) -> Iterator[PlanChange]:
    now = getattr(block.clock, "window_s", None)
    if not isinstance(now, int | float):
        return
    for step in range(1, MOST_WINDOW_STEPS + 1):
        window = now + WINDOW_STEP_S * step if longer else now - WINDOW_STEP_S * step
        if window < LEAST_WINDOW_S:
            return
        said = f"{name}: window {clock_text(window)}"
        yield PlanChange("window", said, (SetEdit(path=[*at, "clock", "window_s"], value=window),))


def _rests(blocks: Sequence[LocatedBlock], *, longer: bool) -> Iterator[PlanChange]:
    for share in LONGER if longer else SHORTER:
        edits = tuple(edit for of in blocks for edit in _scaled(of, share))
        if edits:
            percent = round(abs(share - 1) * 100)
            yield PlanChange("rests", f"rests {percent} % {'longer' if longer else 'shorter'}", edits)


def _scaled(of: LocatedBlock, share: float) -> Iterator[SetEdit]:
    """A block's rests, those after it and those of its clock, times a share; to five seconds, never under ten."""
    for key in ("rest_after_s", *CLOCK_RESTS):
        under: list[PathPart] = ["clock"] if key in CLOCK_RESTS else []
        now = getattr(of.block.clock if under else of.block, key, None)
        # Short rests inside intervals are the format itself (20/10): only what is a pause is touched.
        if isinstance(now, int | float) and not isinstance(now, bool) and now > 2 * LEAST_REST_S:
            value = max(LEAST_REST_S, round(now * share / 5) * 5)
            if value != now:
                yield SetEdit(path=[*of.edit_path, *under, key], value=value)
