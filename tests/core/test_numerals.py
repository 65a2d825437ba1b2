"""Numbers of a text that are in no figure: each is told, and none that is used."""

from __future__ import annotations

import pytest

from finetally.core.wall.numerals import unused_numbers
from tests.core.walls import LIBRARY, read


@pytest.mark.parametrize(
    ("text", "numbers"),
    [
        ("4 rounds\n12 kb swings 24kg\n200 m run\nrest 1:30", []),
        ("EMOM 12\nodd: 5 burpees\neven: 10 air squats", []),
        ("1. 10 burpees\n2. 20 air squats\n3. 30 sit-ups", []),
        ("A1 bench press 5x5 @ 80%, tempo 31X0", []),
        ("Bench 5x5 à 72,5 kg, 2'30 pause", []),
        ("10 goblet squat 53 lb\n100 m run", []),
        ("21-15-9\nburpees\nair squats", []),
        ("3 rounds\n45 s box step-up 40 cm\n45 s plank", ["40"]),
        ("3 rounds\n45 s box step-up 40 cm\n10 swings 24 kg\n45 s plank", ["40"]),
        ("3 rounds\n10 burpees\n10 air squats\nsee track 7 on list 12", []),
    ],
)
def test_only_what_is_in_no_figure_is_told(text: str, numbers: list[str]) -> None:
    reading = read(text)
    assert [one.text for one in unused_numbers(reading, LIBRARY)] == numbers


def test_a_number_is_told_at_its_own_characters() -> None:
    found = unused_numbers(read("3 rounds\n45 s box step-up 40 cm\n45 s plank"), LIBRARY)
    assert [(one.line, one.column, one.text) for one in found] == [(2, 18, "40")]
