"""Straight sets, alone and in groups."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.blocks.steps import StepMaker
from finetally.core.wall.items.item import Item
from finetally.core.wall.parts import DOSES, Amount, BlockPart, ClockPart, StepPart, only_timed


def set_blocks(draft: Draft, maker: StepMaker, assumed: Assumptions) -> list[BlockPart]:
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


def _uneven(draft: Draft, maker: StepMaker, assumed: Assumptions, items: list[Item]) -> list[BlockPart]:
    """A group whose sets differ: together as long as all have some, then what is left."""
    made: list[BlockPart] = []
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


def set_block(draft: Draft, maker: StepMaker, assumed: Assumptions, items: list[Item], rounds: Amount) -> BlockPart:
    """Sets of one movement, or of several that take turns."""
    steps = [maker.dosed(item, draft, rounds=rounds if isinstance(rounds, int) else None) for item in items]
    rest_by_ratio(draft, maker, assumed, steps)
    if isinstance(rounds, int) and rounds > 1:
        whole_lengths(steps)
    listed = longest_list(steps)
    timed = all(only_timed(step) for step in steps)
    clock: ClockPart = {"kind": "intervals" if timed else "task"}
    if draft.rest_between:
        clock["round_rest_s"] = draft.rest_between
    block: BlockPart = {"clock": clock, "steps": steps}
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


def rest_by_ratio(draft: Draft, maker: StepMaker, assumed: Assumptions, steps: list[StepPart]) -> None:
    """`work:rest 1:2`: rest by the work of a round; of a list of reps, by its middle."""
    if draft.ratio is None or draft.rest_between:
        return
    seconds = round(sum(maker.bare_seconds(_in_the_middle(one)) for one in steps) * draft.ratio)
    assumed.pick("ratio-rest", draft.line, draft.said, [f"{seconds} s of rest"])
    draft.rest_between = seconds


def _in_the_middle(step: StepPart) -> StepPart:
    """A step with the mean of every list in place of it."""
    made = step.copy()
    for dose in DOSES:
        value = step.get(dose)
        if isinstance(value, list):
            made[dose] = sum(value) / len(value)
    return made


def longest_list(steps: Sequence[StepPart]) -> int:
    """How many numbers the longest list of doses has; 0 without one."""
    doses = (step.get(dose) for step in steps for dose in DOSES)
    return max((len(dose) for dose in doses if isinstance(dose, list)), default=0)


def whole_lengths(steps: list[StepPart]) -> None:
    """`10-20-30-20-10 m x 4`: the lengths of one set come one behind the other."""
    for step in steps:
        lengths = step.get("metres")
        if isinstance(lengths, list):
            step["metres"] = sum(lengths)
            step["note"] = "; ".join(
                [*([step["note"]] if "note" in step else []), "-".join(f"{m:g}" for m in lengths)]
            )
