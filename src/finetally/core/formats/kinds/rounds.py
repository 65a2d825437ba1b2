"""Rounds against the clock, and the challenge of one minute."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from finetally.core.formats.axes import Axis, PlanHints, along
from finetally.core.formats.bounds import LEFT, LOADED_IN_A_ROW, REPS, Bound, length, rounds
from finetally.core.formats.format import Format, MovementCount, RepOrigin, only_block
from finetally.core.formats.params import FormatParams, ParamSpec
from finetally.core.session.clocks import Amrap
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.step import Step
from finetally.core.session.values import SecondsValue

HALF_MINUTE = 30
"""Windows against the clock are told in minutes and halves of them."""


def against(window_s: SecondsValue, steps: Sequence[Step]) -> Block:
    """As many rounds as a window holds."""
    return Block(clock=Amrap(kind="amrap", window_s=window_s), steps=list(steps))


def window_of(entries: Sequence[BlockOrSection]) -> tuple[Block, SecondsValue] | None:
    """The block and its window, if it is rounds against the clock and nothing else."""
    block = only_block(entries, Amrap)
    return None if block is None or not isinstance(block.clock, Amrap) else (block, block.clock.window_s)


class ChallengeParams(FormatParams):
    """Nothing to set."""


class Challenge(Format[ChallengeParams]):
    """One movement for one minute, as many as there are."""

    key = "one-minute-challenge"
    name = "One-minute challenge"
    precedence = 90
    claims = ("one-minute challenge",)
    holds = MovementCount(1, 1, 1)
    dose = "reps"
    raced = True
    usual = (
        Bound("in-a-row", None, 60, "one a second is as quick as anything is counted"),
        LOADED_IN_A_ROW,
        LEFT,
    )
    params = ChallengeParams

    def rep_origin(self, p: FormatParams) -> RepOrigin:
        """See Format."""
        return "paced"

    def make(self, steps: Sequence[Step], p: ChallengeParams) -> list[BlockOrSection]:
        """See Format."""
        return [against(60, steps)]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], ChallengeParams] | None:
        """See Format."""
        found = window_of(entries)
        return None if found is None or found[1] != 60 else (found[0].steps or (), ChallengeParams())

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Nothing is free."""
        return [[{}]]


class RoundsParams(FormatParams):
    """The window."""

    window_s: Annotated[SecondsValue, ParamSpec("window", "seconds", 1)] = 600


class Rounds(Format[RoundsParams]):
    """As many rounds as fit."""

    key = "rounds-against-the-clock"
    name = "Rounds against the clock"
    precedence = 120
    trade = ("AMRAP", "as many rounds as possible")
    claims = ("amrap", "rounds against the clock")
    dose = "reps"
    raced = True
    usual = (
        length(180, 1800, "under three minutes there is no pace to find, over half an hour nobody holds one"),
        rounds(2, 25, "a window holds a few rounds at least; over 25 nobody has counted right"),
        *REPS,
        LEFT,
    )
    params = RoundsParams

    def rep_origin(self, p: FormatParams) -> RepOrigin:
        """See Format."""
        return "paced"

    def make(self, steps: Sequence[Step], p: RoundsParams) -> list[BlockOrSection]:
        """See Format."""
        return [against(p.window_s, steps)]

    def recognise(self, entries: Sequence[BlockOrSection]) -> tuple[Sequence[Step], RoundsParams] | None:
        """See Format."""
        found = window_of(entries)
        return None if found is None else (found[0].steps or (), RoundsParams(window_s=found[1]))

    def search(self, count: int, hints: PlanHints) -> list[Axis]:
        """Windows by half minutes."""
        return [along("window_s", self.span("length", HALF_MINUTE))]
