"""Warnings: keys that are kept but mean nothing here."""

from __future__ import annotations

from collections.abc import Iterator

from typing_extensions import TypedDict

from finetally.core.session.clocks import InnerClock, Rotation
from finetally.core.session.document import Block, Session
from finetally.core.session.problems import Path, path_text
from finetally.core.session.reading import walk_unknown
from finetally.core.session.rules import blocks_with_paths, round_lists, step_lists


class Warned(TypedDict):
    """A key that has no effect: where, and why (`unknown`, or `no_meaning` in this clock)."""

    path: str
    code: str


def warnings_of(session: Session) -> list[Warned]:
    """Every key that no figure depends on because nothing here reads it."""
    unknown: list[Warned] = [{"path": path_text(p), "code": "unknown"} for p in walk_unknown(session)]
    idle: list[Warned] = [
        {"path": path_text(p), "code": "no_meaning"}
        for path, block in blocks_with_paths(session)
        for p in _idle(path, block)
    ]
    return unknown + idle


def _idle(path: Path, block: Block) -> Iterator[Path]:
    """Keys without an effect: of the block as it stands, of its inner clock, of its steps."""
    clock = block.clock
    if isinstance(clock, Rotation) and block.steps is not None:
        yield (*path, "steps")
    if block.mirror and not clock.mirrored:
        yield (*path, "mirror")
    if block.strip_from is not None and block.visit not in ("strip", "build-strip"):
        yield (*path, "strip_from")
    if block.rest_between_repeats_s is not None and block.repeat is None:
        yield (*path, "rest_between_repeats_s")
    inner = clock.inner if isinstance(clock, Rotation) else clock
    yield from _idle_in_clock(path, block, inner)
    yield from _idle_steps(path, block, inner)


def _idle_in_clock(path: Path, block: Block, inner: InnerClock) -> Iterator[Path]:
    if not inner.grouped and block.group not in (None, "all"):
        yield (*path, "group")
    for key in inner.idle_keys():
        if getattr(block, key) is not None:
            yield (*path, key)
    if not inner.rounds_said and block.rounds is not None and not _has_lists(block):
        yield (*path, "rounds")


def _idle_steps(path: Path, block: Block, inner: InnerClock) -> Iterator[Path]:
    for steps_path, steps, _, _ in step_lists(path, block):
        for index, step in enumerate(steps):
            if step.chain and not inner.slotted:
                yield (*steps_path, index, "chain")
            if step.fill and inner.windowed:
                yield (*steps_path, index, "fill")
            if step.rest_s is not None and inner.slotted:
                yield (*steps_path, index, "rest_s")


def _has_lists(block: Block) -> bool:
    return any(True for path, steps, clock, _ in step_lists((), block) for _ in round_lists((), clock, path, steps))
