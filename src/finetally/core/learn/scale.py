"""The scales that people answer on, with their words: how hard a session was, how fresh they are.

Anchors of ratings, 0 to 10: Foster et al. 2001 (0, 2, 3, 5, 7, 10). Freshness, 1 to 5, is the house's own.
"""

from __future__ import annotations

from typing import NamedTuple


class EffortWord(NamedTuple):
    """A step of the scale and its word."""

    effort: int
    word: str


EFFORT_WORDS = (
    EffortWord(0, "rest"),
    EffortWord(1, "very easy"),
    EffortWord(2, "easy"),
    EffortWord(3, "moderate"),
    EffortWord(4, "rather hard"),
    EffortWord(5, "hard"),
    EffortWord(6, "harder still"),
    EffortWord(7, "very hard"),
    EffortWord(8, "beyond very hard"),
    EffortWord(9, "almost maximal"),
    EffortWord(10, "maximal"),
)


class FreshWord(NamedTuple):
    """A step of freshness and its word."""

    value: int
    word: str


FRESH_WORDS = (
    FreshWord(1, "spent"),
    FreshWord(2, "tired"),
    FreshWord(3, "so-so"),
    FreshWord(4, "good"),
    FreshWord(5, "fresh"),
)
