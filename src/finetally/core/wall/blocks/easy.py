"""What is done easily in between: it is the rest of the harder part."""

from __future__ import annotations

import re

from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.blocks.steps import StepMaker, span
from finetally.core.wall.items.item import Item

EASY_SPEED_MPS = 1.4
"""The speed of a walk back."""


def easy_rest(draft: Draft, maker: StepMaker, assumed: Assumptions) -> None:
    """`20 s sprint / 40 s easy` on one line: the easy part is the rest of the harder one."""
    kept: list[Item] = []
    for item in draft.items:
        soft = (
            bool(item.words)
            and maker.easy_words(item)
            and (
                item.seconds is not None
                or (item.metres is not None and item.joined is False and bool(kept) and kept[-1].sets is not None)
            )
        )
        if (
            soft
            and kept
            and kept[-1].row == item.row
            and (kept[-1].seconds is not None or kept[-1].sets is not None or kept[-1].metres is not None)
            and item.sets is None
        ):
            hard = kept[-1]
            if item.seconds is None:
                item.seconds = round(span(item.metres) / EASY_SPEED_MPS)
            picked = assumed.pick(
                "easy-rest", item.row, draft.said, ["the easy part is the rest", "a movement of its own"]
            )
            if picked == 0:
                if draft.rest_between is None and (hard.sets or draft.rounds):
                    draft.rest_between = item.seconds
                else:
                    hard.rest_after = item.seconds
                easy = maker.easy_movement(item)
                draft.rest_as = easy or draft.rest_as
                continue
        kept.append(item)
    draft.items = kept
    way_back(draft, assumed)


WAY_BACK = re.compile(
    r"(?:with )?(?:easy |slow )?(?P<how>walk|jog)(?:ing)?(?: (?:back|down|home|to|the|start|recovery|rest))+"
)
GOING_MPS = {"walk": EASY_SPEED_MPS, "jog": 2.4}


def way_back(draft: Draft, assumed: Assumptions) -> None:
    """`6 x 20 m, walk back`: the way back is the rest, as long as it takes."""
    for item in draft.items:
        again = (item.sets or 1) > 1 or (isinstance(draft.rounds, int) and len(draft.items) == 1)
        rested = draft.rest_between is not None or draft.rest is not None or item.rest_after is not None
        m = next((m for note in item.notes if (m := WAY_BACK.fullmatch(note))), None)
        if m is None or not again or rested or not isinstance(item.metres, int | float):
            continue
        seconds = round(item.metres / GOING_MPS[m["how"]])
        said = [f"the way back is the rest: {seconds} s", "no rest"]
        if assumed.pick("way-back", item.row, m[0], said) == 0:
            draft.rest_between, draft.rest_as = seconds, m["how"]
