"""The pace factor of a score: how much slower or quicker than planned paces somebody was."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass

from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.budget import spend
from finetally.core.session.clocks import Amrap, Rotation
from finetally.core.session.document import Block, Session
from finetally.core.session.problems import refuse
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.program import is_capped
from finetally.core.unfold.tape import RunScore, Tape
from finetally.core.unfold.unfold import Unfolder, blocks_of

QUICKEST, SLOWEST = 0.25, 4.0
"""Factors are looked for between these: four times as quick, four times as slow."""

HALVINGS = 24
"""Halvings of the search: a factor is found to a millionth of its size."""

ScoreRank = tuple[int, float, float]
"""How good a score is, to compare: the more the better."""


@dataclass(frozen=True, slots=True)
class PaceModel:
    """One block by itself, unfolded at a pace factor in place of the person's and the squad's.

    `window_s`: how long its window really was, where that is not as planned.
    """

    session: Session
    block: int
    library: Library
    methods: Methods = DEFAULT_METHODS
    given: Given = NOTHING_GIVEN
    window_s: float | None = None

    def tape(self, factor: float) -> Tape:
        """The block's tape at a factor on all paces. Raises DocumentError for a block that is not there."""
        blocks = blocks_of(self.session)
        if self.block >= len(blocks):
            raise refuse(("block",), str(self.block), f"0 to {len(blocks) - 1}", "block")
        block = _windowed(blocks[self.block].block, self.window_s)
        alone = self.session.model_copy(update={"blocks": [block]})
        person = self.given.person.model_copy(update={"pace_factor": factor})
        given = self.given.model_copy(update={"person": person, "until": None})
        made = Unfolder(alone, self.library, self.methods, given).lay_out()
        spend(1 + len(made.segments))
        return made

    def score(self, factor: float, index: int) -> RunScore | None:
        """What the block's `index`-th self-paced window scores at a factor; None where there is none."""
        scores = self.tape(factor).runs[0].scores
        return scores[index % len(scores)] if scores else None


def _windowed(block: Block, window_s: float | None) -> Block:
    """The block with its window of another length."""
    clock = block.clock
    if window_s is None:
        return block
    if isinstance(clock, Rotation):
        if not isinstance(clock.inner, Amrap):
            return block
        inner = clock.inner.model_copy(update={"window_s": window_s})
        return block.model_copy(update={"clock": clock.model_copy(update={"inner": inner})})
    return block.model_copy(update={"clock": clock.model_copy(update={"window_s": window_s})})


def rank(score: RunScore) -> ScoreRank:
    """Rounds count, then reps; a finished task is more than any that was not, the sooner the more."""
    if "time_s" in score:
        return 1, -score["time_s"], 0
    return 0, score.get("rounds", 0), score.get("reps", 0)


def better(one: Mapping[str, float], other: Mapping[str, float]) -> Mapping[str, float]:
    """The better of two scores as they were made (rounds and reps, a rung, or a time); the first of two alike."""
    return max(one, other, key=_made_rank)


def middle_score(scores: Iterable[Mapping[str, float]]) -> Mapping[str, float] | None:
    """The score, as it was made, of whoever stands in the middle; of two the lesser. None of none."""
    ranked = sorted(scores, key=_made_rank)
    return ranked[(len(ranked) - 1) // 2] if ranked else None


def _made_rank(score: Mapping[str, float]) -> ScoreRank:
    if "time_s" in score:
        return rank({"time_s": score["time_s"]})
    return rank({"rounds": int(score.get("rounds", score.get("rung", 0))), "reps": int(score.get("reps", 0))})


def factor_of(model: PaceModel, index: int, score: RunScore) -> float | None:
    """The pace factor with which the model would have made a score in the block's `index`-th self-paced window.

    √(first · last): first is the largest factor (0.25 to 4) that still makes more than the score, last the largest
    that makes at least it; a time's factor is the one that takes it. None for a score of another kind than the
    window's, and where the pace makes no difference. Source: docs/methods.md, "Learning".
    """
    quick, slow = model.score(QUICKEST, index), model.score(SLOWEST, index)
    if quick is None or slow is None or quick == slow:
        return None
    capped = is_capped(blocks_of(model.session)[model.block].work_clock)
    if not capped and ("time_s" in score) != ("time_s" in quick):
        return None
    wanted = rank(score)

    known: dict[float, ScoreRank] = {}

    def at(factor: float) -> ScoreRank:
        # Both searches halve the same way until they part.
        if factor not in known:
            made = model.score(factor, index)
            known[factor] = rank(made) if made is not None else wanted
        return known[factor]

    if at(QUICKEST) < wanted:
        return QUICKEST
    if at(SLOWEST) > wanted:
        return SLOWEST
    first = _largest(lambda factor: _above(at(factor), wanted))
    last = _largest(lambda factor: not _above(wanted, at(factor)))
    return math.sqrt(first * last)


def _above(one: ScoreRank, other: ScoreRank) -> bool:
    """Whether a score is more than another; times within a millionth of a second are the same."""
    if one[0] == other[0] == 1:
        return one[1] > other[1] + TIME_EPS_S
    return one > other


def _largest(holds: Callable[[float], bool]) -> float:
    """The largest factor for which something holds that holds for all smaller ones; 0.25 if it does not there."""
    low, high = math.log(QUICKEST), math.log(SLOWEST)
    if not holds(QUICKEST):
        return QUICKEST
    if holds(SLOWEST):
        return SLOWEST
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        if holds(math.exp(middle)):
            low = middle
        else:
            high = middle
    return math.exp(low)
