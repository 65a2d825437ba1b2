"""The floor: sheets, what events make of them, and the figures of what was done."""

from __future__ import annotations

import json
import random
from typing import Any

import jsonschema
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.figures import Figures, figures, printed
from finetally.core.floor.document import read_run
from finetally.core.floor.done import done
from finetally.core.floor.published import published_sheet, run_schema, sheet_schema
from finetally.core.floor.replay import Played, replay
from finetally.core.floor.sheet import Sheet, sheet
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from tests.conftest import CASES, REPOSITORY
from tests.core.helpers import BARE, session, step
from tests.core.random_runs import random_events
from tests.core.runs import laid_out, played, run_cases, timer_beat
from tests.core.strategies import documents
from tests.core.test_golden_cases import differences

RUNS = {one["id"]: one for one in run_cases()}
SHEET_SCHEMA, RUN_SCHEMA = sheet_schema(), run_schema()
OF_PLANS = ("exits", "spread", "checks", "warnings")


@pytest.mark.parametrize("name", RUNS)
def test_runs(name: str) -> None:
    case = RUNS[name]
    made = json.loads(json.dumps(played(case["run"])))
    assert made["beats"] == case["beats"]
    assert made["played"] == case["played"]
    assert made.get("layouts") == case.get("layouts")


def sheet_of(document: dict[str, Any], methods: Methods = BARE, *, apart: bool = False) -> Sheet:
    return sheet(parse_session(document), library=shipped_library(), methods=methods, apart=apart)


def run_of(document: dict[str, Any], events: list[dict[str, Any]], **more: Any) -> dict[str, Any]:
    return {"fine_tally_run": 1, "session": document, "events": events, **more}


def untouched(made: Sheet) -> list[dict[str, Any]]:
    """The taps that a run takes where everything goes as planned, without holding."""
    t, events = 0.0, [{"t": 0.0, "do": "start"}]
    for beat in made.beats:
        t += beat.expected_s if beat.expected_s is not None else beat.s
        if beat.ends != "clock":
            events.append({"t": t, "do": "next"})
    return events


def total_of(made: Sheet) -> float:
    return sum(beat.expected_s if beat.expected_s is not None else beat.s for beat in made.beats)


@settings(deadline=None, max_examples=50)
@given(documents())
def test_beats_hold_the_whole_tape_once(document: dict[str, Any]) -> None:
    made = sheet_of(document, DEFAULT_METHODS)
    assert [i for beat in made.beats for i in range(beat.first, beat.end)] == list(range(len(made.tape.segments)))
    assert total_of(made) == pytest.approx(made.tape.total_s)
    for one, other in zip(made.beats, made.beats[1:], strict=False):
        assert not (one.kind == other.kind == "rest" and other.set is None)
        assert other.run >= one.run


@settings(deadline=None, max_examples=60)
@given(documents())
def test_a_run_untouched_is_the_plan(document: dict[str, Any]) -> None:
    made = sheet_of(document, DEFAULT_METHODS)
    # A beat that is over within a second of its start swallows the tap.
    if any(beat.ends != "clock" and (beat.expected_s or beat.s) < 1 for beat in made.beats):
        return
    events = untouched(made)
    run = read_run(run_of(document, events, hold="never", until=total_of(made)))
    assert [one.item.number for one in replay(run, library=shipped_library()).played] == list(
        range(len(made.beats))
    )
    planned = figures(parse_session(document), library=shipped_library())
    assert unlike(planned, done(run, library=shipped_library())) == []


@pytest.mark.parametrize(
    "block",
    [
        {"clock": {"kind": "every", "period_s": 60}, "rounds": 4, "steps": [step("burpee", reps=5, chain=True), step("push-up", reps=4, grow=-2)]},
        {"clock": {"kind": "every", "period_s": 60}, "rounds": 3, "steps": [step("push-up", reps=2, grow=-2, chain=True), step("burpee", reps=5)]},
        {"clock": {"kind": "amrap", "window_s": 120}, "steps": [step("push-up", reps=4, grow=-2), step("burpee", reps=5)]},
    ],
    ids=["every-last", "every-first", "amrap"],
)  # fmt: skip
def test_sets_of_no_reps_are_in_what_was_done(block: dict[str, Any]) -> None:
    document = session(block)
    made = sheet_of(document, DEFAULT_METHODS)
    run = read_run(run_of(document, untouched(made), hold="never", until=total_of(made)))
    planned = figures(parse_session(document), library=shipped_library())
    assert any(visit.seconds == 0 for visit in made.tape.visits)
    assert unlike(planned, done(run, library=shipped_library())) == []


def unlike(planned: Figures, as_done: Figures) -> list[str]:
    """Where what was done differs from the plan, but for what is of plans alone."""
    wanted, got = printed({**planned, **dict.fromkeys(OF_PLANS)}), printed(as_done)
    return differences(wanted, {**got, **dict.fromkeys(OF_PLANS)})


@settings(deadline=None, max_examples=60)
@given(documents(), st.integers(0, 10_000), st.sampled_from(["entries", "blocks", "never"]))
def test_no_time_is_lost(document: dict[str, Any], seed: int, hold: str) -> None:
    chance = random.Random(seed)
    events = random_events(chance, 40, 20.0)
    until = max(event["t"] for event in events) + 20
    made = replay(read_run(run_of(document, events, hold=hold, until=until)), library=shipped_library())
    start = next(event["t"] for event in sorted(events, key=lambda e: e["t"]) if event["do"] == "start")
    assert clocked(made) == pytest.approx(ended(made, start) - start)
    for one, other in zip(made.played, made.played[1:], strict=False):
        assert one.start <= one.end + 1e-9
        assert one.end <= other.start + 1e-9
        assert one.seconds >= -1e-6


def clocked(made: Played) -> float:
    """All that was played, stood and waited."""
    running = made.timer.ran_s(made.until) if made.timer.mode in ("playing", "paused") else 0.0
    whole = sum(made.seconds(kind) for kind in ("work", "rest", "talk")) + running
    return whole + made.timer.paused_by(made.until) + made.timer.waited_by(made.until)


def ended(made: Played, start: float) -> float:
    """When the clock of a run stopped; waiting that a skip ended is in it."""
    if not made.over:
        return made.until
    last = made.played[-1].end if made.played else start
    gaps = sum(b.start - a.end for a, b in zip(made.played, made.played[1:], strict=False))
    return last + made.timer.waited_s - gaps


# As done: cut, drawn out, stretched, scored.

WINDOWS = session(
    {
        "clock": {"kind": "intervals", "work_s": 20, "rest_s": 10},
        "rounds": 3,
        "steps": [step("air-squat", pace_s=2)],
    }
)
AMRAP = session(
    {
        "clock": {"kind": "amrap", "window_s": 120},
        "steps": [step("air-squat", reps=5, pace_s=2), step("push-up", reps=5, pace_s=2)],
    }
)
TASK = session({"clock": {"kind": "task"}, "rounds": 2, "steps": [step("air-squat", reps=10, pace_s=2)]})
CAPPED = session(
    {"clock": {"kind": "task", "cap_s": 120}, "rounds": 2, "steps": [step("air-squat", reps=10, pace_s=2)]}
)
PLAIN = json.loads(BARE.model_dump_json(by_alias=True))


def figured_as_done(document: dict[str, Any], *events: tuple[float, str, dict[str, Any]], **more: Any) -> Figures:
    told = [{"t": 0, "do": "start"}, *({"t": t, "do": do, **rest} for t, do, rest in events)]
    return done(read_run(run_of(document, told, methods=PLAIN, **more)), library=shipped_library())


def test_a_window_cut_short_holds_fewer_reps() -> None:
    made = figured_as_done(WINDOWS, (15, "next", {}), until=100)
    assert (made["work_s"], made["rest_s"]) == (55, 20)
    assert made["reps"]["estimated"] == 7 + 10 + 10


def test_a_window_drawn_out_holds_more_reps() -> None:
    made = figured_as_done(WINDOWS, (15, "more", {"s": 10}), until=100)
    assert made["work_s"] == 70
    assert made["reps"]["estimated"] == 15 + 10 + 10


def test_pauses_and_waits_are_rest() -> None:
    two = session(WINDOWS["blocks"][0], WINDOWS["blocks"][0])
    made = figured_as_done(two, (5, "pause", {}), (35, "resume", {}), (160, "next", {}), until=400)
    assert made["work_s"] == 120
    assert made["rest_s"] == 4 * 10 + 30 + (160 - 110)
    assert made["total_s"] == made["work_s"] + made["rest_s"]


def test_a_task_takes_what_it_took() -> None:
    made = figured_as_done(TASK, (60, "next", {}))
    assert (made["total_s"], made["work_s"]) == (60, 60)
    assert made["reps"]["called"] == 20
    assert made["blocks"][0]["scores"] == [{"time_s": 60}]


def test_a_score_is_unfolded_at_the_pace_that_makes_it() -> None:
    planned = figures(parse_session(AMRAP), library=shipped_library(), methods=BARE)
    assert planned["blocks"][0]["scores"] == [{"rounds": 6, "reps": 0}]
    made = figured_as_done(AMRAP, (130, "score", {"block": 0, "rounds": 4, "reps": 3}), until=140)
    assert made["reps"]["paced"] == 43
    assert made["total_s"] == 120
    assert made["blocks"][0]["scores"] == [{"rounds": 4, "reps": 3}]


def test_a_score_in_a_window_that_was_stopped_is_of_that_time() -> None:
    made = figured_as_done(AMRAP, (60, "next", {}), (70, "score", {"block": 0, "rounds": 3, "reps": 0}))
    assert (made["total_s"], made["reps"]["paced"]) == (60, 30)


def test_a_capped_task_that_a_tap_ends_was_done_in_that_time() -> None:
    made = figured_as_done(CAPPED, (80, "next", {}))
    assert made["blocks"][0]["scores"] == [{"time_s": 80}]
    assert (made["work_s"], made["reps"]["called"], made["timetable_s"]) == (pytest.approx(80), 20, 120)


def test_a_capped_task_not_done_by_the_cap() -> None:
    made = figured_as_done(CAPPED, (125, "score", {"block": 0, "rounds": 1, "reps": 5}), until=130)
    assert made["reps"]["called"] == 15
    assert made["total_s"] == 120


def test_what_was_skipped_is_not_figured_and_what_came_again_is() -> None:
    made = figured_as_done(WINDOWS, (5, "again", {"what": "round"}), (45, "skip", {"what": "round"}), until=400)
    planned = figures(parse_session(WINDOWS), library=shipped_library(), methods=BARE)
    assert made["movements"]["air-squat"]["visits"] == planned["movements"]["air-squat"]["visits"] + 1
    assert made["work_s"] == 20 + 15 + 20 + 20


def test_work_of_a_block_that_was_taken_out_stays_done() -> None:
    two = session({**WINDOWS["blocks"][0], "id": "a"}, {**WINDOWS["blocks"][0], "id": "b"})
    out = {"edits": [{"op": "remove", "path": ["blocks"], "index": 0}]}
    made = figured_as_done(two, (15, "change", out), (30, "next", {}), until=200)
    assert made["work_s"] == 20 + 60
    assert len(made["blocks"]) == 2


# The sheet, as it is published.


def test_what_is_published_is_as_it_was() -> None:
    golden = json.loads((CASES / "sheet.json").read_text("utf-8"))
    made = json.loads(json.dumps(published_sheet(sheet_of(golden["session"], DEFAULT_METHODS))))
    assert made == golden["sheet"]
    jsonschema.validate(made, SHEET_SCHEMA)


def test_schemas_are_current() -> None:
    for name, schema in (("sheet", SHEET_SCHEMA), ("run", RUN_SCHEMA)):
        written = json.loads((REPOSITORY / f"docs/{name}.schema.json").read_text("utf-8"))
        assert schema == written, "run ./tally describe"


@pytest.mark.parametrize("name", RUNS)
def test_runs_fit_their_schema(name: str) -> None:
    jsonschema.validate(RUNS[name]["run"], RUN_SCHEMA)


@settings(deadline=None, max_examples=40)
@given(documents(), st.booleans())
def test_every_sheet_fits_its_schema(document: dict[str, Any], apart: bool) -> None:
    made = json.loads(json.dumps(published_sheet(sheet_of(document, DEFAULT_METHODS, apart=apart))))
    jsonschema.validate(made, SHEET_SCHEMA)
    for beat in made["beats"]:
        at = [mark["at_s"] for mark in beat["marks"]]
        assert at == sorted(at)
        assert (beat["kind"] == "work") == bool(beat["lines"])
        if beat["ends"] != "tap":
            assert all(0 <= one <= beat["s"] + 0.001 for one in at)


def marks(document: dict[str, Any], number: int = 0) -> list[tuple[float, str, str]]:
    beat = published_sheet(sheet_of(document))["beats"][number]
    return [(mark["at_s"], mark["kind"], mark["say"]) for mark in beat["marks"]]


def test_marks_of_a_window_and_of_the_rest_before_another() -> None:
    block = {
        "clock": {"kind": "intervals", "work_s": 40, "rest_s": 10},
        "steps": [step("air-squat"), step("step-back-lunge", sides="each")],
    }
    assert marks(session(block)) == [(20, "half", ""), (30, "ten-left", ""), (35, "last-five", "")]
    assert marks(session(block), 1) == [(7, "count-in", "step-back lunge")]
    assert (20, "switch", "right") in marks(session(block), 2)


def test_own_calls_take_the_place_of_half_and_ten_left() -> None:
    block = {
        "clock": {"kind": "intervals", "work_s": 40},
        "steps": [step("air-squat")],
        "calls": [{"at_s": 12, "say": "arms"}],
    }
    assert marks(session(block)) == [(12, "own", "arms")]


def test_marks_of_a_pulse_go_on_to_the_cap() -> None:
    block = {
        "clock": {"kind": "task", "cap_s": 100, "pulse": {"work_s": 20, "rest_s": 10}},
        "steps": [step("air-squat", reps=15, pace_s=2)],
    }
    pulse = [(at, kind) for at, kind, _ in marks(session(block)) if kind.startswith("pulse")]
    rests, works = [at for at, kind in pulse if kind == "pulse-rest"], [at for at, k in pulse if k == "pulse-work"]
    assert rests == [20, 50, 80]
    assert works == [30, 60, 90]


def test_starts_tell_how_long_work_goes_on_and_the_last_round() -> None:
    block = {
        "clock": {"kind": "every", "period_s": 60, "work_until_s": 45},
        "rounds": 2,
        "steps": [step("air-squat", reps=10)],
    }
    assert (45, "work-until", "") in marks(session(block))
    assert (0, "last-round", "") in marks(session(block), 1)


def lines(document: dict[str, Any], number: int = 0, *, apart: bool = False) -> list[Any]:
    return list(published_sheet(sheet_of(document, apart=apart))["beats"][number]["lines"])


def test_lines_say_dose_side_load_and_how_often() -> None:
    block = {
        "clock": {"kind": "task", "rest_s": 60},
        "group": 1,
        "rounds": 3,
        "steps": [step("goblet-squat", reps=5, load={"kg": 24}), step("one-arm-press", reps=8, sides="each")],
    }
    first = lines(session(block))[0]
    assert (first["name"], first["reps"], first["load"]) == ("goblet squat", 5, {"kg": 24})
    assert "times" not in first
    together = lines(session(block), apart=True)
    assert [(line["times"], line.get("sides")) for line in together] == [(3, None), (3, "each")]


def test_each_station_has_its_line_in_its_own_window() -> None:
    rotation = {
        "kind": "rotation",
        "inner": {"kind": "intervals", "work_s": 20, "rest_s": 10},
        "stations": [
            {"name": "sled", "steps": [step("farmer-carry")]},
            {"name": "mat", "steps": [step("push-up"), step("hold-plank")]},
        ],
    }
    found = [(line["station"], line.get("movement")) for line in lines(session({"clock": rotation}))]
    assert found == [("sled", "farmer-carry"), ("mat", "push-up")]
    later = published_sheet(sheet_of(session({"clock": rotation})))["beats"]
    second = next(beat for beat in later[1:] if beat["kind"] == "work")
    assert [line.get("movement") for line in second["lines"]] == ["farmer-carry", "push-up"]


def test_sets_tell_rounds_apart() -> None:
    beats = [timer_beat(beat) for beat in laid_out(read_run(RUNS["skip-a-round"]["run"])).beats]
    sizes = [sum(1 for beat in beats if beat["set"] == one) for one in dict.fromkeys(beat["set"] for beat in beats)]
    assert sizes == [8, 8, 8, 8, 8, 4]


# What is refused.


@pytest.mark.parametrize(
    ("event", "place"),
    [
        ({"t": -1, "do": "next"}, "events[1].t"),
        ({"t": 1, "do": "nxt"}, "events[1]"),
        ({"t": 1, "do": "more"}, "events[1].s"),
        ({"t": 1, "do": "set", "kind": "talk", "s": 3}, "events[1].kind"),
        ({"t": 1, "do": "next", "why": 2}, "events[1].why"),
        ({"t": 1, "do": "score", "block": -2}, "events[1].block"),
        ({"t": 1, "do": "change", "edits": [{"op": "paint"}]}, "events[1].edits[0]"),
    ],
    ids=lambda value: value if isinstance(value, str) else None,
)
def test_what_cannot_be_read_is_told_with_its_place(event: dict[str, Any], place: str) -> None:
    with pytest.raises(DocumentError) as refused:
        read_run(run_of(WINDOWS, [{"t": 0, "do": "start"}, event]))
    assert refused.value.problems[0].path == place


def test_a_session_that_cannot_be_laid_out_is_refused_with_its_place() -> None:
    broken = session({"clock": {"kind": "amrap", "window_s": 60}, "steps": [step("air-squat", reps=0)]})
    with pytest.raises(DocumentError) as refused:
        replay(read_run(run_of(broken, [{"t": 0, "do": "start"}])), library=shipped_library())
    assert refused.value.problems[0].path == "blocks[0].clock.window_s"
