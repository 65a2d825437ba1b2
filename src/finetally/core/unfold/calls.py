"""What is called out on the floor: house calls, or the block's own, at their seconds on the tape."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from finetally.core.unfold.tape import PerformedVisit, Segment, Tape, Window

COUNT_IN_S = 3
HALF_FROM_S = 20
TEN_LEFT_FROM_S = 30

CallKind = Literal["count-in", "half", "ten-left", "next", "kit", "switch", "own"]


class TimedCall(NamedTuple):
    """A call: when (seconds from the start), which kind, what it is about, and the segment it belongs to."""

    at: float
    kind: CallKind
    say: str
    segment: int


def calls_of(tape: Tape) -> list[TimedCall]:
    """Every call of a tape in order of time.

    House calls: the next movement when a pause begins, kit to fetch, a count-in before work that follows a
    pause, half-way in windows from 20 s, ten left in windows from 30 s, the change of sides inside a window.
    A block's own `calls` take the place of half-way and ten left.
    """
    found: list[TimedCall] = []
    windows_told: set[int] = set()
    for index, segment in enumerate(tape.segments):
        if segment.visit is None:
            continue
        performed = tape.visits[segment.visit]
        found.extend(_before(tape, index, segment, performed))
        if performed.per_side and segment.ends == "clock" and performed.left_s < segment.seconds:
            found.append(TimedCall(segment.start + performed.left_s, "switch", "right", index))
        if segment.window is not None and segment.window not in windows_told:
            windows_told.add(segment.window)
            found.extend(_inside(tape, index, segment, tape.windows[segment.window]))
    return sorted(found, key=lambda call: (call.at, call.segment))


def _before(tape: Tape, index: int, segment: Segment, performed: PerformedVisit) -> Iterator[TimedCall]:
    name = performed.step.movement.name or performed.step.key
    pause = segment.start
    first = index
    while first > 0 and tape.segments[first - 1].kind != "work":
        first -= 1
        pause = tape.segments[first].start
    last = tape.segments[first - 1].visit if first > 0 else None
    if pause < segment.start:
        yield TimedCall(pause, "next", name, index)
        held = tape.visits[last].step.kit if last is not None else frozenset()
        for kit in sorted(performed.step.kit - held):
            yield TimedCall(pause, "kit", kit, index)
        yield TimedCall(max(pause, segment.start - COUNT_IN_S), "count-in", name, index)
    elif last is None:
        yield TimedCall(segment.start, "next", name, index)


def _inside(tape: Tape, index: int, segment: Segment, window: Window) -> Iterator[TimedCall]:
    own = tape.blocks[segment.block].block.calls
    if own is not None:
        for call in own:
            if call.at_s is not None:
                offset = call.at_s
            elif call.before_end_s is not None:
                offset = window.seconds - call.before_end_s
            else:
                offset = window.seconds / 2
            if 0 <= offset <= window.seconds:
                yield TimedCall(window.start + offset, "own", call.say, index)
        return
    if window.seconds >= HALF_FROM_S:
        yield TimedCall(window.start + window.seconds / 2, "half", "", index)
    if window.seconds >= TEN_LEFT_FROM_S:
        yield TimedCall(window.start + window.seconds - 10, "ten-left", "", index)
