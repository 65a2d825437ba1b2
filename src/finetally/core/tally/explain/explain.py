"""The door to explanations: a figure's dotted name in, one level of its arithmetic out."""

from __future__ import annotations

from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.tally.explain.balance import explain_balance
from finetally.core.tally.explain.effort import explain_effort
from finetally.core.tally.explain.node import Explanation, UnknownFigureError
from finetally.core.tally.explain.reps import explain_reps
from finetally.core.tally.explain.times import explain_time
from finetally.core.tally.measure import Tally, tally

REP_FAMILIES = frozenset({"reps", "movements", "visits", "landings", "volume_kg", "volume_called_kg"})
BLOCK_EFFORTS = frozenset({"rpe", "breathing_rpe", "rms_uptake", "window_rpe", "window"})


def explain(
    session: Session,
    figure: str,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    given: Given = NOTHING_GIVEN,
) -> Explanation:
    """One level of a figure's arithmetic; terms with a `figure` can be asked again.

    Names are those of the published figures, dotted, lists by index from 0: `headline.density`,
    `blocks.2.work_s`, `effort.load`, `movements.push-up.estimated`. Raises UnknownFigureError for a name that
    this session has no figure for, DocumentError for a session that cannot be figured.
    """
    return explain_tally(tally(session, library=library, methods=methods, given=given), figure)


def explain_tally(t: Tally, figure: str) -> Explanation:
    """As `explain`, for what is measured already."""
    words = figure.split(".")
    if words[0] in REP_FAMILIES:
        return explain_reps(t, words)
    if words[0] in ("patterns", "balance"):
        return explain_balance(t, words)
    if words[0] == "effort" or (words[0] == "blocks" and len(words) > 2 and words[2] in BLOCK_EFFORTS):
        return explain_effort(t, words)
    if not figure:
        raise UnknownFigureError(figure)
    return explain_time(t, words)
