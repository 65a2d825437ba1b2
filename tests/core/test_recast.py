"""Recasting: every format × everything that can be held still, against trying every number."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.compare.ingredients import Ingredients, alone, of_entries
from finetally.core.compare.recast import Held, Hold, held_of, last_within, poured, recast
from finetally.core.formats.table import BY_KEY, FORMATS, make, recognise
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally, tally
from finetally.shipped import shipped_library
from tests.core.helpers import step

LIBRARY = shipped_library()
SETS = {
    "two": [step("push-up", reps=10), step("air-squat", reps=15)],
    "four": [
        step("push-up", reps=10),
        step("goblet-squat", reps=8, load={"kg": 16}),
        step("bent-row", reps=10, load={"kg": 12, "count": 2}),
        step("half-kneeling-press", reps=6, sides="each", load={"kg": 12}),
    ],
    "seven": [
        *(step(key, reps=10) for key in ("push-up", "goblet-squat", "bent-row", "swing", "burpee")),
        step("step-back-lunge", reps=12, sides="alternate"),
        step("hold-plank", seconds=30),
    ],
}
HOLDS: tuple[Hold, ...] = ("total", "work", "reps", "load")


def plan(name: str) -> tuple[Ingredients, Tally]:
    entries = make("rounds-for-time", SETS[name], {"rounds": 4})
    t = tally(parse_session(alone(entries, ())), library=LIBRARY)
    return of_entries(entries, t, LIBRARY), t


PLANS = {name: plan(name) for name in SETS}


def held_value(entries: Any, what: Hold) -> tuple[float, dict[str, int]]:
    """The held figure, read off the published tally."""
    t = tally(parse_session(alone(list(entries), ())), library=LIBRARY)
    if any(path.endswith("reps") for path in t.effort.guessed()):
        raise ValueError("counts reps of what has no pace")
    called = {key: one["called"] for key, one in t.reps.movements.items()}
    return {"total": t.whole.total, "work": t.whole.work, "load": t.load, "reps": 0.0}[what], called


@pytest.mark.parametrize("name", SETS)
@pytest.mark.parametrize("what", HOLDS)
@pytest.mark.parametrize("key", [one.key for one in FORMATS])
def test_the_held_figure_is_met_and_what_is_left_is_right(key: str, what: Hold, name: str) -> None:
    ingredients, t = PLANS[name]
    held = held_of(t, what)
    made = recast(ingredients, key, held, library=LIBRARY)
    if made.why is not None:
        assert made.why
        assert not made.entries
        return
    value, called = held_value(made.entries, what)
    if what == "reps":
        assert all(called.get(movement, 0) <= reps for movement, reps in held.reps.items())
        left = {movement: reps - called.get(movement, 0) for movement, reps in held.reps.items()}
        assert left == dict(made.left_reps)
        assert sum(left.values()) == made.left
    else:
        assert held.target is not None
        assert value <= held.target + 1e-6
        assert made.left == pytest.approx(held.target - value, abs=1e-6)
    assert key in [one.format.key for one in recognise(list(made.entries))]
    moved = {step["movement"] for step in ingredients.steps}
    assert {
        done.step.key for done in tally(parse_session(alone(made.entries, ())), library=LIBRARY).tape.visits
    } == moved


@pytest.mark.parametrize("name", SETS)
@pytest.mark.parametrize("what", ["total", "work", "load"])
@pytest.mark.parametrize("key", ["even-intervals", "rep-ladder", "rounds-for-time", "strength-sets", "movement-pyramid", "refrain", "countdown-pairs", "rising-windows"])  # fmt: skip
def test_nothing_that_was_not_tried_is_closer(key: str, what: Hold, name: str) -> None:
    """The search guesses; trying every number of the format's lanes finds nothing better."""
    ingredients, t = PLANS[name]
    held = held_of(t, what)
    made = recast(ingredients, key, held, library=LIBRARY)
    closest: float | None = None
    lanes = [lane for tier in BY_KEY[key].free(len(ingredients.steps)) for lane in tier]
    for lane in lanes:
        for params in lane:
            try:
                value, _ = held_value(poured(ingredients, BY_KEY[key], params, ingredients.doses), what)
            except (ValueError, DocumentError):
                continue
            left = (held.target or 0) - value
            if left >= -1e-6 and (closest is None or left < closest):
                closest = left
            if left < -(held.target or 0):
                # Lanes only grow: twice over is far enough.
                break
    assert (made.why is None) is (closest is not None)
    if closest is not None:
        assert made.left == pytest.approx(max(0.0, closest), abs=1e-6)


@pytest.mark.parametrize(
    ("name", "key", "says"),
    [
        ("seven", "pairs-20-10", "takes movements by 2, not 7"),
        ("two", "low-rep-couplets", "takes 4 movements, not 2"),
        ("two", "one-minute-challenge", "takes 1 movement, not 2"),
        ("seven", "rep-ladder", "plank hold cannot be counted in reps"),
        ("four", "strict-20-10", "the least it comes to is 18:20"),
    ],
)
def test_what_cannot_be_says_why(name: str, key: str, says: str) -> None:
    ingredients, _ = PLANS[name]
    made = recast(ingredients, key, Held("total", 600), library=LIBRARY)
    assert made.why is not None
    assert says in made.why


def test_windows_call_no_reps() -> None:
    ingredients, t = PLANS["two"]
    for key in ("strict-20-10", "rounds-against-the-clock", "movement-pyramid", "interval-stations"):
        why = recast(ingredients, key, held_of(t, "reps"), library=LIBRARY).why
        assert why is not None
        assert "calls no reps" in why


def test_reps_are_shared_out_among_rounds_like_the_plan_if_nothing_is_lost_by_it() -> None:
    ingredients, t = PLANS["two"]
    made = recast(ingredients, "minute-starts", held_of(t, "reps"), library=LIBRARY, own={"rounds": 4})
    assert made.params["rounds"] == 4
    assert made.left == 0
    assert [one["reps"] for one in made.entries[0]["steps"]] == [10, 15]


def test_a_start_that_does_not_hold_its_doses_gets_a_longer_period() -> None:
    entries = make("rounds-for-time", [step("burpee", reps=20), step("push-up", reps=20)], {"rounds": 3})
    t = tally(parse_session(alone(entries, ())), library=LIBRARY)
    made = recast(of_entries(entries, t, LIBRARY), "minute-starts", Held("total", 1200), library=LIBRARY)
    assert made.params["period_s"] > 60
    assert not tally(parse_session(alone(made.entries, ())), library=LIBRARY).tape.overflows


def test_ingredients_take_what_a_window_held_and_count_a_refrain_once() -> None:
    entries = make("strict-20-10", [step("air-squat"), step("push-up")])
    t = tally(parse_session(alone(entries, ())), library=LIBRARY)
    ingredients = of_entries(entries, t, LIBRARY)
    held = t.reps.movements["push-up"]["estimated"]
    assert ingredients.doses[1] == {"reps": held // 8}
    refrain = make("refrain", [step(key, reps=5) for key in ("push-up", "air-squat", "swing", "burpee")])
    t = tally(parse_session(alone(refrain, ())), library=LIBRARY)
    assert [s["movement"] for s in of_entries(refrain, t, LIBRARY).steps] == [
        "air-squat",
        "push-up",
        "swing",
        "burpee",
    ]


def test_own_words_stay_and_a_title_that_names_the_old_format_goes() -> None:
    entries = make("strict-20-10", [step("air-squat"), step("push-up")])
    for title, kept in (("Tabata finish", None), ("Legs and push", "Legs and push")):
        entries[0].update({"title": title, "talk_s": 60, "effort": "all-out", "part": "finisher", "rpe": 9})
        t = tally(parse_session(alone(entries, ())), library=LIBRARY)
        made = recast(
            of_entries(entries, t, LIBRARY), "rounds-against-the-clock", held_of(t, "total"), library=LIBRARY
        )
        block = made.entries[0]
        assert (block.get("title"), block["talk_s"], block["effort"], block["part"]) == (
            kept,
            60,
            "all-out",
            "finisher",
        )
        assert "rpe" not in block
        assert made.left == pytest.approx(0)


@pytest.mark.parametrize("count", [1, 2, 7, 500])
@pytest.mark.parametrize("size", [lambda i: i + 1, lambda i: 30 + 5 * i, lambda i: (i + 1) ** 2, lambda i: 7])
@pytest.mark.parametrize("shape", [lambda i: 30 + 5 * i, lambda i: 3 * (i + 1) ** 2, lambda i: 10 * (i // 7) + 1])
def test_the_search_finds_the_last_that_is_not_over(count: int, size: Any, shape: Any) -> None:
    for target in (shape(0), shape(count // 2) + 0.5, shape(count - 1) + 100):
        expected = max(i for i in range(count) if shape(i) <= target)
        assert last_within(shape, [size(i) for i in range(count)], target) == expected


@pytest.mark.parametrize("key", [one.key for one in FORMATS])
def test_a_movement_whose_reps_the_plan_does_not_call_is_named(key: str) -> None:
    """Half of the plan is windows: reps can be held of the other half alone."""
    entries = [
        *make("rounds-for-time", [step("push-up", reps=10)], {"rounds": 3}),
        *make("even-intervals", [step("swing")], {}),
    ]
    t = tally(parse_session(alone(entries, ())), library=LIBRARY)
    made = recast(of_entries(entries, t, LIBRARY), key, held_of(t, "reps"), library=LIBRARY)
    assert made.why is None or made.why
    if key in ("strength-sets", "rep-ladder"):
        assert made.why is not None
        assert "the plan calls no reps of swing" in made.why
