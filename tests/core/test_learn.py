"""The pace factor of a score: at the factor found, the model makes that score; beyond it, less."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.learn.pace import HALVINGS, QUICKEST, SLOWEST, PaceModel, better, factor_of, rank
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.unfold.tape import RunScore
from finetally.shipped import shipped_library
from tests.core.helpers import BARE, session, step

COUPLET = [step("air-squat", reps=5, pace_s=2), step("push-up", reps=5, pace_s=2)]
AMRAP = {"clock": {"kind": "amrap", "window_s": 120}, "steps": COUPLET}
TASK = {"clock": {"kind": "task"}, "rounds": 3, "steps": COUPLET}
CAPPED = {"clock": {"kind": "task", "cap_s": 120}, "rounds": 3, "steps": COUPLET}


def model(block: dict[str, Any], methods: Methods = BARE) -> PaceModel:
    return PaceModel(parse_session(session(block)), 0, shipped_library(), methods)


def factor(block: dict[str, Any], score: RunScore, methods: Methods = BARE) -> float | None:
    return factor_of(model(block, methods), 0, score)


def test_between_the_least_and_the_most_that_make_the_score() -> None:
    # 6 rounds of 20 s fill the window: 60 reps from factor 1 down to 120 / 61 / 2.
    found = factor(AMRAP, {"rounds": 6, "reps": 0})
    assert found == pytest.approx((120 / 122 * 1) ** 0.5, abs=1e-5)


def test_a_time_has_the_factor_that_takes_it() -> None:
    assert factor(TASK, {"time_s": 90}) == pytest.approx(1.5, abs=1e-5)
    assert factor(TASK, {"time_s": 45}) == pytest.approx(0.75, abs=1e-5)


@pytest.mark.parametrize(
    ("block", "score", "clipped"),
    [
        (AMRAP, {"rounds": 400, "reps": 0}, QUICKEST),
        (AMRAP, {"rounds": 0, "reps": 1}, SLOWEST),
        (TASK, {"time_s": 1}, QUICKEST),
        (TASK, {"time_s": 4000}, SLOWEST),
    ],
    ids=["more than any", "less than any", "sooner than any", "later than any"],
)
def test_what_no_pace_makes_is_clipped(block: dict[str, Any], score: RunScore, clipped: float) -> None:
    assert factor(block, score) == clipped


def test_not_done_by_the_cap_is_less_than_done() -> None:
    unfinished = factor(CAPPED, {"rounds": 2, "reps": 5})
    done = factor(CAPPED, {"time_s": 100})
    assert unfinished is not None
    assert done is not None
    assert done < 2 < unfinished
    assert rank({"time_s": 119}) > rank({"rounds": 99, "reps": 0})


@pytest.mark.parametrize(
    ("block", "score"),
    [
        (AMRAP, {"time_s": 50}),
        (TASK, {"rounds": 3, "reps": 0}),
        ({"clock": {"kind": "amrap", "window_s": 60}, "steps": [step("hold-plank", seconds=20)]}, {"rounds": 3}),
        ({"clock": {"kind": "intervals", "work_s": 20}, "steps": COUPLET}, {"rounds": 3}),
    ],
    ids=["a time for rounds", "rounds for a time", "pace makes no difference", "no score at all"],
)
def test_what_says_nothing_of_pace_has_none(block: dict[str, Any], score: RunScore) -> None:
    assert factor(block, score) is None


@settings(deadline=None, max_examples=25)
@given(st.floats(0.4, 2.5), st.sampled_from([AMRAP, TASK, CAPPED]), st.sampled_from([BARE, DEFAULT_METHODS]))
def test_the_factor_of_a_models_score_makes_it_again(true: float, block: dict[str, Any], methods: Methods) -> None:
    of = model(block, methods)
    score = of.score(true, 0)
    assert score is not None
    found = factor_of(of, 0, score)
    assert found is not None
    again = of.score(found, 0)
    assert again is not None
    if "time_s" in score:
        assert again.get("time_s") == pytest.approx(score["time_s"], abs=0.01)
    else:
        assert again == score


def test_a_window_of_another_length_is_taken_as_it_was() -> None:
    short = PaceModel(parse_session(session(AMRAP)), 0, shipped_library(), BARE, window_s=60)
    assert short.score(1, 0) == {"rounds": 3, "reps": 0}


def test_a_search_ends_after_so_many_steps() -> None:
    asked = []

    class Counting(PaceModel):
        def score(self, factor: float, index: int) -> RunScore | None:
            asked.append(factor)
            return super().score(factor, index)

    factor_of(Counting(parse_session(session(AMRAP)), 0, shipped_library(), BARE), 0, {"rounds": 5, "reps": 3})
    assert len(asked) <= 2 * HALVINGS + 10


def test_a_block_that_is_not_there_is_told() -> None:
    with pytest.raises(DocumentError) as refused:
        PaceModel(parse_session(session(AMRAP)), 4, shipped_library()).tape(1)
    assert refused.value.problems[0].path == "block"


@pytest.mark.parametrize(
    ("worse", "best"),
    [
        ({"rounds": 4, "reps": 9}, {"rounds": 5}),
        ({"rounds": 4}, {"rounds": 4, "reps": 1}),
        ({"rounds": 40, "reps": 9}, {"time_s": 400}),
        ({"time_s": 400}, {"time_s": 399.5}),
        ({"rung": 6}, {"rung": 7}),
    ],
)
def test_of_two_scores_one_is_better_in_whichever_order(worse: dict[str, float], best: dict[str, float]) -> None:
    assert better(worse, best) == better(best, worse) == best
