"""Values of the document: bounded numbers, ranges, values from a score, per-round lists.

Numbers keep the form they were typed in (20 stays 20, 20.0 stays 20.0).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Annotated, Literal

from pydantic import (
    BaseModel,
    ConfigDict,
    Discriminator,
    Field,
    PlainValidator,
    Tag,
    WithJsonSchema,
    model_validator,
)
from pydantic.config import JsonDict
from pydantic_core import PydanticCustomError

from finetally.core.session.json_value import JsonValue
from finetally.core.session.limits import MAX_COUNT, MAX_DURATION_S, MAX_METRES, MAX_REPS

FAILURE_PLAN = 15
"""Reps that a dose to failure is figured at where no plan is given (docs/session-file.md)."""

POUND_KG = 0.45359237
"""Kilograms in a pound (the international pound, 1959): the document keeps kilograms."""


def _no_open_end(schema: JsonDict) -> None:
    # Unknown keys are kept, but they are no part of the published shape.
    schema.pop("additionalProperties", None)


class DocumentObject(BaseModel):
    """Base of every object in the document: strict types, unknown keys kept as they are."""

    model_config = ConfigDict(extra="allow", strict=True, frozen=True, json_schema_extra=_no_open_end)


FieldValue = None | bool | int | float | str | DocumentObject | Sequence["FieldValue"]
"""What a key of a model may hold."""


def _within(low: float, high: float, *, whole: bool = False, above: bool = False) -> Callable[[JsonValue], float]:
    kind = "a whole number" if whole else "a number"
    allowed = f"{kind} above {low:g} and up to {high:g}" if above else f"{kind} from {low:g} to {high:g}"

    def check(value: JsonValue) -> float:
        if (
            (type(value) is int or (type(value) is float and not whole and math.isfinite(value)))
            and low <= value <= high
            and not (above and value == low)
        ):
            return value
        raise PydanticCustomError("number", "{allowed}", {"allowed": allowed})

    return check


Seconds = Annotated[
    float,
    PlainValidator(_within(0, MAX_DURATION_S)),
    WithJsonSchema({"type": "number", "minimum": 0, "maximum": MAX_DURATION_S}),
]
Metres = Annotated[
    float,
    PlainValidator(_within(0, MAX_METRES)),
    WithJsonSchema({"type": "number", "minimum": 0, "maximum": MAX_METRES}),
]
Reps = Annotated[
    int,
    PlainValidator(_within(0, MAX_REPS, whole=True)),
    WithJsonSchema({"type": "integer", "minimum": 0, "maximum": MAX_REPS}),
]
Growth = Annotated[
    int,
    PlainValidator(_within(-MAX_REPS, MAX_REPS, whole=True)),
    WithJsonSchema({"type": "integer", "minimum": -MAX_REPS, "maximum": MAX_REPS}),
]
Count = Annotated[
    int,
    PlainValidator(_within(1, MAX_COUNT, whole=True)),
    WithJsonSchema({"type": "integer", "minimum": 1, "maximum": MAX_COUNT}),
]
Pace = Annotated[
    float,
    PlainValidator(_within(0, 3600, above=True)),
    WithJsonSchema({"type": "number", "exclusiveMinimum": 0, "maximum": 3600}),
]
Weight = Annotated[
    float,
    PlainValidator(_within(0, 2000)),
    WithJsonSchema({"type": "number", "minimum": 0, "maximum": 2000}),
]
Percent = Annotated[
    float,
    PlainValidator(_within(0, 150, above=True)),
    WithJsonSchema({"type": "number", "exclusiveMinimum": 0, "maximum": 150}),
]
Share = Annotated[
    float,
    PlainValidator(_within(0, 10, above=True)),
    WithJsonSchema({"type": "number", "exclusiveMinimum": 0, "maximum": 10}),
]
Fraction = Annotated[
    float,
    PlainValidator(_within(0, 1)),
    WithJsonSchema({"type": "number", "minimum": 0, "maximum": 1}),
]
Ten = Annotated[
    float,
    PlainValidator(_within(0, 10)),
    WithJsonSchema({"type": "number", "minimum": 0, "maximum": 10}),
]
Reserve = Annotated[
    float,
    PlainValidator(_within(0, 50)),
    WithJsonSchema({"type": "number", "minimum": 0, "maximum": 50}),
]


def _ordered(low: float, plan: float | None, high: float) -> None:
    if low > high or (plan is not None and not low <= plan <= high):
        raise PydanticCustomError("range_order", "{allowed}", {"allowed": "low ≤ plan ≤ high"})


class CountRange(DocumentObject):
    """From `low` to `high` whole things; `plan` is what the figures use."""

    low: Reps
    high: Reps
    plan: Reps | None = None

    @model_validator(mode="after")
    def _check(self) -> CountRange:
        _ordered(self.low, self.plan, self.high)
        return self


class AmountRange(DocumentObject):
    """From `low` to `high` seconds or metres; `plan` is what the figures use."""

    low: Seconds
    high: Seconds
    plan: Seconds | None = None

    @model_validator(mode="after")
    def _check(self) -> AmountRange:
        _ordered(self.low, self.plan, self.high)
        return self


class ScoreSource(DocumentObject):
    """The block, by id, whose score sets the value, and which number of it is taken."""

    block: str = Field(max_length=64)
    take: Literal["rounds", "reps", "rung"]


class FromScore(DocumentObject):
    """A value known on the day: the score of an earlier block, at most `cap`; `plan` until then."""

    source: ScoreSource = Field(alias="from")
    plan: Reps
    cap: Reps | None = None


class ToFailure(DocumentObject):
    """As many reps as can be done; figured at `plan`, with no reps left in reserve."""

    to_failure: Literal[True]
    plan: Reps | None = None


Typed = JsonValue | DocumentObject
"""What a model's key is given: JSON from a file, or a model that is made already."""


def _shape(value: Typed) -> str:
    if isinstance(value, list):
        return "~list"
    if isinstance(value, FromScore) or (isinstance(value, dict) and "from" in value):
        return "~score"
    if isinstance(value, dict | CountRange | AmountRange):
        return "~range"
    return "~number"


def _reps_shape(value: Typed) -> str:
    if isinstance(value, ToFailure) or (isinstance(value, dict) and "to_failure" in value):
        return "~failure"
    return _shape(value)


def _single_shape(value: Typed) -> str:
    shape = _shape(value)
    return "~number" if shape == "~list" else shape


CountValue = Annotated[
    Annotated[Count, Tag("~number")] | Annotated[CountRange, Tag("~range")] | Annotated[FromScore, Tag("~score")],
    Discriminator(_single_shape),
]
SecondsValue = Annotated[
    Annotated[Seconds, Tag("~number")]
    | Annotated[AmountRange, Tag("~range")]
    | Annotated[FromScore, Tag("~score")],
    Discriminator(_single_shape),
]
RepsDose = Annotated[
    Annotated[Reps, Tag("~number")]
    | Annotated[CountRange, Tag("~range")]
    | Annotated[FromScore, Tag("~score")]
    | Annotated[ToFailure, Tag("~failure")]
    | Annotated[list[Reps], Field(min_length=1, max_length=MAX_COUNT), Tag("~list")],
    Discriminator(_reps_shape),
]
SecondsDose = Annotated[
    Annotated[Seconds, Tag("~number")]
    | Annotated[AmountRange, Tag("~range")]
    | Annotated[FromScore, Tag("~score")]
    | Annotated[list[Seconds], Field(min_length=1, max_length=MAX_COUNT), Tag("~list")],
    Discriminator(_shape),
]
MetresDose = Annotated[
    Annotated[Metres, Tag("~number")]
    | Annotated[AmountRange, Tag("~range")]
    | Annotated[FromScore, Tag("~score")]
    | Annotated[list[Metres], Field(min_length=1, max_length=MAX_COUNT), Tag("~list")],
    Discriminator(_shape),
]

ScalarValue = float | CountRange | AmountRange | FromScore | ToFailure | None
"""A value that holds for all rounds."""
PerRoundValue = ScalarValue | Sequence[float]
"""A value, or one for each round."""
