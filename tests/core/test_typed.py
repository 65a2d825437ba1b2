"""Movements typed as on a wall, with doses or without."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.compare.typed import read_movements
from finetally.core.session.parts import written
from finetally.shipped import shipped_library

LIBRARY = shipped_library()
PUSH, SQUAT, SWING = (
    {"movement": "push-up"},
    {"movement": "goblet-squat", "load": {"kg": 16}},
    {"movement": "swing"},
)


@pytest.mark.parametrize(
    ("text", "steps"),
    [
        ("push-ups, goblet squat 16 kg, swings", [PUSH, SQUAT, SWING]),
        ("push-ups\ngoblet squats 16kg\n\n  swings  ", [PUSH, SQUAT, SWING]),
        ("10 push ups\nswings", [{**PUSH, "reps": 10}, SWING]),
        (
            "12 swings 24kg, 10 burpees",
            [{**SWING, "reps": 12, "load": {"kg": 24}}, {"movement": "burpee", "reps": 10}],
        ),
        ("200 m run\nplank 30 s", [{"movement": "jog", "metres": 200}, {"movement": "hold-plank", "seconds": 30}]),
        ("5x5 back squat 80%", [{"movement": "barbell-back-squat", "reps": 5, "load": {"pct_1rm": 80}}]),
        ("8 rows each side", [{"movement": "bent-row", "reps": 8, "sides": "each"}]),
        ("burpees", [{"movement": "burpee"}]),
        ("", []),
    ],
)
def test_movements_are_read_as_coaches_write_them(text: str, steps: list[dict[str, Any]]) -> None:
    read = read_movements(text, library=LIBRARY)
    assert [written(step) for step in read.steps] == steps
    assert read.unknown == read.unread == ()


def test_new_names_are_told_and_what_is_none_is_unread() -> None:
    read = read_movements("push-ups\nwotsit plonk\n???", library=LIBRARY)
    assert [step.movement for step in read.steps] == ["push-up", "wotsit plonk"]
    assert read.unknown == ("wotsit plonk",)
    assert read.unread == ("???",)
