"""Recasting: every format × everything that can be held still, inside its bounds, against trying every number."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.compare.held import Hold
from finetally.core.compare.pouring import dose_values, pour_into
from finetally.core.compare.recast import Recast, Recaster
from finetally.core.compare.search import last_within
from finetally.core.compare.side_by_side import ComparisonStart
from finetally.core.formats.axes import PlanHints
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.params import CannotMakeError
from finetally.core.formats.table import BY_KEY, FORMATS, recognise
from finetally.core.session.document import Block
from finetally.core.session.parts import steps_of_entry, without, written
from finetally.core.session.problems import DocumentError
from finetally.shipped import shipped_library
from tests.core.helpers import made, step
from tests.core.recasting import (
    EPS,
    HOLDS,
    PLANS,
    Made,
    drawn_plans,
    held_at,
    is_plan,
    is_within,
    measured,
    plan_of,
    planned,
    recaster,
)

LIBRARY = shipped_library()
every_format = pytest.mark.parametrize("one", FORMATS, ids=lambda one: one.key)
every_plan = pytest.mark.parametrize("name", PLANS)


def assert_sound(one: AnyFormat, start: ComparisonStart, found: Recast) -> None:
    """A recast is its format, holds every movement, keeps the bounds, and what is left of it is right."""
    assert one.key in [r.format.key for r in recognise(found.entries)]
    there = measured(found.entries, start.ingredients, start.held.what)
    left = held_at(start.held, there)
    assert left >= -EPS
    assert found.left == pytest.approx(max(0.0, left), abs=EPS)
    if start.held.what == "reps":
        assert sum(found.left_reps.values()) == found.left
    if is_plan(start, found):
        return
    assert {done.step.key for done in there.tape.visits} == {s.movement for s in start.ingredients.steps}
    assert not there.tape.overflows
    for bound in one.usual:
        assert is_within(bound, there, start), (one.key, bound, written(found.entries[0]))
    share = one.bound("left")
    assert share is not None
    assert share.high is not None
    assert left <= share.high * start.held.amount + EPS


@every_plan
@pytest.mark.parametrize("what", HOLDS)
def test_what_is_held_is_met_inside_the_bounds_and_what_is_left_is_right(name: str, what: Hold) -> None:
    start = planned(name, what)
    for one in FORMATS:
        found = recaster(name, what).into(one)
        if found.causes:
            assert found.why
            assert not found.entries
        else:
            assert_sound(one, start, found)


@settings(max_examples=25, deadline=None)
@given(drawn_plans(), st.sampled_from(HOLDS))
def test_no_block_of_any_plan_lies_outside_its_bounds(entries: list[dict[str, Any]], what: Hold) -> None:
    start = plan_of(entries, what)
    pourer = start.recaster(library=LIBRARY)
    for one in FORMATS:
        found = pourer.into(one)
        if not found.causes:
            assert_sound(one, start, found)


def tried(one: AnyFormat, start: ComparisonStart) -> Iterator[Made]:
    """Every place of every axis that is within the bounds and not over what is held."""
    of = start.ingredients
    own = start.own_params(one.key)
    base = own or one.defaults()
    hints = PlanHints(of.hints.rounds, of.hints.work_s, of.hints.rest_s, own)
    for axis in one.search(len(of.steps), hints):
        for values in axis:
            named, factor = dose_values(values)
            try:
                entries = pour_into(of, one, base.model_copy(update=named), of.doses, factor)
                there = measured(entries, of, start.held.what)
            except (CannotMakeError, DocumentError):
                continue
            left = held_at(start.held, there)
            if left < -max(1.0, start.held.amount):
                # An axis only grows: twice over is far enough.
                break
            reached = {done.step.key for done in there.tape.visits if done.seconds}
            whole = reached == {s.movement for s in of.steps} and not there.tape.overflows
            if left >= -EPS and whole and all(is_within(bound, there, start) for bound in one.usual):
                yield there


def shared_out(one: AnyFormat, start: ComparisonStart) -> Iterator[Made]:
    """Every number of rounds, with the most reps of each movement that do not go over: within the bounds."""
    of, held = start.ingredients, start.held.reps
    base = one.defaults()
    if "reps" in type(base).model_fields:
        base = base.model_copy(update={"reps": None})
    for axis in one.search(len(of.steps), of.hints):
        for values in axis if {"rounds", "sets"} & set(axis[0]) else axis[:1]:
            params = base.model_copy(update=dose_values(values)[0])
            single = [
                {"reps": 1} if step.movement in held else dose
                for step, dose in zip(of.steps, of.doses, strict=True)
            ]
            once = measured(pour_into(of, one, params, single), of, "reps").called
            doses = [
                {"reps": held[step.movement] // once[step.movement]} if step.movement in held else dose
                for step, dose in zip(of.steps, of.doses, strict=True)
            ]
            if any(dose.get("reps") == 0 for dose in doses):
                continue
            there = measured(pour_into(of, one, params, doses), of, "reps")
            if not there.tape.overflows and all(is_within(bound, there, start) for bound in one.usual):
                yield there


NEVER = ("count", "heavy", "too-hard", "no-pace", "no-reps", "uncalled")
"""Causes that no number takes away."""


def assert_closest(start: ComparisonStart) -> None:
    """The search guesses; trying every number of the format's axes finds nothing better inside the bounds."""
    what = start.held.what
    pourer = Recaster(start.ingredients, start.held, library=LIBRARY, plan=start.tape, lifted=frozenset({"left"}))
    for one in FORMATS:
        if one.key in start.ingredients.own:
            continue
        found = pourer.into(one)
        if any(cause.kind in NEVER for cause in found.causes):
            continue
        try_all = shared_out if what == "reps" and one.dose in ("reps", "any") else tried
        closest = min((held_at(start.held, there) for there in try_all(one, start)), default=None)
        assert (closest is None) is bool(found.causes), (one.key, found.why)
        if closest is not None:
            assert found.left == pytest.approx(max(0.0, closest), abs=EPS), one.key


@every_plan
@pytest.mark.parametrize("what", HOLDS)
def test_nothing_that_was_not_tried_is_closer(name: str, what: Hold) -> None:
    assert_closest(planned(name, what))


@settings(max_examples=10, deadline=None)
@given(drawn_plans(), st.sampled_from(HOLDS))
def test_nothing_is_closer_for_any_plan(entries: list[dict[str, Any]], what: Hold) -> None:
    assert_closest(plan_of(entries, what))


@pytest.mark.parametrize("reps", [(40, 60), (37, 53), (24, 36)])
def test_reps_are_shared_out_with_as_few_left_as_can_be(reps: tuple[int, int]) -> None:
    doses = zip(("swing", "push-up", "air-squat", "burpee"), (3, *reps, 9), strict=True)
    start = plan_of(made("refrain", [step(movement, reps=n) for movement, n in doses]), "reps")
    for key in ("strength-sets", "minute-starts", "rounds-for-time"):
        found = start.recaster(library=LIBRARY).into(BY_KEY[key])
        assert found.why is None
        assert found.left == min(held_at(start.held, there) for there in shared_out(BY_KEY[key], start))
        assert_sound(BY_KEY[key], start, found)


@every_plan
def test_a_plan_that_is_a_format_comes_back_from_it_unchanged(name: str) -> None:
    for what in HOLDS:
        start = planned(name, what)
        own = list(start.ingredients.own)
        assert own
        for key in own:
            if what == "reps" and not start.held.reps:
                continue
            found = recaster(name, what).into(BY_KEY[key])
            assert found.left == pytest.approx(0)
            assert found.entries == start.entries


@pytest.mark.parametrize(
    ("key", "steps", "params"),
    [
        ("rep-ladder", ["push-up", "swing"], {"start": 2, "end": 10, "by": 2, "cap_s": None}),
        ("rep-ladder", ["push-up"], {"start": 10, "end": 1, "by": 1, "cap_s": None}),
        ("rep-ladder", ["push-up", "swing"], {"start": 2, "end": 6, "by": 2, "back": True, "cap_s": None}),
        ("rep-ladder", ["push-up", "swing", "burpee"], {"start": 30, "end": 10, "by": 10, "layout": "one-a-movement", "cap_s": 900}),
        ("strength-sets", ["push-up", "swing"], {"sets": 3, "reps": [8, 6, 4]}),
        ("strength-sets", ["push-up", "swing"], {"sets": 5, "reps": 5}),
        ("minute-starts-fill", ["push-up", "swing"], {"rounds": 4}),
    ],
)  # fmt: skip
@pytest.mark.parametrize("what", HOLDS)
def test_ladders_and_sets_stay_as_they_are(key: str, steps: list[str], params: dict[str, Any], what: Hold) -> None:
    entries = made(key, [step(movement) for movement in steps], params)
    start = plan_of(entries, what)
    found = start.recaster(library=LIBRARY).into(BY_KEY[key])
    assert [without(one, "id") for one in found.entries] == [without(one, "id") for one in start.entries]


def test_sets_that_differ_get_longer_rests_where_there_is_more_time() -> None:
    entries = made("strength-sets", [step("push-up"), step("swing")], {"sets": 3, "reps": [8, 6, 4], "rest_s": 90})
    start = plan_of(entries, "total", 900)
    found = start.recaster(library=LIBRARY).into(BY_KEY["strength-sets"])
    assert found.params is not None
    told = found.params.told()
    assert (told["sets"], told["reps"]) == (3, [8, 6, 4])
    assert told["rest_s"] > 90
    assert found.left < 90


def test_the_same_movement_twice_with_other_doses_stays_twice() -> None:
    entries = made("rounds-for-time", [step("push-up", reps=10), step("swing", reps=12), step("push-up", reps=5)], {"rounds": 3})  # fmt: skip
    start = plan_of(entries, "total")
    assert [dict(dose) for dose in start.ingredients.doses] == [{"reps": 10}, {"reps": 12}, {"reps": 5}]
    own = start.recaster(library=LIBRARY).into(BY_KEY["rounds-for-time"])
    assert own.entries == start.entries
    rounds = start.recaster(library=LIBRARY).into(BY_KEY["rounds-against-the-clock"])
    assert [one.reps for one in steps_of_entry(rounds.entries[0])] == [10, 12, 5]


def test_five_times_five_stays_five_times_five() -> None:
    for key in ("strength-sets", "minute-starts"):
        found = recaster("heavy", "reps").into(BY_KEY[key])
        assert found.why is None
        block = found.entries[0]
        assert isinstance(block, Block)
        assert (block.rounds, [one.reps for one in steps_of_entry(block)], found.left) == (5, [5], 0)


def test_the_plans_own_rounds_come_first_where_they_leave_as_little() -> None:
    entries = made("rounds-for-time", [step("push-up", reps=12), step("air-squat", reps=24)], {"rounds": 4})
    start = plan_of(entries, "reps")
    for key in ("minute-starts", "strength-sets"):
        block = start.recaster(library=LIBRARY).into(BY_KEY[key]).entries[0]
        assert isinstance(block, Block)
        assert (block.rounds, [one.reps for one in steps_of_entry(block)]) == (4, [12, 24])


def test_a_start_that_does_not_hold_its_doses_gets_a_longer_period() -> None:
    entries = made("rounds-for-time", [step("burpee", reps=20), step("push-up", reps=20)], {"rounds": 3})
    start = plan_of(entries, "total", 1200)
    found = start.recaster(library=LIBRARY).into(BY_KEY["minute-starts"])
    assert found.params is not None
    assert found.params.told()["period_s"] > 60


def test_ingredients_take_what_a_window_held_and_count_a_refrain_once() -> None:
    start = planned("all-out-windows", "total")
    reps = start.ingredients.doses[1]["reps"]
    per_window = (
        {done.estimated for done in start.tape.visits if done.step.key == "push-up"} if start.tape else set()
    )
    assert min(per_window) <= reps <= max(per_window)
    refrain = made("refrain", [step(key, reps=5) for key in ("push-up", "air-squat", "swing", "burpee")])
    keys = [one.movement for one in plan_of(refrain, "total").ingredients.steps]
    assert keys == ["air-squat", "push-up", "swing", "burpee"]


@pytest.mark.parametrize("count", [1, 2, 7, 500])
@pytest.mark.parametrize("size", [lambda i: i + 1, lambda i: 30 + 5 * i, lambda i: (i + 1) ** 2, lambda i: 7])
@pytest.mark.parametrize("shape", [lambda i: 30 + 5 * i, lambda i: 3 * (i + 1) ** 2, lambda i: 10 * (i // 7) + 1])
@pytest.mark.parametrize("rate", [None, 0.5, 40.0])
def test_the_search_finds_the_last_that_is_not_over(count: int, size: Any, shape: Any, rate: float | None) -> None:
    sizes = [size(i) for i in range(count)]
    for target in (shape(0) - 1, shape(0), shape(count // 2) + 0.5, shape(count - 1) + 100):
        expected = max((i for i in range(count) if shape(i) <= target), default=-1)
        asked: list[int] = []
        assert last_within(lambda i: asked.append(i) or shape(i), sizes, target, rate) == expected  # type: ignore[func-returns-value]  # noqa: B023
        assert len(asked) <= 30


def test_the_answer_is_the_same_each_time() -> None:
    start = planned("four-loaded", "total")
    first = [start.recaster(library=LIBRARY).into(one) for one in FORMATS]
    assert first == [start.recaster(library=LIBRARY).into(one) for one in reversed(FORMATS)][::-1]
