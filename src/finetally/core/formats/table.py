"""All named formats in order of precedence, making and recognising."""

from __future__ import annotations

import copy
from collections.abc import Sequence
from types import MappingProxyType
from typing import Any, NamedTuple

from finetally.core.formats.paced import PACED_FORMATS
from finetally.core.formats.places import PLACE_FORMATS
from finetally.core.formats.shape import CannotMakeError, Entry, Format, Param, Params, Steps, shape_of
from finetally.core.formats.windows import WINDOW_FORMATS
from finetally.core.session.limits import MAX_COUNT, MAX_DURATION_S, MAX_REPS
from finetally.core.session.problems import shown

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
    chosen = BY_KEY[key]
    refuse_strange(chosen, params or {})
    return _make(chosen, copy.deepcopy(steps), params or {})


def refuse_strange(chosen: Format, params: Params) -> None:
    """Refuse parameters that the format does not have, or of another kind. Raises CannotMakeError.

    Bounds of the table are what coaches use, not what can be: a plan beyond them is made over all the same.
    """
    known = {param.name: param for param in chosen.params}
    for name, value in params.items():
        param = known.get(name)
        if param is None:
            raise CannotMakeError(
                f"{chosen.name} has no {shown(name)}; it has {', '.join(known) or 'nothing to set'}"
            )
        if not _fits(param, value):
            raise CannotMakeError(f"{name}: {shown(value)} is not {KINDS[param.kind]}")


KINDS = {
    "seconds": f"seconds from 0 to {MAX_DURATION_S}", "count": f"a whole number from 1 to {MAX_COUNT}",
    "reps": f"whole reps from 0 to {MAX_REPS}", "choice": "one of the choices", "flag": "yes or no",
    "seconds-list": f"a list of up to {MAX_COUNT} times in seconds", "step": "a step",
}  # fmt: skip


def _fits(param: Param, value: Any) -> bool:
    if value is None:
        return param.open
    if param.kind == "flag":
        return isinstance(value, bool)
    if param.kind == "choice":
        return value in param.choices
    if param.kind == "seconds-list":
        return (
            isinstance(value, list)
            and 0 < len(value) <= MAX_COUNT
            and all(_within(v, MAX_DURATION_S) for v in value)
        )
    if param.kind == "seconds":
        return _within(value, MAX_DURATION_S)
    if param.kind == "step":
        return isinstance(value, dict)
    most, least = (MAX_COUNT, 1) if param.kind == "count" else (MAX_REPS, 0)
    return type(value) is int and least <= value <= most


def _within(value: Any, most: float) -> bool:
    return type(value) in (int, float) and 0 <= value <= most


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
