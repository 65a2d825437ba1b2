"""Visiting orders: in which order the steps (or slots) of a block are entered, round by round, set by set."""

from __future__ import annotations

import functools
from collections.abc import Sequence
from typing import Literal, NamedTuple

from finetally.core.session.document import VisitOrder
from finetally.core.session.limits import MAX_SEGMENTS
from finetally.core.session.problems import refuse


class Visit(NamedTuple):
    """One planned entry into an item (a step, or a slot of `every`). `round_` counts from 0 in its group."""

    item: int
    round_: int
    ends_set: bool
    leaves_group: bool
    last: bool


def sets_of(items: Sequence[int], visit: VisitOrder, strip_from: Literal["front", "back"]) -> list[list[int]]:
    """The sets that one walk over a group goes through: A AB ABC for build, ABC BC C for strip, both joined."""
    n = len(items)
    build = [list(items[: k + 1]) for k in range(n)]
    if strip_from == "front":
        strip = [list(items[k:]) for k in range(n)]
    else:
        strip = [list(items[: n - k]) for k in range(n)]
    if visit == "build":
        return build
    if visit == "strip":
        return strip
    if visit == "build-strip":
        return build + strip[1:]
    return [list(items)]


@functools.lru_cache(maxsize=64)
def visiting_order(
    count: int,
    *,
    visit: VisitOrder = "rounds",
    group: int | Literal["all"] = "all",
    rounds: int = 1,
    strip_from: Literal["front", "back"] = "front",
) -> tuple[Visit, ...]:
    """All visits of a block with `count` items: group by group, `rounds` walks over each group.

    Raises DocumentError for too many.
    """
    size = count if group == "all" else group
    order: list[Visit] = []
    for first in range(0, count, size):
        items = range(first, min(first + size, count))
        sets = sets_of(items, visit, strip_from)
        if len(order) + rounds * sum(map(len, sets)) > MAX_SEGMENTS:
            raise refuse((), f"over {MAX_SEGMENTS} windows", f"{MAX_SEGMENTS} in one session", "too_many")
        last_set = len(sets) - 1
        for round_ in range(rounds):
            for number, chosen in enumerate(sets):
                for place, item in enumerate(chosen):
                    ends = place == len(chosen) - 1
                    leaves = ends and number == last_set and round_ == rounds - 1
                    order.append(Visit(item, round_, ends, leaves, False))
    order[-1] = order[-1]._replace(last=True)
    return tuple(order)
