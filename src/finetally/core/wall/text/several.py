"""Several sessions in one text: a heading with a day or a date each."""

from __future__ import annotations

import re

from finetally.core.wall.tokens.words import DAY

_DATE = re.compile(r"\b\d{1,2}[./]\d{1,2}(?:[./]\d{2,4})?\b|\b\d{4}-\d{2}-\d{2}\b")
_WORK = re.compile(
    r"\b(?:amrap|emom|rounds?|rds?|reps?|rest|sets?|tabata)\b|\d\s*[x×]\s*\d|\d\s*(?:kg|lbs?|m)\b", re.IGNORECASE
)
SHORT_HEADING = 3
LONGEST_HEADING = 60
MOST_SESSIONS = 14
"""Sessions of one text: two a day for a week."""


def is_heading(line: str) -> bool:
    """Whether a line is a day's heading: short, at the margin, with a day or a date, and no work on it."""
    text = line.strip(" \t*#_=~-–—")
    if not text or len(text) > LONGEST_HEADING or line[:1].isspace() or _WORK.search(text):
        return False
    first = " ".join(text.split()[:3])
    return DAY.search(first) is not None or _DATE.search(first) is not None


def _only_day(line: str) -> bool:
    """Whether a line says a day and hardly more: it needs no blank line in front of it."""
    words = re.findall(r"[^\W\d_]+", line)
    return 0 < len(words) <= SHORT_HEADING and DAY.match(words[0]) is not None


def sessions_in(text: str) -> list[str]:
    """The texts of the sessions in a text; the whole text where there is one."""
    lines = text.split("\n")
    heads = [number for number, line in enumerate(lines) if is_heading(line)]
    heads = [n for n in heads if n == 0 or not lines[n - 1].strip() or n == heads[0] or _only_day(lines[n])]
    if len(heads) < 2 or len(heads) > MOST_SESSIONS:
        return [text]
    ends = [*heads[1:], len(lines)]
    first = "\n".join(lines[: heads[0]])
    made = ["\n".join(lines[a:b]) for a, b in zip(heads, ends, strict=True)]
    if first.strip():
        made[0] = f"{first}\n{made[0]}"
    # A day with nothing under it is a line of the session before.
    return made if all(len([x for x in one.split("\n") if x.strip()]) > 1 for one in made) else [text]
