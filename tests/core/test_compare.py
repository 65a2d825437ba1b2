"""Fit to time, and what differs between two versions."""

from __future__ import annotations

import copy
import json
from importlib import resources
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from finetally.core.compare.differences import differences
from finetally.core.compare.fit import fit_to_time
from finetally.core.edits.edit import Edit, apply_edits
from finetally.core.methods.value import Methods
from finetally.core.session.budget import budget_of
from finetally.core.session.ids import with_ids
from finetally.shipped import shipped_library
from tests.core.helpers import figured, session, step
from tests.core.strategies import documents

EDITS: TypeAdapter[list[Edit]] = TypeAdapter(list[Edit])
LIBRARY = shipped_library()
CARRY = with_ids(
    json.loads(resources.files("finetally").joinpath("data/demo/stretcher-carry-b.json").read_text("utf-8"))
)


def applied(document: dict[str, Any], edits: list[dict[str, Any]]) -> tuple[dict[str, Any], dict[str, Any]]:
    changed, inverse = apply_edits(document, EDITS.validate_python(edits))
    return changed, apply_edits(changed, inverse)[0]


@pytest.mark.parametrize("minutes", [15, 20, 26, 32, 38, 41, 45, 60])
def test_every_way_fits_says_the_truth_and_can_be_undone(minutes: int) -> None:
    ways = fit_to_time(CARRY, minutes * 60, library=LIBRARY)
    assert 1 <= len(ways) <= 3
    made = []
    for way in ways:
        changed, back = applied(CARRY, way["edits"])
        assert back == CARRY
        figures = figured(changed, Methods())
        assert figures["timetable_s"] == pytest.approx(way["timetable_s"])
        assert figures["timetable_s"] <= minutes * 60
        assert way["left_s"] == pytest.approx(minutes * 60 - way["timetable_s"])
        assert figures["effort"]["load"] == pytest.approx(way["load"])
        made.append(changed)
    assert len({json.dumps(one) for one in made}) == len(made)
    assert [w["left_s"] for w in ways] == sorted(w["left_s"] for w in ways)


@pytest.mark.parametrize(
    ("minutes", "rounds", "said"), [(5, 10, "4 rounds more"), (2, 4, "2 rounds fewer"), (2.6, 5, "1 round fewer")]
)
def test_rounds_are_added_or_taken_off_until_the_time_is_full(minutes: float, rounds: int, said: str) -> None:
    clock = {"kind": "intervals", "work_s": 20, "rest_s": 10}
    six = with_ids(session({"title": "Hill", "clock": clock, "rounds": 6, "steps": [step("burpee")]}))
    [way] = [one for one in fit_to_time(six, minutes * 60, library=LIBRARY) if one["kind"] == "rounds"]
    assert way["edits"] == [{"op": "set", "path": ["b1", "rounds"], "value": rounds}]
    assert said in way["what"]


def test_a_marked_exit_is_offered() -> None:
    kinds = {way["kind"] for way in fit_to_time(CARRY, 33 * 60, library=LIBRARY)}
    assert "exit" in kinds


def test_what_fills_leaves_warm_up_and_cool_down_as_they_are() -> None:
    for way in fit_to_time(CARRY, 50 * 60, library=LIBRARY):
        changed, _ = applied(CARRY, way["edits"])
        if way["kind"] != "rests":
            assert changed["blocks"][0] == CARRY["blocks"][0]
            assert changed["blocks"][-1] == CARRY["blocks"][-1]


@settings(max_examples=15, deadline=None)
@given(documents(), st.integers(3, 60))
def test_no_session_breaks_it_and_no_way_goes_over(document: dict[str, Any], minutes: int) -> None:
    for way in fit_to_time(document, minutes * 60, library=LIBRARY):
        assert way["left_s"] >= -1e-6
        applied(document, way["edits"])


def change(document: dict[str, Any], *edits: dict[str, Any]) -> dict[str, Any]:
    return apply_edits(document, EDITS.validate_python(list(edits)))[0]


PLAIN = with_ids(
    session(
        {"title": "A", "clock": {"kind": "intervals", "work_s": 20, "rest_s": 10}, "steps": [step("burpee")]},
        {"title": "B", "clock": {"kind": "task"}, "steps": [step("push-up", reps=5), step("swing", reps=5)]},
    )
)
CHANGES: list[tuple[str, dict[str, Any], tuple[str, str, Any, Any]]] = [
    ("a value", {"op": "set", "path": ["b1", "clock", "rest_s"], "value": 20},
     ("changed", "blocks[0].clock.rest_s", 10, 20)),
    ("a key that was not there", {"op": "set", "path": ["b2", "rounds"], "value": 3},
     ("changed", "blocks[1].rounds", None, 3)),
    ("a step taken out", {"op": "remove", "path": ["b2", "steps"], "index": 0},
     ("removed", "blocks[1].steps[0]", PLAIN["blocks"][1]["steps"][0], None)),
    ("a step put in", {"op": "insert", "path": ["b1", "steps"], "index": 0, "value": {"id": "n", "movement": "jog"}},
     ("added", "blocks[0].steps[0]", None, {"id": "n", "movement": "jog"})),
]  # fmt: skip


@pytest.mark.parametrize(("edit", "expected"), [c[1:] for c in CHANGES], ids=[c[0] for c in CHANGES])
def test_what_differs(edit: dict[str, Any], expected: tuple[str, str, Any, Any]) -> None:
    [one] = differences(PLAIN, change(PLAIN, edit))
    assert (one["kind"], one["path"], one["before"], one["after"]) == expected


def test_a_moved_block_is_moved_not_changed() -> None:
    moved = change(PLAIN, {"op": "move", "path": ["blocks"], "index": 0, "to_index": 1})
    assert {one["kind"] for one in differences(PLAIN, moved)} == {"moved"}


def test_ids_are_no_difference() -> None:
    other = copy.deepcopy(PLAIN)
    assert differences(PLAIN, other) == []
    for block in other["blocks"]:
        block.pop("id")
    for block in (bare := copy.deepcopy(PLAIN))["blocks"]:
        block.pop("id")
    assert differences(bare, other) == []


def test_a_fit_costs_about_as_much_as_it_tries_changes_not_sessions() -> None:
    """The work of a fit grows with the blocks of a session, not with their square or cube."""

    def spent(count: int) -> int:
        block = {"clock": {"kind": "intervals", "work_s": 30, "rest_s": 25}, "rounds": 5, "rest_after_s": 60,
                 "steps": [step("air-squat"), step("push-up")]}  # fmt: skip
        document = with_ids(session(*[{**copy.deepcopy(block), "title": f"B{n}"} for n in range(count)]))
        with budget_of(10**9) as budget:
            assert fit_to_time(document, 420 * count, library=shipped_library())
        return budget.spent

    few, many = spent(8), spent(32)
    assert many < 8 * few
