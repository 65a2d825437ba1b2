"""The card holds all that is needed to run the session from paper."""

from __future__ import annotations

import json
from importlib import resources
from typing import Any

import pytest

from finetally.card_pdf import card_pdf, kit_text, others_text
from finetally.core.card import card as card_module
from finetally.core.card.card import Card, card_of
from finetally.core.methods.given import Given
from finetally.core.session.ids import with_ids
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.unfold.calls import calls_of
from finetally.shipped import shipped_library
from tests.core.helpers import BARE, session, step


def card(document: dict[str, Any]) -> Card:
    return card_of(tally(parse_session(with_ids(document)), library=shipped_library(), methods=BARE))


def marks(block: dict[str, Any]) -> list[tuple[float, str]]:
    return [
        (mark["at_s"], mark["what"] + (" (about)" if mark["about"] else ""))
        for mark in card(session(block))["blocks"][0]["marks"]
    ]


A, B = step("air-squat"), step("push-up")
MARKS: list[tuple[str, dict[str, Any], list[tuple[float, str]]]] = [
    ("rounds", {"clock": {"kind": "intervals", "work_s": 20, "round_rest_s": 10}, "steps": [A, B], "rounds": 3},
     [(0, "start"), (50, "round 2"), (100, "round 3")]),
    ("talk and sets", {"clock": {"kind": "intervals", "work_s": 10}, "visit": "build", "steps": [A, B], "talk_s": 30},
     [(0, "talk"), (30, "start"), (40, "set 2")]),
    ("groups by name", {"clock": {"kind": "intervals", "work_s": 10}, "group": 1, "rounds": 2, "steps": [A, B]},
     [(0, "start"), (20, "push-up")]),
    ("repeats", {"clock": {"kind": "intervals", "work_s": 10}, "repeat": 2, "mirror": True, "steps": [A, B]},
     [(0, "start"), (20, "time 2")]),
    ("stations", {"clock": {"kind": "rotation", "rotate_s": 10, "inner": {"kind": "amrap", "window_s": 60},
                            "stations": [{"name": "mat", "steps": [step("push-up", reps=60)]},
                                         {"name": "box", "steps": [step("step-up", reps=60)]}]}},
     [(0, "start"), (70, "box (about)")]),
    ("self-paced rounds are about", {"clock": {"kind": "task"}, "rounds": 2, "steps": [step("push-up", reps=5)]},
     [(0, "start"), (10, "round 2 (about)")]),
]  # fmt: skip


@pytest.mark.parametrize(("block", "expected"), [m[1:] for m in MARKS], ids=[m[0] for m in MARKS])
def test_the_running_clock(block: dict[str, Any], expected: list[tuple[float, str]]) -> None:
    assert marks(block) == expected


def test_an_option_is_said_once() -> None:
    lighter = {"label": "16 kg", "level": "easier", "load": {"kg": 16}}
    named = {"label": "hands up", "level": "easier", "reps": 6}
    steps = [step("swing", reps=10, load={"kg": 24}, options=[lighter]), step("push-up", reps=10, options=[named])]
    lines = card(session({"clock": {"kind": "task"}, "steps": steps}))["blocks"][0]["lines"]
    assert [line.strip() for line in lines if line.strip().startswith("or")] == [
        "or easier: 16 kg",
        "or hands up, easier: 6",
    ]


def test_nothing_a_person_needs_is_dropped() -> None:
    text = resources.files("finetally").joinpath("data/demo/stretcher-carry-b.json").read_text("utf-8")
    made = card(json.loads(text))
    words = "\n".join(line for block in made["blocks"] for line in block["lines"])
    for needed in (
        "half-kneeling press, sides swap, 12 kg",
        "2 loaded step-up each side 10 kg, +2 each round",
        "bent row 2 x 12 kg",
    ):
        assert needed in words
    assert {"kit": "dumbbell", "kg": 12, "count": 28, "there": None} in made["kit"]
    assert [block["score"] for block in made["blocks"]] == [False, False, False, True, False]
    assert any("licensed practice" in line for line in made["cautions"])


def test_options_and_own_calls_stand_on_it() -> None:
    option = {"label": "knees", "level": "easier", "movement": "knee-push-up", "reps": 8}
    block = {
        "clock": {"kind": "task"}, "steps": [step("push-up", reps=10, options=[option])],
        "calls": [{"half": True, "say": "change hands"}],
    }  # fmt: skip
    made = card(session(block))["blocks"][0]
    assert "    or knees, easier: 8 knee push-up" in made["lines"]
    assert made["calls"] == ["change hands"]


def test_a_card_of_many_blocks_asks_for_the_calls_of_the_tape_once(monkeypatch: pytest.MonkeyPatch) -> None:
    asked = []
    monkeypatch.setattr(card_module, "calls_of", lambda tape: asked.append(tape) or calls_of(tape))
    block = {"clock": {"kind": "intervals", "work_s": 30}, "steps": [step("march")]}
    made = card_of(tally(parse_session(session(*[block] * 40)), library=shipped_library()))
    assert (len(made["blocks"]), len(asked)) == (40, 1)


def test_a_sections_rest_and_a_talk_while_moving_stand_on_the_card() -> None:
    block = {"clock": {"kind": "task"}, "steps": [step("push-up", reps={"to_failure": True})]}
    section = {"section": "Pod", "times": 2, "rest_after_s": 90, "blocks": [block]}
    talk = {"clock": {"kind": "intervals", "work_s": 30}, "steps": [step("march")], "talk_s": 60, "talk_over": True}
    first, second = card_of(tally(parse_session(session(section, talk)), library=shipped_library()))["blocks"]
    assert first["rest_after_s"] == 90
    assert first["lines"] == ["  push-up to failure"]
    assert second["marks"][0]["what"] == "talk, people move"
    assert "people move meanwhile" in second["says"]


def test_the_card_says_how_much_of_its_kit_is_there_and_who_does_what_otherwise() -> None:
    swings = step("swing", load={"kg": 16})
    document = {
        **session({"clock": {"kind": "intervals", "work_s": 20, "rest_s": 10}, "steps": [swings]}),
        "people": 6,
    }
    t = tally(
        parse_session(with_ids(document)),
        library=shipped_library(),
        methods=BARE,
        given=Given(kit={"kettlebell": 4}),
    )
    made = card_of(t, [{"movement": "swing", "option": "deadlift", "names": ["Bram", "Ines"]}])
    assert made["kit"] == [{"kit": "kettlebell", "kg": 16, "count": 6, "there": 4}]
    assert kit_text(made) == "6 × kettlebell 16 kg (only 4 there)"
    assert others_text(made) == "Bram, Ines: deadlift for swing"
    assert card_pdf(made).startswith(b"%PDF")


@pytest.mark.parametrize(
    ("own", "last"),
    [
        (None, "Health screening comes first. Stop on pain, dizziness or chest discomfort, and say so. Form before speed once tired."
               " Land softly. Mind heat and water. Take the option that spares a sore joint."
               " General information: local rules and licensed practice come first."),
        (["Health screening first; stop on pain, dizziness or chest discomfort.", "Form before speed once you are tired."],
         "Land softly. Mind heat and water. Take the option that spares a sore joint."
         " General information: local rules and licensed practice come first."),
        ("Watch the road\nwatch the road.", None),
    ],
    ids=["the-usual-ones", "its-own-say-most", "its-own-twice"],
)  # fmt: skip
def test_each_caution_stands_once(own: Any, last: str | None) -> None:
    more = {} if own is None else {"cautions": own}
    lines = card(session({"clock": {"kind": "task"}, "steps": [step("push-up", reps=10)]}, **more))["cautions"]
    assert last is None or lines[-1] == last
    assert " ".join(lines).lower().count("screening") == 1
    assert len(lines) == len({line.lower().rstrip(".") for line in lines})


def test_kit_is_counted_for_who_is_expected() -> None:
    document = session({"clock": {"kind": "task"}, "steps": [step("swing", reps=10, load={"kg": 16})]}, people=3)
    t = tally(parse_session(document), library=shipped_library())
    assert [one["count"] for one in card_of(t, people=14)["kit"]] == [14]
    assert [one["count"] for one in card_of(t)["kit"]] == [3]
