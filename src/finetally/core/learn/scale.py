"""The scale of session ratings, 0 to 10, with its words. Anchors: Foster et al. 2001 (0, 2, 3, 5, 7, 10)."""

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
