"""`figures`: the whole way from a session to its published figures."""

from __future__ import annotations

from typing import Any

from finetally.core.checks.check import CheckResult
from finetally.core.checks.table import check
from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.session.warnings import Warned, warnings_of
from finetally.core.tally.exits import exits_of
from finetally.core.tally.figure_types import ExitFigures, Spread, TapeFigures
from finetally.core.tally.measure import Tally, measured, tally
from finetally.core.tally.spread import spread_of


class Figures(TapeFigures):
    """What comes out of a session: every figure, exits, spread of ranges, checks, warnings."""

    exits: list[ExitFigures]
    spread: dict[str, Spread]
    checks: list[CheckResult]
    warnings: list[Warned]


def figures_and_tally(
    session: Session,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    given: Given = NOTHING_GIVEN,
) -> tuple[Figures, Tally]:
    """As `figures`, with the measured tape that they were read from (for pictures)."""
    t = tally(session, library=library, methods=methods, given=given)
    made = measured(t)
    whole: Figures = {
        **made,
        "exits": exits_of(t),
        "spread": spread_of(session, made, library=library, methods=methods, given=given),
        "checks": check(t, methods.muted_checks),
        "warnings": warnings_of(session),
    }
    return whole, t


def figures(
    session: Session,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    given: Given = NOTHING_GIVEN,
) -> Figures:
    """Figure a session. Values only, unrounded; seconds, kilograms, shares from 0 to 1.

    Raises DocumentError with a path for each thing that cannot be figured.
    """
    return figures_and_tally(session, library=library, methods=methods, given=given)[0]


_CHANGED = (float, dict, list)


def printed(value: Any) -> Any:
    """Figures as they are printed: numbers to 3 places, nothing else changed."""
    kind = type(value)
    if kind is float:
        return round(value, 3) + 0.0
    # Most values are names and counts: they are passed by without a call.
    if kind is dict:
        return {key: printed(child) if type(child) in _CHANGED else child for key, child in value.items()}
    if kind is list:
        return [printed(child) if type(child) in _CHANGED else child for child in value]
    return value
