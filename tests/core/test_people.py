"""What is known of people: maxima and capacity, lists, teams, and the options that limits choose."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from finetally.core.methods.given import Given
from finetally.core.methods.one_rep_max import MOST_REPS, RepSchool, maximum_of_set, possible_reps
from finetally.core.movements.library import Library
from finetally.core.people.field_tests import FIELD_TESTS, capacity_met
from finetally.core.people.limits import BodyLimit, limited_steps, options_with
from finetally.core.people.listing import read_people, short_name
from finetally.core.people.teams import Paced, even_teams
from finetally.core.session.budget import OverBudgetError, budget_of
from finetally.core.session.document import Session
from finetally.core.session.movement import MovementDef
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.unfold.steps import chosen_option

# Maxima


@pytest.mark.parametrize(
    ("school", "kg", "reps", "expected"),
    [("epley", 100, 5, 100 * (1 + 5 / 30)), ("brzycki", 100, 5, 100 * 36 / 32), ("epley", 100, 1, 100),
     ("brzycki", 100, 1, 100), ("epley", 60, 12, 84), ("brzycki", 60, 12, 86.4)],
)  # fmt: skip
def test_a_set_speaks_for_a_maximum(school: RepSchool, kg: float, reps: int, expected: float) -> None:
    assert maximum_of_set(kg, reps, school) == pytest.approx(expected)


@given(st.floats(5, 500), st.integers(2, MOST_REPS), st.sampled_from(["epley", "brzycki"]))
def test_the_maximum_of_a_set_is_the_one_at_which_so_many_reps_are_possible(
    kg: float, reps: int, school: Any
) -> None:
    assert possible_reps(kg / maximum_of_set(kg, reps, school), school) == pytest.approx(reps)


@pytest.mark.parametrize("reps", [0, -1, MOST_REPS + 1])
def test_a_set_of_too_many_reps_speaks_for_nothing(reps: int) -> None:
    with pytest.raises(ValueError, match="reps"):
        maximum_of_set(100, reps, "epley")


# Field tests


@pytest.mark.parametrize(
    ("test", "result", "uptake"),
    [("twelve-minute-run", 2400, (2400 - 504.9) / 44.73), ("shuttle-20-m", 9, 6.0 * 12.5 - 24.4), ("uptake", 49, 49),
     ("met", 12, 42)],
)  # fmt: skip
def test_capacity_comes_from_a_test_by_its_formula(test: str, result: float, uptake: float) -> None:
    assert capacity_met(test, result) == pytest.approx(uptake / 3.5)


@pytest.mark.parametrize("test", FIELD_TESTS, ids=lambda test: test.key)
def test_a_result_out_of_bounds_is_refused_by_its_place(test: Any) -> None:
    assert isinstance(capacity_met(test.key, test.low), float)
    assert isinstance(capacity_met(test.key, test.high), float)
    for wrong in (test.low - 0.1, test.high + 0.1):
        [problem] = capacity_met(test.key, wrong)
        assert (problem.path, problem.code) == ("result", "bounds")


def test_a_test_that_there_is_not_is_refused() -> None:
    [problem] = capacity_met("step-test", 5)
    assert problem.path == "test"


# Lists


def told(text: str, known: tuple[str, ...] = ()) -> list[tuple[int, str, tuple[str, ...], bool]]:
    return [(one.line, one.name, one.groups, one.known) for one in read_people(text, known)]


@pytest.mark.parametrize(
    "text",
    ["Name,Group\nInes Korrigan,North\nBram Tullivant,\n", "Ines Korrigan; North\nBram Tullivant\n",
     "group\tname\nNorth\tInes Korrigan\n\tBram Tullivant", "\ufeffInes Korrigan, North\r\n\r\nBram Tullivant\r\n"],
)  # fmt: skip
def test_a_list_is_read_however_it_is_parted(text: str) -> None:
    assert [(name, groups) for _, name, groups, _ in told(text)] == [
        ("Ines Korrigan", ("North",)), ("Bram Tullivant", ()),
    ]  # fmt: skip


def test_a_name_that_stands_twice_is_one_person_in_both_groups() -> None:
    found = told("Ines Korrigan, North\nines korrigan, South + Carry", known=("INES KORRIGAN",))
    assert found == [(1, "Ines Korrigan", ("North", "South", "Carry"), True)]


def test_a_wrong_list_names_every_line() -> None:
    text = f"name,group\n,North\n{'x' * 121},\nOk Person,{'y' * 41}"
    with pytest.raises(DocumentError) as refused:
        read_people(text)
    assert [one.path for one in refused.value.problems] == ["line 2, name", "line 3, name", "line 4, group"]


@pytest.mark.parametrize("text", ["", "\n \n", "name,group\n", '"open'])
def test_a_list_with_nobody_in_it_is_refused(text: str) -> None:
    with pytest.raises(DocumentError) as refused:
        read_people(text)
    assert refused.value.problems[0].path == "(list)"


@pytest.mark.parametrize(
    ("text", "line"),
    [
        ("Surname;First name;Form\nKorrigan;Ines;9B\nTullivant;Bram;9B", "line 1"),
        ("Surname\nKorrigan\nTullivant", "line 1"),
        ("Vorname\tNachname\nInes\tKorrigan", "line 1"),
        ("Korrigan,Ines,9B", "line 1"),
        ("Ines Korrigan,North\nBram Tullivant,South,12", "line 2"),
    ],
)
def test_a_list_with_other_headings_is_refused_with_what_was_expected(text: str, line: str) -> None:
    with pytest.raises(DocumentError) as refused:
        read_people(text)
    (problem,) = refused.value.problems
    assert (problem.path, problem.code) == (line, "headings")
    assert "“name” and “group”" in problem.allowed


def test_a_group_may_be_called_like_a_heading() -> None:
    assert told("Ines Korrigan, Coach\nBram Tullivant, Year") == [
        (1, "Ines Korrigan", ("Coach",), False), (2, "Bram Tullivant", ("Year",), False),
    ]  # fmt: skip


def test_the_most_people_are_taken_and_one_more_is_not() -> None:
    assert len(read_people("\n".join(f"P{n}" for n in range(500)))) == 500
    with pytest.raises(DocumentError):
        read_people("\n".join(f"P{n}" for n in range(501)))


@pytest.mark.parametrize(
    ("name", "taken", "short"),
    [("Ines Korrigan", (), "Ines"), ("Ines Korrigan", ("ines",), "Ines K"), ("Ines Korrigan", ("Ines", "Ines K"), "Ines Ko"),
     ("Ines", ("Ines",), "Ines"), ("Wolfgangamadeusxxxxxxxxxxx", (), "Wolfgangamadeusxxxxx")],
)  # fmt: skip
def test_a_short_name_tells_people_apart(name: str, taken: tuple[str, ...], short: str) -> None:
    assert short_name(name, taken) == short


# Teams


@given(
    st.lists(st.floats(0.5, 2), min_size=1, max_size=40), st.data(), st.sampled_from(["pace", "lot"]), st.integers()
)
def test_teams_are_even_and_everybody_is_in_one(
    paces: list[float], data: st.DataObject, by: Any, seed: int
) -> None:
    count = data.draw(st.integers(1, len(paces)))
    people = [Paced(key, pace) for key, pace in enumerate(paces)]
    teams = even_teams(people, count, by, seed)
    assert sorted(key for team in teams for key in team) == list(range(len(paces)))
    assert max(map(len, teams)) - min(map(len, teams)) <= 1
    assert even_teams(people[::-1], count, by, seed) == teams


def test_by_pace_each_team_has_its_share_of_the_quick() -> None:
    people = [Paced(key, 0.8 + key / 10) for key in range(8)]
    teams = even_teams(people, 2, "pace", 0)
    assert sorted(map(sorted, teams)) == [[0, 3, 4, 7], [1, 2, 5, 6]]


def test_by_lot_the_seed_decides() -> None:
    people = [Paced(key) for key in range(12)]
    assert len({str(even_teams(people, 3, "lot", seed)) for seed in range(20)}) > 10


@pytest.mark.parametrize("count", [0, 4])
def test_there_are_no_more_teams_than_people(count: int) -> None:
    with pytest.raises(ValueError, match="teams"):
        even_teams([Paced(1), Paced(2), Paced(3)], count, "lot", 0)


# Limits


def session(*steps: dict[str, Any]) -> Session:
    numbered = [{"id": f"s{number}", **step} for number, step in enumerate(steps, start=1)]
    block = {"clock": {"kind": "intervals", "work_s": 30, "rest_s": 15}, "steps": numbered}
    return parse_session({"fine_tally": 1, "title": "Limits", "blocks": [block]})


def option(label: str, **other: Any) -> dict[str, Any]:
    return {"label": label, **other}


KNEE = BodyLimit(1, "knee", None)


def chosen(made: Session, library: Library, *limits: BodyLimit) -> list[tuple[str, str | None, bool]]:
    return [(one.step, one.option, one.eased) for one in limited_steps(made, limits, library)]


def test_a_limit_takes_the_first_option_that_spares_it(library: Library) -> None:
    made = session(
        {"movement": "push-up"},
        {"movement": "box-jump", "options": [
            option("from the floor", movement="squat-jump"), option("bridge", movement="glute-bridge"),
        ]},
    )  # fmt: skip
    assert chosen(made, library, KNEE) == [("s2", "bridge", False)]


def test_where_no_option_spares_it_the_easier_one_is_taken_and_told(library: Library) -> None:
    made = session({"movement": "box-jump", "options": [
        option("high", level="harder"), option("low box", level="easier"),
    ]})  # fmt: skip
    assert chosen(made, library, KNEE) == [("s1", "low box", True)]


def test_a_step_without_a_fitting_option_is_left_open_with_movements_that_would_do(library: Library) -> None:
    [one] = limited_steps(session({"movement": "box-jump"}), [KNEE], library)
    assert (one.option, one.eased, one.limits) == (None, False, (1,))
    for key in one.instead:
        assert "knee" not in (library[key].stresses or ())


def test_a_limit_on_a_movement_holds_for_what_holds_it(library: Library) -> None:
    inside = next(one for one in library.values() if one.contains)
    part = inside.contains[0].movement  # type: ignore[index]
    limit = BodyLimit(7, None, part)
    assert [one.limits for one in limited_steps(session({"movement": inside.key}), [limit], library)] == [(7,)]
    assert limited_steps(session({"movement": "hold-plank"}), [limit], library) == []


@pytest.mark.parametrize(
    ("side", "sides", "hit"),
    [("left", "left", True), ("left", "right", False), ("left", "each", True), ("right", "left", False),
     ("right", "both", True), ("both", "left", True)],
)  # fmt: skip
def test_a_limit_on_one_side_does_not_touch_the_other(library: Library, side: Any, sides: str, hit: bool) -> None:
    made = session({"movement": "forward-lunge", "sides": sides})
    assert bool(limited_steps(made, [BodyLimit(1, "knee", None, side)], library)) is hit


def test_movements_that_hold_each_other_end() -> None:
    ring = Library(
        MovementDef.model_validate({"key": a, "patterns": {"squat": 1.0}, "contains": [{"movement": b, "reps": 1}]})
        for a, b in (("a", "b"), ("b", "a"))
    )
    assert len(limited_steps(session({"movement": "a"}), [BodyLimit(1, None, "b")], ring)) == 1
    assert limited_steps(session({"movement": "a"}), [BodyLimit(1, None, "c")], ring) == []


def test_the_options_are_those_that_figures_take(library: Library) -> None:
    made = session(
        {"movement": "push-up", "options": [option("knees", level="easier"), option("weighted", level="harder")]},
        {
            "movement": "box-jump",
            "options": [option("high", level="harder"), option("bridge", movement="glute-bridge")],
        },
    )
    limited = limited_steps(made, [KNEE], library)
    options = options_with(made, "harder", limited)
    assert options == {"s1": "weighted", "s2": "bridge"}
    steps = made.blocks[0].steps  # type: ignore[union-attr]
    assert [chosen_option(step, Given(options=options)).label for step in steps] == ["weighted", "bridge"]  # type: ignore[union-attr]
    assert options_with(made, {"s1": "knees"}, []) == {"s1": "knees"}


def test_no_limits_no_work(library: Library) -> None:
    assert limited_steps(session({"movement": "box-jump"}), [], library) == []


def test_limits_of_many_people_on_a_long_session_are_counted_as_work(library: Library) -> None:
    made = session(*[{"movement": "push-up"}] * 50)
    with budget_of(49), pytest.raises(OverBudgetError):
        limited_steps(made, [KNEE], library)
    with budget_of(50) as budget:
        limited_steps(made, [KNEE], library)
    assert budget.spent == 50
