"""How long figures take; run with ./tally bench, recorded in docs/performance.md. Not a test."""

from __future__ import annotations

import json
import resource
from pathlib import Path
from random import Random
from typing import Any

import pytest
from django.test import Client
from hypothesis import HealthCheck, Phase, given, settings

from finetally.core.compare.side_by_side import ComparisonRequest, compare, start_comparison
from finetally.core.figures import figures
from finetally.core.formats.table import FORMATS
from finetally.core.methods.value import Methods
from finetally.core.session.reading import parse_session
from finetally.core.wall.reading import read_wall
from finetally.shipped import shipped_library
from tests.conftest import CASES
from tests.core.helpers import made, session, step
from tests.core.strategies import documents
from tests.web.conftest import World, quick_passwords, world

__all__ = ["quick_passwords", "world"]
WHOLE = json.loads((CASES / "sessions/whole-session.json").read_text("utf-8"))["session"]


@pytest.mark.parametrize("path", sorted((CASES / "sessions").glob("*.json")), ids=lambda p: p.stem)
def test_figures_of_a_case(benchmark: Any, path: Path) -> None:
    parsed = parse_session(json.loads(path.read_text("utf-8"))["session"])
    library = shipped_library()
    benchmark(figures, parsed, library=library, methods=Methods())


@pytest.mark.parametrize("windows", [10, 100, 1_000, 10_000])
def test_figures_by_number_of_windows(benchmark: Any, windows: int) -> None:
    steps = [step("air-squat"), step("push-up")]
    block = {"clock": {"kind": "intervals", "work_s": 5, "rest_s": 2}, "rounds": 5, "steps": steps}
    parsed = parse_session(session(*[{**block, "repeat": min(100, windows // 10)}] * max(1, windows // 1_000)))
    benchmark(figures, parsed, library=shipped_library(), methods=Methods())


def test_a_thousand_different_sessions(benchmark: Any) -> None:
    """One process, each session once: under 3 s, under 200 MB."""
    drawn: list[dict[str, Any]] = []

    @settings(
        max_examples=1_000,
        database=None,
        deadline=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(documents())
    def draw(document: dict[str, Any]) -> None:
        drawn.append(document)

    draw()
    parsed = [parse_session(document) for document in drawn]
    library = shipped_library()
    benchmark.pedantic(lambda: [figures(one, library=library) for one in parsed], rounds=3)
    benchmark.extra_info["MB at most"] = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss // 1024


def test_reading_and_validating(benchmark: Any) -> None:
    benchmark(parse_session, WHOLE)


WALL = "\n".join(
    line for case in json.loads((CASES / "wall.json").read_text("utf-8"))[:12] for line in case["text"].splitlines()
)


@pytest.mark.parametrize("lines", [40, 400])
def test_reading_a_wall(benchmark: Any, lines: int) -> None:
    """A message of 40 lines: under 30 ms."""
    text = "\n".join((WALL.splitlines() * 20)[:lines])
    benchmark(read_wall, text, library=shipped_library())


CHANCE = Random(1)
WORDS = ["".join(CHANCE.choices("abcdefgiklmnorstu", k=CHANCE.randint(3, 9))) for _ in range(16_000)]
HUNDRED_KB = {
    "walls": WALL,
    "one word": "burpee ",
    "numbers": "3 x 12 / 7:30 @ 80% ",
    "brackets": "(((",
    "names": "10 gate vaults and 5 lizard creeps, ",
    "blank": "\n \n",
    "dashes": "10-9-8-7-",
    "no two words alike": "\n".join(" ".join(WORDS[at : at + 40]) for at in range(0, len(WORDS), 40)),
    "weeks": "Monday\n10 burpees\n\n",
}


@pytest.mark.parametrize("kind", HUNDRED_KB)
def test_reading_a_hundred_kilobytes(benchmark: Any, kind: str) -> None:
    """Whatever it is: under 1 s."""
    text = (HUNDRED_KB[kind] * (100_000 // len(HUNDRED_KB[kind]) + 1))[:100_000]
    benchmark.pedantic(read_wall, (text,), {"library": shipped_library()}, rounds=3)


def test_post_figures(benchmark: Any, world: World) -> None:
    client: Client = world.client("coach")
    body = json.dumps({"document": WHOLE, "squad": world.squad.pk})
    answer = benchmark(client.post, "/api/figures", body, content_type="application/json")
    assert answer.status_code == 200


FOUR = ["push-up", "goblet-squat", "bent-row", "swing"]
TWENTY = [
    one.key for one in FORMATS if one.key not in ("one-minute-challenge", "halving-triplet", "regrouped-circuit")
]


@pytest.mark.parametrize("hold", ["total", "work", "load"])
def test_twenty_formats_side_by_side(benchmark: Any, hold: Any) -> None:
    """Poured, searched and figured: under 150 ms."""
    steps = [step(key, reps=10) for key in FOUR]
    document = session(*made("rounds-for-time", steps, {"rounds": 5}))
    library = shipped_library()
    answer = benchmark(
        lambda: compare(
            start_comparison(ComparisonRequest(document, hold=hold), library=library), TWENTY, library=library
        )
    )
    assert sum(column["why"] is None for column in answer["columns"]) >= 13
