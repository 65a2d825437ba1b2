"""The rules of the clocks, each worked out by hand at bare pace (air-squat and push-up 2 s, swing 1.6 s a rep)."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.methods.given import Given, Score
from finetally.core.methods.value import Methods
from tests.core.helpers import figured, session, step, tape_of, windows

A, B, C = step("air-squat"), step("push-up"), step("march")


def block(kind: str, *steps: dict[str, Any], more: dict[str, Any] | None = None, **clock: Any) -> dict[str, Any]:
    return session({"clock": {"kind": kind, **clock}, "steps": list(steps), **(more or {})})


def a(n: int, **more: Any) -> dict[str, Any]:
    return step("air-squat", reps=n, **more)


def p(n: int, **more: Any) -> dict[str, Any]:
    return step("push-up", reps=n, **more)


S, P, M, R = "air-squat", "push-up", "march", "rest"

TAPES: list[tuple[str, dict[str, Any], list[tuple[float, str]]]] = [
    ("rest-after-round-and-group",
     block("intervals", A, B, C, work_s=20, rest_s=5, round_rest_s=15, group_rest_s=40, more={"group": 2, "rounds": 2}),
     [(20, S), (5, R), (20, P), (15, R), (20, S), (5, R), (20, P), (40, R), (20, M), (15, R), (20, M)]),
    ("own-rest-before-the-clocks",
     block("intervals", step("air-squat", rest_s=9), B, C, work_s=20, rest_s=5),
     [(20, S), (9, R), (20, P), (5, R), (20, M)]),
    ("group-left-without-group-rest-takes-the-own-rest",
     block("intervals", A, B, work_s=20, rest_s=5, round_rest_s=15, more={"group": 1, "rounds": 2}),
     [(20, S), (15, R), (20, S), (5, R), (20, P), (15, R), (20, P)]),
    ("closing-rest", block("intervals", A, work_s=20, rest_s=10, closing_rest=True, more={"rounds": 2}),
     [(20, S), (10, R), (20, S), (10, R)]),
    ("rest-first", block("intervals", A, B, work_s=20, rest_s=10, round_rest_s=30, rest_first=True, more={"rounds": 2}),
     [(10, R), (20, S), (10, R), (20, P), (30, R), (20, S), (10, R), (20, P)]),
    ("lists-set-the-rounds", block("intervals", A, work_s=[10, 20, 30], rest_s=[1, 2, 3]),
     [(10, S), (1, R), (20, S), (2, R), (30, S)]),
    ("build", block("intervals", A, B, work_s=10, round_rest_s=5, more={"visit": "build"}),
     [(10, S), (5, R), (10, S), (10, P)]),
    ("strip-from-the-front", block("intervals", A, B, C, work_s=10, round_rest_s=5, more={"visit": "strip"}),
     [(10, S), (10, P), (10, M), (5, R), (10, P), (10, M), (5, R), (10, M)]),
    ("strip-from-the-back",
     block("intervals", A, B, C, work_s=10, round_rest_s=5, more={"visit": "strip", "strip_from": "back"}),
     [(10, S), (10, P), (10, M), (5, R), (10, S), (10, P), (5, R), (10, S)]),
    ("build-strip-from-the-back",
     block("intervals", A, B, work_s=10, more={"visit": "build-strip", "strip_from": "back"}),
     [(10, S), (10, S), (10, P), (10, S)]),
    ("repeat-with-rest-between",
     block("intervals", A, work_s=10, more={"repeat": 3, "rest_between_repeats_s": 7}),
     [(10, S), (7, R), (10, S), (7, R), (10, S)]),
    ("mirrored-repeat-reverses-rests-too",
     block("intervals", step("air-squat", rest_s=3), step("push-up", rest_s=4), C, work_s=10,
           more={"repeat": 2, "mirror": True}),
     [(10, S), (3, R), (10, P), (4, R), (10, M), (10, M), (4, R), (10, P), (3, R), (10, S)]),
    ("mirrored-rests-at-the-ends-stay-what-they-are",
     block("intervals", step("air-squat", rest_s=3), step("push-up", rest_s=4), work_s=10, rest_first=True,
           more={"repeat": 2, "mirror": True}),
     [(3, R), (10, S), (4, R), (10, P), (3, R), (10, P), (4, R), (10, S)]),
    ("a-mirrored-repeat-closes-with-the-rest-of-its-last-window",
     block("intervals", step("air-squat", rest_s=3), step("push-up", rest_s=4), work_s=10, closing_rest=True,
           more={"repeat": 2, "mirror": True}),
     [(10, S), (3, R), (10, P), (4, R), (10, P), (3, R), (10, S), (3, R)]),
    ("every-in-turn-until-the-periods-are-used-up", block("every", a(5), p(5), period_s=30, periods=3),
     [(10, S), (20, R), (10, P), (20, R), (10, S), (20, R)]),
    ("every-straight", block("every", a(5), p(5), period_s=30, more={"group": 1, "rounds": 2}),
     [(10, S), (20, R), (10, S), (20, R), (10, P), (20, R), (10, P), (20, R)]),
    ("every-cuts-what-does-not-fit", block("every", a(20), period_s=30, periods=2), [(30, S), (30, S)]),
    ("every-chain-with-fill", block("every", a(5, chain=True), step("push-up", fill=True), period_s=60, work_until_s=40),
     [(10, S), (30, P), (20, R)]),
    ("every-fill-past-the-mark", block("every", a(15, chain=True), step("push-up", fill=True), period_s=40, work_until_s=20),
     [(30, S), (10, R)]),
    ("amrap-cut", block("amrap", a(5), p(5), window_s=37), [(10, S), (10, P), (10, S), (7, P)]),
    ("amrap-with-rests", block("amrap", a(5), p(5), window_s=60, rest_s=2, round_rest_s=8),
     [(10, S), (2, R), (10, P), (8, R), (10, S), (2, R), (10, P), (8, R)]),
    ("amrap-ends-with-its-lists-then-rests",
     block("amrap", step("air-squat", reps=[5, 2]), window_s=30), [(10, S), (4, S), (16, R)]),
    ("amrap-fills-what-its-lists-leave",
     block("amrap", step("air-squat", reps=[5, 2]), step("push-up", fill=True), window_s=30),
     [(10, S), (4, S), (16, P)]),
    ("task-capped", block("task", a(10), p(10), cap_s=25), [(20, S), (5, P)]),
    ("task-restarts-until-the-cap", block("task", a(5), p(5), cap_s=45, round_rest_s=5, then="restart"),
     [(10, S), (10, P), (5, R), (10, S), (10, P)]),
    ("task-goes-back-down", block("task", a(2), a(4), a(6), rest_s=1, then="reverse", cap_s=600),
     [(4, S), (1, R), (8, S), (1, R), (12, S), (1, R), (8, S), (1, R), (4, S)]),
    ("pulse-cuts-a-visit", block("task", a(10), p(10), pulse={"work_s": 15, "rest_s": 6}),
     [(15, S), (6, R), (5, S), (10, P), (6, R), (10, P)]),
    ("pulse-and-rest-fall-together", block("task", a(5), p(5), rest_s=9, pulse={"work_s": 10, "rest_s": 4}),
     [(10, S), (9, R), (10, P)]),
    ("pulse-rest-is-cut-by-the-cap", block("task", a(20), pulse={"work_s": 15, "rest_s": 10}, cap_s=20),
     [(15, S), (5, R)]),
    ("seconds-for-each-side", block("task", step("side-plank", seconds=20), p(5)), [(40, "side-plank"), (10, P)]),
    ("reps-or-seconds-reps-first", block("task", a(5, seconds=30), p(5)), [(10, S), (10, P)]),
    ("reps-or-seconds-seconds-first", block("task", a(50, seconds=30), p(5)), [(30, S), (10, P)]),
    ("metres", block("task", step("farmer-carry", metres=60)), [(50, "farmer-carry")]),
    ("tempo-is-the-pace", block("task", a(5, tempo=[3, 1, 1, 0])), [(25, S)]),
    ("growth-from-round-two", block("task", a(2, grow=2), more={"rounds": 3}), [(4, S), (8, S), (12, S)]),
    ("section-twice",
     session({"section": "pod", "times": 2, "rest_between_s": 90, "blocks": [
         {"clock": {"kind": "intervals", "work_s": 10}, "steps": [A], "rest_after_s": 5},
         {"clock": {"kind": "intervals", "work_s": 20}, "steps": [B], "rest_after_s": 7, "talk_s": 3}]},
         {"clock": {"kind": "intervals", "work_s": 30}, "steps": [C], "rest_after_s": 11}),
     [(10, S), (5, R), (3, "talk"), (20, P), (90, R), (10, S), (5, R), (3, "talk"), (20, P), (30, M)]),
    ("rotation-waits-for-the-slowest",
     session({"clock": {"kind": "rotation", "rotate_s": 15, "laps": 1, "inner": {"kind": "task"}, "stations": [
         {"name": "x", "steps": [a(5)]}, {"name": "y", "steps": [p(10)]}]}}),
     [(10, S), (10, R), (15, R), (20, P)]),
    ("rotation-of-intervals-with-own-rounds",
     session({"rounds": 2, "clock": {"kind": "rotation", "rotate_s": 30, "laps": 2,
              "inner": {"kind": "intervals", "work_s": 10, "rest_s": 5}, "stations": [
         {"name": "x", "steps": [A]}, {"name": "y", "rounds": 1, "steps": [B]}]}}),
     ([(10, S), (5, R), (10, S), (30, R), (10, P), (15, R), (30, R)] * 2)[:-1]),
]  # fmt: skip


@pytest.mark.parametrize(("document", "wanted"), [t[1:] for t in TAPES], ids=[t[0] for t in TAPES])
def test_tape(document: dict[str, Any], wanted: list[tuple[float, str]]) -> None:
    assert windows(document) == wanted


SCORES: list[tuple[str, dict[str, Any], list[dict[str, Any]]]] = [
    ("amrap-each-counts-both", block("amrap", a(5), step("one-arm-press", reps=2), window_s=31),
     [{"rounds": 1, "reps": 4}]),
    ("whole-rounds-only", block("amrap", a(5), window_s=40), [{"rounds": 4, "reps": 0}]),
    ("finished-task", block("task", a(5), rest_s=3, more={"rounds": 2}), [{"time_s": 23.0}]),
    ("capped-task", block("task", a(5), p(5), cap_s=45, more={"rounds": 3}), [{"rounds": 2, "reps": 2}]),
    ("finished-at-the-cap", block("task", a(5), cap_s=10), [{"time_s": 10.0}]),
    ("one-window-a-repeat", block("amrap", a(5), window_s=20, more={"repeat": 2}),
     [{"rounds": 2, "reps": 0}, {"rounds": 2, "reps": 0}]),
]  # fmt: skip


@pytest.mark.parametrize(("document", "wanted"), [s[1:] for s in SCORES], ids=[s[0] for s in SCORES])
def test_score(document: dict[str, Any], wanted: list[dict[str, Any]]) -> None:
    assert figured(document)["blocks"][0]["scores"] == wanted


SIDES = [
    ("each-doubles", block("task", a(5, sides="each")), (5, 5, 10.0, 10.0)),
    ("each-in-a-window", block("intervals", step("air-squat", sides="each"), work_s=30), (7, 7, 15.0, 15.0)),
    ("each-cut-fills-the-left-first", block("task", a(5, sides="each"), cap_s=14), (5, 2, 10.0, 4.0)),
    ("alternate-carries-the-turn", block("task", a(5, sides="alternate"), more={"rounds": 2}), (5, 5, 10.0, 10.0)),
    ("alternate-begins-left", block("task", a(5, sides="alternate")), (3, 2, 6.0, 4.0)),
    ("swap-visit-by-visit", block("task", a(5, sides="swap"), more={"rounds": 3}), (10, 5, 20.0, 10.0)),
    (
        "swap-keeps-its-side-mirrored",
        block("task", a(5, sides="swap"), more={"rounds": 1, "repeat": 2, "mirror": True}),
        (10, 0, 20.0, 0.0),
    ),
    ("left", block("task", a(5, sides="left")), (5, 0, 10.0, 0.0)),
    ("both-counts-to-neither", block("task", a(5)), (0, 0, 0.0, 0.0)),
    ("movements-own-sides", block("task", step("step-back-lunge", reps=4)), (2, 2, 5.0, 5.0)),
]


@pytest.mark.parametrize(("document", "wanted"), [s[1:] for s in SIDES], ids=[s[0] for s in SIDES])
def test_sides(document: dict[str, Any], wanted: tuple[float, ...]) -> None:
    made = figured(document)["reps"]
    assert (made["left"], made["right"], made["left_s"], made["right_s"]) == wanted


def test_breather_and_change_over_at_default_pace() -> None:
    document = block("task", step("swing", reps=10, effort="all-out"), p(5))
    kinds = [(s.kind, round(s.seconds, 2), s.taken) for s in tape_of(document, Methods(fatigue=0)).segments]
    # 16 s of swings, 15 % breather, then to the floor: 1 + 2.
    assert kinds == [("work", 16.0, False), ("rest", 2.4, True), ("change", 3.0, False), ("work", 10.0, False)]


def test_kit_not_held_before_takes_time() -> None:
    document = block("task", p(1), step("swing", reps=1))
    changes = [s.seconds for s in tape_of(document, Methods()).segments if s.kind == "change"]
    assert changes == [1 + 2 + 3]


def test_fatigue_slows_reps() -> None:
    slow, fresh = (tape_of(block("task", a(100)), m).total_s for m in (Methods(), Methods(fatigue=0)))
    assert fresh == 200
    assert 200 < slow < 250


def test_value_from_a_score() -> None:
    source = {"from": {"block": "b", "take": "rounds"}, "plan": 3, "cap": 5}
    document = block("task", a(5), more={"rounds": source})
    assert len(windows(document)) == 3
    assert len(windows(document, given=Given(scores={"b": Score(rounds=4)}))) == 4
    assert len(windows(document, given=Given(scores={"b": Score(rounds=9)}))) == 5


def test_start_station_turns_the_rotation() -> None:
    document = TAPES[-2][1]
    assert [w[1] for w in windows(document, given=Given(start_station="y"))] == [P, R, S, R]


def test_options_change_the_dose() -> None:
    options = [{"label": "light", "level": "easier", "dose_factor": 0.5, "movement": "air-squat"}]
    document = block("task", step("goblet-squat", reps=11, options=options))
    assert windows(document, given=Given(options="easier")) == [(10.0, S)]


def test_timetable_books_the_cap() -> None:
    made = figured(session(block("task", a(5), cap_s=60)["blocks"][0], slack_s=100))
    assert (made["total_s"], made["timetable_s"]) == (10, 160)


def test_exit_keeps_the_cool_down() -> None:
    one = {"clock": {"kind": "intervals", "work_s": 10}, "steps": [A], "rest_after_s": 5}
    made = figured(session(one, {**one, "optional": "exit", "id": "x"}, {**one, "part": "cool-down"}))
    assert made["total_s"] == 40
    assert [(e["before"], e["total_s"]) for e in made["exits"]] == [("x", 25)]


def test_ranges_are_planned_in_the_middle_and_spread_over_the_corners() -> None:
    document = block("task", a(5, rest_s={"low": 20, "high": 50}), step("push-up", reps={"low": 10, "high": 15}),
                     more={"rounds": {"low": 2, "high": 3}})  # fmt: skip
    made = figured(document)
    # Two rounds of 10 + 35 + 24 (12 reps); low 2 × (10 + 20 + 20), high 3 × (10 + 50 + 30).
    assert made["total_s"] == 2 * (10 + 35 + 24)
    assert made["spread"]["total_s"] == {"low": 2 * 50, "high": 3 * 90}
    assert made["spread"]["reps.called"] == {"low": 30, "high": 60}


def test_a_range_outside_the_blocks_is_spread_too() -> None:
    made = figured({**block("task", a(5)), "slack_s": {"low": 60, "high": 120}})
    assert made["spread"]["timetable_s"] == {"low": 70, "high": 130}
    assert made["spread"]["total_s"] == {"low": 10, "high": 10}


def test_by_the_clock_counts_the_window_whole() -> None:
    document = block("amrap", a(5), p(5), window_s=120)
    at_pace, by_clock = (figured(document, Methods(density=d)) for d in ("at-pace", "by-the-clock"))
    assert at_pace["density"] is not None
    assert at_pace["density"] < 1
    assert by_clock["density"] == 1
    assert by_clock["work_to_rest"] is None


def test_contained_reps_add_nothing_else() -> None:
    made = figured(block("task", step("burpee", reps=5)))
    assert made["reps"]["contained"] == 5
    assert made["movements"]["push-up"]["contained"] == 5
    assert made["movements"]["push-up"]["work_s"] == 0
    assert made["landings"] == {"low": 0, "medium": 5, "high": 0}
