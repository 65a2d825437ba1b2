"""Levelling a week: one alternative and one day for each session, by a solver; a few edits that one can read.

Hard rules hold. Then as many aims as can be are met; then the fewest edits; then the weights, which are shown.
The plan itself is the first answer wherever it keeps the rules, so that none is worse. OR-Tools CP-SAT with one
worker, a fixed seed and a limit: the same week gives the same answer, unless the clock on the wall ends the search.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date

from finetally.core.week.aims import VARIED
from finetally.core.week.plan import Rules
from finetally.core.week.planned_load import PlannedLoad
from finetally.core.week.proposal import Choice, Levelled, SearchEnd, SearchLimit, SearchObserver, Slot, edits_of
from finetally.core.week.review import RULE_WORDS, ChoiceReview, as_planned, review
from finetally.core.week.solver import Leveller, Solution
from finetally.core.week.varying import could_vary, varied_try


def level(
    slots: Sequence[Slot],
    rules: Rules,
    *,
    around: Sequence[PlannedLoad] = (),
    begins: date,
    observer: SearchObserver | None = None,
    limit: SearchLimit = SearchLimit(),  # noqa: B008 - frozen
) -> Levelled:
    """Propose the fewest edits that keep the hard rules and meet the most aims.

    `around`: entries of the days before and after, which clash as well but are not touched. `observer` sees how
    it goes and can stop it: then the best found so far is given, as it is when the limit is over. Never worse
    than the plan on its own aims, where the plan keeps the rules. Where the hard rules contradict each other the
    answer names those that do.
    """
    return _Search(slots, rules, around, begins, observer or SearchObserver(), limit).answer()


HASTE = 3.0
"""Of the solver's own time, for a first look at weeks that vary."""


class _Search:
    def __init__(
        self,
        slots: Sequence[Slot],
        rules: Rules,
        around: Sequence[PlannedLoad],
        begins: date,
        observer: SearchObserver,
        limit: SearchLimit,
    ) -> None:
        self.slots, self.rules, self.around, self.begins = slots, rules, around, begins
        self.observer, self.left = observer, limit
        self.best: tuple[int, Choice, ChoiceReview] | None = None
        self._hold(as_planned(slots))

    def answer(self) -> Levelled:
        """The best choice that is found. Raises RuntimeError before there is one."""
        # Squares are dear to the solver, and most weeks vary enough of themselves: then nothing is lost without.
        loose = replace(self.rules, monotony_under=False)
        model = Leveller(self.slots, loose, self.around, self.begins)
        model.start_from(as_planned(self.slots), under=None)
        first = self._solve(model)
        if first.chosen is None and self.best is None:
            return self._nothing(whole=first.whole)
        if self.best is None:
            raise RuntimeError("the solver's choice does not keep the rules that it was given")
        proven = first.whole
        if self.rules.monotony_under and not (VARIED in self.best[2].met and proven):
            proven = self._vary(first, self.best) and proven
        _, chosen, stands = self.best
        end: SearchEnd = "proven" if proven else "stopped" if self.observer.stopped else "time"
        return Levelled(chosen, edits_of(self.slots, chosen), stands.met, stands.unmet, end=end)

    def _vary(self, first: Solution, best: tuple[int, Choice, ChoiceReview]) -> bool:
        """Look for a week that varies enough and is better than the best so far. Returns whether all was seen."""
        if not could_vary(self.slots, self.rules):
            # Then the best without that aim is the best with it.
            return True
        whole = False
        for exact in (False, True):
            model = Leveller(self.slots, self.rules, self.around, self.begins, exact=exact)
            now = first.chosen or best[1]
            under, _, _ = self.best or best
            model.start_from(now if exact else varied_try(self.slots, self.rules, now), under=under)
            found = self._solve(model, most=None if exact else HASTE)
            whole = exact and found.whole
        return whole

    def _nothing(self, *, whole: bool) -> Levelled:
        if not whole:
            return Levelled(end="stopped" if self.observer.stopped else "time")
        return Levelled(clashing_rules=self._clashing())

    def _clashing(self) -> tuple[str, ...]:
        """A smallest set of rules that cannot hold together, as far as the limit lasts."""
        loose = replace(self.rules, band=None, intents={}, shares={}, targets=(), monotony_under=False)
        kept = list(RULE_WORDS)
        for name in list(kept):
            others = [one for one in kept if one != name]
            found = self._solve(Leveller(self.slots, loose, self.around, self.begins, others))
            if found.chosen is None and found.whole:
                kept = others
        return tuple(kept)

    def _any_left(self) -> bool:
        return self.left.deterministic > 0 and (self.left.seconds is None or self.left.seconds > 0)

    def _solve(self, model: Leveller, most: float | None = None) -> Solution:
        """Search within what is left of the limit, and hold the answer."""
        if self.observer.stopped or not self._any_left():
            return Solution(None, False, 0.0, 0.0)
        limit = self.left if most is None else replace(self.left, deterministic=min(most, self.left.deterministic))
        found = model.solve(limit, self.observer, self._hold)
        seconds = None if self.left.seconds is None else max(0.0, self.left.seconds - found.seconds)
        self.left = SearchLimit(seconds, max(0.0, self.left.deterministic - found.deterministic))
        return found

    def _hold(self, chosen: Choice) -> None:
        """Keep a choice if it keeps the rules and is the best."""
        stands = review(self.slots, chosen, self.rules, around=self.around, begins=self.begins)
        if stands.keeps_rules and (self.best is None or stands.price < self.best[0]):
            self.best = (stands.price, chosen, stands)
            self.observer.note(chosen, stands.price)
