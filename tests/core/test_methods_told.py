"""The methods as they are told: each setting once, in bounds, with its paragraph; each school with a difference to see."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from finetally.core.figures import figures
from finetally.core.methods.described import SET_ELSEWHERE, SETTINGS_TOLD, out_of_bounds
from finetally.core.methods.paragraphs import PARAGRAPH_KEYS, PARAGRAPHS, paragraph_of
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.schools import SCHOOLS_TOLD, SchoolTold, sample_lines
from finetally.core.session.reading import parse_session
from finetally.core.tally.explain.explain import explain
from finetally.shipped import shipped_library

DEFAULTS: dict[str, Any] = json.loads(DEFAULT_METHODS.model_dump_json(by_alias=True))


def test_every_setting_is_told_once_as_a_constant_or_a_school() -> None:
    told = [one.key for one in SETTINGS_TOLD] + [one.key for one in SCHOOLS_TOLD]
    assert len(told) == len(set(told))
    assert set(told) | SET_ELSEWHERE == set(DEFAULTS)


def test_every_default_is_in_its_bounds_and_of_its_shape() -> None:
    assert out_of_bounds(DEFAULTS) == []
    for one in SETTINGS_TOLD:
        value = DEFAULTS[one.key]
        kinds = {"number": (int, float, type(None)), "scale": list, "efforts": dict, "parts": dict}
        assert isinstance(value, kinds[one.shape]), one.key  # type: ignore[arg-type]
        assert (value is None) <= bool(one.empty), "what may be left out says what that means"
        if isinstance(value, dict):
            assert list(value) == [cell.key for cell in one.cells]


@pytest.mark.parametrize("one", SETTINGS_TOLD, ids=lambda one: one.key)
def test_whatever_is_in_bounds_is_taken_and_what_is_not_is_named(one: Any) -> None:
    for cell in one.cells:
        for number, fine in ((cell.low, True), (cell.high, True), (cell.high + 1, False), (cell.low - 1, False)):
            value: Any = number
            if one.shape in ("efforts", "parts"):
                value = {**DEFAULTS[one.key], cell.key: number}
            elif one.shape == "scale":
                value = [[share, number] for share, _ in DEFAULTS[one.key]]
            found = out_of_bounds({one.key: value})
            assert (found == []) == fine
            if fine:
                Methods.model_validate({one.key: value})
            else:
                assert found[0].path.startswith(f"methods.{one.key}")


@given(
    st.recursive(
        st.none() | st.booleans() | st.floats() | st.text(), lambda x: st.lists(x) | st.dictionaries(st.text(), x)
    )
)
def test_any_value_at_all_can_be_looked_at(value: Any) -> None:
    for one in SETTINGS_TOLD:
        out_of_bounds({one.key: value})


@pytest.mark.parametrize("school", SCHOOLS_TOLD, ids=lambda one: one.key)
def test_a_sample_shows_the_difference_between_any_two_schools(school: SchoolTold) -> None:
    library = shipped_library()
    assert DEFAULTS[school.key] in [view.value for view in school.views]
    made = [json.dumps(sample_lines(school, view, library, DEFAULT_METHODS)) for view in school.views]
    assert len(set(made)) == len(made)
    assert len({view.argues for view in school.views}) == len(school.views)
    judged = figures(parse_session(school.sample), library=library)["effort"]
    assert judged["complete"], "a sample that rests on a guess would argue for nobody"


def test_every_paragraph_says_something_and_is_in_use() -> None:
    assert [one.key for one in PARAGRAPHS] == list(PARAGRAPH_KEYS)
    used = {one.paragraph for one in SETTINGS_TOLD} | {one.paragraph for one in SCHOOLS_TOLD}
    assert {one.key for one in PARAGRAPHS} - used == {"safety"}


def test_every_figure_that_opens_has_its_paragraph() -> None:
    """All of a session's arithmetic, from each figure down."""
    session = parse_session(SCHOOLS_TOLD[2].sample)
    waiting, seen = ["headline.density", "effort.load", "total_s", "balance.rows.squat.share", "volume_kg"], set()
    while waiting:
        figure = waiting.pop()
        if figure in seen or len(seen) > 150:
            continue
        seen.add(figure)
        assert paragraph_of(figure) in PARAGRAPH_KEYS
        waiting += [
            one["figure"] for one in explain(session, figure, library=shipped_library())["terms"] if "figure" in one
        ]
    assert len(seen) > 20
    told = {name: paragraph_of(name) for name in ("headline.density", "effort.load", "blocks.2.rpe", "total_s")}
    assert told == {
        "headline.density": "density",
        "effort.load": "load",
        "blocks.2.rpe": "effort",
        "total_s": "pace",
    }
    assert paragraph_of("exits.0.load") == "load"
