"""Levelling a week: one alternative and one day for each session, by a solver; a few edits that one can read.

Hard rules hold. Then as many aims as can be are met; then the fewest edits; then the weights, which are shown.
OR-Tools CP-SAT with one worker, a fixed seed and a deterministic limit: the same week gives the same answer.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import date

from finetally.core.week.bout import Bout
from finetally.core.week.load import WEEK
from finetally.core.week.plan import Rules
from finetally.core.week.proposal import Levelled, Slot, Watch
from finetally.core.week.solver import TENTHS, Leveller


def level(
    slots: Sequence[Slot],
    rules: Rules,
    *,
    around: Sequence[Bout] = (),
    begins: date,
    watch: Watch | None = None,
) -> Levelled:
    """Propose the fewest edits that keep the hard rules and meet the most aims.

    `around`: bouts of the days before and after, which clash as well but are not touched. `watch` sees how it goes
    and can stop it: then the best found so far is given. Where the hard rules contradict each other the answer
    names those that do.
    """
    free = replace(rules, monotony_under=False)
    made = Leveller(slots, free, around, begins).solve(watch)
    if (
        (watch is not None and watch.stopped)
        or not rules.monotony_under
        or made.clashing_rules
        or not made.chosen
        or _varied(slots, made.chosen)
    ):
        # Squares are dear to the solver, and most weeks vary enough of themselves: then nothing was lost without.
        return made
    return Leveller(slots, rules, around, begins).solve(watch)


def _varied(slots: Sequence[Slot], chosen: Mapping[str, tuple[int, int]]) -> bool:
    """Monotony under 2, in whole tenths: 17·S² < 98·Q, with S the sum of the days and Q that of their squares."""
    days = [0] * WEEK
    for slot in slots:
        version, day = chosen[slot.key]
        days[day] += round(slot.versions[version].amount.load * TENTHS)
    return 17 * sum(days) ** 2 < 98 * sum(load * load for load in days)
