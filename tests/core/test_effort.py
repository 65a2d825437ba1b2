"""The breathing trace against plain numerical integration, and the efforts built on it."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.methods.given import Given, PersonGiven
from finetally.core.methods.one_rep_max import possible_reps
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.tally.effort import scaled
from finetally.core.tally.uptake import uptake_over
from tests.core.helpers import figured, session, step


@pytest.mark.parametrize("demand", [0.125, 0.5, 0.79, 0.95, 1.0, 1.25])
@pytest.mark.parametrize("start", [0.125, 0.6, 0.85, 1.0])
@pytest.mark.parametrize("seconds", [1.0, 20.0, 300.0])
def test_closed_form_is_what_small_steps_come_to(demand: float, start: float, seconds: float) -> None:
    steps = 20_000
    dt = seconds / steps
    value, integral, square, above, gap = start, 0.0, 0.0, 0.0, 0.0
    for _ in range(steps):
        tau = 35 if demand > value else 60
        after = min(1.0, value + (demand - value) * dt / tau)
        middle = (value + after) / 2
        integral += middle * dt
        square += middle * middle * dt
        above += dt if middle >= 0.8 else 0
        gap += max(0.0, demand - middle) * dt if demand > start else 0
        value = after
    made = uptake_over(demand, start, seconds, 35, 60)
    assert made.end == pytest.approx(value, abs=1e-3)
    assert made.integral == pytest.approx(integral, rel=1e-3, abs=1e-3)
    assert made.square == pytest.approx(square, rel=1e-3, abs=1e-3)
    assert made.above_s == pytest.approx(above, abs=0.05)
    assert made.gap_s == pytest.approx(gap, rel=1e-2, abs=0.02)


@pytest.mark.parametrize(
    ("share", "effort"), [(0.1, 0), (0.125, 0), (0.4, 3), (0.5, 4), (0.675, 5.85), (1.0, 10), (1.3, 10)]
)
def test_scale(share: float, effort: float) -> None:
    assert scaled(share, DEFAULT_METHODS.effort_scale) == pytest.approx(effort)


def test_possible_reps_in_either_school() -> None:
    assert possible_reps(0.75, "epley") == pytest.approx(10)
    assert possible_reps(0.75, "brzycki") == pytest.approx(10)
    assert possible_reps(0.9, "epley") == pytest.approx(10 / 3)


def lift(**more: Any) -> dict[str, Any]:
    return session(
        {"clock": {"kind": "task", "rest_s": 180}, "rounds": 3, "steps": [step("barbell-deadlift", **more)]}
    )


EFFORTS = [
    ("planned-reserve", lift(reps=5, reserve=3), {}, 7.0, True),
    ("percent", lift(reps=5, load={"pct_1rm": 75}), {}, 5.0, True),
    ("kilograms-with-1rm", lift(reps=5, load={"kg": 75}), {"barbell-deadlift": 100}, 5.0, True),
    ("brutal", lift(reps=12, load={"pct_1rm": 90}), {}, 10.0, True),
]


@pytest.mark.parametrize(
    ("document", "one_rm", "rpe", "complete"), [e[1:] for e in EFFORTS], ids=[e[0] for e in EFFORTS]
)
def test_resisted_sets(document: dict[str, Any], one_rm: dict[str, float], rpe: float, complete: bool) -> None:
    made = figured(document, Methods(), Given(person=PersonGiven(one_rm=one_rm)))
    assert made["blocks"][0]["rpe"] == pytest.approx(rpe)
    assert made["effort"]["complete"] is complete


def test_kilograms_alone_are_not_judged_and_named() -> None:
    made = figured(lift(reps=5, load={"kg": 75}), Methods())
    assert made["effort"]["complete"] is False
    assert made["effort"]["not_judged"] == ["blocks[0].steps[0].load"]


def marched(work_s: int, rest_s: int, **more: Any) -> float:
    clock = {"kind": "intervals", "work_s": work_s, "rest_s": rest_s}
    block = {"clock": clock, "rounds": 3, "steps": [step("march")], **more}
    rpe: float = figured(session(block))["blocks"][0]["rpe"]
    return rpe


def test_a_typed_word_is_felt_over_work_and_the_default_is_none() -> None:
    assert marched(10, 60) < 2
    # The word's floor is 5; 10 s of work make 39 % of it felt, and a minute fades it to 37 %.
    first = 5 * (1 - math.exp(-10 / 20))
    second = 5 + (first * math.exp(-1) - 5) * math.exp(-10 / 20)
    third = 5 + (second * math.exp(-1) - 5) * math.exp(-10 / 20)
    felt = math.sqrt((first**2 + second**2 + third**2) / 3)
    assert marched(10, 60, effort="hard") == pytest.approx(felt)


def test_long_windows_and_short_rests_tell_more_than_short_windows_and_long_rests() -> None:
    efforts = [marched(w, r, effort="all-out") for w, r in ((15, 45), (20, 40), (20, 10), (60, 10))]
    assert efforts == sorted(efforts)
    assert efforts[0] + 1 < efforts[-1]


def test_a_dose_to_failure_is_figured_at_its_plan_with_nothing_in_reserve() -> None:
    block = {"clock": {"kind": "task"}, "steps": [step("push-up", reps={"to_failure": True})]}
    made = figured(session(block))
    assert (made["reps"]["called"], made["blocks"][0]["rpe"]) == (15, 10)
    block["steps"][0]["reserve"] = 2
    assert figured(session(block))["blocks"][0]["rpe"] == 8


def test_a_dose_without_pace_takes_the_unknowns_and_is_named() -> None:
    block = {"clock": {"kind": "task"}, "steps": [step("hold-plank", reps=10), step("burpee", metres=20)]}
    made = figured(session(block))
    assert made["work_s"] == pytest.approx(40)
    assert made["effort"]["complete"] is False
    assert made["effort"]["guessed"] == ["blocks[0].steps[0].reps", "blocks[0].steps[1].metres"]
    window = {"clock": {"kind": "intervals", "work_s": 20}, "steps": [step("hold-plank", reps=10)]}
    assert figured(session(window))["effort"]["complete"] is True


def test_typed_efforts_replace_estimates() -> None:
    block = {"clock": {"kind": "intervals", "work_s": 30}, "rounds": 4, "steps": [step("burpee")]}
    made = figured(session({**block, "rpe": 4}, block, rpe=9))
    assert made["blocks"][0]["rpe"] == 4
    assert made["effort"]["rpe"] == 9
    assert made["effort"]["load"] == pytest.approx(9 * made["total_s"] / 60)


def test_session_effort_is_the_weighted_rms_of_counted_blocks() -> None:
    easy = {"clock": {"kind": "intervals", "work_s": 60}, "steps": [step("march")], "rpe": 2}
    hard = {"clock": {"kind": "intervals", "work_s": 180}, "steps": [step("burpee")], "rpe": 8}
    made = figured(session({**easy, "part": "warm-up"}, easy, hard))
    assert made["effort"]["rpe"] == pytest.approx(math.sqrt((60 * 4 + 180 * 64) / 240))


def test_moving_in_the_rests_keeps_uptake_up() -> None:
    block = {"clock": {"kind": "intervals", "work_s": 20, "rest_s": 60}, "rounds": 5, "steps": [step("burpee")]}
    still, walking = (figured(session({**block, **more})) for more in ({}, {"rest_as": "walk"}))
    assert walking["effort"]["mean_uptake"] > still["effort"]["mean_uptake"]
    assert walking["rest_s"] == still["rest_s"]


def test_measured_pairs_are_met() -> None:
    # Four 20/10 × 8 bouts of body-weight pairs, a minute apart, all-out: about 74 % of VO2max
    # (Emberts, Porcari et al. 2013); the mean should land within 8 points.
    keys = [
        "squat-jump",
        "mountain-climber",
        "push-up",
        "burpee",
        "high-knees",
        "squat-jump",
        "air-squat",
        "burpee",
    ]
    made = figured(
        session(
            {
                "clock": {"kind": "intervals", "work_s": 20, "rest_s": 10, "group_rest_s": 60},
                "group": 2,
                "rounds": 4,
                "effort": "all-out",
                "steps": [step(key) for key in keys],
            }
        ),
        Methods(),
    )
    assert made["total_s"] == 1100
    assert 0.66 <= made["effort"]["mean_uptake"] <= 0.82


EFFORTS = ("easy", "steady", "hard", "all-out")
CLOCKS = ("intervals", "task")
"""The clocks in which rest stands between work. In an amrap a longer round also means fewer of them, and the last
period of an `every` ends in rest, in which uptake is still above what it was while it rose."""
HARDLY = 0.01
"""Near the limit of uptake a second of rest keeps the mean over the clock up by a few thousandths of a point."""


def alone(kind: str, work: int, rest: int, rounds: int, effort: str, movement: str) -> dict[str, Any]:
    """A block of one movement: so much work, so much rest, in one of the clocks."""
    dose = {"movement": movement, "seconds": work}
    clock: dict[str, Any] = {"kind": kind, "rest_s": rest}
    return {"clock": clock, "rounds": rounds, "steps": [dose], "effort": effort}


@settings(max_examples=150, deadline=None)
@given(
    st.sampled_from(CLOCKS), st.integers(5, 180), st.integers(1, 120), st.integers(1, 90), st.integers(1, 8),
    st.sampled_from(EFFORTS), st.sampled_from(["push-up", "march", "burpee", "calf-stretch", "jog"]),
)  # fmt: skip
def test_longer_work_or_shorter_rest_never_lowers_the_effort(
    kind: str, work: int, rest: int, more: int, rounds: int, effort: str, movement: str
) -> None:
    """Of a block alone, from rest, at one effort word."""

    def rpe(work_s: int, rest_s: int) -> float:
        value: float = figured(session(alone(kind, work_s, rest_s, rounds, effort, movement)))["blocks"][0]["rpe"]
        return value

    plain = rpe(work, rest)
    assert rpe(work + more, rest) >= plain - HARDLY
    # Where a task prescribes no rest people take breathers, which may be longer than a rest of a second.
    least = 1 if kind == "task" else 0
    assert rpe(work, max(least, rest - more)) >= plain - HARDLY
