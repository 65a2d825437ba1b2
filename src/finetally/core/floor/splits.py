"""Where the plan would be: when each round of a self-paced beat is done, as it was unfolded."""

from __future__ import annotations

from typing_extensions import TypedDict

from finetally.core.floor.beats import Beat
from finetally.core.floor.sheet import Sheet
from finetally.core.unfold.pace import TIME_EPS_S


class PlannedRounds(TypedDict):
    """A beat by its number, and the seconds of it at which its rounds are done."""

    beat: int
    done_s: list[float]


def planned_rounds(of: Sheet) -> list[PlannedRounds]:
    """The planned rounds of every beat that runs at people's own pace and holds more than one."""
    found = [PlannedRounds(beat=n, done_s=_done(of, beat)) for n, beat in enumerate(of.beats) if beat.self_paced]
    return [one for one in found if one["done_s"]]


def _done(of: Sheet, beat: Beat) -> list[float]:
    segments = of.tape.segments[beat.first : beat.end]
    start = segments[0].start
    done: list[float] = []
    now: int | None = None
    for segment in segments:
        round_ = segment.owner.round_
        if segment.visit is None or round_ is None:
            continue
        if now is not None and round_ != now and segment.start - start > TIME_EPS_S:
            done.append(round(segment.start - start, 3))
        now = round_
    return done
