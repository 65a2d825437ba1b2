"""A session at a glance, and figures held against others: what stands beside a text, and what a change makes of numbers."""

from __future__ import annotations

from finetally.core.board.outline import outline_of
from finetally.core.compare.deltas import deltas
from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from tests.core.helpers import session, step

LIBRARY = shipped_library()
STARTS = {
    "title": "Starts",
    "part": "finisher",
    "clock": {"kind": "every", "period_s": 60},
    "rounds": 4,
    "steps": [step("swing", reps=10, chain=True), step("gate vault", reps=3)],
}
STATIONS = {
    "clock": {
        "kind": "rotation",
        "inner": {"kind": "intervals", "work_s": 30},
        "stations": [{"name": "mat", "steps": [step("hold-plank")]}, {"name": "hill", "steps": [step("march")]}],
    }
}


def test_an_outline_tells_blocks_in_numbers_and_their_movements() -> None:
    pod = {"section": "Pod", "times": 3, "blocks": [STARTS, STATIONS]}
    first, second = outline_of(parse_session(session(pod)), LIBRARY)
    assert (first["part"], first["title"], first["heading"]) == (
        "finisher", "Starts", "together, 3 times: every 1:00, 4 rounds",
    )  # fmt: skip
    assert [(one["code"], one["words"], one["provisional"]) for one in first["steps"]] == [
        ("HI", "10 swing", False),
        ("??", "+ 3 gate vault", True),
    ]
    assert (second["part"], second["title"]) == ("main", None)
    assert second["heading"].startswith("stations")
    assert [one["movement"] for one in second["steps"]] == ["hold-plank", "march"]


def test_deltas_are_of_every_number_that_differs() -> None:
    before = {"total_s": 60.0, "same": 1, "exits": [{"load": 3.0}], "name": "a", "gone": 4}
    after = {"total_s": 90.0, "same": 1, "exits": [{"load": 3.0}, {"load": 2.0}], "name": "b"}
    assert deltas(before, after) == {"total_s": 30.0, "exits.1.load": 2.0, "gone": -4.0}
