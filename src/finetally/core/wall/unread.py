"""What was not read."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Unread:
    """Words of a line (from 1) that are in no figure."""

    line: int
    text: str
