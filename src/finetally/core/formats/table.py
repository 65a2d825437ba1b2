"""All named formats in order of precedence, making and recognising."""

from __future__ import annotations

import copy
from collections.abc import Sequence
from types import MappingProxyType
from typing import NamedTuple

from finetally.core.formats.paced import PACED_FORMATS
from finetally.core.formats.places import PLACE_FORMATS
from finetally.core.formats.shape import CannotMakeError, Entry, Format, Params, Steps, shape_of
from finetally.core.formats.windows import WINDOW_FORMATS

FORMATS: tuple[Format, ...] = (*WINDOW_FORMATS, *PACED_FORMATS, *PLACE_FORMATS)
"""The order is the precedence: what is narrower stands before what is wider (strict 20/10 before even intervals)."""

BY_KEY = MappingProxyType({one.key: one for one in FORMATS})


class Recognised(NamedTuple):
    """A format that fits, with the steps and parameters that make the same shape again."""

    format: Format
    steps: Steps
    params: Params


def make(key: str, steps: Steps, params: Params | None = None) -> list[Entry]:
    """Make the entries of a format from steps (movements with their doses) and parameters.

    Parameters left out take their defaults. Raises CannotMakeError with the reason if the format cannot hold
    the steps, KeyError for a format that there is not.
    """
    return _make(BY_KEY[key], copy.deepcopy(steps), params or {})


def _make(chosen: Format, steps: Steps, params: Params) -> list[Entry]:
    why = chosen.hold(steps)
    if why is not None:
        raise CannotMakeError(why)
    return chosen.make(steps, {**chosen.defaults(), **params})


def recognise(entries: Sequence[Entry]) -> list[Recognised]:
    """Every format that fits the entries (one block as a rule), most specific first.

    A format fits when making from what was read gives the same shape. Readers copy what they take.
    """
    shape = shape_of(entries)
    found: list[Recognised] = []
    for one in FORMATS:
        read = one.read(list(entries))
        if read is None:
            continue
        steps, params = read
        try:
            if shape_of(_make(one, steps, params)) == shape:
                found.append(Recognised(one, steps, params))
        except (CannotMakeError, TypeError):
            # Read as something that the format does not make: then it is not that format.
            continue
    return found
