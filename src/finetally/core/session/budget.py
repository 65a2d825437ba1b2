"""The budget of work of one answer: how much may be laid out and measured before it is refused.

Limits bound every single thing that a document makes grow; the budget bounds all of them together, however often an
answer lays sessions out (a comparison, a fit, a list). Units are segments, visits and nodes: counts, never seconds,
so that the same request is refused on every machine or on none. Without a budget (command line, tests) nothing is
counted.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from finetally.core.session.problems import DocumentError, Problem


class OverBudgetError(DocumentError):
    """More work than one answer may take."""

    def __init__(self, allowed: int) -> None:
        found = f"more work than one answer may take ({allowed:,} units)"
        super().__init__([Problem("(document)", found, "fewer or shorter sessions at once", "over_budget")])


class Budget:
    """Units of work that are left."""

    __slots__ = ("allowed", "spent")

    def __init__(self, allowed: int) -> None:
        self.allowed = allowed
        self.spent = 0

    def spend(self, units: int) -> None:
        """Book work. Raises OverBudgetError once more than allowed is spent."""
        self.spent += units
        if self.spent > self.allowed:
            raise OverBudgetError(self.allowed)


_current: ContextVar[Budget | None] = ContextVar("budget", default=None)


@contextmanager
def budget_of(units: int) -> Iterator[Budget]:
    """Inside, work is counted against so many units; an outer budget books it when it is over."""
    budget = Budget(units)
    outer = _current.get()
    token = _current.set(budget)
    try:
        yield budget
    finally:
        _current.reset(token)
        if outer is not None:
            outer.spent += budget.spent


def spend(units: int) -> None:
    """Book work against the budget in force, if there is one. Raises OverBudgetError."""
    budget = _current.get()
    if budget is not None:
        budget.spend(units)
