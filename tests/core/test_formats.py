"""Named formats: what is made is recognised, and made again the same."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.board.reader import read_board
from finetally.core.board.writer import write_wall
from finetally.core.figures import figures
from finetally.core.formats.labels import PARAM_LABELS
from finetally.core.formats.names import claimed, format_of, name_of
from finetally.core.formats.shape import CannotMakeError, Format, Param, shape_of
from finetally.core.formats.table import BY_KEY, FORMATS, make, recognise
from finetally.core.session.document import Block
from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from tests.conftest import CASES
from tests.core.helpers import session

MOVEMENTS = ["air-squat", "push-up", "swing", "burpee", "sit-up", "bent-row", "step-up", "mountain-climber"]


def values(param: Param) -> st.SearchStrategy[Any]:
    if param.kind == "choice":
        return st.sampled_from(param.choices)
    if param.kind == "flag":
        return st.booleans()
    if param.kind == "seconds-list":
        return st.lists(st.integers(5, 60), min_size=3, max_size=3)
    low = max(1, int(param.low)) if param.kind in ("count", "reps") else int(param.low)
    return st.integers(low, min(int(param.high), low + 40))


@st.composite
def made(draw: st.DrawFn, one: Format) -> tuple[list[dict[str, Any]], dict[str, Any]]:
    low, high, by = one.steps
    count = draw(st.integers(low, min(high or 8, 8)).filter(lambda n: n % by == 0))
    steps: list[dict[str, Any]] = [{"movement": key} for key in MOVEMENTS[:count]]
    if one.dose in ("reps", "any"):
        steps = [{**step, "reps": draw(st.integers(1, 20))} for step in steps]
    return steps, {param.name: draw(values(param)) for param in one.params}


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
@settings(max_examples=25, deadline=None)
@given(data=st.data())
def test_what_is_made_is_recognised_and_made_again(one: Format, data: st.DataObject) -> None:
    steps, params = data.draw(made(one))
    try:
        entries = make(one.key, steps, params)
    except CannotMakeError:
        return
    found = {r.format.key: r for r in recognise(entries)}
    assert one.key in found
    again = found[one.key]
    assert shape_of(make(one.key, again.steps, again.params)) == shape_of(entries)
    if len(entries) == 1 and "section" not in entries[0]:
        # As the Bench asks: of the block that was read, where every number of seconds is a float.
        read = parse_session(session(*entries)).blocks[0]
        assert isinstance(read, Block)
        assert one.key in [fit["key"] for fit in format_of(read)["fits"]]


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
def test_defaults_make_a_session_that_can_be_figured(one: Format) -> None:
    count = {"regrouped-circuit": 6, "rep-ladder": 3}.get(one.key, max(one.steps[0], 2 if one.steps[1] != 1 else 1))
    steps: list[dict[str, Any]] = [{"movement": key} for key in MOVEMENTS[:count]]
    if one.dose in ("reps", "any"):
        steps = [{**step, "reps": 8} for step in steps]
    document = session(*make(one.key, steps))
    assert figures(parse_session(document), library=shipped_library())["total_s"] > 0


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
@settings(max_examples=15, deadline=None)
@given(data=st.data())
def test_board_text_says_the_same_as_building_it_by_hand(one: Format, data: st.DataObject) -> None:
    steps, params = data.draw(made(one))
    try:
        document = session(*make(one.key, steps, params))
    except CannotMakeError:
        return
    wall = write_wall(document, library=shipped_library())
    assert read_board(wall, library=shipped_library()).document == document


RECOGNISED = [
    ("strict-20-10", "strict-20-10"), ("pairs-20-10", "pairs-20-10"), ("rising-windows", "rising-windows"),
    ("countdown-pairs-mirrored", "countdown-pairs"), ("movement-pyramid", "movement-pyramid"),
    ("growing-rounds", "growing-rounds"), ("density-stations", "density-stations"),
    ("ladder-under-pulse", "rep-ladder-pulse"), ("rounds-with-rest", "rounds-for-time"),
    ("reps-then-time-pairs", "reps-then-time-pairs"),
]  # fmt: skip


@pytest.mark.parametrize(("case", "key"), RECOGNISED, ids=[r[0] for r in RECOGNISED])
def test_reference_sessions_get_their_names(case: str, key: str) -> None:
    document = json.loads((CASES / f"sessions/{case}.json").read_text("utf-8"))["session"]
    assert recognise(document["blocks"][:1])[0].format.key == key


def test_the_narrower_name_comes_first() -> None:
    block = make("strict-20-10", [{"movement": "burpee"}], {"step_rest_s": None})
    assert [r.format.key for r in recognise(block)] == ["strict-20-10", "even-intervals"]
    triplet = make("halving-triplet", [{"movement": m} for m in MOVEMENTS[:3]])
    assert [r.format.key for r in recognise(triplet)] == ["halving-triplet", "rounds-against-the-clock"]


def test_own_words_are_no_part_of_the_shape() -> None:
    block = make("movement-pyramid", [{"movement": "burpee"}, {"movement": "swing"}])[0]
    assert name_of({**block, "title": "Whatever", "part": "finisher", "rest_after_s": 90, "talk_s": 30}) == name_of(
        block
    )


@pytest.mark.parametrize(
    ("key", "count", "word"),
    [("pairs-20-10", 3, "by 2"), ("halving-triplet", 2, "takes 3"), ("low-rep-couplets", 5, "takes 4")],
)
def test_what_cannot_be_held_says_why(key: str, count: int, word: str) -> None:
    with pytest.raises(CannotMakeError, match=word):
        make(key, [{"movement": m, "reps": 3} for m in MOVEMENTS[:count]])


def test_all_named_formats_are_there() -> None:
    assert len(FORMATS) == 23
    assert len(BY_KEY) == 23


def test_labels_that_claim_a_format() -> None:
    assert [f.key for f in claimed("Friday tabata")] == ["strict-20-10"]
    assert claimed("Legs") == []


def test_every_number_of_every_format_has_a_label() -> None:
    assert {param.name for one in FORMATS for param in one.params} == set(PARAM_LABELS)
