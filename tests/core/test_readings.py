"""What every writing we know is read as, as it was read before: nothing changes that nobody looked at.

Figures are held elsewhere by numbers worked out by hand; here clocks, notes, names and what was assumed are held as they are.
After a change that is meant, `python -m tests.core.test_readings` writes them anew: look at what differs before you keep it.
"""

from __future__ import annotations

import json
from typing import Any

from finetally.core.board.writer import write_wall
from finetally.core.wall.told import told_of
from tests.conftest import CASES
from tests.core.walls import CORPUS, HABITS, LIBRARY, read

KEPT = CASES / "readings.jsonl"
TOLD_AT_MOST = 5


def reading_of(text: str) -> dict[str, Any]:
    """What a text is read as: its board text, what was assumed, what was not read, which names are new."""
    reading = read(text)
    told = told_of(reading)
    return {
        "text": text,
        "board": write_wall(reading.document, library=LIBRARY),
        "assumed": [f"{one['rule']} {one['said']!r}: {one['read_as']}" for one in told["assumed"]],
        "unread": [one["text"] for one in told["unread"]],
        "unknown": told["unknown"],
    }


def readings() -> list[str]:
    texts = dict.fromkeys(case["text"] for case in [*CORPUS, *HABITS])
    return [json.dumps(reading_of(text), ensure_ascii=False) for text in texts]


def test_every_writing_is_read_as_it_was() -> None:
    kept = KEPT.read_text("utf-8").splitlines()
    made = readings()
    assert len(kept) == len(made)
    other = [(json.loads(was), json.loads(now)) for was, now in zip(kept, made, strict=True) if was != now]
    for was, now in other[:TOLD_AT_MOST]:
        assert now == was
    assert len(kept) > 1_000


if __name__ == "__main__":
    KEPT.write_text("\n".join(readings()) + "\n", "utf-8")
