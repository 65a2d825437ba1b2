"""Movements as a table and as a list: what goes out comes back, what is wrong says where."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from finetally.core.movements.exchange import (
    COLUMNS,
    movements_csv,
    movements_json,
    read_movements_csv,
    read_movements_json,
)
from finetally.core.movements.patterns import FINE_PATTERNS
from finetally.core.session.movement import MovementDef
from finetally.core.session.problems import DocumentError
from finetally.shipped import shipped_library

words = st.text(
    st.characters(codec="utf-8", exclude_categories=["C", "Z"], exclude_characters=";"), min_size=1, max_size=12
)
few = st.lists(words, min_size=1, max_size=3)


@st.composite
def definitions(draw: st.DrawFn) -> dict[str, Any]:
    first, second = draw(st.lists(st.sampled_from(sorted(FINE_PATTERNS)), min_size=2, max_size=2, unique=True))
    share = draw(st.sampled_from([0.25, 0.5, 0.75]))
    made: dict[str, Any] = {"key": draw(st.from_regex(r"[a-z][a-z0-9-]{0,20}[a-z0-9]", fullmatch=True))}
    made["patterns"] = {first: share, second: 1 - share}
    optional = {
        "name": words, "aliases": few, "pace_s": st.sampled_from([1, 2.5, 12]), "met": st.sampled_from([3, 8.5]),
        "position": st.sampled_from(["standing", "plank", "supine"]), "sides": st.sampled_from(["both", "each"]),
        "kit": few, "cues": few, "skilled": st.booleans(), "landings": st.integers(0, 3), "rep_is": words,
    }  # fmt: skip
    for name, strategy in optional.items():
        if draw(st.booleans()):
            made[name] = draw(strategy)
    return made


def written(movements: list[MovementDef]) -> list[dict[str, Any]]:
    return [one.model_dump(mode="json", exclude_unset=True) for one in movements]


@settings(max_examples=80, deadline=None)
@example([{"key": "a0", "patterns": {"brace": 1.0}, "rep_is": "'="}])
@given(st.lists(definitions(), min_size=1, max_size=4, unique_by=lambda one: one["key"]))
def test_what_goes_out_as_a_table_or_a_list_comes_back(rows: list[dict[str, Any]]) -> None:
    movements = [MovementDef.model_validate(row) for row in rows]
    assert written(read_movements_json(movements_json(movements))) == rows
    assert written(read_movements_csv(movements_csv(movements))) == rows


def test_the_shipped_library_goes_through_a_table_unchanged() -> None:
    library = list(shipped_library().values())
    again = {one.key: one for one in read_movements_csv(movements_csv(library))}
    for movement in library:
        told = movement.model_dump(mode="json", exclude_unset=True, include=set(COLUMNS))
        assert again[movement.key].model_dump(mode="json", exclude_unset=True) == told


FORGIVEN = [
    ("a mark at the beginning", "\ufeffkey,patterns\nhaul,pull-level 1\n"),
    ("lines of another system", "key,patterns\r\nhaul,pull-level 1\r\n"),
    ("empty lines", "key,patterns\n\nhaul,pull-level 1\n,\n"),
    ("spaces around", " key , patterns \n haul , pull-level 1 \n"),
    ("columns in another order", "patterns,key\npull-level 1,haul\n"),
]


@pytest.mark.parametrize("text", [one[1] for one in FORGIVEN], ids=[one[0] for one in FORGIVEN])
def test_a_table_is_read_in_many_hands(text: str) -> None:
    [movement] = read_movements_csv(text)
    assert (movement.key, dict(movement.patterns)) == ("haul", {"pull-level": 1})


WRONG = [
    ("nothing", "", "line 1"),
    ("no key", "name,patterns\nx,squat 1\n", "line 1"),
    ("a column that there is not", "key,patterns,colour\nhaul,squat 1,red\n", "line 1"),
    ("too many cells", "key,patterns\nhaul,squat 1,more\n", "line 2"),
    ("a word for a number", "key,patterns,met\nhaul,squat 1,hot\n", "line 2, met"),
    ("weights without numbers", "key,patterns\nhaul,squat\n", "line 2, patterns"),
    ("weights that do not add up", "key,patterns\nhaul,squat 0.4\n", "line 2"),
    ("a pattern that there is not", "key,patterns\nhaul,wing 1\n", "line 2, patterns"),
    ("no patterns", "key,patterns\nhaul,\n", "line 2, patterns"),
    ("a key twice", "key,patterns\nhaul,squat 1\nhaul,squat 1\n", "line 3, key"),
    ("a quote that does not end", 'key,patterns\n"haul,squat 1\n', "(document)"),
]


@pytest.mark.parametrize(("text", "place"), [one[1:] for one in WRONG], ids=[one[0] for one in WRONG])
def test_a_wrong_table_names_the_line_and_the_column(text: str, place: str) -> None:
    with pytest.raises(DocumentError) as caught:
        read_movements_csv(text)
    assert caught.value.problems[0].path.startswith(place), caught.value
    assert caught.value.problems[0].allowed


def test_every_wrong_line_is_told_at_once() -> None:
    with pytest.raises(DocumentError) as caught:
        read_movements_csv("key,patterns,met\na,squat 1,x\nb,squat 1,y\nc,squat 1,3\n")
    assert [one.path for one in caught.value.problems] == ["line 2, met", "line 3, met"]


@pytest.mark.parametrize(
    "text", ["{}", "3", '[{"key": "a"}]', '[{"key": "", "patterns": {"squat": 1}}]', "[", "[1]"]
)
def test_a_wrong_list_is_refused_whole(text: str) -> None:
    with pytest.raises(DocumentError):
        read_movements_json(text)


def test_more_movements_than_anyone_has_are_refused() -> None:
    rows = [{"key": f"m{n}", "patterns": {"squat": 1}} for n in range(2001)]
    with pytest.raises(DocumentError) as caught:
        read_movements_json(json.dumps(rows))
    assert caught.value.problems[0].found == "2001 movements"
