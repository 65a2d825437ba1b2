"""The budget of work of one answer: counted inside, booked outside, refused once it is over."""

from __future__ import annotations

import pytest

from finetally.core.session.budget import OverBudgetError, budget_of, spend


def test_what_is_allowed_may_be_spent_to_the_last_unit_and_no_more() -> None:
    with budget_of(10) as budget:
        spend(4)
        spend(6)
        assert (budget.spent, budget.allowed) == (10, 10)
        with pytest.raises(OverBudgetError) as refused:
            spend(1)
    problem = refused.value.problems[0]
    assert (problem.path, problem.code) == ("(document)", "over_budget")
    assert "(10 units)" in problem.found
    assert "fewer or shorter" in problem.allowed


def test_without_a_budget_nothing_is_counted() -> None:
    spend(10**12)
    with budget_of(1):
        pass
    spend(10**12)


def test_an_inner_budget_bounds_its_own_work_and_the_outer_one_has_it_booked() -> None:
    with budget_of(100) as outer:
        with budget_of(5) as inner:
            spend(5)
            assert outer.spent == 0
            with pytest.raises(OverBudgetError):
                spend(1)
        # Also what went over was work.
        assert (inner.spent, outer.spent) == (6, 6)
        spend(94)
        with pytest.raises(OverBudgetError):
            spend(1)


def test_a_budget_that_is_left_by_an_error_counts_no_more() -> None:
    with pytest.raises(KeyError), budget_of(1):
        raise KeyError
    spend(2)
