"""Words that nothing begins with are told apart without trying every pattern, and come to the same tokens."""

from __future__ import annotations

import json
import random
from itertools import pairwise

import pytest

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
