"""The door to explanations: a figure's dotted name in, one level of its arithmetic out."""

from __future__ import annotations

from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.tally.exits import exit_places
from finetally.core.tally.explain.balance import explain_balance
from finetally.core.tally.explain.effort import explain_effort
from finetally.core.tally.explain.node import Explanation, TermUnit, UnknownFigureError, node
from finetally.core.tally.explain.reps import explain_rate, explain_reps
from finetally.core.tally.explain.times import explain_time
from finetally.core.tally.measure import Tally, measured, tally

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
    """As `explain`, for what is measured already. Raises UnknownFigureError."""
    words = figure.split(".")
    if words[0] in REP_FAMILIES:
        return explain_reps(t, words)
    if words[0] == "rates":
        return explain_rate(t, words)
    if words[0] == "exits":
        return _exit(t, words)
    if words == ["announced_s"] and t.session.announced_s is not None:
        return node(figure, measured(t)["announced_s"] or 0.0, "s", "given", note="typed for the session")
    if words[0] == "blocks" and len(words) == 5 and words[2] == "scores":
        return _score(t, figure, words)
    if words[0] in ("patterns", "balance"):
        return explain_balance(t, words)
    if words[0] == "effort" or (words[0] == "blocks" and len(words) > 2 and words[2] in BLOCK_EFFORTS):
        return explain_effort(t, words)
    if not figure:
        raise UnknownFigureError(figure)
    return explain_time(t, words)


def _exit(t: Tally, words: list[str]) -> Explanation:
    """Open `exits.<n>.<figure>` as that figure of the session cut there; its terms are asked with the prefix."""
    figure = ".".join(words)
    cuts = exit_places(t.session, t.given)
    if len(words) < 3 or not words[1].isdecimal() or int(words[1]) >= len(cuts):
        raise UnknownFigureError(figure)
    cut = t.ended_before(cuts[int(words[1])][1])
    inner = ".".join(words[2:])
    opened = explain_tally(cut, "effort.load" if inner == "load" else inner)
    for one in opened["terms"]:
        if "figure" in one:
            one["figure"] = f"exits.{words[1]}.{one['figure']}"
    return {**opened, "figure": figure}


def _score(t: Tally, figure: str, words: list[str]) -> Explanation:
    """A score is counted as the window runs: there is no arithmetic below it, only what it was read from."""
    _, number, _, index, field = words
    scores = [score for run in t.tape.runs if str(run.block) == number for score in run.scores]
    value = next((score.get(field) for at, score in enumerate(scores) if str(at) == index), None)
    if not isinstance(value, int | float):
        raise UnknownFigureError(figure)
    unit: TermUnit = "s" if field == "time_s" else "reps" if field == "reps" else "count"
    return node(figure, value, unit, "given", note="counted off the tape at the planned pace")
