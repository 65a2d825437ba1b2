"""The core's version: part of the key of every stored figure, so it rises whenever a figure comes out differently."""

from __future__ import annotations

import hashlib
import json
from pathlib import Path

from finetally.core import CORE_VERSION
from finetally.core.figures import figures, printed
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.planned_load import summary_of
from finetally.shipped import shipped_library
from finetally.web.plan.summaries import summary_json
from tests.conftest import CASES, REPOSITORY

KEPT = CASES / "core-version.json"
FILES = [
    *sorted((CASES / "sessions").glob("*.json")),
    *sorted((REPOSITORY / "src/finetally/data/demo").glob("*.json")),
]


def digest_of(path: Path) -> str:
    """A short name of all figures of a session, and of what it comes to in a week."""
    document = json.loads(path.read_text("utf-8"))
    session = parse_session(document.get("session", document))
    made = printed(figures(session, library=shipped_library()))
    kept = summary_json(summary_of(tally(session, library=shipped_library())))
    return hashlib.sha256(json.dumps([made, kept], sort_keys=True).encode()).hexdigest()[:16]


def test_figures_that_change_raise_the_version() -> None:
    kept = json.loads(KEPT.read_text("utf-8"))
    now = {path.stem: digest_of(path) for path in FILES}
    changed = sorted(name for name in now if kept["figures"].get(name) != now[name])
    told = f"figures of {', '.join(changed)} changed: raise CORE_VERSION, and keep what this prints: "
    assert not changed or kept["version"] < CORE_VERSION, told
    assert (kept["version"], kept["figures"]) == (CORE_VERSION, now), json.dumps(
        {"version": CORE_VERSION, "figures": now}
    )
