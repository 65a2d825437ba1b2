"""Words that nothing begins with are told apart without trying every pattern, and come to the same tokens."""

from __future__ import annotations

import json
import random
from itertools import pairwise

import pytest

from finetally.core.wall.items.read import counting
from finetally.core.wall.text.tables import without_tables
from finetally.core.wall.tokens import tokens
from finetally.core.wall.tokens.tokens import plain, tokens_of
from tests.conftest import CASES

TEXTS = [
    case["text"] for name in ("wall.json", "habits.json") for case in json.loads((CASES / name).read_text("utf-8"))
]


def test_the_short_way_comes_to_the_same(monkeypatch: pytest.MonkeyPatch) -> None:
    chance = random.Random(3)
    words = sorted({word for text in TEXTS for word in text.split()})
    mixed = [" ".join(chance.choices(words, k=12)) for _ in range(2_000)]
    lines = [plain(line) for text in (*TEXTS, *mixed) for line in text.split("\n")]
    short = [tokens_of(line) for line in lines]
    monkeypatch.setattr(tokens, "_bare_word", lambda text, at: None)
    assert [tokens_of(line) for line in lines] == short


def test_most_of_a_long_text_takes_the_short_way(monkeypatch: pytest.MonkeyPatch) -> None:
    tried = 0
    full = tokens._MASTER

    class Counted:
        def match(self, text: str, at: int) -> object:
            nonlocal tried
            tried += 1
            return full.match(text, at)

    monkeypatch.setattr(tokens, "_MASTER", Counted())
    assert len(tokens_of(" ".join(["quonker", "murgle", "zibble"] * 100))) == 300
    assert tried == 0


def test_a_text_is_covered_by_its_tokens() -> None:
    for text in TEXTS:
        for line in map(plain, text.split("\n")):
            found = tokens_of(line)
            assert all(line[t.start : t.end] == t.text for t in found)
            assert all(a.end <= b.start for a, b in pairwise(found))


@pytest.mark.parametrize(
    ("table", "rows"),
    [
        (
            "Movement\tSets\tReps\tLoad\tRest\nSquat\t3\t5\t80\t90 s\nPlank\t3\t30 s",
            ["", "Squat 3 x 5, 80 kg, rest 90 s", "Plank 3 x 30 s"],
        ),
        # Nothing in a cell is nothing said; sets or reps may stand alone.
        ("Movement\tSets\tReps\nSquat\t3\t-\nRow\t\t10", ["", "Squat 3 sets", "Row 10"]),
        # A blank line or a lonely word ends the table; rows below it are lines like others.
        ("Movement\tSets\tReps\nSquat\t3\t5\n\nDip\t2\t2", ["", "Squat 3 x 5", "", "Dip\t2\t2"]),
        ("Movement\tSets\tReps\nSquat\t3\t5\nLoner\nDip\t2\t2", ["", "Squat 3 x 5", "Loner", "Dip\t2\t2"]),
        ("Movement\tSets\tReps\nSquat\t3\t5\nLoner\t\t\nDip\t2\t2", ["", "Squat 3 x 5", "Loner\t\t", "Dip\t2\t2"]),
        # What names fewer than two columns is no head.
        ("a | b\nno table", ["a | b", "no table"]),
        ("Movement\tReps\nSquat\t5", ["Movement\tReps", "Squat\t5"]),
    ],
)
def test_a_table_becomes_lines_of_words_line_for_line(table: str, rows: list[str]) -> None:
    assert without_tables(table).split("\n") == rows


@pytest.mark.parametrize(
    ("ends", "count", "last"),
    [((1, 5), 5, 5), ((5, 1), 5, 1), ((3, 3), 1, 3), ((1, 200), 200, 200), ((900, 1), 200, 701)],
)
def test_counting_goes_up_or_down_and_two_hundred_times_at_most(
    ends: tuple[int, int], count: int, last: int
) -> None:
    made = counting(*ends)
    assert (len(made), made[0], made[-1]) == (count, ends[0], last)
