"""The browser's timer and the core's make the same of 100,000 random events."""

from __future__ import annotations

import json
import random
import subprocess
from functools import cache
from pathlib import Path
from typing import Any

import pytest

from finetally.core.floor.document import read_run
from finetally.core.floor.published import published_played
from finetally.core.floor.replay import Replay
from finetally.shipped import shipped_library
from tests.conftest import REPOSITORY
from tests.core.random_runs import random_run
from tests.core.runs import timer_beat

EVENTS, RUNS_A_BATCH, BATCHES = 100_000, 125, 10
EACH = EVENTS // (RUNS_A_BATCH * BATCHES)
FRONTEND = REPOSITORY / "frontend"


@pytest.fixture(scope="module")
def player(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The browser's timer as a program that plays runs."""
    made = tmp_path_factory.mktemp("timer") / "play_runs.mjs"
    subprocess.run(
        [
            str(FRONTEND / "node_modules/.bin/esbuild"),
            str(REPOSITORY / "tests/browser/play_runs.ts"),
            "--bundle",
            "--platform=node",
            "--format=esm",
            "--log-level=error",
            f"--outfile={made}",
        ],
        check=True,
    )
    return made


@cache
def library() -> Any:
    return shipped_library()


def both(document: dict[str, Any]) -> tuple[dict[str, Any], Any]:
    """What the browser is given of a run, and what the core makes of it."""
    run = read_run(document)
    played = Replay(run, library()).play()
    expected = published_played(played)
    beats = [timer_beat(beat) for beat in played.sheets[0].beats]
    given = {"beats": beats, "events": document["events"], "hold": run.hold, "until": run.until}
    return given, expected


def close(one: Any, other: Any) -> bool:
    """The same, times within 2 ms (both are rounded to one)."""
    if isinstance(one, dict) and isinstance(other, dict):
        return one.keys() == other.keys() and all(close(one[key], other[key]) for key in one)
    if isinstance(one, list) and isinstance(other, list):
        return len(one) == len(other) and all(map(close, one, other))
    if isinstance(one, float) or isinstance(other, float):
        return one is not None and other is not None and abs(one - other) < 0.002
    return bool(one == other)


@pytest.mark.parametrize("seed", range(BATCHES))
def test_both_timers_make_the_same_of_random_events(player: Path, seed: int) -> None:
    chance = random.Random(seed)
    documents = [random_run(chance, EACH) for _ in range(RUNS_A_BATCH)]
    pairs = [both(document) for document in documents]
    told = json.dumps([given for given, _ in pairs])
    answer = subprocess.run(["node", str(player)], input=told, capture_output=True, text=True, check=True)
    for number, (document, (_, expected), got) in enumerate(
        zip(documents, pairs, json.loads(answer.stdout), strict=True)
    ):
        assert close(json.loads(json.dumps(expected)), got), (number, document["events"])
