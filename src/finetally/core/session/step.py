"""A step: one movement with its dose, load and other versions of it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Discriminator, Field, Tag

from finetally.core.session.limits import MAX_TEXT
from finetally.core.session.movement import Sides
from finetally.core.session.values import (
    Count,
    DocumentObject,
    Growth,
    MetresDose,
    Pace,
    Percent,
    RepsDose,
    Reserve,
    Seconds,
    SecondsDose,
    Share,
    Typed,
    Weight,
)

Effort = Literal["easy", "steady", "hard", "all-out"]

Id = Annotated[str, Field(min_length=1, max_length=64)]
ShortText = Annotated[str, Field(max_length=500)]
LongText = Annotated[str, Field(max_length=MAX_TEXT)]


class Load(DocumentObject):
    """What is moved: kilograms (per implement), a share of the one-rep maximum, or of body weight."""

    kg: Weight | None = None
    count: Count | None = None
    pct_1rm: Percent | None = None
    bodyweight: Share | None = None
    unit: Literal["kg", "lb"] | None = None


def _load_shape(value: Typed) -> str:
    return "~list" if isinstance(value, list) else "~one"


LoadValue = Annotated[
    Annotated[Load, Tag("~one")] | Annotated[list[Load], Field(min_length=1), Tag("~list")],
    Discriminator(_load_shape),
]


class Option(DocumentObject):
    """Another version of a step: for less or more experienced people, or for other kit."""

    label: ShortText
    level: Literal["easier", "harder"] | None = None
    kit: list[str] | str | None = None
    movement: str | None = None
    reps: RepsDose | None = None
    sides: Sides | None = None
    load: LoadValue | None = None
    dose_factor: Share | None = None

    def goes_by(self, word: str) -> bool:
        """Whether a word chooses it: its label, its level or its kit."""
        kits = [self.kit] if isinstance(self.kit, str) else (self.kit or [])
        return word != "" and (word in (self.label, self.level) or word in kits)


class Step(DocumentObject):
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
    note: LongText | None = None
