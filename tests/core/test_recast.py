"""Recasting: every format × everything that can be held still, inside its bounds, against trying every number."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.compare.held import Held, Hold
from finetally.core.compare.pour import dose_values, pour
from finetally.core.compare.recast import Recast, Recaster
from finetally.core.compare.refusal import Cause
from finetally.core.compare.search import last_within
from finetally.core.compare.side_by_side import Poured
from finetally.core.formats.axes import Near
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.params import CannotMakeError
from finetally.core.formats.shape import shape_of
from finetally.core.formats.table import BY_KEY, FORMATS, recognise
from finetally.core.session.clocks import Task
from finetally.core.session.document import Block
from finetally.core.session.parts import changed, steps_of_entry, without, written
from finetally.core.session.problems import DocumentError
from finetally.shipped import shipped_library
from tests.core.helpers import made, step
from tests.core.recasting import (
    EPS,
    FOUR,
    HOLDS,
    PLANS,
    Made,
    held_at,
    is_within,
    measured,
    plan_of,
    planned,
    recaster,
)

LIBRARY = shipped_library()
every_format = pytest.mark.parametrize("one", FORMATS, ids=lambda one: one.key)
every_plan = pytest.mark.parametrize("name", PLANS)


def is_plan(start: Poured, found: Recast) -> bool:
    return bool(start.entries) and shape_of(found.entries) == shape_of(start.entries)


def assert_sound(one: AnyFormat, start: Poured, found: Recast) -> None:
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


LIGHT = ["push-up", "air-squat", "burpee", "sit-up", "swing", "bent-row", "step-back-lunge", "hold-plank", "jog"]


@st.composite
def drawn_plans(draw: st.DrawFn) -> list[dict[str, Any]]:
    """Plans of one to seven movements, loaded or not, counted, held or windowed, capped or not."""
    keys = draw(st.lists(st.sampled_from(LIGHT), min_size=1, max_size=7, unique=True))
    steps = []
    for key in keys:
        if key == "jog":
            dose: dict[str, Any] = {"metres": draw(st.sampled_from([100, 200, 400]))}
        elif key == "hold-plank":
            dose = {"seconds": draw(st.sampled_from([20, 30, 45]))}
        else:
            dose = {"reps": draw(st.integers(3, 20))}
        if key in ("swing", "bent-row"):
            dose["load"] = {"kg": draw(st.sampled_from([8, 12, 16, 24]))}
        if key == "step-back-lunge":
            dose["sides"] = draw(st.sampled_from(["alternate", "each"]))
        steps.append(step(key, **dose))
    kind = draw(st.sampled_from(["rounds-for-time", "even-intervals", "rounds-against-the-clock", "strength-sets"]))
    if kind == "even-intervals":
        bare = [{k: v for k, v in one.items() if k not in ("reps", "seconds", "metres")} for one in steps]
        return made(kind, bare, {"rounds": draw(st.integers(1, 6))})
    if kind == "rounds-against-the-clock":
        return made(kind, steps, {"window_s": draw(st.sampled_from([300, 600, 1200]))})
    if kind == "strength-sets":
        return made(kind, steps, {"reps": None, "sets": draw(st.integers(2, 5)), "rest_s": 90})
    cap = draw(st.sampled_from([None, None, 480]))
    return made(kind, steps, {"rounds": draw(st.integers(1, 8)), "cap_s": cap})


@settings(max_examples=25, deadline=None)
@given(drawn_plans(), st.sampled_from(HOLDS))
def test_no_block_of_any_plan_lies_outside_its_bounds(entries: list[dict[str, Any]], what: Hold) -> None:
    start = plan_of(entries, what)
    pourer = start.recaster(library=LIBRARY)
    for one in FORMATS:
        found = pourer.into(one)
        if not found.causes:
            assert_sound(one, start, found)


def tried(one: AnyFormat, start: Poured) -> Iterator[Made]:
    """Every place of every axis that is within the bounds and not over what is held."""
    of = start.ingredients
    own = start.own_params(one.key)
    base = own or one.defaults()
    near = Near(of.near.rounds, of.near.work_s, of.near.rest_s, own)
    for axis in one.search(len(of.steps), near):
        for values in axis:
            named, factor = dose_values(values)
            try:
                entries = pour(of, one, base.model_copy(update=named), of.doses, factor)
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


CLOSELY = ("two", "three-against-the-clock", "six-windows", "seven-with-a-hold", "heavy", "all-out-windows")


@pytest.mark.parametrize(
    ("name", "what"), [*((n, w) for n in CLOSELY for w in ("total", "work")), ("two", "load"), ("two", "reps")]
)
def test_nothing_that_was_not_tried_is_closer(name: str, what: Hold) -> None:
    """The search guesses; trying every number of the format's axes finds nothing better inside the bounds."""
    start = planned(name, what)
    compared = 0
    for one in FORMATS:
        if one.key in start.ingredients.own or (what == "reps" and one.dose in ("reps", "any")):
            continue
        found = Recaster(
            start.ingredients, start.held, library=LIBRARY, plan=start.tape, lifted=frozenset({"left"})
        ).into(one)
        if any(cause.kind in ("count", "heavy", "too-hard", "no-pace", "no-reps") for cause in found.causes):
            continue
        closest = min((held_at(start.held, there) for there in tried(one, start)), default=None)
        assert (closest is None) is bool(found.causes), (one.key, found.why)
        if closest is not None:
            compared += 1
            assert found.left == pytest.approx(max(0.0, closest), abs=EPS), one.key
    assert compared or name == "heavy"


@pytest.mark.parametrize("key", ["strength-sets", "minute-starts", "rounds-for-time"])
@pytest.mark.parametrize("reps", [(40, 60), (37, 53), (24, 36)])
def test_reps_are_shared_out_with_as_few_left_as_can_be(key: str, reps: tuple[int, int]) -> None:
    entries = made("refrain", [step(m, reps=n) for m, n in zip(("swing", "push-up", "air-squat", "burpee"), (3, *reps, 9), strict=True)])  # fmt: skip
    start = plan_of(entries, "reps")
    found = start.recaster(library=LIBRARY).into(BY_KEY[key])
    held = start.held.reps
    line = list(BY_KEY[key].span("rounds"))
    fewest = []
    for rounds in line:
        doses = {movement: n // rounds for movement, n in held.items()}
        if min(doses.values()) >= 1:
            fewest.append(sum(n - doses[movement] * rounds for movement, n in held.items()))
    assert found.why is None
    assert found.left >= min(fewest)
    assert_sound(BY_KEY[key], start, found)


def lifted(start: Poured, *measures: str) -> Recaster:
    return Recaster(start.ingredients, start.held, library=LIBRARY, plan=start.tape, lifted=frozenset(measures))


def without_cause(cause: Cause, start: Poured, out: frozenset[str]) -> tuple[Poured, frozenset[str]] | None:
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


def assert_true_refusals(start: Poured) -> None:
    """Taking out what is said to be in the way, one after the other, lets every format in that can hold so many."""
    first = start.recaster(library=LIBRARY)
    for one in FORMATS:
        found = first.into(one)
        count = next((cause for cause in found.causes if cause.kind == "count"), None)
        if count is not None:
            assert one.refused(len(start.ingredients.steps)) == count.text
            continue
        if any(cause.kind == "no-reps" for cause in found.causes):
            assert not start.held.reps or one.reps_are(one.defaults()) != "called"
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


# Each fault that coaches have found in comparisons, and what is said instead.


def test_no_fifty_rounds_of_ten_push_ups() -> None:
    start = plan_of(made("rounds-for-time", [step("push-up", reps=50)], {"rounds": 10}), "reps")
    for one in FORMATS:
        found = start.recaster(library=LIBRARY).into(one)
        if found.causes or is_plan(start, found):
            continue
        turns = [entry.rounds for entry in found.entries if isinstance(entry, Block)]
        assert all(not isinstance(n, int) or n <= 20 for n in turns), one.key


def test_nobody_lifts_eighty_percent_twenty_five_times_in_a_row() -> None:
    start = plan_of(
        made("strength-sets", [step("bench-press", load={"pct_1rm": 80})], {"sets": 5, "reps": 5}), "reps"
    )
    for one in FORMATS:
        found = start.recaster(library=LIBRARY).into(one)
        for entry in found.entries:
            assert max(s.reps for s in steps_of_entry(entry) if isinstance(s.reps, int)) <= 7
    odd = plan_of(
        made("strength-sets", [step("bench-press", load={"pct_1rm": 80})], {"sets": 1, "reps": 23}), "reps"
    )
    found = odd.recaster(library=LIBRARY).into(BY_KEY["minute-starts"])
    assert found.why is None or "more of bench press in a row than that load leaves possible" in found.why


def test_no_flow_of_four_all_out_minutes() -> None:
    start = planned("all-out-windows", "work")
    [cause] = recaster("all-out-windows", "work").into(BY_KEY["flow-holds"]).causes
    assert cause.kind == "too-hard"
    calm = replace(start.ingredients, words={"part": "main", "effort": "easy"})
    found = Recaster(calm, start.held, library=LIBRARY, plan=start.tape).into(BY_KEY["flow-holds"])
    assert found.why is None
    assert max(one.seconds for one in measured(found.entries, calm, "work").tape.segments) <= 90
    holds = plan_of(
        made("even-intervals", [step("hold-plank"), step("side-plank", sides="each")], {"rounds": 4}), "total"
    )
    assert holds.recaster(library=LIBRARY).into(BY_KEY["flow-holds"]).why is None


def test_no_ladder_to_forty_four() -> None:
    start = plan_of(made("rounds-for-time", [step("push-up", reps=10), step("air-squat", reps=10)], {"rounds": 10}), "reps")  # fmt: skip
    found = start.recaster(library=LIBRARY).into(BY_KEY["rep-ladder"])
    tops = [max(one.reps) for e in found.entries for one in steps_of_entry(e) if isinstance(one.reps, list)]
    assert all(top <= 30 for top in tops)


def test_minute_starts_of_two_hours_say_so() -> None:
    start = plan_of(made("rounds-for-time", FOUR, {"rounds": 30}), "total", 7200)
    found = start.recaster(library=LIBRARY).into(BY_KEY["minute-starts"])
    [cause] = found.causes
    assert "of 2:00:00" in cause.text


def test_a_cap_counts() -> None:
    """What the cap cuts off is not met, and rounds beyond it are not chosen."""
    start = planned("capped", "reps")
    done = measured(start.entries, start.ingredients, "reps")
    assert dict(start.held.reps) == done.called
    assert sum(done.called.values()) < 8 * (15 + 20)
    for what in HOLDS:
        other = plan_of(PLANS["capped"], what, None if what == "reps" else 400)
        found = other.recaster(library=LIBRARY).into(BY_KEY["rounds-for-time"])
        for entry in found.entries if not is_plan(other, found) else ():
            assert isinstance(entry, Block)
            assert isinstance(entry.clock, Task)
            assert entry.clock.cap_s == 600
            tape = measured(found.entries, other.ingredients, what).tape
            assert not any(segment.ends == "cap" for segment in tape.segments)


def test_heavy_sets_go_only_where_sets_and_rests_stay() -> None:
    to_failure = made("strength-sets", [step("push-up")], {"sets": 3, "reps": {"to_failure": True, "plan": 12}})
    for entries in (PLANS["heavy"], PLANS["heavy-pair"], to_failure):
        start = plan_of(entries, "total")
        for one in FORMATS:
            found = start.recaster(library=LIBRARY).into(one)
            heavy = [cause for cause in found.causes if cause.kind == "heavy"]
            assert bool(heavy) is (one.key not in ("strength-sets", "minute-starts")), one.key
            for cause in heavy:
                assert "sets and rests" in cause.text
    assert not recaster("heavy", "total").into(BY_KEY["strength-sets"]).causes


def carrying(words: dict[str, Any], entries: list[dict[str, Any]], key: str) -> Recast:
    start = plan_of([{**entries[0], **words}], "total")
    found = start.recaster(library=LIBRARY).into(BY_KEY[key])
    assert found.why is None, found.why
    return found


def test_effort_words_are_not_carried_over_without_saying_so() -> None:
    windows = made("even-intervals", [step("air-squat"), step("push-up"), step("swing")], {"rounds": 4})
    counted = made("rounds-for-time", [step("air-squat", reps=12), step("push-up", reps=8), step("swing", reps=12)], {"rounds": 4})  # fmt: skip
    for entries, other, same in ((windows, "rounds-for-time", "rising-windows"), (counted, "rising-windows", "strength-sets")):  # fmt: skip
        found = carrying({"effort": "all-out"}, entries, other)
        assert all(entry.effort is None for entry in found.entries if isinstance(entry, Block))
        assert any("all-out" in one for one in found.bent)
        kept = carrying({"effort": "all-out"}, entries, same)
        assert all(entry.effort == "all-out" for entry in kept.entries if isinstance(entry, Block))
        assert not kept.bent


def test_loads_by_round_and_a_tempo_that_cannot_be_kept_are_told() -> None:
    loads = [{"kg": 40}, {"kg": 50}, {"kg": 60}]
    entries = made("strength-sets", [step("bench-press", load=loads), step("push-up", tempo=[3, 1, 1, 0])], {"sets": 3, "reps": 8, "rest_s": 90})  # fmt: skip
    rounds = carrying({}, entries, "rounds-for-time")
    assert any("load changes from round to round" in one for one in rounds.bent)
    assert any("tempo" in one for one in rounds.bent)
    assert all(one.tempo is None for one in steps_of_entry(rounds.entries[0]))
    windows = carrying({}, entries, "even-intervals")
    assert not any("tempo" in one for one in windows.bent)
    assert steps_of_entry(windows.entries[0])[1].tempo == [3, 1, 1, 0]
    own = carrying({}, entries, "strength-sets")
    assert not own.bent
    assert steps_of_entry(own.entries[0])[0].load == steps_of_entry(plan_of(entries, "total").entries[0])[0].load


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


def test_own_words_stay_and_a_title_that_names_the_old_format_goes() -> None:
    for title, kept in (("Tabata finish", None), ("Legs and push", "Legs and push")):
        words = {"title": title, "talk_s": 60, "part": "finisher", "rpe": 9}
        entries = made("strict-20-10", [step("air-squat"), step("push-up")])
        [block] = carrying(words, entries, "rounds-against-the-clock").entries
        assert isinstance(block, Block)
        assert (block.title, block.talk_s, block.part, block.rpe) == (kept, 60, "finisher", None)


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


def test_the_answer_is_the_same_each_time() -> None:
    start = planned("four-loaded", "total")
    first = [start.recaster(library=LIBRARY).into(one) for one in FORMATS]
    assert first == [start.recaster(library=LIBRARY).into(one) for one in reversed(FORMATS)][::-1]
