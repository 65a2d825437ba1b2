"""How long a body may be, from the schema that it is read with."""

from __future__ import annotations

import types
from collections.abc import Iterable
from typing import Annotated, Any, Union, get_args, get_origin

from annotated_types import MaxLen
from pydantic import BaseModel, WithJsonSchema

from finetally.core.session.limits import MAX_BYTES

SMALL_BYTES = 64_000
"""What most acts need: ids, numbers, a few lines."""

NUMBER_BYTES = 24
"""A number, a date or a truth as it is sent."""
TEXT_BYTES = 200
"""A text or a value without a bound of its own."""


def body_bound(model: type[BaseModel]) -> int:
    """Bytes that a body of a model may take: few, a document, or as long as its longest text may be."""
    most, longest = _size(model, ())
    return SMALL_BYTES if most <= SMALL_BYTES else max(MAX_BYTES, longest)


def _size(of: Any, bounds: Iterable[Any]) -> tuple[int, int]:
    """Bytes of a value in all, and of the longest text in it."""
    bounds = list(bounds)
    if get_origin(of) is Annotated:
        of, *more = get_args(of)
        return _size(of, [*bounds, *more])
    if any(isinstance(one, WithJsonSchema) for one in bounds):
        # A document, or a movement's definition.
        return MAX_BYTES, MAX_BYTES
    most = next((one.max_length for one in bounds if isinstance(one, MaxLen)), None)
    if isinstance(of, type) and issubclass(of, BaseModel):
        return _of_model(of)
    if of is str:
        return most or TEXT_BYTES, most or TEXT_BYTES
    return _of_parts(of, bounds, most)


def _of_model(model: type[BaseModel]) -> tuple[int, int]:
    sizes = [(name, _size(one.annotation, one.metadata)) for name, one in model.model_fields.items()]
    whole = sum(len(name) + size for name, (size, _) in sizes)
    return whole, max((longest for _, (_, longest) in sizes), default=0)


def _of_parts(of: Any, bounds: list[Any], most: int | None) -> tuple[int, int]:
    origin, parts = get_origin(of), get_args(of)
    if origin in (Union, types.UnionType):
        # The bound belongs to the whole union: `text: str | None = Field(max_length=…)`.
        sizes = [_size(part, bounds) for part in parts if part is not type(None)]
        return max(sizes)
    if origin in (list, dict, set, tuple, frozenset):
        whole = sum(_size(part, ())[0] for part in parts)
        longest = max((_size(part, ())[1] for part in parts), default=0)
        return whole * (most or 1), longest
    return (TEXT_BYTES if of is Any else NUMBER_BYTES), 0
