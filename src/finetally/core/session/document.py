"""The session document (docs/session-file.md): what a coach plans, as written."""

from __future__ import annotations

from typing import Annotated, Any, Literal, get_args

from pydantic import Discriminator, Field, Tag

from finetally.core.session import clocks
from finetally.core.session.clocks import Clock
from finetally.core.session.limits import MAX_BLOCKS, MAX_STEPS, MAX_TEXT
from finetally.core.session.movement import MovementDef, Sides
from finetally.core.session.values import (
    Count,
    CountValue,
    Growth,
    MetresDose,
    Pace,
    Part,
    Percent,
    RepsDose,
    Reserve,
    Seconds,
    SecondsDose,
    SecondsValue,
    Share,
    Ten,
    Weight,
)

Effort = Literal["easy", "steady", "hard", "all-out"]
PartName = Literal["warm-up", "main", "finisher", "cool-down"]
VisitOrder = Literal["rounds", "build", "strip", "build-strip"]
PARTS: tuple[PartName, ...] = get_args(PartName)

Id = Annotated[str, Field(min_length=1, max_length=64)]
Line = Annotated[str, Field(max_length=500)]
Text = Annotated[str, Field(max_length=MAX_TEXT)]


class Load(Part):
    """What is moved: kilograms (per implement), a share of the one-rep maximum, or of body weight."""

    kg: Weight | None = None
    count: Count | None = None
    pct_1rm: Percent | None = None
    bodyweight: Share | None = None
    unit: Literal["kg", "lb"] | None = None


def _load_shape(value: Any) -> str:
    return "~list" if isinstance(value, list) else "~one"


LoadValue = Annotated[
    Annotated[Load, Tag("~one")] | Annotated[list[Load], Field(min_length=1), Tag("~list")],
    Discriminator(_load_shape),
]


class Option(Part):
    """Another version of a step: for less or more experienced people, or for other kit."""

    label: Line
    level: Literal["easier", "harder"] | None = None
    kit: list[str] | str | None = None
    movement: str | None = None
    reps: RepsDose | None = None
    sides: Sides | None = None
    load: LoadValue | None = None
    dose_factor: Share | None = None


class Step(Part):
    """One movement with its dose."""

    id: Id | None = None
    movement: str = Field(min_length=1, max_length=120)
    reps: RepsDose | None = None
    seconds: SecondsDose | None = None
    metres: MetresDose | None = None
    grow: Growth | None = None
    fill: bool | None = None
    chain: bool | None = None
    sides: Sides | None = None
    load: LoadValue | None = None
    reserve: Reserve | None = None
    tempo: list[Seconds] | None = Field(default=None, min_length=4, max_length=4)
    pace_s: Pace | None = None
    effort: Effort | None = None
    rest_s: SecondsDose | None = None
    options: list[Option] | None = None
    note: Text | None = None


class Call(Part):
    """Something called out in a window: at a second, before its end, or half-way."""

    at_s: Seconds | None = None
    before_end_s: Seconds | None = None
    half: bool | None = None
    say: Line


class Block(Part):
    """Steps under one clock."""

    id: Id | None = None
    part: PartName | None = None
    title: Line | None = None
    notes: Text | None = None
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
    optional: Literal["exit", "skip"] | None = None
    effort: Effort | None = None
    rpe: Ten | None = None
    calls: list[Call] | None = None
    on_purpose: list[str] | None = None


class Section(Part):
    """Blocks gone through together, `times` times."""

    section: Line
    id: Id | None = None
    times: CountValue | None = None
    rest_between_s: SecondsValue | None = None
    blocks: list[Block] = Field(min_length=1, max_length=MAX_BLOCKS)


def _entry_shape(value: Any) -> str:
    is_section = isinstance(value, Section) or (isinstance(value, dict) and "section" in value)
    return "~section" if is_section else "~block"


Entry = Annotated[
    Annotated[Block, Tag("~block")] | Annotated[Section, Tag("~section")], Discriminator(_entry_shape)
]


class Session(Part):
    """One planned session."""

    fine_tally: Literal[1]
    title: Line
    blocks: list[Entry] = Field(min_length=1, max_length=MAX_BLOCKS)
    announced_s: SecondsValue | None = None
    slack_s: SecondsValue | None = None
    rpe: Ten | None = None
    stands_alone: bool | None = None
    people: Count | None = None
    space_m: list[Weight] | Weight | str | None = None
    movements: list[MovementDef] | None = None
    notes: Text | None = None
    cautions: list[Line] | Text | None = None
    tags: list[Line] | None = None


# Stations hold steps and steps belong to blocks that hold clocks: the one knot, tied here.
clocks.Station.model_rebuild(_types_namespace={"Step": Step})
clocks.Rotation.model_rebuild(_types_namespace={"Step": Step})
Block.model_rebuild()
Section.model_rebuild()
Session.model_rebuild()
