"""Rules that span several keys of a document: each breach names its place; what has no effect is warned of."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.session.warnings import warnings_of
from tests.core.helpers import session, step

PUSH, HOLD = step("push-up", reps=5), step("hold-plank", seconds=20)


def block(kind: str, *steps: dict[str, Any], clock: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    return {"clock": {"kind": kind, **(clock or {})}, "steps": list(steps), **more}


def stations(*names: str, inner: dict[str, Any], **more: Any) -> dict[str, Any]:
    made = [{"name": name, "steps": [PUSH]} for name in names]
    return {"clock": {"kind": "rotation", "inner": inner, "stations": made}, **more}


BREACHES = [
    ("tempo of nothing", block("task", step("push-up", reps=5, tempo=[0, 0, 0, 0])), "blocks[0].steps[0].tempo"),
    ("load without weight", block("task", step("push-up", reps=5, load={"count": 2})), "blocks[0].steps[0].load"),
    ("one load of a list without weight",
     block("task", step("push-up", reps=5, load=[{"kg": 5}, {"count": 2}]), rounds=2), "blocks[0].steps[0].load[1]"),
    ("fill with a dose", block("every", PUSH, step("swing", fill=True, reps=5), clock={"period_s": 60}), "blocks[0].steps[1].reps"),
    ("fill that is not last of its slot",
     block("every", step("swing", fill=True, chain=True), PUSH, clock={"period_s": 60}), "blocks[0].steps[0].chain"),
    ("chain to nothing", block("every", {**PUSH, "chain": True}, clock={"period_s": 60}), "blocks[0].steps[0].chain"),
    ("fill in a task", block("task", PUSH, step("swing", fill=True)), "blocks[0].steps[1].fill"),
    ("two fillers in one window", block("amrap", PUSH, step("swing", fill=True), step("burpee", fill=True),
     clock={"window_s": 60}), "blocks[0].steps[2].fill"),
    ("nothing but a filler", block("amrap", step("swing", fill=True), clock={"window_s": 60}), "blocks[0].steps"),
    ("a period of nothing", block("every", PUSH, clock={"period_s": 0}), "blocks[0].clock.period_s"),
    ("a window of nothing", block("amrap", PUSH, clock={"window_s": 0}), "blocks[0].clock.window_s"),
    ("a window that may be nothing", block("amrap", PUSH, clock={"window_s": {"low": 0, "high": 60}}), "blocks[0].clock.window_s"),
    ("a pulse of nothing", block("task", PUSH, clock={"pulse": {"work_s": 0, "rest_s": 5}}), "blocks[0].clock.pulse.work_s"),
    ("lists that differ", block("task", step("push-up", reps=[5, 4]), step("swing", reps=[5, 4, 3])), "blocks[0].steps[1].reps"),
    ("a list shorter than the most rounds",
     block("task", step("push-up", reps=[5, 4]), rounds={"low": 2, "high": 3}), "blocks[0].steps[0].reps"),
    ("a list shorter than the most that a score may make",
     block("task", step("push-up", reps=[5, 4]), rounds={"from": {"block": "b", "take": "rounds"}, "plan": 2, "cap": 4}),
     "blocks[0].steps[0].reps"),
    ("a list of rests as long as nothing else",
     block("intervals", step("push-up"), clock={"work_s": 20, "rest_s": [5, 10]}, rounds=3), "blocks[0].clock.rest_s"),
    ("a station without a dose",
     {"clock": {"kind": "rotation", "inner": {"kind": "task"}, "stations": [{"name": "a", "steps": [step("push-up")]}]}},
     "blocks[0].clock.stations[0].steps[0]"),
    ("an option's list", block("task", step("push-up", reps=[5, 4], options=[{"label": "easy", "reps": [3]}])),
     "blocks[0].steps[0].options[0].reps"),
]  # fmt: skip


@pytest.mark.parametrize(("made", "path"), [one[1:] for one in BREACHES], ids=[one[0] for one in BREACHES])
def test_a_breach_names_its_place(made: dict[str, Any], path: str) -> None:
    with pytest.raises(DocumentError) as caught:
        parse_session(session(made))
    assert path in {problem.path for problem in caught.value.problems}, caught.value


KEPT = [
    ("a longer list than the planned rounds of a range",
     block("task", step("push-up", reps=[5, 4, 3]), rounds={"low": 2, "high": 3})),
    ("seconds on every step instead of a window", block("intervals", step("push-up", seconds=20))),
    ("a hold beside reps", block("task", PUSH, HOLD)),
    ("a filler after the rounds", block("amrap", PUSH, step("swing", fill=True), clock={"window_s": 60})),
    ("a cap under a restart", block("task", PUSH, clock={"then": "restart", "cap_s": 60})),
]  # fmt: skip


@pytest.mark.parametrize("made", [one[1] for one in KEPT], ids=[one[0] for one in KEPT])
def test_what_the_rules_allow(made: dict[str, Any]) -> None:
    assert warnings_of(parse_session(session(made))) == []


AMRAP = {"window_s": 60}
IDLE = [
    ("steps beside stations", stations("a", inner={"kind": "task"}, steps=[PUSH]), "steps"),
    ("mirror of an amrap", block("amrap", PUSH, clock=AMRAP, mirror=True), "mirror"),
    ("an end to strip from without stripping", block("task", PUSH, strip_from="back"), "strip_from"),
    (
        "rest between repeats without repeats",
        block("task", PUSH, rest_between_repeats_s=60),
        "rest_between_repeats_s",
    ),
    ("groups of an amrap", block("amrap", PUSH, clock=AMRAP, group=2), "group"),
    ("rounds of an amrap without lists", block("amrap", PUSH, clock=AMRAP, rounds=3), "rounds"),
    (
        "rounds where periods are counted",
        block("every", PUSH, clock={"period_s": 60, "periods": 5}, rounds=3),
        "rounds",
    ),
    (
        "groups where periods are counted",
        block("every", PUSH, clock={"period_s": 60, "periods": 5}, group=1),
        "group",
    ),
    ("chain outside of every", block("task", {**PUSH, "chain": True}, PUSH), "steps[0].chain"),
    ("fill under intervals", block("intervals", step("push-up", fill=True), clock={"work_s": 20}), "steps[0].fill"),
    ("a step's rest in every", block("every", {**PUSH, "rest_s": 5}, clock={"period_s": 60}), "steps[0].rest_s"),
]


@pytest.mark.parametrize(("made", "key"), [one[1:] for one in IDLE], ids=[one[0] for one in IDLE])
def test_a_key_without_meaning_in_its_clock_is_warned_of(made: dict[str, Any], key: str) -> None:
    assert warnings_of(parse_session(session(made))) == [{"path": f"blocks[0].{key}", "code": "no_meaning"}]


def test_ids_are_unique_over_blocks_sections_stations_and_steps() -> None:
    one = stations("a", "b", inner={"kind": "task"}, id="x")
    one["clock"]["stations"][1]["id"] = "x"
    two = {"section": "pair", "id": "y", "blocks": [block("task", {**PUSH, "id": "y"})]}
    with pytest.raises(DocumentError) as caught:
        parse_session(session(one, two))
    assert {problem.path for problem in caught.value.problems} == {
        "blocks[0].clock.stations[1].id", "blocks[1].blocks[0].steps[0].id",
    }  # fmt: skip
