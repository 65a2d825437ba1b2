"""What is refused, where, and what is kept."""

from __future__ import annotations

import json
from typing import Any

import pytest

from finetally.core.figures import figures
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session, read_session
from finetally.core.session.warnings import warnings_of
from finetally.core.unfold.unfold import unfold
from finetally.shipped import shipped_library
from tests.core.helpers import session, step


def block(**more: Any) -> dict[str, Any]:
    return {"clock": {"kind": "intervals", "work_s": 20, "rest_s": 10}, "steps": [step("air-squat")], **more}


def task(*steps: dict[str, Any], **clock: Any) -> dict[str, Any]:
    return {"clock": {"kind": "task", **clock}, "steps": list(steps)}


WRONG = [
    ("clock-unknown", session(block(clock={"kind": "spiral"})), "blocks[0].clock.kind", "'spiral'"),
    ("clock-without-kind", session(block(clock={})), "blocks[0].clock.kind", "nothing"),
    ("negative-rest", session(block(clock={"kind": "intervals", "rest_s": -1})), "blocks[0].clock.rest_s", "-1"),
    ("text-for-number", session(block(rounds="three")), "blocks[0].rounds", "'three'"),
    ("true-for-number", session(block(rounds=True)), "blocks[0].rounds", "true"),
    ("half-a-round", session(block(rounds=2.5)), "blocks[0].rounds", "2.5"),
    ("a-million-rounds", session(block(rounds=1_000_000)), "blocks[0].rounds", "1000000"),
    ("range-upside-down", session(block(rounds={"low": 4, "high": 2})), "blocks[0].rounds", "an object"),
    ("list-too-short", session(block(rounds=3, steps=[step("air-squat", seconds=[10, 20])])),
     "blocks[0].steps[0].seconds", "a list of 2"),
    ("part-unknown", session(block(part="middle")), "blocks[0].part", "'middle'"),
    ("no-steps", session({"clock": {"kind": "amrap", "window_s": 60}}), "blocks[0].steps", "nothing"),
    ("blocks-no-list", session(blocks={}), "blocks", "an object"),
    ("no-title", {"fine_tally": 1, "blocks": [block()]}, "title", "nothing"),
    ("other-version", session(block(), fine_tally=2), "fine_tally", "2"),
    ("dose-missing", session(task(step("push-up"))), "blocks[0].steps[0]", "no dose"),
    ("restart-without-cap", session(task(step("push-up", reps=5), then="restart")), "blocks[0].clock.cap_s", "nothing"),
    ("id-twice", session(block(id="x"), block(id="x")), "blocks[1].id", "'x'"),
    ("weights-not-one", session(block(), movements=[{"key": "m", "patterns": {"squat": 0.5}}]), "movements[0]", "an object"),
    ("a-list", [], "(document)", "a list of 0"),
    ("mark-after-period", session({"clock": {"kind": "every", "period_s": 30, "work_until_s": 40},
     "steps": [step("push-up", reps=3)]}), "blocks[0].clock.work_until_s", "40"),
    ("rotation-in-rotation", session({"clock": {"kind": "rotation", "inner": {"kind": "rotation"}, "stations":
     [{"name": "a", "steps": [step("push-up", reps=3)]}]}}), "blocks[0].clock.inner.kind", "'rotation'"),
]  # fmt: skip


@pytest.mark.parametrize(("document", "path", "found"), [w[1:] for w in WRONG], ids=[w[0] for w in WRONG])
def test_wrong_document_names_place_and_what_was_found(document: Any, path: str, found: str) -> None:
    with pytest.raises(DocumentError) as caught:
        parse_session(document)
    problems = {problem.path: problem for problem in caught.value.problems}
    assert path in problems, caught.value
    assert problems[path].found == found
    assert problems[path].allowed


UNREADABLE = [
    ("nan", '{"fine_tally": 1, "title": NaN}', "title"),
    ("infinite", '{"fine_tally": 1e999}', "fine_tally"),
    ("key-twice", '{"a": {"b": 1, "b": 2}}', "a.b"),
    ("deep", '{"a": ' * 40 + "1" + "}" * 40, None),
    ("very-deep", "[" * 200_000, None),
    ("no-json", '{"a": 1,}', None),
    ("not-utf8", b"\xff\xfe\x00", None),
    ("long-number", '{"a": ' + "9" * 6000 + "}", None),
    ("ten-megabytes", "x" * 10_000_000, None),
]


@pytest.mark.parametrize(("text", "path"), [u[1:] for u in UNREADABLE], ids=[u[0] for u in UNREADABLE])
def test_unreadable_text_is_refused_at_once(text: str | bytes, path: str | None) -> None:
    with pytest.raises(DocumentError) as caught:
        read_session(text)
    if path is not None:
        assert caught.value.problems[0].path == path


FIGURING = [
    (
        "a-round-of-nothing",
        session({"clock": {"kind": "task", "cap_s": 60, "then": "restart"}, "steps": [step("push-up", reps=0)]}),
        "blocks[0].clock.then",
        "a dose above 0",
    ),
    (
        "a-window-of-nothing",
        session({"clock": {"kind": "amrap", "window_s": 60}, "steps": [step("push-up", reps=0)]}),
        "blocks[0].clock.window_s",
        "a dose above 0",
    ),
    (
        "visits-of-nothing",
        session(*[{"clock": {"kind": "task"}, "repeat": 1000, "rounds": 1000, "steps": [step("push-up", reps=0)]}]),
        "(document)",
        "50000",
    ),
    (
        "visits-planned",
        session(
            *[{"clock": {"kind": "task", "cap_s": 1}, "rounds": 1000, "steps": [step("push-up", reps=1)] * 40}] * 3
        ),
        "blocks[2]",
        "100000",
    ),
    ("window-without-time", session(block(clock={"kind": "intervals"})), "blocks[0].clock.work_s", "work_s"),
    ("too-many-reps", session({**task(step("air-squat", reps=9999)), "rounds": 900}), "(document)", "300000"),
]


@pytest.mark.parametrize(("document", "path", "word"), [f[1:] for f in FIGURING], ids=[f[0] for f in FIGURING])
def test_what_cannot_be_figured_names_its_place(document: Any, path: str, word: str) -> None:
    with pytest.raises(DocumentError) as caught:
        unfold(parse_session(document), library=shipped_library())
    assert caught.value.problems[0].path == path
    assert word in caught.value.problems[0].allowed


def test_all_problems_are_listed_at_once() -> None:
    document = session(block(rounds=0, part="x", clock={"kind": "intervals", "work_s": "a", "rest_s": -2}))
    with pytest.raises(DocumentError) as caught:
        parse_session(document)
    assert len(caught.value.problems) == 4


def test_unknown_keys_are_kept_and_listed() -> None:
    document = session(block(hall="north", steps=[step("air-squat", mood=[1])]), club={"a": 1})
    raw, parsed = read_session(json.dumps(document))
    assert raw == document
    assert {w["path"] for w in warnings_of(parsed)} == {"club", "blocks[0].hall", "blocks[0].steps[0].mood"}
    assert all(w["code"] == "unknown" for w in figures(parsed, library=shipped_library())["warnings"])


def test_keys_without_meaning_in_their_clock_are_warned_of() -> None:
    document = session(
        {"clock": {"kind": "amrap", "window_s": 60}, "group": 2, "rounds": 3, "mirror": True,
         "steps": [step("push-up", reps=5, chain=True)]}
    )  # fmt: skip
    warned = {w["path"] for w in warnings_of(parse_session(document)) if w["code"] == "no_meaning"}
    assert warned == {"blocks[0].group", "blocks[0].rounds", "blocks[0].mirror", "blocks[0].steps[0].chain"}
