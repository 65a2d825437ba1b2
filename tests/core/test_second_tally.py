"""Effort, load and balance reckoned a second time, in small steps, come to the same."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings

from finetally.core.methods.value import Methods
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import measured, tally
from finetally.shipped import shipped_library
from tests.conftest import CASES
from tests.core.helpers import BARE
from tests.core.second_tally import Reckoner
from tests.core.strategies import documents

LIBRARY = shipped_library()


def both_agree(document: dict[str, Any], methods: Methods) -> None:
    session = parse_session(document)
    t = tally(session, library=LIBRARY, methods=methods)
    made, again = measured(t), Reckoner(t.tape, session, methods).reckon()
    effort = made["effort"]
    assert effort["mean_uptake"] == pytest.approx(again.mean, abs=2e-4)
    assert effort["peak_uptake"] == pytest.approx(again.peak, abs=1e-3)
    assert effort["above_80_s"] == pytest.approx(again.above_80_s, abs=0.01 * made["total_s"] + 0.5)
    assert effort["oxygen_gap_s"] == pytest.approx(again.oxygen_gap_s, abs=0.05 + 1e-3 * made["total_s"])
    for block in made["blocks"]:
        number = next(n for n, of in enumerate(t.tape.blocks) if of.ident == block["id"])
        assert block["rpe"] == pytest.approx(again.blocks[number], abs=5e-3)
    assert effort["rpe"] == pytest.approx(again.rpe, abs=5e-3)
    assert effort["load"] == pytest.approx(again.load, rel=2e-3, abs=0.01)
    patterns = {name: one["share"] for name, one in made["patterns"].items()}
    assert patterns == pytest.approx(again.shares)


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(documents())
def test_any_session_comes_to_the_same_effort(document: dict[str, Any]) -> None:
    # Blocks of sections are named by their place in them, which may be another's too: they get names of their own.
    number = 0
    for entry in document["blocks"]:
        for block in entry.get("blocks", [entry]):
            block["id"] = f"own-{number}"
            number += 1
    both_agree(document, Methods())


@pytest.mark.parametrize(
    "case", ["whole-session", "pairs-20-10", "ladder-under-pulse", "density-stations", "growing-rounds"]
)
def test_a_reference_case_comes_to_the_same_effort(case: str) -> None:
    document = json.loads((CASES / f"sessions/{case}.json").read_text("utf-8"))["session"]
    for number, block in enumerate(document["blocks"]):
        block.setdefault("id", f"own-{number}")
    both_agree(document, BARE)
