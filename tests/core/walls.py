"""Writings of coaches that tests read, and short ways to read them and to see what they come to."""

from __future__ import annotations

import json
from typing import Any

from finetally.core.figures import Figures, figures
from finetally.core.methods.value import Methods
from finetally.core.session.reading import parse_session
from finetally.core.wall.reader import Reading
from finetally.core.wall.reading import read_wall
from finetally.shipped import shipped_library
from tests.conftest import CASES

LIBRARY = shipped_library()
STILL = {"step": 0, "kit": 0, "down": 0, "up": 0}
BARE = Methods.model_validate({"fatigue": 0, "change": STILL, "breathers": 0})
CORPUS: list[dict[str, Any]] = json.loads((CASES / "wall.json").read_text("utf-8"))
HABITS: list[dict[str, Any]] = json.loads((CASES / "habits.json").read_text("utf-8"))
"""Writings of our own, each looked at: what it comes to, and the movements that are known."""


def read(text: str, **more: Any) -> Reading:
    return read_wall(text, library=LIBRARY, **more)


def figured(reading: Reading) -> Figures:
    return figures(parse_session(reading.document), library=LIBRARY, methods=BARE)


def steps_of(reading: Reading) -> list[dict[str, Any]]:
    return [one for block in reading.document["blocks"] for one in block["steps"]]
