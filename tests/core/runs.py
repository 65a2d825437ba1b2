"""Runs that the core and the browser's timer both play: tests/cases/runs.json, as cases and as it is written.

`python -m tests.core.runs` writes the expected values of every case anew; look at what has changed before keeping it.
"""

from __future__ import annotations

import json
from collections.abc import Sequence
from functools import cache
from typing import Any

from finetally.core.floor.beats import Beat
from finetally.core.floor.document import Run, read_run
from finetally.core.floor.published import published_played
from finetally.core.floor.replay import Replay
from finetally.core.floor.sheet import Sheet, sheet
from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from tests.conftest import CASES

RUNS = CASES / "runs.json"
OF_TIMER = ("kind", "ends", "s", "self_paced", "block", "run", "set", "entry", "passage")


@cache
def run_cases() -> list[dict[str, Any]]:
    cases: list[dict[str, Any]] = json.loads(RUNS.read_text("utf-8"))
    return cases


def timer_beat(beat: Beat) -> dict[str, Any]:
    """What a timer needs of a beat."""
    return {key: getattr(beat, key) for key in OF_TIMER}


def laid_out(run: Run) -> Sheet:
    return sheet(
        parse_session(run.session),
        library=shipped_library(),
        methods=run.methods,
        given=run.given,
        apart=run.apart,
    )


def played(document: dict[str, Any]) -> dict[str, Any]:
    """What a case's run comes to: its beats, what was played, and the layouts that events made, by event."""
    run = read_run(document)
    replay = Replay(run, shipped_library())
    made = published_played(replay.play())
    layouts = {
        str(place): {
            "order": list(layout.order),
            "changed": sorted(layout.changed),
            "beats": numbered(layout.beats, layout.changed),
        }
        for place, layout in replay.layouts.items()
    }
    found = {"beats": [timer_beat(beat) for beat in laid_out(run).beats], "played": made}
    return {**found, **({"layouts": layouts} if layouts else {})}


def numbered(beats: Sequence[Beat], changed: frozenset[str]) -> list[dict[str, Any]]:
    return [{"number": n, "beat": timer_beat(beat)} for n, beat in enumerate(beats) if beat.passage in changed]


def main() -> None:
    rows = [{"id": one["id"], "why": one["why"], "run": one["run"], **played(one["run"])} for one in run_cases()]
    RUNS.write_text("[\n" + ",\n".join(json.dumps(row) for row in rows) + "\n]\n", "utf-8")


if __name__ == "__main__":
    main()
