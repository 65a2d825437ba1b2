"""Patches over a text that was edited: what the text does not say stays with its part, what was changed in it counts."""

from __future__ import annotations

import copy
import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.board import unsaid as module
from finetally.core.board.unsaid import label, laid_over, unsaid

STEPS = [{"movement": "a", "reps": 5}, {"movement": "b", "reps": 6}, {"movement": "c", "reps": 7}]


def with_ids(steps: list[dict[str, Any]]) -> list[dict[str, Any]]:
    return [{**one, "id": f"id-{one['movement']}"} for one in steps]


def over(said: list[dict[str, Any]], meant: list[dict[str, Any]], edited: list[dict[str, Any]]) -> Any:
    return laid_over({"steps": edited}, unsaid({"steps": said}, {"steps": meant}))["steps"]


# Whole patches ------------------------------------------------------------------------------------------------------
@pytest.mark.parametrize(
    ("said", "meant", "patch"),
    [
        ({"a": 1}, {"a": 1}, None),
        ({"a": 1}, {"a": 1.0}, None),
        ({"a": 1}, {"a": True}, {"set": {"a": True}, "was": {"a": 1}}),
        ({"a": False}, {"a": 0}, {"set": {"a": 0}, "was": {"a": False}}),
        ({"a": 1}, {"a": 2}, {"set": {"a": 2}, "was": {"a": 1}}),
        ({"a": 1}, {"a": 1, "b": [1]}, {"set": {"b": [1]}}),
        ({"a": 1, "b": 2}, {"a": 1}, {"unset": ["b"]}),
        ({"a": {"x": 1}}, {"a": {"x": 2}}, {"in": {"a": {"set": {"x": 2}, "was": {"x": 1}}}}),
        ({"a": {"x": 1}}, {"a": {"y": 1}}, {"in": {"a": {"set": {"y": 1}, "unset": ["x"]}}}),
        ({"a": [1, 2]}, {"a": [1, 3]}, {"set": {"a": [1, 3]}, "was": {"a": [1, 2]}}),
        ({"a": [1]}, {"a": [1, 2]}, {"set": {"a": [1, 2]}, "was": {"a": [1]}}),
        ({"a": STEPS[:1]}, {"a": STEPS[:2]}, {"set": {"a": STEPS[:2]}, "was": {"a": STEPS[:1]}}),
        ({"a": STEPS[:1]}, {"a": [1]}, {"set": {"a": [1]}, "was": {"a": STEPS[:1]}}),
        ({"a": STEPS[:1]}, {"a": 1}, {"set": {"a": 1}, "was": {"a": STEPS[:1]}}),
        (
            {"a": STEPS},
            {"a": [STEPS[0], {**STEPS[1], "id": "x"}, STEPS[2]]},
            {"in": {"a": {"at": {"1": {"set": {"id": "x"}}}, "is": ["a", "b", "c"]}}},
        ),
    ],
)
def test_a_patch_says_what_differs_and_no_more(said: Any, meant: Any, patch: Any) -> None:
    assert unsaid(said, meant) == patch
    assert laid_over(said, patch) == meant


def test_what_is_read_stays_as_it_is() -> None:
    read, patch = {"a": {"x": 1}}, {"set": {"b": {"deep": [1]}}, "in": {"a": {"set": {"y": 2}}}}
    kept = copy.deepcopy((read, patch))
    made = laid_over(read, patch)
    made["b"]["deep"].append(2)  # type: ignore[call-overload, index, union-attr]
    assert (read, patch) == kept
    assert laid_over(read, None) == read
    assert laid_over(read, None) is not read


# Over what was edited -----------------------------------------------------------------------------------------------
def test_a_value_that_was_changed_in_the_text_is_not_changed_back() -> None:
    patch = unsaid({"rest_s": 30, "title": "Ridge"}, {"rest_s": 30.5, "title": "Ridge", "id": "b1"})
    assert laid_over({"rest_s": 30, "title": "Ridge"}, patch) == {"rest_s": 30.5, "title": "Ridge", "id": "b1"}
    assert laid_over({"rest_s": 45, "title": "Ridge"}, patch) == {"rest_s": 45, "title": "Ridge", "id": "b1"}
    assert laid_over({"title": "Ridge"}, patch) == {"title": "Ridge", "id": "b1"}


def test_what_the_text_says_now_goes_before_what_it_did_not_say() -> None:
    patch = unsaid({}, {"note": "slow", "id": "s1"})
    assert laid_over({"note": "fast"}, patch) == {"note": "fast", "id": "s1"}


def test_what_reading_adds_is_taken_out_again_also_after_an_edit() -> None:
    patch = unsaid({"a": 1, "sides": "each"}, {"a": 1})
    assert laid_over({"a": 2, "sides": "each"}, patch) == {"a": 2}
    assert laid_over({"a": 2}, patch) == {"a": 2}


def test_an_object_that_became_something_else_is_left_alone() -> None:
    patch = unsaid({"clock": {"kind": "task"}}, {"clock": {"kind": "task", "hall": "north"}})
    assert laid_over({"clock": {"kind": "task"}}, patch) == {"clock": {"kind": "task", "hall": "north"}}
    for edited in ({"clock": 5}, {}, {"clock": None}):
        assert laid_over(edited, patch) == edited


MOVED = [
    ("nothing", [0, 1, 2]),
    ("the first to the end", [1, 2, 0]),
    ("the last to the front", [2, 0, 1]),
    ("turned round", [2, 1, 0]),
    ("the middle gone", [0, 2]),
    ("one left", [1]),
    ("all gone", []),
]


@pytest.mark.parametrize(("name", "order"), MOVED, ids=[name for name, _ in MOVED])
def test_parts_keep_what_is_theirs_wherever_they_went(name: str, order: list[int]) -> None:
    edited = [STEPS[index] for index in order]
    assert over(STEPS, with_ids(STEPS), edited) == with_ids(edited)


def test_a_part_that_is_new_has_nothing_and_takes_nothing_away() -> None:
    new = {"movement": "new", "reps": 1}
    for at in range(4):
        edited = [*STEPS[:at], new, *STEPS[at:]]
        wanted = [*with_ids(STEPS[:at]), new, *with_ids(STEPS[at:])]
        assert over(STEPS, with_ids(STEPS), edited) == wanted


def test_a_movement_that_was_renamed_in_its_place_keeps_what_was_its() -> None:
    edited = [STEPS[0], {"movement": "other", "reps": 6}, STEPS[2]]
    wanted = [{**one, "id": f"id-{was['movement']}"} for one, was in zip(edited, STEPS, strict=True)]
    assert over(STEPS, with_ids(STEPS), edited) == wanted


def test_of_twins_each_has_its_own_in_order() -> None:
    twins = [{"movement": "a"}, {"movement": "b"}, {"movement": "a"}]
    meant = [{**one, "id": f"i{number}"} for number, one in enumerate(twins)]
    assert over(twins, meant, twins) == meant
    assert [one.get("id") for one in over(twins, meant, twins[1:])] == ["i1", "i2"]
    assert [one.get("id") for one in over(twins, meant, [*twins, {"movement": "a"}])] == ["i0", "i1", "i2", None]


def test_lists_that_are_very_long_are_matched_by_their_places(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(module, "MAX_MATCHED", 3)
    assert over(STEPS, with_ids(STEPS), STEPS[::-1]) == with_ids(STEPS[::-1])
    monkeypatch.setattr(module, "MAX_MATCHED", 2)
    assert [one["id"] for one in over(STEPS, with_ids(STEPS), STEPS[::-1])] == ["id-a", "id-b", "id-c"]


@pytest.mark.parametrize(
    "patch",
    [
        {
            "in": {
                "steps": {"at": {"x": {"set": {"id": "1"}}, "-1": {"set": {"id": "1"}}, "9": {"set": {"id": "1"}}}}
            }
        },
        {"in": {"steps": {"at": {"0": 5}, "is": 7}}},
        {"in": 3, "set": [], "unset": "steps", "was": None},
        {"unset": [1, None, "none"]},
    ],
)
def test_a_patch_that_is_none_changes_nothing(patch: Any) -> None:
    assert laid_over({"steps": STEPS}, patch) == {"steps": STEPS}


@pytest.mark.parametrize(
    ("item", "text"),
    [
        ({"movement": "swing", "name": "x"}, "swing"),
        ({"movement": "", "name": "mat"}, "mat"),
        ({"section": "Pods", "blocks": []}, "Pods"),
        ({"label": "light", "reps": 3}, "light"),
        ({"key": "own"}, "own"),
        ({"steps": [{"movement": "a"}, {"movement": "b"}], "clock": {"kind": "task"}}, "a b"),
        (
            {
                "clock": {
                    "stations": [{"steps": [{"movement": "a"}]}, {"steps": [{"movement": "b"}, {"movement": "c"}]}]
                }
            },
            "a b c",
        ),
        ({"clock": "none"}, ""),
        ({"name": 5}, ""),
    ],
)
def test_a_part_is_known_by_its_name_or_its_movements(item: Any, text: str) -> None:
    assert label(item) == text


VALUES = st.recursive(
    st.none() | st.booleans() | st.integers(-2, 2) | st.sampled_from(["a", "b", ""]),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from("abc"), inner, max_size=3),
    max_leaves=12,
)
OBJECTS = st.dictionaries(st.sampled_from(["a", "b", "movement", "steps"]), VALUES, max_size=4)


@settings(max_examples=300, deadline=None)
@given(OBJECTS, OBJECTS)
def test_any_patch_over_what_it_was_made_from_gives_what_was_meant(said: Any, meant: Any) -> None:
    made = laid_over(said, unsaid(said, meant))
    # As JSON, where true is not one.
    assert json.dumps(made, sort_keys=True) == json.dumps(meant, sort_keys=True)
