"""Faults that coaches found in comparisons, and what is made or said instead; what is carried over and what is told."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from finetally.core.compare.pouring import pour_into
from finetally.core.compare.recast import Recast, Recaster
from finetally.core.formats.table import BY_KEY, FORMATS
from finetally.core.session.clocks import Task
from finetally.core.session.document import Block
from finetally.core.session.parts import steps_of_entry, written
from finetally.core.session.values import ToFailure
from finetally.shipped import shipped_library
from tests.core.helpers import made, step
from tests.core.recasting import FOUR, HOLDS, PLANS, is_plan, measured, plan_of, planned, recaster

LIBRARY = shipped_library()
every_format = pytest.mark.parametrize("one", FORMATS, ids=lambda one: one.key)
every_plan = pytest.mark.parametrize("name", PLANS)


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


def test_sets_to_failure_stay_to_failure() -> None:
    entries = made("strength-sets", [step("push-up")], {"sets": 4, "reps": {"to_failure": True, "plan": 12}})
    found = plan_of(entries, "reps").recaster(library=LIBRARY).into(BY_KEY["minute-starts"])
    block = found.entries[0]
    assert isinstance(block, Block)
    assert (block.rounds, found.left) == (4, 0)
    assert isinstance(steps_of_entry(block)[0].reps, ToFailure)


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
        assert any("all-out" in one for one in found.losses)
        kept = carrying({"effort": "all-out"}, entries, same)
        assert all(entry.effort == "all-out" for entry in kept.entries if isinstance(entry, Block))
        assert not kept.losses


def test_loads_by_round_and_a_tempo_that_cannot_be_kept_are_told() -> None:
    loads = [{"kg": 40}, {"kg": 50}, {"kg": 60}]
    entries = made("strength-sets", [step("bench-press", load=loads), step("push-up", tempo=[3, 1, 1, 0])], {"sets": 3, "reps": 8, "rest_s": 90})  # fmt: skip
    rounds = carrying({}, entries, "rounds-for-time")
    assert any("load changes from round to round" in one for one in rounds.losses)
    assert any("tempo" in one for one in rounds.losses)
    assert all(one.tempo is None for one in steps_of_entry(rounds.entries[0]))
    windows = carrying({}, entries, "even-intervals")
    assert not any("tempo" in one for one in windows.losses)
    assert steps_of_entry(windows.entries[0])[1].tempo == [3, 1, 1, 0]
    own = carrying({}, entries, "strength-sets")
    assert not own.losses
    assert steps_of_entry(own.entries[0])[0].load == steps_of_entry(plan_of(entries, "total").entries[0])[0].load


def test_own_words_stay_and_a_title_that_names_the_old_format_goes() -> None:
    for title, kept in (("Tabata finish", None), ("Legs and push", "Legs and push")):
        words = {"title": title, "talk_s": 60, "part": "finisher", "rpe": 9}
        entries = made("strict-20-10", [step("air-squat"), step("push-up")])
        [block] = carrying(words, entries, "rounds-against-the-clock").entries
        assert isinstance(block, Block)
        assert (block.title, block.talk_s, block.part, block.rpe) == (kept, 60, "finisher", None)


def test_a_share_of_a_dose_is_one_rep_at_the_least_and_whole() -> None:
    steps = [
        step("push-up", reps=10),
        step("swing", reps={"low": 8, "high": 12, "plan": 9}),
        step("burpee", reps=3),
    ]
    start = plan_of(made("rounds-against-the-clock", steps, {"window_s": 300}), "work")
    of, one = start.ingredients, BY_KEY["rounds-against-the-clock"]

    def doses(factor: float) -> list[Any]:
        [block] = pour_into(of, one, one.defaults(), of.doses, factor)
        return [written(one)["reps"] for one in steps_of_entry(block)]

    assert doses(1) == [10, {"low": 8, "high": 12, "plan": 9}, 3]
    assert doses(0.5) == [5, {"low": 4, "high": 6, "plan": 4}, 1]
    assert doses(0.01) == [1, {"low": 1, "high": 1, "plan": 1}, 1]
