"""What a log teaches as a table for the command line."""

from __future__ import annotations

from collections.abc import Mapping

from finetally.core.learn.learned import LearnedFigures
from finetally.table import grid


def learned_table(made: Mapping[str, LearnedFigures]) -> str:
    """One person a line: pace, its spread, from how many scores; the offset of effort, from how many ratings."""
    rows = [["person", "pace", "spread", "scores", "effort", "ratings"]]
    for person, one in made.items():
        rows.append(
            [
                person, f"{one['pace_factor']:.4f}", f"{one['spread']:.4f}", str(one["scores"]),
                f"{one['effort_offset']:+.3f}", str(one["ratings"]),
            ]
        )  # fmt: skip
    return "\n".join(grid(rows))
