"""Why a format does not fit: each cause is true, and really in the way."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.compare.held import Held, Hold
from finetally.core.compare.recast import Recaster
from finetally.core.compare.refusal import Cause
from finetally.core.compare.side_by_side import ComparisonStart
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.table import BY_KEY, FORMATS
from finetally.core.session.parts import changed, without
from finetally.shipped import shipped_library
from tests.core.helpers import made, step
from tests.core.recasting import HOLDS, PLANS, drawn_plans, plan_of, planned, recaster

LIBRARY = shipped_library()
every_format = pytest.mark.parametrize("one", FORMATS, ids=lambda one: one.key)
every_plan = pytest.mark.parametrize("name", PLANS)


def lifted(start: ComparisonStart, *measures: str) -> Recaster:
    return Recaster(start.ingredients, start.held, library=LIBRARY, plan=start.tape, lifted=frozenset(measures))


def without_cause(
    cause: Cause, start: ComparisonStart, out: frozenset[str]
) -> tuple[ComparisonStart, frozenset[str]] | None:
    """The same question with one cause taken out of it; None for what cannot be taken out (no reps in windows)."""
    of, held = start.ingredients, start.held
    if cause.kind in ("bound", "left"):
        assert cause.measure is not None
        return start, out | {cause.measure}
    if cause.kind == "reach" and "left" in out:
        # More time was of no use: its windows are too short for such doses.
        doses = tuple({k: max(1, v // 8) for k, v in dose.items()} for dose in of.doses)
        return replace(start, ingredients=replace(of, doses=doses)), out
    if cause.kind in ("least", "reach", "few-reps"):
        # Far beyond the least of one way to do it, so that the others are no longer too short either.
        times = max(20, 8 * int(cause.weight + 1))
        more = {key: n * times for key, n in held.reps.items()}
        target = held.target and held.target * times
        # What is left of so much more is not looked at.
        return replace(start, held=Held(held.what, target, more)), out | {"left"}
    if cause.kind == "heavy":
        steps = tuple(without(one, "reserve", "load") for one in of.steps)
        doses = tuple({"reps": 5} if "reps" in dose else dose for dose in of.doses)
        return replace(start, ingredients=replace(of, steps=steps, doses=doses)), out
    if cause.kind == "too-hard":
        steps = tuple(without(one, "effort") for one in of.steps)
        calm = replace(of, steps=steps, words={**of.words, "effort": "steady"}, words_end=None)
        return replace(start, ingredients=calm), out
    if cause.kind == "no-pace":
        steps = tuple(changed(s, pace_s=2.0) if s.movement in cause.movements else s for s in of.steps)
        return replace(start, ingredients=replace(of, steps=steps)), out
    if cause.kind == "overflow":
        doses = tuple({k: max(1, v // 4) for k, v in dose.items()} for dose in of.doses)
        return replace(start, ingredients=replace(of, doses=doses)), out
    if cause.kind == "cannot":
        # What is to grow has no reps.
        assert "has no reps" in cause.text
        return replace(start, ingredients=replace(of, doses=({"reps": 10}, *of.doses[1:]))), out
    if cause.kind == "cap":
        own = {
            key: one._replace(params=one.params.model_copy(update={"cap_s": None})) for key, one in of.own.items()
        }
        return replace(start, ingredients=replace(of, own=own)), out
    if cause.kind == "uncalled":
        return replace(start, held=Held("reps", None, {**held.reps, **dict.fromkeys(cause.movements, 40)})), out
    return None


def assert_true_refusals(start: ComparisonStart) -> None:
    """Taking out what is said to be in the way, one after the other, lets every format in that can hold so many."""
    first = start.recaster(library=LIBRARY)
    for one in FORMATS:
        found = first.into(one)
        count = next((cause for cause in found.causes if cause.kind == "count"), None)
        if count is not None:
            assert one.refused(len(start.ingredients.steps)) == count.text
            continue
        if any(cause.kind == "no-reps" for cause in found.causes):
            assert not start.held.reps or one.rep_origin(one.defaults()) != "called"
            continue
        now, out = start, frozenset[str]()
        said: set[tuple[str, str | None]] = set()
        while found.causes:
            for cause in found.causes:
                again = cause.kind == "reach" and ("reach", "again") not in said
                assert (cause.kind, cause.measure) not in said or again, (one.key, found.why)
                said.add(("reach", "again") if (cause.kind, cause.measure) in said else (cause.kind, cause.measure))
                without_it = without_cause(cause, now, out)
                assert without_it is not None, (one.key, cause)
                now, out = without_it
            found = Recaster(now.ingredients, now.held, library=LIBRARY, plan=now.tape, lifted=out).into(one)


@every_plan
@pytest.mark.parametrize("what", HOLDS)
def test_every_refusal_is_true_taking_its_cause_out_lets_it_in(name: str, what: Hold) -> None:
    assert_true_refusals(planned(name, what))


@settings(max_examples=25, deadline=None)
@given(drawn_plans(), st.sampled_from(HOLDS))
def test_every_refusal_of_any_plan_is_true(entries: list[dict[str, Any]], what: Hold) -> None:
    assert_true_refusals(plan_of(entries, what))


@every_plan
@pytest.mark.parametrize("what", ["total", "work"])
def test_a_refusal_names_only_what_is_in_the_way(name: str, what: Hold) -> None:
    """Each bound that is named keeps the format out by itself."""
    start = planned(name, what)
    for one in FORMATS:
        causes = recaster(name, what).into(one).causes
        bounds = {str(cause.measure) for cause in causes if cause.kind == "bound"}
        for bound in bounds:
            others = lifted(start, *(bounds - {bound})).into(one).causes
            assert bound in {cause.measure for cause in others}, (one.key, [c.text for c in causes])


@pytest.mark.parametrize(
    ("name", "key", "says"),
    [
        ("seven-with-a-hold", "pairs-20-10", "takes movements by 2, not 7"),
        ("two", "low-rep-couplets", "takes 4 movements, not 2"),
        ("two", "one-minute-challenge", "takes 1 movement, not 2"),
        ("seven-with-a-hold", "rep-ladder", "plank hold cannot be counted in reps"),
        ("four-loaded", "strict-20-10", "the least it comes to is 18:20"),
        ("two", "movement-pyramid", "2 movements; at least 3"),
    ],
)
def test_what_cannot_be_says_why(name: str, key: str, says: str) -> None:
    found = plan_of(PLANS[name], "total", 600).recaster(library=LIBRARY).into(BY_KEY[key])
    assert found.why is not None
    assert says in found.why


def test_only_what_is_in_the_way_is_named() -> None:
    """A hold has no pace, but its seconds are its own: a ladder of others would not be stopped by it."""
    entries = made("rounds-for-time", [step("push-up", reps=10), step("hold-plank", seconds=30)], {"rounds": 5})
    found = plan_of(entries, "total").recaster(library=LIBRARY).into(BY_KEY["rep-ladder"])
    [cause] = found.causes
    assert cause.movements == ("hold-plank",)
    pairs = plan_of(entries, "total").recaster(library=LIBRARY).into(BY_KEY["reps-then-time-pairs"])
    assert not any(cause.kind == "no-pace" for cause in pairs.causes)


def test_windows_call_no_reps() -> None:
    for key in ("strict-20-10", "rounds-against-the-clock", "flow-holds", "interval-stations"):
        why = recaster("two", "reps").into(BY_KEY[key]).why
        assert why is not None
        assert "calls no reps" in why


@every_format
def test_a_movement_whose_reps_the_plan_does_not_call_is_named(one: AnyFormat) -> None:
    """Half of the plan is windows: reps can be held of the other half alone."""
    entries = [
        *made("rounds-for-time", [step("push-up", reps=10)], {"rounds": 3}),
        *made("even-intervals", [step("swing")]),
    ]
    found = plan_of(entries, "reps").recaster(library=LIBRARY).into(one)
    if one.key in ("reps-then-time-pairs", "minute-starts-fill"):
        # There the swings are the half that is not counted.
        assert found.why is None
        return
    assert found.why
    if one.key in ("strength-sets", "rep-ladder"):
        assert "the plan calls no reps of swing" in found.why
