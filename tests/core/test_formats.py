"""Named formats: what is made is recognised, and made again the same."""

from __future__ import annotations

import json
from typing import Any

import jsonschema
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.board.reader import read_board
from finetally.core.board.writer import write_wall
from finetally.core.figures import figures
from finetally.core.formats.axes import DOSE_FACTOR, NO_HINTS, magnitude
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.names import claimed, format_of, name_of
from finetally.core.formats.params import CannotMakeError, choices, param_spec, read_params
from finetally.core.formats.shape import shape_of
from finetally.core.formats.table import BY_KEY, FORMATS, make, make_of, recognise
from finetally.core.session.document import Block
from finetally.core.session.parts import parse_block, parse_entry, without, written
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Step
from finetally.shipped import shipped_library
from tests.conftest import CASES, REPOSITORY
from tests.core.helpers import made, session

MOVEMENTS = ["air-squat", "push-up", "swing", "burpee", "sit-up", "bent-row", "step-up", "mountain-climber"]


def models(steps: list[dict[str, Any]]) -> list[Step]:
    return [Step.model_validate(one) for one in steps]


def values(one: AnyFormat, name: str) -> st.SearchStrategy[Any]:
    said = param_spec(one.params, name)
    if said.unit == "choice":
        return st.sampled_from(choices(one.params, name))
    if said.unit == "flag":
        return st.booleans()
    if said.unit == "seconds-list":
        return st.lists(st.integers(5, 60), min_size=3, max_size=3)
    low = max(1, int(said.low)) if said.unit in ("count", "reps") else int(said.low)
    return st.integers(low, min(int(said.high), low + 40))


@st.composite
def drawn(draw: st.DrawFn, one: AnyFormat) -> tuple[list[dict[str, Any]], dict[str, Any]]:
    low, high, by = one.holds
    count = draw(st.integers(low, min(high or 8, 8)).filter(lambda n: n % by == 0))
    steps: list[dict[str, Any]] = [{"movement": key} for key in MOVEMENTS[:count]]
    if one.dose in ("reps", "any"):
        steps = [{**step, "reps": draw(st.integers(1, 20))} for step in steps]
    return steps, {name: draw(values(one, name)) for name in one.params.model_fields}


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
@settings(max_examples=25, deadline=None)
@given(data=st.data())
def test_what_is_made_is_recognised_and_made_again(one: AnyFormat, data: st.DataObject) -> None:
    steps, params = data.draw(drawn(one))
    try:
        entries = make(one.key, models(steps), params)
    except CannotMakeError:
        return
    found = {r.format.key: r for r in recognise(entries)}
    assert one.key in found
    again = found[one.key]
    assert shape_of(make_of(one, again.steps, again.params)) == shape_of(entries)
    assert shape_of(make(one.key, again.steps, again.params.told())) == shape_of(entries)
    if len(entries) == 1 and isinstance(entries[0], Block):
        # As the Bench asks: of the block that was written and read.
        read = parse_block(json.loads(json.dumps(written(entries[0]))))
        assert one.key in [fit["key"] for fit in format_of(read)["fits"]]


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
def test_defaults_make_a_session_that_can_be_figured(one: AnyFormat) -> None:
    count = {"regrouped-circuit": 6, "rep-ladder": 3}.get(
        one.key, max(one.holds.least, 2 if one.holds.most != 1 else 1)
    )
    steps: list[dict[str, Any]] = [{"movement": key} for key in MOVEMENTS[:count]]
    if one.dose in ("reps", "any"):
        steps = [{**step, "reps": 8} for step in steps]
    document = session(*made(one.key, steps))
    assert figures(parse_session(document), library=shipped_library())["total_s"] > 0


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
@settings(max_examples=15, deadline=None)
@given(data=st.data())
def test_board_text_says_the_same_as_building_it_by_hand(one: AnyFormat, data: st.DataObject) -> None:
    steps, params = data.draw(drawn(one))
    try:
        document = session(*made(one.key, steps, params))
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
    assert recognise([parse_entry(document["blocks"][0])])[0].format.key == key


IN_ROUNDS = [one for one in FORMATS if "rounds" in one.params.model_fields]


@pytest.mark.parametrize("one", IN_ROUNDS, ids=lambda f: f.key)
def test_where_no_rounds_are_said_it_is_one(one: AnyFormat) -> None:
    steps = [{"movement": key, "reps": 5} for key in MOVEMENTS[: max(one.holds[0], 2)]]
    entries = make(one.key, models(steps), {"rounds": 1})
    bare = [without(entry, "rounds") if isinstance(entry, Block) else entry for entry in entries]
    found = {r.format.key: r.params.told() for r in recognise(bare)}
    assert found[one.key]["rounds"] == 1


def test_the_narrower_name_comes_first() -> None:
    block = make("strict-20-10", models([{"movement": "burpee"}]), {"step_rest_s": None})
    assert [r.format.key for r in recognise(block)] == ["strict-20-10", "even-intervals"]
    triplet = make("halving-triplet", models([{"movement": m} for m in MOVEMENTS[:3]]))
    assert [r.format.key for r in recognise(triplet)] == ["halving-triplet", "rounds-against-the-clock"]


def test_own_words_are_no_part_of_the_shape() -> None:
    block = made("movement-pyramid", [{"movement": "burpee"}, {"movement": "swing"}])[0]
    words = {"title": "Whatever", "part": "finisher", "rest_after_s": 90, "talk_s": 30, "id": "b7"}
    assert name_of(parse_entry({**block, **words})) == name_of(parse_entry(block)) == "Movement pyramid"


@pytest.mark.parametrize(
    ("key", "count", "word"),
    [("pairs-20-10", 3, "by 2"), ("halving-triplet", 2, "takes 3"), ("low-rep-couplets", 5, "takes 4")],
)
def test_what_cannot_be_held_says_why(key: str, count: int, word: str) -> None:
    with pytest.raises(CannotMakeError, match=word):
        make(key, models([{"movement": m, "reps": 3} for m in MOVEMENTS[:count]]))


def test_all_named_formats_are_there() -> None:
    assert len(BY_KEY) == len(FORMATS)
    # A file in kinds/ that holds no format is none that the table has missed.
    kinds = (REPOSITORY / "src/finetally/core/formats/kinds").glob("[a-z]*.py")
    assert {one.stem for one in kinds} == {type(one).__module__.rpartition(".")[2] for one in FORMATS}


def test_labels_that_claim_a_format() -> None:
    assert [f.key for f in claimed("Friday tabata")] == ["strict-20-10"]
    assert claimed("Legs") == []


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
def test_every_parameter_says_what_it_is_and_its_schema_is_published(one: AnyFormat) -> None:
    schema = one.params.model_json_schema()
    assert schema["additionalProperties"] is False
    usual = one.defaults().told()
    jsonschema.validate(usual, schema)
    for name in one.params.model_fields:
        said = param_spec(one.params, name)
        assert schema["properties"][name]["title"] == said.label
        if said.unit in ("seconds", "count", "reps"):
            # What is told to be allowed is taken.
            for right in (said.low, said.high):
                read_params(one.params, {name: int(right)}, one.name)
            for wrong in (said.high + 1, said.low - 1, "many", [], True):
                with pytest.raises(CannotMakeError) as refused:
                    read_params(one.params, {name: wrong}, one.name)
                assert refused.value.field == name
                assert said.allowed in str(refused.value)
    with pytest.raises(CannotMakeError, match="has no 'tempo'"):
        read_params(one.params, {"tempo": 3}, one.name)


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
def test_every_bound_has_a_side_and_a_reason_and_every_format_says_what_may_be_left(one: AnyFormat) -> None:
    assert one.bound("left") is not None
    assert len({bound.measure for bound in one.usual}) == len(one.usual)
    for bound in one.usual:
        assert bound.low is not None or bound.high is not None
        assert len(bound.why.split()) > 4


@pytest.mark.parametrize("one", FORMATS, ids=lambda f: f.key)
@pytest.mark.parametrize("count", [1, 2, 3, 4, 6, 7])
def test_a_search_goes_through_numbers_that_the_format_takes(one: AnyFormat, count: int) -> None:
    if one.refused(count) is not None:
        return
    for axis in one.search(count, NO_HINTS):
        sizes = [magnitude(values) for values in axis]
        assert sizes == sorted(sizes)
        for values in axis:
            read_params(one.params, {k: v for k, v in values.items() if k != DOSE_FACTOR}, one.name)


@pytest.mark.parametrize(
    ("key", "steps", "params"),
    [
        ("rep-ladder", 2, {"start": 10, "end": 1, "by": 1, "cap_s": None}),
        ("rep-ladder", 1, {"start": 2, "end": 6, "by": 2, "back": True}),
        ("rep-ladder", 3, {"start": 30, "end": 10, "by": 10, "layout": "one-a-movement", "cap_s": None}),
        ("strength-sets", 2, {"sets": 3, "reps": [8, 6, 4], "rest_s": 150}),
        ("strength-sets", 2, {"sets": 4, "reps": {"low": 8, "high": 12}}),
        ("strength-sets", 1, {"sets": 3, "reps": {"to_failure": True, "plan": 9}}),
        ("rounds-for-time", 2, {"rounds": {"low": 3, "high": 4}}),
    ],
)
def test_what_coaches_write_is_the_format_that_it_is(key: str, steps: int, params: dict[str, Any]) -> None:
    plain = [{"movement": m, "reps": 5} for m in MOVEMENTS[:steps]]
    read = parse_block(made(key, plain, params)[0])
    fit = next(one for one in format_of(read)["fits"] if one["key"] == key)
    assert {name: fit["params"][name] for name in params} == params


def test_sets_may_have_reps_of_their_own() -> None:
    block = made(
        "strength-sets", [{"movement": "push-up", "reps": 8}, {"movement": "swing", "reps": 5}], {"reps": None}
    )
    assert [one["reps"] for one in block[0]["steps"]] == [8, 5]
    assert format_of(parse_block(block[0]))["fits"][0]["params"]["reps"] is None
    with pytest.raises(CannotMakeError, match="swing has no reps"):
        made("strength-sets", [{"movement": "swing"}], {"reps": None})


def test_a_block_alone_is_refused_with_places_of_its_own() -> None:
    with pytest.raises(DocumentError) as refused:
        parse_entry({"clock": {"kind": "intervals", "work_s": -1}, "steps": [{"movement": 7}]})
    assert [one.path for one in refused.value.problems] == ["clock.work_s", "steps[0].movement"]
    with pytest.raises(DocumentError, match="a section"):
        parse_block({"section": "x", "blocks": [made("even-intervals", [{"movement": "swing"}])[0]]})


def test_a_slot_of_two_windows_rises_and_of_one_does_not() -> None:
    steps = [Step(movement="swing")]
    [two] = make("rising-windows", steps, {"slot_s": 20, "by_s": 10})
    assert isinstance(two, Block)
    assert written(two)["clock"]["work_s"] == [10, 20]
    with pytest.raises(CannotMakeError, match="nothing rises"):
        make("rising-windows", steps, {"slot_s": 20, "by_s": 20})
