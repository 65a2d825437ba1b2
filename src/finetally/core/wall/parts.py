"""What is put together while a wall is read: amounts as they are said, and parts of a document out of them.

They become JSON at the end of reading (`as_json`), and only the document's own models say whether they hold.
"""

from __future__ import annotations

from typing import Any, Literal

from typing_extensions import TypedDict

from finetally.core.session.json_value import JsonObject, JsonValue


class Between(TypedDict):
    """From one number to another."""

    low: float
    high: float


Amount = float | Between
"""So many, or so long in seconds: a number, or from one to another."""
Dose = Amount | list[int] | list[float]
"""An amount, or one for each round."""


class FailurePart(TypedDict):
    """As many as can be done."""

    to_failure: Literal[True]


class LoadPart(TypedDict, total=False):
    """What is lifted: kilograms, how many of it, or percent of the most that one can lift."""

    kg: float
    count: int
    unit: Literal["lb"]
    pct_1rm: float


LoadsPart = LoadPart | list[LoadPart]
"""A load, or one for each round."""


class OptionPart(TypedDict, total=False):
    """Another version of a step."""

    label: str
    level: Literal["easier"]
    load: LoadsPart
    reps: float


class StepPart(TypedDict, total=False):
    """A movement with its dose, as a document writes it."""

    movement: str
    reps: Dose | FailurePart
    seconds: Dose
    metres: Dose
    grow: int
    fill: bool
    chain: bool
    sides: str
    load: LoadsPart
    reserve: int
    tempo: list[float]
    rest_s: Dose
    options: list[OptionPart]
    note: str


class ClockPart(TypedDict, total=False):
    """How time passes in a block: the keys of all clocks."""

    kind: Literal["intervals", "every", "amrap", "task"]
    work_s: Dose
    rest_s: Dose
    round_rest_s: Dose
    group_rest_s: Dose
    closing_rest: bool
    period_s: Amount
    work_until_s: Amount
    periods: Amount
    free: int
    window_s: Amount
    cap_s: Amount


class BlockPart(TypedDict, total=False):
    """Steps under a clock, as a document writes them."""

    clock: ClockPart
    steps: list[StepPart]
    part: str
    title: str
    notes: str
    rest_as: str
    rounds: Amount
    repeat: Amount
    rest_between_repeats_s: Dose
    rest_after_s: Dose
    announced_s: Amount
    visit: Literal["build-strip"]
    group: int
    effort: Literal["easy"]


DoseKey = Literal["reps", "seconds", "metres"]
DOSES: tuple[DoseKey, ...] = ("reps", "seconds", "metres")


def between(low: float, high: float) -> Amount:
    """From the lower to the higher of two numbers; the number itself where they are the same."""
    return {"low": min(low, high), "high": max(low, high)} if low != high else low


def amount_of(value: JsonValue) -> Amount | None:
    """The amount that JSON holds: a number or a range; None for anything else."""
    if isinstance(value, dict):
        low, high = value.get("low"), value.get("high")
        if isinstance(low, int | float) and isinstance(high, int | float):
            return between(low, high)
        return None
    return value if isinstance(value, int | float) else None


def single(value: Dose | None) -> Amount | None:
    """An amount that holds for all rounds: of a list the first."""
    return value[0] if isinstance(value, list) else value


def whole(value: Dose | None) -> int | None:
    """A whole count; None for a range, a list, or nothing."""
    return int(value) if isinstance(value, int | float) else None


def times(value: Amount, by: float) -> Amount:
    """An amount so many times."""
    return between(value["low"] * by, value["high"] * by) if isinstance(value, dict) else value * by


def dose_json(value: Dose | None) -> JsonValue:
    """A dose as JSON has it."""
    if isinstance(value, list):
        return [*value]
    return {"low": value["low"], "high": value["high"]} if isinstance(value, dict) else value


def is_dosed(step: StepPart) -> bool:
    """Whether a step says how much of it."""
    return any(dose in step for dose in DOSES)


def only_timed(step: StepPart) -> bool:
    """Whether a step has seconds and no other dose."""
    return "seconds" in step and "reps" not in step and "metres" not in step


def as_json(part: Any) -> JsonObject:
    """A block or a step as JSON has it."""
    return dict(part)
