"""The definition of a movement, as the document and the library write it."""

from __future__ import annotations

import math
from typing import Annotated, Literal, get_args

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from finetally.core.session.values import DocumentObject, Fraction, Pace, Reps, Weight

Sides = Literal["both", "each", "alternate", "swap", "left", "right"]
Position = Literal["standing", "kneeling", "seated", "plank", "prone", "supine", "hanging"]
Plane = Literal["sagittal", "frontal", "transverse"]
FinePattern = Literal[
    "squat",
    "hinge",
    "lunge",
    "push-level",
    "push-overhead",
    "pull-level",
    "pull-overhead",
    "brace",
    "twist",
    "flex",
    "carry",
    "travel",
    "jump",
    "mobility",
]
FINE_PATTERNS: tuple[FinePattern, ...] = get_args(FinePattern)

MovementKey = Annotated[str, Field(min_length=1, max_length=120)]
Words = Annotated[str, Field(max_length=500)]


def keys_listed(value: list[MovementKey] | MovementKey | None) -> list[MovementKey]:
    """Movements that a definition names, as a list: one alone is written without its brackets."""
    return [value] if isinstance(value, str) else value or []


class Contained(DocumentObject):
    """A movement hidden in one rep of a composite, and how many reps of it."""

    movement: MovementKey
    reps: Reps


class MovementDef(DocumentObject):
    """What is known of a movement. `pace_s` seconds a rep; `speed_mps` metres a second; `met` multiples of rest.

    `relieves`: patterns after whose work it does good, as a stretch.
    """

    key: MovementKey
    name: Words | None = None
    aliases: list[Words] | None = None
    patterns: dict[FinePattern, Fraction] = Field(default_factory=dict)
    muscles: dict[str, Fraction] | None = None
    relieves: list[FinePattern] | None = None
    plane: Plane | None = None
    position: Position | None = None
    sides: Sides | None = None
    rep_is: Words | None = None
    pace_s: Pace | None = None
    speed_mps: Pace | None = None
    met: Weight | None = None
    met_source: Words | None = None
    landings: Reps | None = None
    landing_grade: Literal["low", "medium", "high"] | None = None
    skilled: bool | None = None
    stresses: list[Words] | None = None
    kit: list[Words] | None = None
    contains: list[Contained] | None = None
    easier: list[MovementKey] | MovementKey | None = None
    harder: list[MovementKey] | MovementKey | None = None
    kit_swaps: list[MovementKey] | None = None
    cues: list[Words] | None = None
    cautions: list[Words] | None = None

    @model_validator(mode="after")
    def _whole_movement(self) -> MovementDef:
        if self.patterns and not math.isclose(sum(self.patterns.values()), 1.0, abs_tol=0.01):
            raise PydanticCustomError("weights", "{allowed}", {"allowed": "pattern weights that add up to 1"})
        return self
