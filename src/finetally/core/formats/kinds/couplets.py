"""Low-rep couplets: two movements against a short clock, then two others."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, axes
from finetally.core.formats.bounds import LEFT, REPS, Bound, length, window
from finetally.core.formats.format import Format, MovementCount, RepOrigin
from finetally.core.formats.kinds.rounds import against
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Amrap
from finetally.core.session.document import BlockOrSection, Section
from finetally.core.session.parts import changed
from finetally.core.session.step import Step
from finetally.core.session.values import CountValue, SecondsValue


class CoupletsParams(FormatParams):
    """The window of a couplet, how often both come up, and the rest after each."""

    window_s: Annotated[SecondsValue, ParamSpec("window", "seconds", 1)] = 120
    times: Annotated[CountValue, ParamSpec("times", "count", 1, 100)] = 2
    pod_rest_s: Annotated[SecondsValue | None, ParamSpec("between pods", "seconds")] = 60


class Couplets(Format[CoupletsParams]):
    """Few reps of two movements by turns, as often as a short window holds."""

    key = "low-rep-couplets"
    name = "Low-rep couplets"
    precedence = 130
    holds = MovementCount(4, 4, 1)
    dose = "reps"
    raced = True
    usual = (
        window(0, 240, "a couplet is short: over four minutes it is rounds against the clock"),
        length(
            300,
            1800,
            "two couplets of half a minute are over before they begin; over half an hour is another session",
        ),
        Bound("dose", None, 8, "over eight of a movement they are no couplets of few reps"),
        *REPS,
        LEFT,
    )
    params = CoupletsParams

    def rep_origin(self, p: FormatParams) -> RepOrigin:
        """See Format."""
        return "paced"

    def make(self, steps: Sequence[Step], p: CoupletsParams) -> list[BlockOrSection]:
        """See Format."""
        rest = p.pod_rest_s or 0
        first = changed(against(p.window_s, steps[:2]), rest_after_s=rest)
        blocks = [first, against(p.window_s, steps[2:])]
        return [Section(section="Couplets", times=p.times, rest_between_s=rest, blocks=blocks)]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], CoupletsParams] | None:
        """See Format."""
        section = entries[0] if len(entries) == 1 else None
        if not isinstance(section, Section) or len(section.blocks) != 2:
            return None
        clocks = [block.clock for block in section.blocks if isinstance(block.clock, Amrap)]
        if len(clocks) != 2:
            return None
        values = {
            "window_s": clocks[0].window_s,
            "times": section.times or 1,
            "pod_rest_s": section.rest_between_s or 0,
        }
        steps = [step for block in section.blocks for step in block.steps or ()]
        return steps, CoupletsParams.model_validate(values)

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Windows from one to four minutes by a quarter of one; twice, or three times."""
        return axes("window_s", range(60, 241, 15), times=(2, 3))
