"""All named formats in order of precedence, making and recognising."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import NamedTuple

from pydantic import ValidationError

from finetally.core.formats import kinds
from finetally.core.formats.format import AnyFormat, Format
from finetally.core.formats.params import CannotMakeError, FormatParams, read_params
from finetally.core.formats.shape import shape_of
from finetally.core.session.document import BlockOrSection
from finetally.core.session.parts import without
from finetally.core.session.step import Step
from finetally.core.session.values import FieldValue


def _found() -> Iterator[AnyFormat]:
    """A format of every class in `kinds`: a file that is put there takes part."""
    for info in pkgutil.iter_modules(kinds.__path__):
        module = importlib.import_module(f"{kinds.__name__}.{info.name}")
        for one in vars(module).values():
            own = isinstance(one, type) and issubclass(one, Format) and one.__module__ == module.__name__
            if own:
                yield one()


FORMATS: tuple[AnyFormat, ...] = tuple(sorted(_found(), key=lambda one: one.precedence))
"""The order is the precedence: what is narrower stands before what is wider (strict 20/10 before even intervals)."""

BY_KEY: Mapping[str, AnyFormat] = MappingProxyType({one.key: one for one in FORMATS})


class Recognised(NamedTuple):
    """A format that fits, with the steps and parameters that make the same shape again."""

    format: AnyFormat
    steps: Sequence[Step]
    params: FormatParams


def make(key: str, steps: Sequence[Step], params: Mapping[str, FieldValue] | None = None) -> list[BlockOrSection]:
    """Make the entries of a format from steps (movements with their doses) and parameters.

    Parameters left out take their defaults. Raises CannotMakeError with the reason if the format cannot hold
    the steps or a parameter is not one of it, KeyError for a format that there is not.
    """
    chosen = BY_KEY[key]
    return make_of(chosen, steps, read_params(chosen.params, params or {}, chosen.name))


def make_of(chosen: AnyFormat, steps: Sequence[Step], params: FormatParams) -> list[BlockOrSection]:
    """As `make`, of parameters that are read. Raises CannotMakeError."""
    why = chosen.refused(len(steps))
    if why is not None:
        raise CannotMakeError(why)
    # Doses go where the format sets them itself.
    bare = [without(step, "reps", "seconds", "metres") for step in steps] if chosen.dose == "made" else steps
    try:
        return chosen.make(bare, params)
    except ValidationError as error:
        # Numbers that are good by themselves may together make more than a document takes.
        first = error.errors(include_url=False)[0]
        allowed = (first.get("ctx") or {}).get("allowed", first["msg"])
        raise CannotMakeError(f"{'.'.join(map(str, first['loc']))}: {allowed}") from None


def recognise(entries: Sequence[BlockOrSection]) -> list[Recognised]:
    """Every format that fits the entries (one block as a rule), most specific first.

    A format fits when making from what was read gives the same shape.
    """
    shape = shape_of(entries)
    found: list[Recognised] = []
    for one in FORMATS:
        try:
            read = one.recognise(entries)
            if read is not None and shape_of(make_of(one, *read)) == shape:
                found.append(Recognised(one, *read))
        except (CannotMakeError, ValidationError):
            # Read as something that the format does not make, or not within its bounds: then it is not that format.
            continue
    return found
