"""The shapes of the figures, as published (docs/session-file.md, "What comes out"). Values only; seconds, kg."""

from __future__ import annotations

from typing_extensions import TypedDict

from finetally.core.unfold.tape import RunScore


class TimeFigures(TypedDict):
    """`total_s` = work + rest + change + talk; null where a ratio's divisor is 0."""

    total_s: float
    work_s: float
    rest_s: float
    change_s: float
    talk_s: float
    density: float | None
    work_to_rest: float | None


class BlockFigures(TimeFigures):
    """One block of the file, added up over its passes."""

    id: str | int
    title: str | None
    part: str
    scores: list[RunScore]
    rpe: float


class ExitFigures(TimeFigures):
    """As if the session ended before a block, cool-down kept."""

    before: str | int
    load: float


class RepFigures(TypedDict):
    """Four kinds of reps that are never one number, and what was done on a side (`both` counts to neither)."""

    called: int
    paced: int
    estimated: int
    contained: int
    left: float
    right: float
    left_s: float
    right_s: float


class MovementFigures(TypedDict):
    """One movement over the whole session; `kg` is its volume load; `provisional` if nobody knows it yet."""

    provisional: bool
    visits: int
    work_s: float
    called: int
    paced: int
    estimated: int
    contained: int
    metres: float
    metres_estimated: float
    kg: float


class PatternFigures(TypedDict):
    """A pattern or a row over the parts that count. `share` is by the measure of `balance.by`."""

    work_s: float
    share: float
    visits: int


class RowFigures(PatternFigures):
    """A row of the balance scheme, with its short code."""

    code: str


class BeamFigures(TypedDict):
    """Two sides against each other, in the measure of `balance.by`; `left_share` is null if both are 0."""

    left_name: str
    right_name: str
    left: float
    right: float
    left_share: float | None


class BalanceFigures(TypedDict):
    """Balance over the parts that count. Mobility stands apart, and work of movements without a pattern."""

    scheme: str
    by: str
    rows: dict[str, RowFigures]
    mobility_s: float
    unassigned_s: float
    beams: dict[str, BeamFigures]
    planes: dict[str, float]


class LandingFigures(TypedDict):
    """Landings by grade."""

    low: int
    medium: int
    high: int


class RateFigures(TypedDict):
    """What some coaches mean by density: reps and kilograms per minute of the parts that count."""

    reps_per_min: float | None
    kg_per_min: float | None


class EffortFigures(TypedDict):
    """Uptake as shares of capacity over the whole file; `rpe` 0-10; `load` = rpe × minutes.

    Not `complete` where a load cannot be judged (`not_judged`), a dose takes the time of the unknown (`guessed`;
    both are paths into the document), or a movement is one that nobody knows yet (`provisional`, their keys).
    """

    mean_uptake: float
    peak_uptake: float
    above_80_s: float
    oxygen_gap_s: float
    rpe: float
    load: float
    complete: bool
    not_judged: list[str]
    guessed: list[str]
    provisional: list[str]


class Spread(TypedDict):
    """The smallest and the largest a figure gets within the document's ranges."""

    low: float
    high: float


class TapeFigures(TimeFigures):
    """All figures of a tape."""

    title: str
    timetable_s: float
    announced_s: float | None
    over_told_s: float | None
    headline: TimeFigures
    parts: dict[str, TimeFigures]
    blocks: list[BlockFigures]
    reps: RepFigures
    movements: dict[str, MovementFigures]
    patterns: dict[str, PatternFigures]
    balance: BalanceFigures
    volume_kg: float
    volume_called_kg: float
    landings: LandingFigures
    rates: RateFigures
    effort: EffortFigures
