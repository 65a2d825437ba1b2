"""Regrouped circuit: as a circuit, then in pairs, then in threes."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field

from finetally.core.formats.axes import Axis, PlanHints, axes
from finetally.core.formats.bounds import LEFT, length, rounds, window
from finetally.core.formats.format import Format, MovementCount
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Intervals
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, Seconds, SecondsValue

STAGES: tuple[int | Literal["all"], ...] = ("all", 2, 3)


class RegroupedParams(FormatParams):
    """A window for each of the three stages, the rest after it, rounds of each stage, and the rest between stages."""

    windows_s: Annotated[
        list[Seconds], Field(min_length=len(STAGES), max_length=len(STAGES)), ParamSpec("windows", "seconds-list")
    ] = [40, 30, 20]
    rest_s: Annotated[SecondsValue | None, ParamSpec("rest", "seconds")] = 10
    rounds: Annotated[CountValue, ParamSpec("rounds", "count", 1, 100)] = 2
    stage_rest_s: Annotated[SecondsValue | None, ParamSpec("between stages", "seconds")] = 60


class Regrouped(Format[RegroupedParams]):
    """The same movements three times over, in other company each time."""

    key = "regrouped-circuit"
    name = "Regrouped circuit"
    precedence = 60
    holds = MovementCount(6, None, 6)
    dose = "window"
    usual = (
        window(15, 60, "under 15 s the change-over eats the window, over a minute it is no circuit"),
        rounds(3, 12, "each movement comes up in three stages, one to four rounds each"),
        length(0, 2700, "three stages of a quarter of an hour are what fits into a session"),
        LEFT,
    )
    params = RegroupedParams

    def make(self, steps: Sequence[Step], p: RegroupedParams) -> list[BlockOrSection]:
        """See Format."""
        return [
            Block(
                clock=Intervals(kind="intervals", work_s=window_s, rest_s=p.rest_s or 0),
                group=group,
                rounds=p.rounds,
                rest_after_s=p.stage_rest_s or 0,
                steps=list(steps),
            )
            for window_s, group in zip(p.windows_s, STAGES, strict=True)
        ]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], RegroupedParams] | None:
        """See Format."""
        blocks = [one for one in entries if isinstance(one, Block)]
        clocks = [one.clock for one in blocks if isinstance(one.clock, Intervals)]
        if len(entries) != len(STAGES) or len(clocks) != len(STAGES):
            return None
        values = {
            "windows_s": [one.work_s for one in clocks],
            "rest_s": clocks[0].rest_s or 0,
            "rounds": blocks[0].rounds or 1,
            "stage_rest_s": blocks[0].rest_after_s or 0,
        }
        return blocks[0].steps or (), RegroupedParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Rounds, with windows that shrink or stay."""
        most = self.span("rounds").stop // len(STAGES) + 1
        return axes("rounds", range(1, most), windows_s=([40, 30, 20], [30, 30, 30], [30, 20, 20], [45, 40, 30]))
