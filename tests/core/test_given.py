"""What is known of the day and the person: options, loads of rounds, body weight, pace, effort as it is felt."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.methods.given import Given, PersonGiven
from finetally.core.session.reading import parse_session
from finetally.core.tally.explain.explain import explain_tally
from finetally.core.tally.explain.node import Explanation, evaluate
from finetally.core.tally.measure import tally
from finetally.shipped import shipped_library
from tests.core.helpers import BARE, figured, session, step, windows


def rounds(*steps: dict[str, Any], times: int = 1, **clock: Any) -> dict[str, Any]:
    return session({"clock": {"kind": "task", **clock}, "rounds": times, "steps": list(steps)})


def of(**person: Any) -> Given:
    return Given(person=PersonGiven(**person))


# Options: squats of 3 s at 2 × 16 kg; easier: air squats of 2 s, half the dose; bands: 5 reps a side at 8 kg; a heavy label.
OPTIONS = [
    {"label": "light", "level": "easier", "dose_factor": 0.5, "movement": "air-squat"},
    {"label": "tubes", "kit": ["band", "tube"], "reps": 5, "sides": "each", "load": {"kg": 8}},
    {"label": "heavy", "level": "harder", "load": {"kg": 24}},
    {"label": "single", "kit": "rope", "dose_factor": 0.01},
]
SQUATS = step("goblet-squat", id="s1", reps=11, load={"kg": 16, "count": 2}, options=OPTIONS)


@pytest.mark.parametrize(
    ("chosen", "name", "work_s", "called", "kg"),
    [
        ({}, "goblet-squat", 33, 11, 352),
        ("nobody knows it", "goblet-squat", 33, 11, 352),
        # Half of eleven is five whole reps; the load is the step's where the option says none.
        ("easier", "air-squat", 10, 5, 160),
        ("light", "air-squat", 10, 5, 160),
        ("band", "goblet-squat", 30, 10, 80),
        ("tube", "goblet-squat", 30, 10, 80),
        ("tubes", "goblet-squat", 30, 10, 80),
        ("harder", "goblet-squat", 33, 11, 264),
        # A share of a dose is one rep at the least.
        ("rope", "goblet-squat", 3, 1, 32),
        ({"s1": "heavy"}, "goblet-squat", 33, 11, 264),
        ({"s1": "no such option"}, "goblet-squat", 33, 11, 352),
        ({"another": "heavy"}, "goblet-squat", 33, 11, 352),
        ({"s1": ""}, "goblet-squat", 33, 11, 352),
    ],
)
def test_an_option_is_taken_by_its_label_level_or_kit(
    chosen: Any, name: str, work_s: float, called: int, kg: float
) -> None:
    made = figured(rounds(SQUATS), given=Given(options=chosen))
    assert (made["work_s"], made["reps"]["called"], made["volume_kg"]) == (work_s, called, kg)
    assert list(made["movements"]) == [name]


def test_a_step_without_an_id_takes_the_word_for_all_and_none_of_a_list_by_ids() -> None:
    bare = {key: value for key, value in SQUATS.items() if key != "id"}
    assert figured(rounds(bare), given=Given(options="light"))["reps"]["called"] == 5
    assert figured(rounds(bare), given=Given(options={"s1": "light", "": "light"}))["reps"]["called"] == 11


def test_an_option_takes_its_share_of_seconds_and_metres_and_of_no_reps_none() -> None:
    half = [{"label": "half", "dose_factor": 0.5}]
    steps = [
        step("hold-plank", seconds=40, options=half),
        step("jog", metres=240, options=half),
        step("push-up", reps=0, options=half),
        step("swing", reps={"low": 8, "high": 14}, options=half),
    ]
    plain, taken = (windows(rounds(*steps), given=Given(options=word)) for word in ("", "half"))
    assert plain == [(40, "hold-plank"), (100, "jog"), (pytest.approx(11 * 1.6), "swing")]
    assert taken == [(20, "hold-plank"), (50, "jog"), (8, "swing")]


def test_the_first_option_that_goes_by_the_word_is_taken() -> None:
    two = [{"label": "a", "level": "easier", "reps": 3}, {"label": "easier", "reps": 4}]
    assert (
        figured(rounds(step("push-up", reps=9, options=two)), given=Given(options="easier"))["reps"]["called"] == 3
    )


# Loads a round --------------------------------------------------------------------------------------------------------
@pytest.mark.parametrize(
    ("loads", "times", "kg"),
    [
        ([{"kg": 10}, {"kg": 20}, {"kg": 30}], 3, 5 * 60),
        # Each of two implements counts.
        ([{"kg": 10, "count": 2}, {"kg": 20}, {"kg": 5, "count": 2}, {"kg": 4}], 4, 5 * (20 + 20 + 10 + 4)),
        ({"kg": 12, "count": 2}, 2, 5 * 48),
        # What cannot be known is no kilogram.
        ([{"kg": 10}, {"pct_1rm": 50}, {"bodyweight": 0.5}], 3, 5 * 10),
    ],
)
def test_each_round_moves_its_own_load(loads: Any, times: int, kg: float) -> None:
    made = figured(rounds(step("push-up", reps=5, load=loads), times=times))
    assert made["volume_kg"] == made["volume_called_kg"] == made["movements"]["push-up"]["kg"] == kg


def test_each_side_moves_each_rounds_load() -> None:
    sided = step("one-arm-press", reps=4, sides="each", load=[{"kg": 8}, {"kg": 12}])
    made = figured(rounds(sided, times=2))
    reps = made["reps"]
    assert (reps["left"], reps["right"], reps["called"]) == (8, 8, 16)
    assert (reps["left_s"], reps["right_s"]) == (24, 24)
    assert made["volume_kg"] == 2 * 4 * 8 + 2 * 4 * 12


def test_windows_of_each_side_are_halves_and_move_what_is_done_in_them() -> None:
    block = {
        "clock": {"kind": "intervals", "work_s": 24, "rest_s": 6}, "rounds": 2,
        "steps": [step("one-arm-press", sides="each", load=[{"kg": 8}, {"kg": 12}])],
    }  # fmt: skip
    made = figured(session(block))
    # Twelve seconds a side are four presses of three seconds, called by nobody.
    assert (made["reps"]["left"], made["reps"]["right"], made["reps"]["called"]) == (8, 8, 0)
    assert (made["volume_kg"], made["volume_called_kg"]) == (8 * 8 + 8 * 12, 0)


# A person -------------------------------------------------------------------------------------------------------------
SHARES = rounds(
    step("barbell-deadlift", reps=4, load={"pct_1rm": 75}), step("push-up", reps=10, load={"bodyweight": 0.6})
)


@pytest.mark.parametrize(
    ("person", "kg"),
    [
        ({}, 0),
        ({"one_rm": {"barbell-deadlift": 120}}, 4 * 90),
        ({"one_rm": {"bench-press": 120}}, 0),
        ({"body_kg": 80}, 10 * 48),
        ({"one_rm": {"barbell-deadlift": 120}, "body_kg": 80}, 4 * 90 + 10 * 48),
    ],
)
def test_shares_are_kilograms_once_a_person_is_known(person: dict[str, Any], kg: float) -> None:
    assert figured(SHARES, given=of(**person))["volume_kg"] == pytest.approx(kg)


def test_a_persons_own_pace_goes_before_the_squads() -> None:
    document = rounds(step("push-up", reps=10), step("jog", metres=240))
    squads = BARE.model_copy(update={"pace_factor": 1.5})
    assert [made[0] for made in windows(document, squads)] == [30, 150]
    assert [made[0] for made in windows(document, squads, of(pace_factor=1.2))] == [24, 120]


def explained(document: dict[str, Any], figure: str, given: Given) -> Explanation:
    t = tally(parse_session(document), library=shipped_library(), methods=BARE, given=given)
    opened = explain_tally(t, figure)
    assert evaluate(opened, BARE.effort_scale) == pytest.approx(opened["value"])
    return opened


HARD = session({"clock": {"kind": "intervals", "work_s": 40, "rest_s": 20}, "rounds": 8, "steps": [step("swing")]})


@pytest.mark.parametrize("offset", [-10, -1.5, 0, 0.7, 2, 10])
def test_effort_is_told_as_the_person_feels_it_and_opens_to_the_estimate_and_what_was_rated(offset: float) -> None:
    estimate = figured(HARD)["effort"]["rpe"]
    assert 3 < estimate < 9.5
    given = of(effort_offset=offset)
    felt = min(10, max(0, estimate + offset))
    effort = figured(HARD, given=given)["effort"]
    assert effort["rpe"] == pytest.approx(felt, abs=1e-3)
    assert effort["load"] == pytest.approx(felt * 8, abs=0.35 * felt + 0.01)
    # What blocks come to is not felt but estimated.
    assert figured(HARD, given=given)["blocks"][0]["rpe"] == figured(HARD)["blocks"][0]["rpe"]
    opened = explained(HARD, "effort.rpe", given)
    assert opened["value"] == pytest.approx(felt, abs=1e-3)
    if offset:
        assert [(one["label"], one["value"]) for one in opened["terms"]] == [
            ("estimate", pytest.approx(estimate, abs=1e-3)),
            ("from rated sessions", pytest.approx(felt - estimate, abs=1e-3)),
        ]
        assert explained(HARD, "effort.estimate", given)["value"] == pytest.approx(estimate, abs=1e-3)


def test_what_was_typed_is_felt_by_everybody_and_nothing_is_no_effort() -> None:
    given = of(effort_offset=2)
    assert figured({**HARD, "rpe": 6}, given=given)["effort"]["rpe"] == 6
    assert explained({**HARD, "rpe": 6}, "effort.rpe", given)["value"] == 6
    assert figured(session(), given=given)["effort"]["rpe"] == 0
