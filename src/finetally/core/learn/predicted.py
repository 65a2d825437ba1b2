"""What somebody's pace lets expect of a window: a score, and between which scores 8 of 10 lie."""

from __future__ import annotations

import math

from typing_extensions import TypedDict

from finetally.core.learn.learned import EIGHT_IN_TEN, paces_between
from finetally.core.learn.pace import PaceModel
from finetally.core.unfold.tape import RunScore


class PredictedScore(TypedDict):
    """A score that is expected, and the ends of the interval that 8 of 10 lie in, the lesser score first.

    `pace_factor`, `spread`: what it was made with.
    """

    expected: RunScore
    least: RunScore
    most: RunScore
    pace_factor: float
    spread: float


def predicted(model: PaceModel, index: int, pace_factor: float, spread: float) -> PredictedScore | None:
    """What a block's `index`-th self-paced window should score at a pace; None where it has none.

    `spread`: of the logarithm of the pace (`learned`). The ends are what the paces e^(±1.28 · spread) away make.
    """
    quick, slow = paces_between(pace_factor, spread)
    expected = model.score(pace_factor, index)
    least, most = model.score(slow, index), model.score(quick, index)
    if expected is None or least is None or most is None:
        return None
    return {"expected": expected, "least": least, "most": most, "pace_factor": pace_factor, "spread": spread}


class BesideExpected(TypedDict):
    """A score beside what was expected of it, on one scale: the logarithm of pace, 0 what was expected.

    `reach`: how far the interval of 8 in 10 goes to either side; `place`: where the score is, above 0 quicker.
    """

    reach: float
    place: float | None


def beside(prediction: PredictedScore, factor: float | None) -> BesideExpected:
    """Where the pace factor of a score lies against what was expected."""
    place = None if factor is None else math.log(prediction["pace_factor"] / factor)
    return {"reach": EIGHT_IN_TEN * prediction["spread"], "place": place}
