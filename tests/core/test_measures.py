"""What masses and distances are told in: nothing of a document changes, and what was typed in a unit keeps it."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from finetally.card_pdf import kit_text
from finetally.core.board.values import load_text, metres_text
from finetally.core.board.writer import write_wall
from finetally.core.card.card import Card, card_of
from finetally.core.measures import UNIT_SYSTEMS, Measured, Units, published_measures, told_in
from finetally.core.session.ids import with_ids
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Load
from finetally.core.session.values import AmountRange
from finetally.core.tally.measure import tally
from finetally.shipped import shipped_library
from tests.conftest import REPOSITORY
from tests.core.helpers import BARE, session, step

LIFTS = session(
    {
        "clock": {"kind": "task"},
        "steps": [
            step("goblet-squat", reps=8, load={"kg": 16}),
            step("swing", reps=10, load={"kg": 15.876, "unit": "lb"}),
            step("farmer-carry", metres=40, load={"kg": 24, "count": 2}),
            step("deadlift", reps=3, load={"kg": 100, "unit": "kg"}),
            step("jog", metres=3218.688),
        ],
    }
)


def card(units: Units) -> Card:
    t = tally(parse_session(with_ids(LIFTS)), library=shipped_library(), methods=BARE)
    return card_of(t, units=units)


@pytest.mark.parametrize(
    ("value", "measured", "told"),
    [
        (16, "kg", (35.27, "lb")), (0.1, "kg", (0.22, "lb")), (45.359237, "kg", (100, "lb")), (40, "m", (43.74, "yd")),
        (1609.344, "m", (1, "mi")), (1609.343, "m", (1760, "yd")), (0, "m", (0, "yd")), (5000, "m", (3.11, "mi")),
    ],
)  # fmt: skip
def test_a_mass_and_a_distance_in_imperial_units(value: float, measured: Measured, told: tuple[float, str]) -> None:
    assert told_in(value, measured, "imperial") == told


@given(st.floats(0, 1e5), st.sampled_from(["kg", "m"]))
def test_what_is_not_converted_is_not_rounded_and_the_rest_by_less_than_is_told(
    value: float, measured: Measured
) -> None:
    assert told_in(value, measured, "metric") == (value, measured)
    number, sign = told_in(value, measured, "imperial")
    (each,) = (one.each for one in UNIT_SYSTEMS["imperial"][measured] if one.sign == sign)
    assert abs(number * each - value) <= 0.00501 * each


def test_the_card_is_in_the_readers_units_but_what_was_typed_in_one() -> None:
    kilograms, pounds = card("metric"), card("imperial")
    assert [line.strip() for line in kilograms["blocks"][0]["lines"]] == [
        "8 goblet squat 16 kg", "10 swing 35 lb", "40 m farmer carry 2 x 24 kg", "3 deadlift 100 kg", "3218.688 m jog",
    ]  # fmt: skip
    assert [line.strip() for line in pounds["blocks"][0]["lines"]] == [
        "8 goblet squat 35.27 lb", "10 swing 35 lb", "43.74 yd farmer carry 2 x 52.91 lb", "3 deadlift 100 kg",
        "2 mi jog",
    ]  # fmt: skip
    assert "24 kg" in kit_text(kilograms)
    assert "52.91 lb" in kit_text(pounds)
    assert " kg" not in kit_text(pounds)


def test_the_wall_that_is_read_again_keeps_the_documents_own_way() -> None:
    library = shipped_library()
    assert "40 m farmer carry 2 x 24 kg" in write_wall(LIFTS, library=library)
    assert "43.74 yd farmer carry 2 x 52.91 lb" in write_wall(LIFTS, library=library, units="imperial")


def test_several_of_one_thing_are_told_in_one_unit() -> None:
    by_round = [Load(kg=16), Load(kg=20), Load(kg=24)]
    assert load_text(by_round, "imperial") == "35.27/44.09/52.91 lb"
    assert load_text(by_round) == "16/20/24 kg"
    assert metres_text([400, 2000], "imperial") == "437.45 then 2187.23 yd"
    assert metres_text(AmountRange(low=20, high=30), "imperial") == "21.87-32.81 yd"
    assert metres_text(AmountRange(low=20, high=30, plan=25)) == "20-30 (plan 25) m"


def test_the_pages_have_this_table() -> None:
    written: dict[str, Any] = json.loads((REPOSITORY / "frontend/src/words/measures.json").read_text("utf-8"))
    assert written == published_measures(), "run ./tally describe"
