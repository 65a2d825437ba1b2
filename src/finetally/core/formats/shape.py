"""What the shape of a block is: everything but the coach's own words, ids, and what is so anyhow."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import TypeVar

from finetally.core.session.clocks import Clock, InnerClock, Rotation
from finetally.core.session.document import Block, BlockOrSection, Section
from finetally.core.session.parts import without
from finetally.core.session.step import Step
from finetally.core.session.values import DocumentObject, FieldValue

P = TypeVar("P", bound=DocumentObject)

OWN_WORDS = (
    "title", "notes", "part", "announced_s", "talk_s", "talk_over", "optional", "effort", "rpe", "calls",
    "on_purpose", "rest_as",
)  # fmt: skip
"""Keys of a block that say nothing of its format; its rest_after_s neither, at the end of the shape."""

STATION_WORDS = ("id", "name", "capacity", "kit")

BLOCK_DEFAULTS: Mapping[str, FieldValue] = MappingProxyType(
    {
        "visit": "rounds", "group": "all", "rounds": 1, "strip_from": "front", "repeat": 1,
        "rest_between_repeats_s": 0, "mirror": False,
    }
)  # fmt: skip
CLOCK_DEFAULTS: Mapping[str, FieldValue] = MappingProxyType(
    {"rest_s": 0, "rest_first": False, "rotate_s": 0, "laps": 1, "then": "stop"}
)
STEP_DEFAULTS: Mapping[str, FieldValue] = MappingProxyType({"fill": False, "chain": False, "grow": 0})


def _without_defaults(part: P, defaults: Mapping[str, FieldValue]) -> P:
    values = part.__dict__
    said = [name for name in part.model_fields_set if name in defaults and values[name] == defaults[name]]
    return without(part, *said)


def _step(step: Step) -> Step:
    return _without_defaults(without(step, "id"), STEP_DEFAULTS)


def _clock(clock: Clock) -> Clock:
    made = _without_defaults(clock, CLOCK_DEFAULTS)
    if not isinstance(made, Rotation):
        return made
    stations = [
        one.model_copy(
            update={"id": None, "name": "", "capacity": None, "kit": None, "steps": [_step(s) for s in one.steps]}
        )
        for one in made.stations
    ]
    inner: InnerClock = _without_defaults(made.inner, CLOCK_DEFAULTS)
    return made.model_copy(update={"inner": inner, "stations": stations})


def _block(block: Block, *, last: bool) -> Block:
    words = (*OWN_WORDS, "id", "rest_after_s") if last else (*OWN_WORDS, "id")
    made = _without_defaults(without(block, *words), BLOCK_DEFAULTS)
    steps = None if made.steps is None else [_step(step) for step in made.steps]
    made = made.model_copy(update={"clock": _clock(made.clock), "steps": steps})
    lists = _list_length(made)
    return without(made, "rounds") if lists is not None and made.rounds == lists else made


def _list_length(block: Block) -> int | None:
    """How long every per-round list of a block is; None without any (loads apart: they follow the rounds)."""
    parts: Sequence[DocumentObject] = [block.clock, *(block.steps or ())]
    lengths = {
        len(value)
        for part in parts
        for name, value in part.__dict__.items()
        if name != "tempo" and type(value) is list and value and isinstance(value[0], int | float)
    }
    return lengths.pop() if len(lengths) == 1 else None


def shape_of(entries: Sequence[BlockOrSection]) -> list[BlockOrSection]:
    """The shape of entries, to be compared with `==`."""
    shapes: list[BlockOrSection] = []
    for index, entry in enumerate(entries):
        if isinstance(entry, Section):
            size = len(entry.blocks)
            blocks = [_block(block, last=at == size - 1) for at, block in enumerate(entry.blocks)]
            times = 1 if entry.times is None else entry.times
            between = 0 if entry.rest_between_s is None else entry.rest_between_s
            shapes.append(Section(section="", times=times, rest_between_s=between, blocks=blocks))
        else:
            shapes.append(_block(entry, last=index == len(entries) - 1))
    return shapes
