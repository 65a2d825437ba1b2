"""Changes that make a session shorter or longer, in series from little to much."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from finetally.core.methods.given import Given
from finetally.core.session.document import Block
from finetally.core.session.problems import Path, PathPart
from finetally.core.session.reading import parse_session
from finetally.core.tally.exits import exit_places
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
    edits: list[dict[str, Any]]


def series_of(document: dict[str, Any], *, longer: bool) -> Iterator[list[PlanChange]]:
    """Series of rounds, windows and rests; the timetable goes one way along each. Warm-up and cool-down stay."""
    blocks = blocks_of(parse_session(document))
    main = [of for of in blocks if of.part in ("main", "finisher")] or blocks
    for of in main:
        at: list[PathPart] = [of.block.id] if of.block.id is not None else list(of.path)
        name = of.block.title or of.part
        yield from _rounds(of.block, at, name, longer=longer)
        yield list(_windows(of.block, at, name, longer=longer))
    yield list(_rests(document, [of.path for of in blocks], longer=longer))


def cuts_of(document: dict[str, Any], given: Given) -> Iterator[PlanChange]:
    """Whole parts that can go: the exits that are marked, and blocks that may be left out."""
    yield from _exits(document, given)
    yield from _skips(document)


def _set(at: list[PathPart], value: Any) -> dict[str, Any]:
    return {"op": "set", "path": at, "value": value}


def _without(document: dict[str, Any], gone: list[Path]) -> list[dict[str, Any]]:
    """Edits that take blocks out, last first so that places hold; a section goes with its last block."""
    edits: list[dict[str, Any]] = []
    inner: dict[Any, int] = {}
    for path in sorted(gone, reverse=True):
        if len(path) == 4:
            of = document["blocks"][path[1]]
            inner[path[1]] = inner.get(path[1], 0) + 1
            if inner[path[1]] == len(of["blocks"]):
                edits = [one for one in edits if one["path"] != ["blocks", path[1], "blocks"]]
                edits.append({"op": "remove", "path": ["blocks"], "index": path[1]})
                continue
            edits.append({"op": "remove", "path": ["blocks", path[1], "blocks"], "index": path[3]})
        else:
            edits.append({"op": "remove", "path": ["blocks"], "index": path[1]})
    return edits


def _exits(document: dict[str, Any], given: Given) -> Iterator[PlanChange]:
    session = parse_session(document)
    blocks = blocks_of(session)
    for ident, _ in exit_places(session, given):
        first = next(index for index, of in enumerate(blocks) if of.ident == ident)
        gone = [of.path for of in blocks[first:] if of.part != "cool-down"]
        if len(gone) < len(blocks):
            name = blocks[first].block.title or blocks[first].part
            yield PlanChange("exit", f"stop before {name}", _without(document, gone))


def _skips(document: dict[str, Any]) -> Iterator[PlanChange]:
    """Blocks that may be left out; where none is marked so, any of several that count."""
    blocks = blocks_of(parse_session(document))
    marked = [of for of in blocks if of.block.optional == "skip"]
    spare = [of for of in blocks if of.part in ("main", "finisher")]
    if len(blocks) > 1:
        for of in marked or (spare if len(spare) > 1 else []):
            yield PlanChange("skip", f"leave out {of.block.title or of.part}", _without(document, [of.path]))


def _rounds(block: Block, at: list[PathPart], name: str, *, longer: bool) -> Iterator[list[PlanChange]]:
    for key, words, under in (("rounds", "round", False), ("periods", "start", True), ("laps", "lap", True)):
        holder = block.clock if under else block
        now = getattr(holder, key, None)
        if key == "rounds" and now is None and block.clock.kind in ("intervals", "task", "every"):
            now = 1
        if not isinstance(now, int):
            continue
        where: list[PathPart] = [*at, "clock", key] if under else [*at, key]
        counts = range(now + 1, now + MOST_ROUNDS_MORE + 1) if longer else range(now - 1, 0, -1)
        series = []
        for count in counts:
            by = abs(count - now)
            said = f"{name}: {by} {words}{'s' if by > 1 else ''} {'more' if longer else 'fewer'}"
            series.append(PlanChange("rounds", said, [_set(where, count)]))
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
        yield PlanChange("window", said, [_set([*at, "clock", "window_s"], window)])


def _rests(document: dict[str, Any], paths: list[Path], *, longer: bool) -> Iterator[PlanChange]:
    for share in LONGER if longer else SHORTER:
        edits: list[dict[str, Any]] = []
        for path in paths:
            block: Any = document
            for part in path:
                block = block[part]
            at: list[PathPart] = [block["id"]] if "id" in block else list(path)
            edits.extend(_scaled(block, at, share))
        if edits:
            percent = round(abs(share - 1) * 100)
            yield PlanChange("rests", f"rests {percent} % {'longer' if longer else 'shorter'}", edits)


def _scaled(block: dict[str, Any], at: list[PathPart], share: float) -> Iterator[dict[str, Any]]:
    for key in ("rest_after_s", *CLOCK_RESTS):
        under: list[PathPart] = ["clock"] if key in CLOCK_RESTS else []
        holder = block["clock"] if under else block
        now = holder.get(key)
        # Short rests inside intervals are the format itself (20/10): only what is a pause is touched.
        if isinstance(now, int | float) and not isinstance(now, bool) and now > 2 * LEAST_REST_S:
            value = max(LEAST_REST_S, round(now * share / 5) * 5)
            if value != now:
                yield _set([*at, *under, key], value)
