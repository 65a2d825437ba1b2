"""Values from a score, laid out ahead: what a run without a network does with each score that may be made."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.floor.document import read_run
from finetally.core.floor.published import published_layout
from finetally.core.floor.replay import Replay
from finetally.core.floor.variants import Variant, variants_of
from finetally.shipped import shipped_library
from tests.core.helpers import session
from tests.core.runs import laid_out, timer_beat
from tests.core.test_floor import AMRAP, RUNS, WINDOWS, run_of


def taking(take: str = "rounds", **more: Any) -> dict[str, Any]:
    value = {"from": {"block": "test", "take": take}, "plan": 3, **more}
    return {"id": "after", **WINDOWS["blocks"][0], "rounds": value}


def variants(*blocks: dict[str, Any]) -> list[Variant]:
    run = read_run(run_of(session({**AMRAP["blocks"][0], "id": "test"}, *blocks), []))
    return variants_of(run, laid_out(run), library=shipped_library())


def test_there_is_a_layout_for_every_score_up_to_the_cap() -> None:
    found = variants(taking(cap=4))
    assert [(one.block, one.take, one.value) for one in found] == [(0, "rounds", value) for value in range(5)]
    # At least one round comes, whatever was scored.
    assert [sum(beat.kind == "work" and beat.block == 1 for beat in one.sheet.beats) for one in found] == [
        1,
        1,
        2,
        3,
        4,
    ]


def test_a_variant_is_what_the_score_lays_out() -> None:
    document = RUNS["from-a-score"]["run"]
    run = read_run(document)
    replayed = Replay(run, shipped_library())
    replayed.play()
    ((layout),) = replayed.layouts.values()
    variant = next(one for one in variants_of(run, laid_out(run), library=shipped_library()) if one.value == 5)
    assert (list(variant.layout.order), variant.layout.changed) == (list(layout.order), layout.changed)
    assert [timer_beat(beat) for beat in variant.layout.beats] == [timer_beat(beat) for beat in layout.beats]


@pytest.mark.parametrize(
    ("blocks", "count"),
    [
        ([taking()], 60),
        ([taking(cap=100)], 0),
        ([taking(cap=4), {**taking("reps", cap=4), "id": "b"}], 0),
        ([WINDOWS["blocks"][0]], 0),
    ],
    ids=["no cap", "too many", "two values of one score", "nothing taken"],
)
def test_how_many_variants_are_sent_along(blocks: list[dict[str, Any]], count: int) -> None:
    assert len(variants(*blocks)) == count


def test_blocks_that_are_the_same_are_not_told_again() -> None:
    run = read_run(run_of(session({**AMRAP["blocks"][0], "id": "test"}, taking(cap=4)), []))
    first = laid_out(run)
    for variant in variants_of(run, first, library=shipped_library()):
        told = published_layout(variant.sheet, variant.layout, before=first)
        assert "blocks" not in told
        assert told["numbers"] == [0, 1]
        assert len(published_layout(variant.sheet, variant.layout)["blocks"]) == 2
