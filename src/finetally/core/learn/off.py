"""Whether estimates are off to one side, session after session: of a person, of a movement, of a format."""

from __future__ import annotations

import math
from collections.abc import Sequence

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
    away = [math.log(factor / used) for factor in last]
    if len(last) < RUNNING or not (all(one > spread for one in away) or all(one < -spread for one in away)):
        return None
    return {"factors": last, "fits": math.exp(sum(math.log(factor) for factor in last) / len(last))}


class ScoreAway(TypedDict):
    """How far a score was from its estimate: `away`: ln(its pace factor / the one it was foreseen with)."""

    session: str
    away: float
    spread: float


LEAST_SCORES = 2
"""So many scores a session has to have to tell of a movement or a format: one may be the person's own affair."""


def off_together(scores: Sequence[ScoreAway]) -> OffCourse | None:
    """Whether a movement or a format was off in each of the last three sessions, to one side, by more than the
    spread.

    Of each session the mean over its scores is taken, as of somebody who goes just as foreseen; `scores` in order
    of time. None where too little is known.
    """
    sessions: dict[str, list[ScoreAway]] = {}
    for one in scores:
        sessions.setdefault(one["session"], []).append(one)
    told = [some for some in sessions.values() if len(some) >= LEAST_SCORES][-RUNNING:]
    means = [math.fsum(one["away"] for one in some) / len(some) for some in told]
    spreads = [math.fsum(one["spread"] for one in some) / len(some) for some in told]
    above = all(mean > spread for mean, spread in zip(means, spreads, strict=True))
    below = all(mean < -spread for mean, spread in zip(means, spreads, strict=True))
    if len(told) < RUNNING or not (above or below):
        return None
    return {"factors": [math.exp(mean) for mean in means], "fits": math.exp(math.fsum(means) / len(means))}
