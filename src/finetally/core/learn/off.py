"""Whether estimates are off to one side, session after session: of a person, of a movement, of a format."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from typing_extensions import TypedDict

from finetally.core.learn.learned import PaceSeen


class OffCourse(TypedDict):
    """That estimates were off to one side, by more than their spread, so many times running; what would fit.

    `factors`: of the last sessions, oldest first; `fits`: the factor that they come to without what was before.
    """

    factors: list[float]
    fits: float


FAR_RATED = 2.0
"""Points of effort from which on a rating is far from its estimate: then it is asked what was different."""


def rated_far(rated: float, estimated: float, offset: float) -> bool:
    """Whether a rating is far from what was estimated of this person, who rates `offset` otherwise as a rule."""
    return abs(rated - estimated - offset) >= FAR_RATED


RUNNING = 3
"""So many sessions running an estimate has to be off before it is told."""


def off_course(paces: Sequence[PaceSeen], used: float, spread: float) -> OffCourse | None:
    """Whether the last three scores were all quicker, or all slower, than the pace in use by more than its spread.

    `used`: the factor that predictions go by; `paces` in order of time, one for each session.
    """
    last = [one.factor for one in paces if not one.to_check][-RUNNING:]
    if not _to_one_side([math.log(factor / used) for factor in last], [spread] * len(last)):
        return None
    return _fitting(last)


@dataclass(frozen=True, slots=True)
class ScoreSeen:
    """A score of a session: the pace it had, the pace factor and the spread that it was foreseen with."""

    session: str
    pace: PaceSeen
    used: float
    spread: float


LEAST_SCORES = 2
"""So many scores a session has to have to tell of a movement or a format: one may be the person's own affair."""


def off_together(scores: Iterable[ScoreSeen]) -> OffCourse | None:
    """Whether a movement or a format was off in each of the last three sessions, to one side, by more than the
    spread.

    `scores` in order of time. Of each session the mean over its scores is taken; the factors told are those on the
    times that were foreseen. A score that is to be checked plays no part. None where too little is known.
    """
    sessions: dict[str, list[ScoreSeen]] = {}
    for one in scores:
        if not one.pace.to_check:
            sessions.setdefault(one.session, []).append(one)
    told = [some for some in sessions.values() if len(some) >= LEAST_SCORES][-RUNNING:]
    means = [math.fsum(math.log(one.pace.factor / one.used) for one in some) / len(some) for some in told]
    if not _to_one_side(means, [math.fsum(one.spread for one in some) / len(some) for some in told]):
        return None
    return _fitting([math.exp(mean) for mean in means])


def _to_one_side(away: Sequence[float], spreads: Sequence[float]) -> bool:
    """Whether there are enough logarithms, all above their spread, or all below."""
    pairs = list(zip(away, spreads, strict=True))
    return len(pairs) >= RUNNING and (all(a > s for a, s in pairs) or all(a < -s for a, s in pairs))


def _fitting(factors: list[float]) -> OffCourse:
    return {"factors": factors, "fits": math.exp(math.fsum(map(math.log, factors)) / len(factors))}


def fitting_pace(pace_s: float, off: OffCourse) -> float:
    """The seconds a repetition that would fit a movement which was planned with `pace_s`."""
    return pace_s * off["fits"]
