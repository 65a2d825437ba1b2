"""Two readings of the same document, written apart from each other, lay out the same time and count the same reps."""

from __future__ import annotations

import copy
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from finetally.core.methods.value import Methods
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.shipped import shipped_library
from tests.core.helpers import BARE, session, step
from tests.core.second_reading import second_reading
from tests.core.strategies import documents, settled

LIBRARY = shipped_library()


def both_agree(document: dict[str, Any], methods: Methods) -> None:
    made = tally(parse_session(document), library=LIBRARY, methods=methods)
    first = [
        (s.start, s.seconds, s.kind, made.tape.visits[s.visit].step.key if s.visit is not None else "")
        for s in made.tape.segments
        if s.seconds > 1e-6
    ]
    line = second_reading(document, LIBRARY, methods)
    second = [(start, seconds, kind, movement) for start, seconds, kind, _, movement in line.segments]
    assert [(k, m) for _, _, k, m in first] == [(k, m) for _, _, k, m in second]
    for one, other in zip(first, second, strict=True):
        assert one[:2] == pytest.approx(other[:2], abs=1e-4), (one, other)
    counted = {key: [m["called"], m["paced"], m["estimated"]] for key, m in made.reps.movements.items()}
    assert {key: count for key, count in counted.items() if any(count)} == {
        key: count for key, count in line.counts.items() if any(count)
    }


many = settings(max_examples=150, deadline=None, suppress_health_check=[HealthCheck.too_slow])


@many
@given(documents(), st.sampled_from([BARE, Methods()]))
def test_any_session_is_read_alike(document: dict[str, Any], methods: Methods) -> None:
    both_agree(settled(copy.deepcopy(document)), methods)


BY_HAND = [
    ("chained slots with a filler", session({
        "clock": {"kind": "every", "period_s": 60, "work_until_s": 45}, "group": 1, "rounds": 3,
        "steps": [step("push-up", reps=8, chain=True), step("air-squat", reps=6, chain=True), step("swing", fill=True)],
    })),
    ("a slot too long for its period", session({
        "clock": {"kind": "every", "period_s": 20}, "rounds": 2,
        "steps": [step("burpee", reps=4, chain=True), step("push-up", reps=9)],
    })),
    ("starts in turn until they are used up", session({
        "clock": {"kind": "every", "period_s": 40, "periods": 5}, "steps": [step("push-up", reps=8), step("swing", reps=12)],
    })),
    ("rounds that end with their lists, and a filler", session({
        "clock": {"kind": "amrap", "window_s": 180},
        "steps": [step("air-squat", reps=[10, 5, 2]), step("push-up", reps=[10, 5, 2]), step("hold-plank", fill=True)],
    })),
    ("a ladder of lists with rests by round", session({
        "clock": {"kind": "task", "round_rest_s": [10, 20, 30]}, "rounds": 3,
        "steps": [step("push-up", reps=[2, 4, 6]), step("swing", reps=[6, 4, 2], tempo=[1, 0, 1, 0])],
    })),
    ("windows that rise with rests that fall, rest first", session({
        "clock": {"kind": "intervals", "work_s": [5, 10, 15], "rest_s": [25, 20, 15], "rest_first": True}, "rounds": 3,
        "steps": [step("air-squat"), step("push-up", sides="each")],
    })),
    ("down and back under a pulse", session({
        "clock": {"kind": "task", "then": "reverse", "cap_s": 400, "pulse": {"work_s": 25, "rest_s": 10}, "rest_s": 3},
        "steps": [step("burpee", reps=5), step("step-back-lunge", reps=6), step("push-up", seconds=20)],
    })),
    ("over and over until the cap", session({
        "clock": {"kind": "task", "then": "restart", "cap_s": 200, "group_rest_s": 20}, "group": 1, "rounds": 2,
        "steps": [step("air-squat", reps=7), step("bear-crawl", metres=12.5)],
    })),
    ("stations of unlike length", session({
        "clock": {"kind": "rotation", "inner": {"kind": "task"}, "rotate_s": 15, "laps": 2, "stations": [
            {"name": "a", "rounds": 3, "steps": [step("push-up", reps=8)]}, {"name": "b", "steps": [step("swing", reps=10)]},
        ]},
    })),
]  # fmt: skip


@pytest.mark.parametrize("methods", [BARE, Methods()], ids=["bare", "default"])
@pytest.mark.parametrize("document", [one[1] for one in BY_HAND], ids=[one[0] for one in BY_HAND])
def test_what_is_seldom_drawn_is_read_alike(document: dict[str, Any], methods: Methods) -> None:
    both_agree(document, methods)
