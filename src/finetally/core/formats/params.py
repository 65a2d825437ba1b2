"""What a coach sets of a format: typed models in which the bounds live and are enforced."""

from __future__ import annotations

import functools
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal, TypeVar

from pydantic import BaseModel, ConfigDict, GetCoreSchemaHandler, GetJsonSchemaHandler, ValidationError
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from finetally.core.session.json_value import JsonObject, objects
from finetally.core.session.problems import shown
from finetally.core.session.values import DocumentObject, FieldValue

ParamUnit = Literal["seconds", "count", "reps", "choice", "flag", "seconds-list"]
WORDS: Mapping[ParamUnit, str] = {
    "seconds": "seconds", "count": "a whole number", "reps": "whole reps", "choice": "one of the choices",
    "flag": "yes or no", "seconds-list": "a list of times in seconds",
}  # fmt: skip


class CannotMakeError(ValueError):
    """The parameters or the steps do not fit the format; says why. `field`: the parameter, where it is one."""

    def __init__(self, why: str, field: str | None = None) -> None:
        super().__init__(why)
        self.field = field


@dataclass(frozen=True, slots=True)
class ParamSpec:
    """What a parameter is called where a coach sets it, its unit, and the least and most that it may be.

    A range or a value known on the day is taken with both its ends within the bounds; lists with every value.
    """

    label: str
    unit: ParamUnit
    low: float = 0
    high: float = 86_400

    def __get_pydantic_core_schema__(self, source: type[FieldValue], handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_after_validator_function(self._within, handler(source))

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        made = handler(schema)
        made["title"] = self.label
        if self.unit in ("seconds", "count", "reps"):
            made.update({"x-unit": self.unit, "x-minimum": self.low, "x-maximum": self.high})
        return made

    def _within(self, value: FieldValue) -> FieldValue:
        for number in _numbers(value):
            if not self.low <= number <= self.high:
                raise PydanticCustomError("within", "{allowed}", {"allowed": self.allowed})
        return value

    @property
    def allowed(self) -> str:
        """What it may be, in words."""
        if self.unit in ("choice", "flag"):
            return WORDS[self.unit]
        return f"{WORDS[self.unit]} from {self.low:g} to {self.high:g}"


def _numbers(value: FieldValue) -> Iterator[float]:
    if isinstance(value, list):
        yield from (number for one in value for number in _numbers(one))
    elif isinstance(value, DocumentObject):
        ends = (getattr(value, name, None) for name in ("low", "high", "plan", "cap"))
        yield from (end for end in ends if end is not None)
    elif isinstance(value, int | float) and not isinstance(value, bool):
        yield value


class FormatParams(BaseModel):
    """Base of every format's parameters: frozen, strict; a parameter that there is not is refused."""

    model_config = ConfigDict(frozen=True, strict=True, extra="forbid")

    def told(self) -> JsonObject:
        """As a document holds them."""
        return {
            name: value.model_dump(mode="json", by_alias=True, exclude_unset=True)
            if isinstance(value, DocumentObject)
            else value
            for name, value in self
        }


F = TypeVar("F", bound=FormatParams)


def param_spec(params: type[FormatParams], name: str) -> ParamSpec:
    """What is said of a parameter."""
    return next(one for one in params.model_fields[name].metadata if isinstance(one, ParamSpec))


@functools.cache
def schema_of(params: type[FormatParams]) -> JsonObject:
    """The JSON Schema of parameters. Not to be changed: it is held."""
    return params.model_json_schema()


def _property(params: type[FormatParams], name: str) -> JsonObject:
    """What the schema says of one parameter."""
    properties = schema_of(params)["properties"]
    found = properties.get(name) if isinstance(properties, dict) else None
    return found if isinstance(found, dict) else {}


def choices(params: type[FormatParams], name: str) -> tuple[str, ...]:
    """The words that a parameter may be; none for a number."""
    words = _property(params, name).get("enum")
    if param_spec(params, name).unit != "choice" or not isinstance(words, list):
        return ()
    return tuple(str(word) for word in words)


def is_open(params: type[FormatParams], name: str) -> bool:
    """Whether a parameter may be left so (None): no cap, no rest of its own."""
    return any(one.get("type") == "null" for one in objects(_property(params, name).get("anyOf")))


def read_params(params: type[F], values: Mapping[str, FieldValue], of: str) -> F:
    """Parameters from values of outside; those left out are usual. `of`: the format's name.

    Raises CannotMakeError for one that there is not, or that is of another kind or out of bounds.
    """
    known = params.model_fields
    for name in values:
        if name not in known:
            raise CannotMakeError(f"{of} has no {shown(name)}; it has {', '.join(known) or 'nothing to set'}", name)
    try:
        return params(**values)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        name = str(first["loc"][0])
        found = shown(values[name])
        raise CannotMakeError(f"{name}: {found} is not {param_spec(params, name).allowed}", name) from None
