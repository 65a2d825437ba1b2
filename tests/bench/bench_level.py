"""How long levelling takes: even weeks of 7, 14 and 21 entries. Run with ./tally bench; not a test."""

from __future__ import annotations

import json
from datetime import date
from typing import Any

import pytest

from finetally.core.week.alternatives import alternatives_of
from finetally.core.week.level import level
from finetally.core.week.plan import Band, Rules
from finetally.core.week.proposal import SearchLimit, Slot
from finetally.shipped import shipped_library
from tests.conftest import REPOSITORY

DEMO = sorted((REPOSITORY / "src/finetally/data/demo").glob("*.json"))


@pytest.mark.parametrize("entries", [7, 14, 21])
@pytest.mark.parametrize("hours", [None, 48])
def test_levelling_an_even_week(benchmark: Any, entries: int, hours: float | None) -> None:
    versions = [alternatives_of(json.loads(one.read_text("utf-8")), library=shipped_library()) for one in DEMO]
    slots = [Slot(f"s{n}", n % 7, versions[n % len(versions)]) for n in range(entries)]
    total = sum(slot.versions[0].summary.load for slot in slots)
    rules = Rules(
        band=Band.around(total * 0.92), most_a_day=max(2, entries // 7), no_two_hard=False, clash_hours=hours
    )
    limit = SearchLimit(10.0, 1e6)
    made = benchmark.pedantic(level, (slots, rules), {"begins": date(2026, 12, 7), "limit": limit}, rounds=1)
    benchmark.extra_info.update(end=made.end, unmet=list(made.unmet), edits=len(made.edits))


@pytest.mark.parametrize("document", DEMO, ids=lambda one: one.stem)
def test_versions_of_a_session(benchmark: Any, document: Any) -> None:
    benchmark(alternatives_of, json.loads(document.read_text("utf-8")), library=shipped_library())
