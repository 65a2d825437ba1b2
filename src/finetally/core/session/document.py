"""The session document (docs/session-file.md): what a coach plans, as written."""

from __future__ import annotations

from typing import Annotated, Literal, get_args

from pydantic import Discriminator, Field, Tag

from finetally.core.session.clocks import Clock
from finetally.core.session.limits import MAX_BLOCKS, MAX_STEPS
from finetally.core.session.movement import MovementDef
from finetally.core.session.step import Effort, Id, LongText, ShortText, Step
from finetally.core.session.values import (
    Count,
    CountValue,
    DocumentObject,
    Seconds,
    SecondsValue,
    Ten,
    Typed,
    Weight,
)

PartName = Literal["warm-up", "main", "finisher", "cool-down"]
VisitOrder = Literal["rounds", "build", "strip", "build-strip"]
PARTS: tuple[PartName, ...] = get_args(PartName)


class Call(DocumentObject):
    """Something called out in a window: at a second, before its end, or half-way."""

    at_s: Seconds | None = None
    before_end_s: Seconds | None = None
    half: bool | None = None
    say: ShortText


class Block(DocumentObject):
    """Steps under one clock."""

    id: Id | None = None
    part: PartName | None = None
    title: ShortText | None = None
    notes: LongText | None = None
    clock: Clock
    steps: list[Step] | None = Field(default=None, min_length=1, max_length=MAX_STEPS)
    visit: VisitOrder | None = None
    group: Count | Literal["all"] | None = None
    rounds: CountValue | None = None
    strip_from: Literal["front", "back"] | None = None
    repeat: CountValue | None = None
    rest_between_repeats_s: SecondsValue | None = None
    mirror: bool | None = None
    rest_after_s: SecondsValue | None = None
    rest_as: str | None = None
    talk_s: SecondsValue | None = None
    talk_over: bool | None = None
    announced_s: SecondsValue | None = None
    optional: Literal["exit", "skip"] | None = None
    effort: Effort | None = None
    rpe: Ten | None = None
    calls: list[Call] | None = None
    on_purpose: list[str] | None = None


class Section(DocumentObject):
    """Blocks gone through together, `times` times."""

    section: ShortText
    id: Id | None = None
    times: CountValue | None = None
    rest_between_s: SecondsValue | None = None
    rest_after_s: SecondsValue | None = None
    blocks: list[Block] = Field(min_length=1, max_length=MAX_BLOCKS)


def _entry_shape(value: Typed) -> str:
    is_section = isinstance(value, Section) or (isinstance(value, dict) and "section" in value)
    return "~section" if is_section else "~block"


BlockOrSection = Annotated[
    Annotated[Block, Tag("~block")] | Annotated[Section, Tag("~section")], Discriminator(_entry_shape)
]


class WallText(DocumentObject):
    """The words that a session was read from, as typed, and what was chosen where they could be meant otherwise.

    `unread`: they were typed later than the blocks and could not be read; they are kept until they can.
    """

    text: LongText
    unread: bool | None = None
    settled: dict[str, int] | None = Field(default=None, max_length=MAX_STEPS)


class Session(DocumentObject):
    """One planned session."""

    fine_tally: Literal[1]
    title: ShortText
    blocks: list[BlockOrSection] = Field(max_length=MAX_BLOCKS)
    announced_s: SecondsValue | None = None
    slack_s: SecondsValue | None = None
    rpe: Ten | None = None
    stands_alone: bool | None = None
    people: Count | None = None
    space_m: list[Weight] | Weight | str | None = None
    movements: list[MovementDef] | None = None
    notes: LongText | None = None
    cautions: list[ShortText] | LongText | None = None
    tags: list[ShortText] | None = None
    wall: WallText | None = None
