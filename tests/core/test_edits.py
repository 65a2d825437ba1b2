"""Edits, on the cases that the browser's own implementation runs too."""

from __future__ import annotations

import json
from typing import Any

import pytest
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
    apply_edits(document, EDITS.validate_python([{"op": "remove", "place": ["blocks"], "index": 0}]))
    assert document == {"blocks": [{"id": "b1"}]}
