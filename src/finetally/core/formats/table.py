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

CLOCK_NAMES = MappingProxyType(
    {
        "intervals": "Intervals",
        "every": "Timed starts",
        "amrap": "Rounds against the clock",
        "task": "Work until done",
        "rotation": "Stations",
    }
)
"""What a block is called that fits no named format."""


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
    why = chosen.hold(steps)
    if why is not None:
        raise CannotMakeError(why)
    return chosen.make(copy.deepcopy(steps), {**chosen.defaults(), **(params or {})})


def recognise(entries: Sequence[Entry]) -> list[Recognised]:
    """Every format that fits the entries (one block as a rule), most specific first.

    A format fits when making from what was read gives the same shape.
    """
    shape = shape_of(entries)
    found: list[Recognised] = []
    for one in FORMATS:
        read = one.read([copy.deepcopy(entry) for entry in entries])
        if read is None:
            continue
        steps, params = read
        try:
            if shape_of(make(one.key, steps, params)) == shape:
                found.append(Recognised(one, steps, params))
        except (CannotMakeError, TypeError):
            # Read as something that the format does not make: then it is not that format.
            continue
    return found


def name_of(entry: Entry) -> str:
    """The derived name of a block: its most specific format's, else its clock's."""
    found = recognise([entry])
    if found:
        return found[0].format.name
    return CLOCK_NAMES.get(entry.get("clock", {}).get("kind", ""), "Blocks")


def claimed(label: str) -> list[Format]:
    """Formats that a coach's own label claims, by name or by the trade's word."""
    text = label.lower()
    return [one for one in FORMATS if any(word in text for word in one.claims)]
