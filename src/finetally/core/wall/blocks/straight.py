"""Straight sets, alone and in groups."""

from __future__ import annotations

from typing import Any

from finetally.core.session.rules import DOSE_KEYS
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.draft import BlockJson, Draft
from finetally.core.wall.blocks.steps import StepMaker
from finetally.core.wall.items.item import Item


def set_blocks(draft: Draft, maker: StepMaker, assumed: Assumptions) -> list[BlockJson]:
    """Straight sets line by line, or in groups that alternate."""
    if draft.rest is not None and draft.rest_between is None:
        draft.rest_between = draft.rest
    items = draft.items
    counts = {i.sets or (draft.rounds if isinstance(draft.rounds, int) else 1) for i in items}
    if len(items) > 1 and len(counts) == 1 and (draft.letter or draft.superset):
        return [set_block(draft, maker, assumed, items, next(iter(counts)))]
    if len(items) > 1 and draft.letter:
        return _uneven(draft, maker, assumed, items)
    made = []
    for item in items:
        made.append(set_block(draft, maker, assumed, [item], item.sets or draft.rounds or 1))
    return made


def _uneven(draft: Draft, maker: StepMaker, assumed: Assumptions, items: list[Item]) -> list[BlockJson]:
    """A group whose sets differ: together as long as all have some, then what is left."""
    made: list[BlockJson] = []
    done = 0
    between = draft.rest_between or 0
    for count in sorted({i.sets or 1 for i in items}):
        left = [i for i in items if (i.sets or 1) >= count]
        block = set_block(draft, maker, assumed, left, count - done)
        if made and between:
            made[-1]["rest_after_s"] = between
        made.append(block)
        done = count
    return made


def set_block(draft: Draft, maker: StepMaker, assumed: Assumptions, items: list[Item], rounds: Any) -> BlockJson:
    """Sets of one movement, or of several that take turns."""
    steps = [maker.dosed(item, draft, rounds=rounds if isinstance(rounds, int) else None) for item in items]
    rest_by_ratio(draft, maker, assumed, steps)
    if isinstance(rounds, int) and rounds > 1:
        whole_lengths(steps)
    listed = max((len(s[d]) for s in steps for d in DOSE_KEYS if isinstance(s.get(d), list)), default=0)
    timed = all("seconds" in s and "reps" not in s and "metres" not in s for s in steps)
    clock: dict[str, Any] = {"kind": "intervals" if timed else "task"}
    if draft.rest_between:
        clock["round_rest_s"] = draft.rest_between
    block: BlockJson = {"clock": clock, "steps": steps}
    if listed:
        block["rounds"] = listed
        if isinstance(rounds, int) and rounds > 1 and rounds != listed:
            # `1-2-3-4-5 x 3`: the whole list again.
            block["repeat"] = rounds
            if draft.rest_groups or draft.rest_between:
                block["rest_between_repeats_s"] = draft.rest_groups or draft.rest_between
    elif rounds != 1:
        block["rounds"] = rounds
    if draft.cap:
        clock["cap_s"] = draft.cap
    return block


def rest_by_ratio(draft: Draft, maker: StepMaker, assumed: Assumptions, steps: list[dict[str, Any]]) -> None:
    """`work:rest 1:2`: rest by the work of a round; of a list of reps, by its middle."""
    if draft.ratio is None or draft.rest_between:
        return
    middle = [
        {k: sum(v) / len(v) if isinstance(v, list) and k in DOSE_KEYS else v for k, v in one.items()}
        for one in steps
    ]
    seconds = round(sum(maker.bare_seconds(one) for one in middle) * draft.ratio)
    assumed.pick("ratio-rest", draft.line, draft.said, [f"{seconds} s of rest"])
    draft.rest_between = seconds


def whole_lengths(steps: list[dict[str, Any]]) -> None:
    """`10-20-30-20-10 m x 4`: the lengths of one set come one behind the other."""
    for step in steps:
        lengths = step.get("metres")
        if isinstance(lengths, list):
            step["metres"] = sum(lengths)
            step["note"] = "; ".join(
                [*([step["note"]] if "note" in step else []), "-".join(f"{m:g}" for m in lengths)]
            )
