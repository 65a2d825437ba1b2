"""People split into even teams: by pace, so that each team has its share of the quick, or by lot."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

SplitBy = Literal["pace", "lot"]
SPLIT_WAYS: tuple[SplitBy, ...] = get_args(SplitBy)


@dataclass(frozen=True, slots=True)
class Paced:
    """Somebody to be put into a team; `pace`: the factor of their times (above 1 slower), 1 where not known."""

    key: int
    pace: float = 1


def even_teams(people: Sequence[Paced], count: int, by: SplitBy, seed: int) -> list[list[int]]:
    """`count` teams of people's keys whose sizes differ by one at most.

    By pace: dealt to and fro from the quickest to the slowest, those of one pace in the order of `seed`. By lot: in
    the order of `seed` alone. Raises ValueError for fewer people than teams, or no team.
    """
    if not 1 <= count <= len(people):
        raise ValueError(f"{count} teams of {len(people)} people")
    drawn = sorted(people, key=lambda one: one.key)
    random.Random(seed).shuffle(drawn)
    if by == "pace":
        drawn.sort(key=lambda one: one.pace)
    teams: list[list[int]] = [[] for _ in range(count)]
    for first in range(0, len(drawn), count):
        row = drawn[first : first + count]
        turn = range(count) if first // count % 2 == 0 or by == "lot" else range(count - 1, -1, -1)
        for team, one in zip(turn, row, strict=False):
            teams[team].append(one.key)
    return teams
