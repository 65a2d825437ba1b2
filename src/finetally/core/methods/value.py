"""Methods: every constant and school as one validated value (docs/methods.md). Defaults are the house's."""

from __future__ import annotations

import itertools
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from finetally.core.session.document import PartName
from finetally.core.session.json_value import JsonObject, JsonValue

Positive = Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]
Rate = Annotated[float, Field(gt=0, le=3600, allow_inf_nan=False)]
NotNegative = Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]


Code = Annotated[str, Field(max_length=64)]
UptakeShare = Annotated[float, Field(ge=0, le=2, allow_inf_nan=False)]
EffortPoint = Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)]


class _Setting(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True, validate_default=True)


class ByEffort(_Setting):
    """One number for each effort word."""

    easy: NotNegative
    steady: NotNegative
    hard: NotNegative
    all_out: NotNegative = Field(alias="all-out")

    @model_validator(mode="before")
    @classmethod
    def _one_for_all(cls, value: JsonValue) -> JsonValue:
        if isinstance(value, int | float) and not isinstance(value, bool):
            return {"easy": value, "steady": value, "hard": value, "all-out": value}
        return value

    model_config = ConfigDict(extra="forbid", frozen=True, populate_by_name=True)

    def of(self, effort: str) -> float:
        """The number for an effort word."""
        return float(getattr(self, effort.replace("-", "_")))


class ChangeOver(_Setting):
    """Seconds of a change-over: to another movement, for kit not held before, getting down, getting up."""

    step: NotNegative = 1
    kit: NotNegative = 2
    down: NotNegative = 2
    up: NotNegative = 3


class Unknown(_Setting):
    """What is taken of a movement that has no pace or speed of its own: seconds a rep, metres a second, MET."""

    pace_s: Rate = 3
    speed_mps: Rate = 2
    met: NotNegative = 6


class WeekTarget(_Setting):
    """What a row is to get in a week: minutes, or a share (0 to 1) of all rows; either end may be open."""

    by: Literal["minutes", "share"] = "minutes"
    low: NotNegative | None = None
    high: NotNegative | None = None

    @model_validator(mode="after")
    def _rising(self) -> WeekTarget:
        if self.low is not None and self.high is not None and self.low > self.high:
            raise ValueError("the low end is over the high end")
        return self


class Methods(_Setting):
    """All constants that figures depend on. Unknown names and values out of bounds are refused."""

    fatigue: NotNegative = 0.25
    fatigue_time_s: Positive = 360
    pace_factor: Positive = 1.0
    change: ChangeOver = ChangeOver()
    breathers: ByEffort = ByEffort(easy=0, steady=0.05, hard=0.10, all_out=0.15)
    closing_rest: bool = False
    density: Literal["at-pace", "by-the-clock"] = "at-pace"
    counted_parts: list[PartName] = Field(default=["main", "finisher"], min_length=1)
    load_minutes: Literal["session", "counted"] = "session"
    effort_factor: ByEffort = ByEffort(easy=0.7, steady=1.0, hard=1.25, all_out=1.5)
    effort_floor: ByEffort = ByEffort(easy=1, steady=3, hard=5, all_out=7)
    floor_on_s: Positive = 20
    floor_off_s: Positive = 60
    unknown: Unknown = Unknown()
    learn_prior: Positive = 2
    learn_half_life_d: Positive = 42
    capacity_met: Positive = 12
    rest_met: Positive = 1.5
    tau_on_s: Positive = 35
    tau_off_s: Positive = 60
    effort_scale: list[tuple[UptakeShare, EffortPoint]] = Field(
        default=[(0.125, 0), (0.40, 3), (0.60, 5), (0.75, 6.7), (0.90, 8.5), (1.00, 10)],
        min_length=2,
        max_length=50,
    )
    one_rm: Literal["epley", "brzycki"] = "epley"
    balance: Literal["eight-rows", "force-directions", "six-roots"] = "eight-rows"
    balance_by: Literal["work-time", "visits", "effort-time"] = "work-time"
    landings_limit: NotNegative = 100
    muted_checks: list[Code] = Field(default=[], max_length=200)
    hard_day_effort: NotNegative = 7
    hard_day_load: NotNegative | None = None
    clash_hours: NotNegative = 48
    week_targets: dict[
        Literal["squat", "hinge", "lunge", "push", "pull", "trunk", "travel", "jump"], WeekTarget
    ] = {}

    @model_validator(mode="after")
    def _rising(self) -> Methods:
        scale = self.effort_scale
        if any(b[0] <= a[0] or b[1] < a[1] for a, b in itertools.pairwise(scale)):
            raise ValueError("effort_scale: shares must rise and efforts must not fall")
        return self

    def of_figures(self) -> JsonObject:
        """The settings that figures of a session are made with, as JSON: all but those of the week's rules."""
        return self.model_dump(mode="json", by_alias=True, exclude=set(OF_THE_WEEK))


OF_THE_WEEK = frozenset(
    {
        "muted_checks", "landings_limit", "hard_day_effort", "hard_day_load", "clash_hours", "week_targets",
        "learn_prior", "learn_half_life_d",
    }
)  # fmt: skip
"""Settings that change no figure of a session: rules of the week, what is told, how estimates learn."""

DEFAULT_METHODS = Methods()
