"""Explanations of one session that was worked out by hand: operator, terms, addresses, one level at a time.

Warm-up: 2 × 30 s of march, then 60 s. Lift: 3 × 5 goblet squats of 2 × 16 kg at 3 s, 60 s between, then 30 s.
Finisher: push-up and one-arm press, 4 rounds of 20 s on and 10 s off, all-out, the press half a window a side.
"""

from __future__ import annotations

import contextlib
from collections.abc import Iterator
from typing import Any

import pytest

from finetally.core.methods.value import Methods
from finetally.core.session.reading import parse_session
from finetally.core.tally.explain.explain import explain_tally
from finetally.core.tally.explain.node import UnknownFigureError
from finetally.core.tally.measure import measured, tally
from finetally.shipped import shipped_library
from tests.core.helpers import BARE, session, step

LIFT = step("goblet-squat", id="g", reps=5, load={"kg": 16, "count": 2})
DOCUMENT = session(
    {
        "id": "w", "part": "warm-up", "clock": {"kind": "intervals", "work_s": 30}, "rounds": 2,
        "steps": [step("march", id="m")], "rest_after_s": 60,
    },
    {
        "id": "t", "title": "Lift", "clock": {"kind": "task", "rest_s": 60}, "group": 1, "rounds": 3,
        "steps": [LIFT], "rest_after_s": 30,
    },
    {
        "id": "p", "part": "finisher", "optional": "exit", "clock": {"kind": "intervals", "work_s": 20, "rest_s": 10},
        "rounds": 4, "effort": "all-out", "steps": [step("push-up", id="u"), step("one-arm-press", id="o", sides="each")],
    },
)  # fmt: skip


def opened(figure: str, document: dict[str, Any] = DOCUMENT, methods: Methods = BARE) -> Any:
    return explain_tally(tally(parse_session(document), library=shipped_library(), methods=methods), figure)


def plain(document: dict[str, Any]) -> Any:
    return measured(tally(parse_session(document), library=shipped_library(), methods=BARE))


def terms(figure: str, **more: Any) -> list[tuple[str, float]]:
    return [(term["label"], term["value"]) for term in opened(figure, **more)["terms"]]


OPENED = [
    ("total_s", "sum", 545, [("work", 265), ("rest", 280), ("change-over", 0), ("talk", 0)]),
    ("headline.density", "ratio", 205 / 425, [("work", 205), ("work, rest and change-over", 425)]),
    ("headline.work_to_rest", "ratio", 205 / 220, [("work", 205), ("rest and change-over", 220)]),
    ("reps.called", "sum", 15, [("goblet squat", 15)]),
    ("reps.estimated", "sum", 64, [("push-up", 40), ("one-arm press", 24)]),
    ("reps.left", "sum", 12, [("one-arm press", 12)]),
    ("reps.left_s", "sum", 40, [("one-arm press", 40)]),
    ("volume_kg", "sum", 480, [("goblet squat", 480)]),
    ("patterns.push-level.share", "ratio", 80 / 205, [("push-level", 80), ("all", 205)]),
]


@pytest.mark.parametrize(("figure", "operator", "value", "of"), OPENED, ids=[one[0] for one in OPENED])
def test_a_figure_opens_to_its_terms(figure: str, operator: str, value: float, of: list[tuple[str, float]]) -> None:
    made = opened(figure)
    assert (made["operator"], made["value"]) == (operator, pytest.approx(value))
    assert terms(figure) == [(label, pytest.approx(one)) for label, one in of]


def test_alike_terms_stand_together_with_how_many_and_where() -> None:
    [sets] = opened("movements.goblet-squat.kg")["terms"]
    assert (sets["count"], sets["each"], sets["value"]) == (3, 160, 480)
    assert [at["round"] for at in sets["at"]] == [0, 1, 2]
    assert {(at["block"], at["step"]) for at in sets["at"]} == {("t", "g")}


def test_a_set_opens_to_reps_times_kilograms() -> None:
    [sets] = opened("movements.goblet-squat.kg")["terms"]
    visit = opened(sets["figure"])
    assert (visit["operator"], visit["value"]) == ("product", 160)
    assert sorted(term["value"] for term in visit["terms"]) == [2, 5, 16]


def test_load_is_effort_times_minutes_and_effort_the_rms_of_blocks() -> None:
    load, effort = opened("effort.load"), opened("effort.rpe")
    minutes = dict(terms("effort.load"))["minutes"]
    assert (load["operator"], minutes) == ("product", pytest.approx(545 / 60))
    assert (effort["operator"], [term["weight"] for term in effort["terms"]]) == ("rms", [165, 230])
    squares = sum(term["weight"] * term["value"] ** 2 for term in effort["terms"])
    assert effort["value"] == pytest.approx((squares / 395) ** 0.5)


def test_a_blocks_effort_is_the_larger_of_two_and_a_typed_word_is_felt() -> None:
    assert opened("blocks.2.rpe")["operator"] == "max"
    felt = dict(terms("blocks.2.rpe"))["windows"]
    assert 5 < felt < 7
    milder = {**DOCUMENT, "blocks": [*DOCUMENT["blocks"][:2], {**DOCUMENT["blocks"][2], "effort": "hard"}]}
    assert dict(terms("blocks.2.rpe", document=milder))["windows"] < felt


def test_a_typed_effort_is_its_own_reason() -> None:
    said = {**DOCUMENT, "rpe": 6}
    assert opened("effort.rpe", document=said)["value"] == 6
    assert opened("effort.load", document=said)["value"] == pytest.approx(6 * 545 / 60)


def test_the_minutes_of_the_load_are_a_school() -> None:
    counted = BARE.model_copy(update={"load_minutes": "counted"})
    assert dict(terms("effort.load", methods=counted))["minutes"] == pytest.approx(425 / 60)


def test_the_timetable_adds_what_is_left_under_caps_and_kept_free() -> None:
    capped = session(
        {"id": "c", "clock": {"kind": "task", "cap_s": 60}, "steps": [step("push-up", reps=10)]}, slack_s=90
    )
    assert terms("timetable_s", document=capped) == [
        ("total", pytest.approx(20)), ("left under caps", pytest.approx(40)), ("kept free", 90),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("told", "over"),
    [(60, 30), (120, -30), ({"low": 60, "high": 80}, 10), ({"low": 60, "high": 100}, 0), (None, None)],
)
def test_over_what_was_told_the_nearer_end_of_a_range_counts(told: Any, over: float | None) -> None:
    lift = session({"id": "c", "clock": {"kind": "task"}, "steps": [step("push-up", reps=10)]}, slack_s=70)
    if told is None:
        assert plain(lift)["over_told_s"] is None
        with pytest.raises(UnknownFigureError):
            opened("over_told_s", document=lift)
        return
    lift["announced_s"] = told
    assert plain(lift)["over_told_s"] == pytest.approx(over)
    [comes_to, less] = terms("over_told_s", document=lift)
    assert (comes_to[1], comes_to[1] + less[1]) == (pytest.approx(90), pytest.approx(over))


def test_an_exit_opens_as_the_session_does() -> None:
    made = opened("exits.0.load")
    assert made["operator"] == "product"
    assert dict(terms("exits.0.load"))["minutes"] == pytest.approx(285 / 60)


@pytest.mark.parametrize(
    "figure",
    ["", "hue", "blocks.9.total_s", "blocks.x.rpe", "movements.nobody.kg", "visits.999.kg", "exits.4.load"],
)
def test_there_is_no_arithmetic_of_what_is_no_figure(figure: str) -> None:
    with pytest.raises(UnknownFigureError):
        opened(figure)


def test_by_the_clock_the_whole_window_is_work_and_says_so() -> None:
    clock = BARE.model_copy(update={"density": "by-the-clock"})
    rounds = session(
        {"id": "a", "clock": {"kind": "amrap", "window_s": 60, "rest_s": 10}, "steps": [step("push-up", reps=10)]}
    )
    paced, whole = (
        opened("headline.density", document=rounds),
        opened("headline.density", document=rounds, methods=clock),
    )
    assert (paced["value"], paced["note"]) == (pytest.approx(40 / 60), None)
    assert (whole["value"], whole["note"]) == (1, "self-paced windows whole as work")


def leaves(value: Any, name: str = "") -> Iterator[str]:
    """The dotted names of all numbers in figures."""
    if isinstance(value, dict | list):
        for key, inner in value.items() if isinstance(value, dict) else enumerate(value):
            yield from leaves(inner, f"{name}.{key}" if name else str(key))
    elif isinstance(value, int | float) and not isinstance(value, bool):
        yield name


def misspelt(name: str) -> Iterator[str]:
    """A name with a word more, a word less, and each word another: what no figure is called."""
    words = name.split(".")
    yield f"{name}.more"
    yield f"more.{name}"
    for at in range(len(words)):
        yield ".".join([*words[:at], *words[at + 1 :]])
        for other in ("", "none-such", "-1", "99", "²"):
            yield ".".join([*words[:at], other, *words[at + 1 :]])


def test_what_is_called_nothing_like_a_figure_is_refused_whatever_it_looks_like() -> None:
    t = tally(parse_session(DOCUMENT), library=shipped_library(), methods=BARE)
    names = {*leaves(measured(t)), "landings"}
    # Levels below the figures have names of their own.
    for figure in sorted(names):
        with contextlib.suppress(UnknownFigureError):
            names.update(one["figure"] for one in explain_tally(t, figure)["terms"] if "figure" in one)
    asked = {other for name in names for other in misspelt(name)} - names
    assert len(asked) > 2_000
    answered = set()
    for figure in sorted(asked):
        with contextlib.suppress(UnknownFigureError):
            answered.add(explain_tally(t, figure)["figure"])
    assert answered == set()
