"""What is easier and what is harder than a movement, step by step: the chain that coaches go up and down."""

from __future__ import annotations

import itertools
from typing import Literal

from typing_extensions import TypedDict

from finetally.core.movements.library import Library
from finetally.core.session.movement import keys_listed

MOST_STEPS = 3
"""Steps to either side that are shown."""


class ChainLink(TypedDict):
    """That one movement, by key, is the next easier than another."""

    easier: str
    harder: str


class MovementChain(TypedDict):
    """Columns of movements, by key, from the easiest to the hardest, and the links between neighbouring columns.

    `place`: the column of the one that was asked for.
    """

    columns: list[list[str]]
    place: int
    links: list[ChainLink]


def chain_of(key: str, library: Library) -> MovementChain:
    """The chain around a movement, three steps to either side; alone where nothing is easier or harder.

    A link that only one of two movements names holds for both. Each movement stands once, at its nearest place.
    """
    seen = {key}
    easier = _columns(key, library, "easier", seen)
    harder = _columns(key, library, "harder", seen)
    columns = [*reversed(easier), [key], *harder]
    links = [
        ChainLink(easier=low, harder=high)
        for left, right in itertools.pairwise(columns)
        for low in left
        for high in _next(low, library, "harder")
        if high in right
    ]
    return {"columns": columns, "place": len(easier), "links": links}


ChainWay = Literal["easier", "harder"]


def _columns(key: str, library: Library, way: ChainWay, seen: set[str]) -> list[list[str]]:
    columns: list[list[str]] = []
    last = [key]
    for _ in range(MOST_STEPS):
        found = [one for from_one in last for one in _next(from_one, library, way)]
        last = [one for one in dict.fromkeys(found) if one not in seen]
        if not last:
            break
        seen.update(last)
        columns.append(last)
    return columns


def _next(key: str, library: Library, way: ChainWay) -> list[str]:
    """The movements one step from another, by their own word or the other's, of those that are known."""
    back: ChainWay = "harder" if way == "easier" else "easier"
    movement = library.get(key)
    named = keys_listed(getattr(movement, way)) if movement is not None else []
    naming = (one.key for one in library.values() if key in keys_listed(getattr(one, back)))
    return [one for one in dict.fromkeys([*named, *naming]) if one in library]
