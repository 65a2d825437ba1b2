"""Edits, on the cases that the browser's own implementation runs too."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from finetally.core.edits.edit import Edit, EditError, apply_edits
from tests.conftest import CASES

EDITS: TypeAdapter[list[Edit]] = TypeAdapter(list[Edit])
ALL = json.loads((CASES / "edits.json").read_text("utf-8"))


@pytest.mark.parametrize("case", ALL, ids=lambda case: case["id"])
def test_edit_and_its_inverse(case: dict[str, Any]) -> None:
    edits = EDITS.validate_python(case["edits"])
    if case["result"] is None:
        with pytest.raises(EditError):
            apply_edits(case["document"], edits)
        return
    made, inverse = apply_edits(case["document"], edits)
    assert made == case["result"]
    assert apply_edits(made, inverse)[0] == case["document"]


def test_the_given_document_is_not_changed() -> None:
    document = {"blocks": [{"id": "b1"}]}
    apply_edits(document, EDITS.validate_python([{"op": "remove", "path": ["blocks"], "index": 0}]))
    assert document == {"blocks": [{"id": "b1"}]}


def some_document() -> dict[str, Any]:
    blocks = [{"id": f"b{n}", "steps": [{"id": f"s{n}{m}", "reps": m} for m in range(2)]} for n in range(3)]
    return {"title": "x", "blocks": [blocks[0], {"id": "c1", "section": "y", "blocks": [blocks[1], blocks[2]]}]}


PLACES = st.sampled_from(
    [
        ["blocks"], ["c1", "blocks"], ["blocks", 1, "blocks"], ["blocks", 0, "steps"], ["b0", "steps"], ["b2", "steps"],
        ["blocks", 1, "blocks", 0, "steps"], ["c1", "blocks", 1, "steps"],
    ]
)  # fmt: skip
INDEX = st.integers(0, 3)
ANY_EDIT = st.one_of(
    st.builds(lambda p, k, v: {"op": "set", "path": [*p, 0, k], "value": v}, PLACES, st.sampled_from(["id", "reps"]),
              st.sampled_from(["b0", "b1", "c1", "s00", 7])),
    st.builds(lambda p, k: {"op": "set", "path": [*p, 0, k], "unset": True}, PLACES, st.sampled_from(["id", "reps"])),
    st.builds(lambda p, i, v: {"op": "insert", "path": p, "index": i, "value": {"id": v, "steps": []}}, PLACES, INDEX,
              st.sampled_from(["b0", "b1", "c1", "new"])),
    st.builds(lambda p, i: {"op": "remove", "path": p, "index": i}, PLACES, INDEX),
    st.builds(lambda p, i, t, j: {"op": "move", "path": p, "index": i, "to_path": t, "to_index": j}, PLACES, INDEX,
              st.one_of(st.none(), PLACES), INDEX),
)  # fmt: skip


@settings(max_examples=600, deadline=None)
@given(st.lists(ANY_EDIT, min_size=1, max_size=4))
def test_whatever_can_be_done_can_be_undone(wanted: list[dict[str, Any]]) -> None:
    document, edits = some_document(), []
    for edit in EDITS.validate_python(wanted):
        try:
            document = apply_edits(document, [edit])[0]
        except EditError:
            continue
        edits.append(edit)
    made, inverse = apply_edits(some_document(), edits)
    assert made == document
    assert apply_edits(made, inverse)[0] == some_document()
