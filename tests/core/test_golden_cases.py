"""Reference sessions with worked-out figures: every figure and the whole tape."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from finetally.core.figures import figures, printed
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.reading import read_session
from finetally.core.unfold.unfold import unfold
from tests.conftest import CASES

FILES = sorted((CASES / "sessions").glob("*.json"))
COUNTS = ("called", "paced", "estimated", "contained", "left", "right", "visits", "rounds", "reps")


def load(path: Path) -> dict[str, Any]:
    case: dict[str, Any] = json.loads(path.read_text("utf-8"))
    return case


def tolerance(name: str, wanted: float) -> float:
    """Times 0.01 s, counts exact, shares 0.002, rpe 0.02, load 0.5 %."""
    key = name.rpartition(".")[2].partition("[")[0]
    if key in COUNTS:
        return 0
    if key == "load":
        return 0.005 * abs(wanted)
    return {"rpe": 0.02, "density": 0.002, "share": 0.002, "mean_uptake": 0.002, "peak_uptake": 0.002}.get(
        key, 0.01
    )


def differences(wanted: Any, got: Any, name: str = "") -> list[str]:
    if isinstance(wanted, dict):
        return [
            line
            for key, value in wanted.items()
            for line in differences(value, got.get(key) if isinstance(got, dict) else None, f"{name}.{key}")
        ]
    if isinstance(wanted, list) and isinstance(got, list) and len(wanted) == len(got):
        return [
            line
            for index, (w, g) in enumerate(zip(wanted, got, strict=True))
            for line in differences(w, g, f"{name}[{index}]")
        ]
    if isinstance(wanted, int | float) and isinstance(got, int | float):
        return [] if abs(wanted - got) <= tolerance(name, wanted) + 1e-9 else [f"{name}: {got}, not {wanted}"]
    return [] if wanted == got else [f"{name}: {got!r}, not {wanted!r}"]


@pytest.mark.parametrize("path", FILES, ids=lambda path: path.stem)
def test_figures_and_tape(path: Path, bare: Methods) -> None:
    case = load(path)
    methods = bare if case["methods"] == "bare" else Methods()
    _, session = read_session(json.dumps(case["session"]))
    made = printed(figures(session, library=Library(()), methods=methods))
    assert differences(case["figures"], made) == []
    tape = unfold(session, library=Library(()), methods=methods)
    rows = [
        [s.start, s.seconds, s.kind, *([tape.visits[s.visit].step.key] if s.visit is not None else [])]
        for s in tape.segments
    ]
    assert differences(case["tape"], rows) == []


def test_there_are_cases() -> None:
    assert len(FILES) >= 13
