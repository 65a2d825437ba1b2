"""What is called out, and when."""

from __future__ import annotations

from typing import Any

from finetally.core.unfold.calls import calls_of
from tests.core.helpers import session, step, tape_of


def calls(document: dict[str, Any]) -> list[tuple[float, str, str]]:
    return [(call.at, call.kind, call.say) for call in calls_of(tape_of(document))]


def test_house_calls() -> None:
    block = {"clock": {"kind": "intervals", "work_s": 40, "rest_s": 15}, "steps": [step("push-up"), step("swing")]}
    assert calls(session(block)) == [
        (0, "next", "push-up"),
        (20, "half", ""),
        (30, "ten-left", ""),
        (40, "next", "swing"),
        (40, "kit", "kettlebell"),
        (52, "count-in", "swing"),
        (75, "half", ""),
        (85, "ten-left", ""),
    ]


def test_a_side_is_switched_inside_a_window() -> None:
    block = {"clock": {"kind": "intervals", "work_s": 16}, "steps": [step("one-leg-hinge", sides="each")]}
    assert (8, "switch", "right") in calls(session(block))


def test_own_calls_take_the_place_of_the_house_calls() -> None:
    own = [{"at_s": 5, "say": "breathe"}, {"before_end_s": 5, "say": "last"}, {"half": True, "say": "mid"}]
    block = {"clock": {"kind": "amrap", "window_s": 60}, "steps": [step("push-up", reps=5)], "calls": own}
    inside = [c for c in calls(session(block)) if c[1] != "next"]
    assert inside == [(5, "own", "breathe"), (30, "own", "mid"), (55, "own", "last")]


def test_a_periods_calls_come_once() -> None:
    block = {
        "clock": {"kind": "every", "period_s": 60},
        "steps": [step("push-up", reps=5, chain=True), step("swing", reps=5)],
    }
    assert [c[0] for c in calls(session(block)) if c[1] == "half"] == [30]
