"""Side by side: the table, the reasoned pick, the frontier, sweeps, and putting a recast to use."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from finetally.core.compare.columns import PLAN_COLUMN
from finetally.core.compare.frontier import badness, frontier
from finetally.core.compare.ingredients import NoIngredientsError
from finetally.core.compare.rows import ROWS, value_at
from finetally.core.compare.side_by_side import (
    ComparisonRequest,
    Criteria,
    OwnShape,
    compare,
    compare_sessions,
    holding,
    start_comparison,
)
from finetally.core.compare.sweep import NotSweptError, sweep, sweep_values, turns_of
from finetally.core.compare.use import use_edits
from finetally.core.compare.wishes import NAMED_WISHES, Wish, pick
from finetally.core.edits.edit import apply_edits
from finetally.core.figures import figures
from finetally.core.formats.params import read_params
from finetally.core.formats.table import BY_KEY, FORMATS
from finetally.core.methods.value import Methods
from finetally.core.session.ids import with_ids, without_ids
from finetally.core.session.parts import parse_entries
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Step
from finetally.core.tally.explain.explain import explain_tally
from finetally.core.tally.explain.node import evaluate
from finetally.core.tally.measure import tally
from finetally.shipped import shipped_library
from tests.conftest import CASES
from tests.core.helpers import session, step

LIBRARY = shipped_library()
WHOLE: dict[str, Any] = with_ids(json.loads((CASES / "sessions/whole-session.json").read_text("utf-8"))["session"])


def columns_of(asked: ComparisonRequest, keys: list[str] | None) -> dict[str, Any]:
    """The columns that are shown."""
    made = compare(start_comparison(asked, library=LIBRARY), keys, library=LIBRARY)
    return {column["key"]: column for column in made["columns"][: made["shown"]]}


def test_every_value_is_the_published_figure_of_the_columns_document() -> None:
    for column in columns_of(ComparisonRequest(WHOLE), ["even-intervals", "minute-starts", "refrain"]).values():
        if column["why"] is not None:
            continue
        made = figures(parse_session(column["document"]), library=LIBRARY)
        for key, row in ROWS.items():
            if row.figure is not None and key != "landings":
                assert column["values"][key] == value_at(made, row.figure), key
        assert column["values"]["landings"] == sum(made["landings"].values())


def test_every_row_opens_to_its_value() -> None:
    column = columns_of(ComparisonRequest(WHOLE), ["rounds-against-the-clock"])["rounds-against-the-clock"]
    t = tally(parse_session(column["document"]), library=LIBRARY)
    for key, row in ROWS.items():
        value = column["values"][key]
        if row.figure is not None and value:
            opened = explain_tally(t, row.figure)
            assert opened["value"] == pytest.approx(value), key
            assert evaluate(opened, t.methods.effort_scale) == pytest.approx(value), key


def test_differences_are_to_the_plan() -> None:
    columns = columns_of(ComparisonRequest(WHOLE), ["even-intervals"])
    plan, other = columns[PLAN_COLUMN], columns["even-intervals"]
    assert plan["deltas"] == {}
    assert other["deltas"]["work"] == pytest.approx(other["values"]["work"] - plan["values"]["work"])


ALWAYS_ASKED = ("rep-ladder", "movement-pyramid", "minute-starts", "rounds-against-the-clock")


def test_unnamed_formats_are_usual_ones_that_can_be() -> None:
    columns = columns_of(ComparisonRequest(WHOLE), None)
    assert 6 <= len(columns) <= 8
    assert all(column["why"] is None for column in columns.values())


@pytest.mark.parametrize("wishes", [[], [Wish("effort", "low"), Wish("load", "low")]])
def test_what_coaches_ask_for_by_name_is_among_the_first_wherever_it_fits(wishes: list[Wish]) -> None:
    start = start_comparison(
        ComparisonRequest(None, movements=["push-up", "swing", "air-squat", "bent-row"], target=900),
        library=LIBRARY,
    )
    made = compare(start, None, Criteria(wishes), library=LIBRARY)
    shown = [column["key"] for column in made["columns"][: made["shown"]]]
    assert len(shown) <= 8
    assert len({"strict-20-10", "pairs-20-10"} & set(shown)) >= 1
    assert set(ALWAYS_ASKED) <= set(shown)


def test_all_that_fit_are_ranked_and_the_others_say_why() -> None:
    start = start_comparison(ComparisonRequest(WHOLE), library=LIBRARY)
    made = compare(start, ["even-intervals"], Criteria([Wish("work", "high")]), library=LIBRARY)
    assert [column["key"] for column in made["columns"][: made["shown"]]] == [PLAN_COLUMN, "even-intervals"]
    assert {one["key"] for one in made["columns"][1:]} == {
        one.key for one in FORMATS if one.key not in start.ingredients.own
    }
    fit = [n for n, one in enumerate(made["columns"]) if one["why"] is None]
    assert sorted(one["column"] for one in made["pick"]["ranked"]) == fit
    for number, one in enumerate(made["columns"]):
        assert (one["why"] is None) is bool(one["values"])
        assert bool(one["causes"]) is (one["why"] is not None)
        # What is only ranked is not carried over the line whole.
        assert bool(one["document"]) is (number < made["shown"])
        assert bool(one["thumbnail"]) is (number < made["shown"])


def test_a_shape_of_ones_own_takes_part_like_a_format() -> None:
    chosen = BY_KEY["even-intervals"]
    params = read_params(chosen.params, {"work_s": 25, "rest_s": 35, "rounds": 2}, chosen.name)
    shape = OwnShape("shape:7", "Thornlow bursts", chosen, params)
    start = start_comparison(
        ComparisonRequest(None, movements=["push-up", "swing", "air-squat"], target=720), library=LIBRARY
    )
    made = compare(start, ["shape:7", "even-intervals"], shapes=[shape], library=LIBRARY)
    own, shipped = made["columns"][:2]
    assert (own["key"], own["format"], own["name"]) == ("shape:7", "even-intervals", "Thornlow bursts")
    assert (own["params"]["work_s"], own["params"]["rest_s"]) == (25, 35)
    # Its rounds are the free number; its windows are the coach's.
    assert own["params"]["rounds"] == 4
    assert shipped["params"]["work_s"] != 25
    with pytest.raises(KeyError):
        compare(start, ["shape:8"], shapes=[shape], library=LIBRARY)
    ranked = compare(start, None, shapes=[shape], library=LIBRARY)
    assert "shape:7" in {ranked["columns"][one["column"]]["key"] for one in ranked["pick"]["ranked"]}


def test_work_without_rest_has_an_endless_work_to_rest_and_ranks_as_such() -> None:
    start = start_comparison(
        ComparisonRequest(None, movements=["hold-plank", "side-plank", "squat-hold"], target=420), library=LIBRARY
    )
    wish = Wish("work-to-rest", "at-least", 3)
    made = compare(
        start, ["flow-holds", "even-intervals"], Criteria([wish], ("work-to-rest", "load")), library=LIBRARY
    )
    flow, even = made["columns"][:2]
    assert (flow["values"]["work-to-rest"], flow["endless"]) == (None, ["work-to-rest"])
    assert even["endless"] == []
    ranked = {one["column"]: one for one in made["pick"]["ranked"]}
    assert ranked[0]["judged"][0] == {"wish": 0, "value": None, "endless": True, "met": True, "score": 1.0}
    assert not ranked[1]["judged"][0]["met"]
    assert 0 in made["frontier"]
    json.dumps(made, allow_nan=False)
    least = compare(
        start, ["flow-holds", "even-intervals"], Criteria([Wish("work-to-rest", "low")]), library=LIBRARY
    )
    assert least["pick"]["ranked"][-1]["judged"][0]["endless"]


def test_why_not_another_is_told_by_numbers() -> None:
    start = start_comparison(
        ComparisonRequest(None, movements=["push-up", "swing", "air-squat"], target=720), library=LIBRARY
    )
    made = compare(start, None, Criteria([Wish("density", "high")]), library=LIBRARY)
    first, *others = made["pick"]["ranked"]
    assert (first["first_better"], first["first_worse"]) == ([], [])
    best = made["columns"][first["column"]]["values"]
    for one in others:
        mine = made["columns"][one["column"]]["values"]
        for reason in (*one["first_better"], *one["first_worse"]):
            assert (reason["first"], reason["other"]) == (best[reason["row"]], mine[reason["row"]])
    assert any(one["first_better"] for one in others)


def test_a_block_is_compared_by_its_id_the_main_part_without_one() -> None:
    block = WHOLE["blocks"][1]["id"]
    assert start_comparison(ComparisonRequest(WHOLE, [block]), library=LIBRARY).source == (1,)
    main = start_comparison(ComparisonRequest(WHOLE), library=LIBRARY).source
    assert {WHOLE["blocks"][n].get("part", "main") for n in main} == {"main"}
    with pytest.raises(LookupError, match="no block with the id"):
        start_comparison(ComparisonRequest(WHOLE, ["nowhere"]), library=LIBRARY)


def test_fresh_movements_need_a_target_only_where_none_is_usual() -> None:
    start = start_comparison(ComparisonRequest(None, movements=["push-up", "swing"]), library=LIBRARY)
    assert start.held.target == 1200
    typed = [Step(movement="push-up", reps=7), Step(movement="swing")]
    assert [
        dict(dose)
        for dose in start_comparison(ComparisonRequest(None, steps=typed), library=LIBRARY).ingredients.doses
    ] == [
        {"reps": 7},
        {"reps": 10},
    ]
    for hold in ("reps", "load"):
        with pytest.raises(NoIngredientsError):
            start_comparison(ComparisonRequest(None, movements=["push-up"], hold=hold), library=LIBRARY)  # type: ignore[arg-type]
    with pytest.raises(NoIngredientsError, match="no movements"):
        start_comparison(ComparisonRequest(None), library=LIBRARY)


def test_the_plans_own_figure_in_whole_seconds_is_the_plans_own_figure() -> None:
    own = start_comparison(ComparisonRequest(WHOLE, hold="total"), library=LIBRARY).held
    assert own.target is not None
    for target, plans in ((round(own.target), True), (own.target + 60, False)):
        assert (
            start_comparison(ComparisonRequest(WHOLE, hold="total", target=target), library=LIBRARY).held.plans
            is plans
        )


def test_a_heavy_set_without_a_dose_keeps_two_reps_in_reserve() -> None:
    typed = [Step.model_validate({"movement": "barbell-back-squat", "load": {"pct_1rm": 80}})]
    start = start_comparison(ComparisonRequest(None, steps=typed, target=1200), library=LIBRARY)
    assert [dict(dose) for dose in start.ingredients.doses] == [{"reps": 5}]
    other = start_comparison(
        ComparisonRequest(None, steps=typed, target=1200), library=LIBRARY, methods=Methods(one_rm="brzycki")
    )
    assert [dict(dose) for dose in other.ingredients.doses] == [{"reps": 6}]
    made = compare(start, None, library=LIBRARY)
    fits = [one for one in made["columns"] if one["why"] is None]
    assert {one["key"] for one in fits} == {"strength-sets", "minute-starts"}
    starts = next(one for one in fits if one["key"] == "minute-starts")
    assert starts["params"]["period_s"] >= 90


def test_holding_says_why_of_every_format() -> None:
    held = holding(
        start_comparison(ComparisonRequest(None, movements=["push-up", "swing", "burpee"]), library=LIBRARY)
    )
    assert set(held) == {one.key for one in FORMATS}
    assert held["halving-triplet"] is None
    assert "by 2" in str(held["pairs-20-10"])


COLUMNS: list[dict[str, float | None]] = [
    {"effort": 6.0, "work": 700, "landings": 0, "left-right": 0.5, "load": 100},
    {"effort": 7.5, "work": 900, "landings": 40, "left-right": 0.6, "load": 140},
    {"effort": 7.0, "work": 800, "landings": 0, "left-right": None, "load": 120},
]


@pytest.mark.parametrize(
    ("wishes", "order"),
    [
        ([], [0, 1, 2]),
        ([Wish("work", "high")], [1, 2, 0]),
        ([Wish("load", "low")], [0, 2, 1]),
        ([Wish("landings", "at-most", 0, hard=True), Wish("work", "high")], [2, 0, 1]),
        ([Wish("effort", "at-most", 7)], [0, 2, 1]),
        ([Wish("work", "at-least", 900, hard=True)], [1, 0, 2]),
        ([Wish("left-right", "even"), Wish("work", "high", weight=1)], [2, 0, 1]),
        ([Wish("left-right", "even", weight=1), Wish("work", "high", weight=9)], [1, 2, 0]),
        ([Wish("work", "high", weight=0)], [0, 1, 2]),
    ],
)
def test_columns_are_ranked_by_what_is_wished_for(wishes: list[Wish], order: list[int]) -> None:
    assert [one["column"] for one in pick(COLUMNS, wishes)["ranked"]] == order


def test_a_pick_shows_every_number_it_stands_on() -> None:
    made = pick(COLUMNS, [Wish("landings", "at-most", 0, hard=True), Wish("work", "high")])
    first, _, last = made["ranked"]
    assert (first["rank"], first["breaks"], last["breaks"]) == (1, [], [0])
    assert [one["value"] for one in first["judged"]] == [0, 800]
    assert first["score"] == pytest.approx(0.5)
    assert {one["row"] for one in made["gains"]} == {"work"}
    assert {one["row"] for one in made["costs"]} == {"load", "effort"}
    assert {one["row"] for one in made["ranked"][1]["first_better"]} == {"work"}


def test_a_split_mirrored_about_even_is_no_cost() -> None:
    mirrored: list[dict[str, float | None]] = [{"left-right": 0.45, "load": 10}, {"left-right": 0.55, "load": 9}]
    made = pick(mirrored, [Wish("load", "low")])
    assert [one["row"] for one in (*made["gains"], *made["costs"])] == ["load"]
    off = pick([{"left-right": 0.45, "load": 10}, {"left-right": 0.6, "load": 9}], [Wish("load", "low")])
    assert {one["row"] for one in off["costs"]} == {"left-right"}


def test_a_bound_that_none_keeps_scores_by_how_far_off_it_is() -> None:
    """As docs/side-by-side.md says: 1 is to keep it, whatever the others do."""
    scores = [one["judged"][0]["score"] for one in pick(COLUMNS, [Wish("effort", "at-most", 5)])["ranked"]]
    assert scores == [pytest.approx(1 - 1 / 2.5), pytest.approx(1 - 2 / 2.5), 0]
    kept = [one["judged"][0]["score"] for one in pick(COLUMNS, [Wish("effort", "at-most", 6.5)])["ranked"]]
    assert kept == [1, pytest.approx(0.5), 0]


def test_what_cannot_be_is_not_ranked_and_a_wish_for_no_row_is_refused() -> None:
    assert [one["column"] for one in pick([COLUMNS[0], None], [])["ranked"]] == [0]
    with pytest.raises(KeyError):
        pick(COLUMNS, [Wish("beauty", "high")])
    assert all(one.wish.row in ROWS for one in NAMED_WISHES)


numbers = st.one_of(st.none(), st.integers(0, 20).map(float))


@settings(max_examples=150, deadline=None)
@given(st.lists(st.tuples(numbers, numbers), max_size=9), st.sampled_from(["more", "less", "even"]))
def test_nothing_beats_what_is_on_the_frontier(points: list[tuple[Any, Any]], sense: Any) -> None:
    def bad(number: int) -> tuple[float, float]:
        return badness(points[number][0], "less"), badness(points[number][1], sense)

    known = [n for n, point in enumerate(points) if None not in point]
    on = frontier(points, "less", sense)
    assert set(on) <= set(known)
    for number in known:
        beaten = any(
            bad(o)[0] <= bad(number)[0] and bad(o)[1] <= bad(number)[1] and bad(o) != bad(number) for o in known
        )
        assert (number in on) is not beaten


def test_a_sweep_turns_one_number_and_keeps_the_others() -> None:
    start = start_comparison(ComparisonRequest(WHOLE), library=LIBRARY)
    values = sweep_values("even-intervals", "work_s", 20, 40, 10)
    points = sweep(start, "even-intervals", "work_s", values, {"rounds": 2}, library=LIBRARY)
    assert [one["value"] for one in points] == [20, 30, 40]
    for point in points:
        block = point["column"]["entries"][0]
        assert (block["clock"]["work_s"], block["rounds"]) == (point["value"], 2)
    assert turns_of(points) == [] or all(one["value"] == 30 for one in turns_of(points))
    works = [point["column"]["values"]["work"] for point in points]
    assert works == sorted(works)
    [one] = sweep(start, "minute-starts-fill", "mark_s", [120], {}, library=LIBRARY)
    assert "beyond" in str(one["column"]["why"])


def test_a_sweep_shows_where_effort_turns() -> None:
    column: dict[str, Any] = {"values": {"effort": None, "density": None}}

    def points(*efforts: float) -> list[Any]:
        return [{"value": 10 * n, "column": {**column, "values": {"effort": e}}} for n, e in enumerate(efforts)]

    assert turns_of(points(5, 6, 7, 6.5, 6)) == [{"row": "effort", "value": 20, "figure": 7, "from_rising": True}]
    assert turns_of(points(7, 6, 8)) == [{"row": "effort", "value": 10, "figure": 6, "from_rising": False}]
    assert turns_of(points(5, 6, 7)) == []
    # A ripple is no turn.
    assert turns_of(points(5, 7, 6.999, 9)) == []


@pytest.mark.parametrize(
    ("name", "low", "high", "step_by", "says"),
    [
        ("nothing", 1, 3, 1, "no number"),
        ("work_s", 0, 30, 5, "goes from 1"),
        ("work_s", 10, 100, 1, "at most 12"),
        ("work_s", 30, 20, 5, "holds no values"),
    ],
)
def test_a_sweep_that_cannot_be_says_why(name: str, low: int, high: int, step_by: int, says: str) -> None:
    with pytest.raises(NotSweptError, match=says):
        sweep_values("even-intervals", name, low, high, step_by)


@pytest.mark.parametrize("how", ["replace", "insert"])
def test_a_recast_is_used_as_edits_that_can_be_undone(how: Any) -> None:
    start = start_comparison(ComparisonRequest(WHOLE), library=LIBRARY)
    column = columns_of(ComparisonRequest(WHOLE), ["density-stations"])["density-stations"]
    edits = use_edits(parse_session(WHOLE), list(start.source), parse_entries(column["entries"]), how)
    made, inverse = apply_edits(WHOLE, edits)
    parse_session(made)
    size = len(WHOLE["blocks"])
    assert len(made["blocks"]) == (size + 1 if how == "insert" else size - len(start.source) + 1)
    at = start.source[0] if how == "replace" else start.source[-1] + 1
    assert made["blocks"][at]["clock"]["kind"] == "rotation"
    assert with_ids(made) == made
    assert apply_edits(made, inverse)[0] == WHOLE


def test_the_rest_before_the_next_block_stays_when_a_block_is_replaced() -> None:
    document = session(
        {"clock": {"kind": "intervals", "work_s": 20, "rest_s": 10}, "rounds": 6, "rest_after_s": 75, "steps": [step("push-up"), step("swing")]},
        {"clock": {"kind": "intervals", "work_s": 30}, "steps": [step("burpee")]},
    )  # fmt: skip
    column = columns_of(ComparisonRequest(document, [0], hold="total"), ["rounds-against-the-clock"])[
        "rounds-against-the-clock"
    ]
    made, _ = apply_edits(
        document, use_edits(parse_session(document), [0], parse_entries(column["entries"]), "replace")
    )
    assert made["blocks"][0]["rest_after_s"] == 75
    assert without_ids(made)["blocks"][1] == document["blocks"][1]


def test_whole_sessions_stand_beside_each_other_with_what_differs() -> None:
    other = json.loads(json.dumps(WHOLE))
    other["title"] = "Another day"
    made = compare_sessions([("A", WHOLE), ("B", other)], Criteria([Wish("load", "low")]), library=LIBRARY)
    assert [one["name"] for one in made["columns"]] == ["A", "B"]
    assert made["differences"][0] == []
    assert [(one["kind"], one["path"]) for one in made["differences"][1]] == [("changed", "title")]
    assert made["columns"][0]["values"] == made["columns"][1]["values"]
