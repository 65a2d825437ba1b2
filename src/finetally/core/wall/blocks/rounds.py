"""Rounds of doses: against the clock, by a list, as often as a time holds."""

from __future__ import annotations

from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.amraps import amrap_blocks
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.blocks.steps import StepMaker, span
from finetally.core.wall.blocks.straight import longest_list, rest_by_ratio
from finetally.core.wall.items.item import Item
from finetally.core.wall.parts import DOSES, BlockPart, ClockPart, StepPart, only_timed, single
from finetally.core.wall.unread import Unread

EVEN = 0.02
"""How much of a round may be missing for it to count as one that fits."""


def round_blocks(draft: Draft, maker: StepMaker, assumed: Assumptions, unread: list[Unread]) -> list[BlockPart]:
    """Rounds of doses, against the clock or not; names without a dose go to `unread`."""
    items = draft.items
    if draft.rest_each and len(items) > 1:
        for item in items[:-1]:
            item.rest_after = draft.rest if item.rest_after is None else item.rest_after
    if draft.rest is not None and draft.rest_between is None:
        draft.rest_between = draft.rest
    if len(items) == 1 and items[0].failure and items[0].seconds is not None and items[0].in_window:
        # As many of one movement as a time holds.
        step = maker.dosed(items[0], draft, rounds=1)
        window = single(step["seconds"]) or 0
        del step["seconds"]
        step["reps"] = 1
        return [{"clock": {"kind": "amrap", "window_s": window}, "steps": [step]}]
    _shared_total(draft, assumed, items)
    _rounds_in_total(draft, assumed, items)
    if _fills_the_time(draft, maker, assumed, items):
        return amrap_blocks(draft, maker, assumed)
    _listed(draft, items)
    steps = []
    for item in items:
        if not item.dosed:
            _undosed(item, draft, maker, unread)
            continue
        steps.append(maker.dosed(item, draft, rounds=draft.rounds if isinstance(draft.rounds, int) else 1))
    if not steps:
        return []
    return [_round_block(draft, maker, assumed, steps)]


def _rounds_in_total(draft: Draft, assumed: Assumptions, items: list[Item]) -> None:
    """`8 min of: 30 s plank, 30 s side plank, …`: as often as the seconds fit, where that is a whole number."""
    resting = draft.rest_between is not None or any(i.rest_after is not None for i in items)
    if draft.total is None or draft.rounds is not None or draft.told_total or (len(items) < 2 and not resting):
        return
    if any(item.seconds is None or isinstance(item.seconds, list) for item in items):
        return
    rests = span(draft.rest_between or 0) + sum(span(i.rest_after or 0) for i in items)
    once = rests + sum(span(i.seconds) * (2 if i.sides == "each" else 1) for i in items)
    times = int(span(draft.total) / once + EVEN) if once else 0
    if times < 2:
        return
    said = [f"{times} rounds fill it", "once through"]
    if assumed.pick("told-window", draft.line, draft.said, said) == 0:
        draft.rounds, draft.total = times, None
        if items[-1].rest_after is not None and draft.rest_between is None:
            draft.rest_between, items[-1].rest_after = items[-1].rest_after, None


def _fills_the_time(draft: Draft, maker: StepMaker, assumed: Assumptions, items: list[Item]) -> bool:
    """`20 min: 10 burpees, 10 swings`: what is far shorter than its time is done again and again."""
    if draft.growing and draft.ladder and draft.total is not None and not draft.amraps:
        draft.amraps, draft.total = [{"window": draft.total}], None
        return True
    once = draft.rounds is not None or draft.ladder or draft.fortime or draft.told_total or draft.cap
    if once or draft.total is None or draft.part not in (None, "main", "finisher") or len(items) < 2:
        return False
    if any(not isinstance(i.reps, int) and i.metres is None for i in items):
        return False
    steps = [maker.dosed(item, draft, rounds=1) for item in items]
    if sum(maker.bare_seconds(one) for one in steps) * 2 > span(draft.total):
        return False
    length = f"{span(draft.total) / 60:g} min"
    said = [f"as many rounds as {length} hold", f"once; {length} are the told length"]
    if assumed.pick("told-window", draft.line, draft.said, said) == 1:
        return False
    draft.amraps, draft.total = [{"window": draft.total}], None
    return True


def _round_block(draft: Draft, maker: StepMaker, assumed: Assumptions, steps: list[StepPart]) -> BlockPart:
    rest_by_ratio(draft, maker, assumed, steps)
    timed = all(only_timed(step) for step in steps) and not draft.cap and not draft.fortime
    clock: ClockPart = {"kind": "intervals" if timed else "task"}
    if draft.rest_between:
        clock["round_rest_s"] = draft.rest_between
    if draft.cap:
        clock["cap_s"] = draft.cap
    block: BlockPart = {"clock": clock, "steps": steps}
    if draft.pyramid:
        block["visit"] = "build-strip"
    _count_rounds(block, draft, steps)
    if draft.total is not None:
        block["announced_s"] = draft.total
    return block


def _count_rounds(block: BlockPart, draft: Draft, steps: list[StepPart]) -> None:
    """As many rounds as the longest list has numbers (shorter ones go on with their last), else as are said."""
    longest = longest_list(steps)
    if longest:
        for step in steps:
            for dose in DOSES:
                listed = step.get(dose)
                if isinstance(listed, list):
                    step[dose] = [*listed, *[listed[-1]] * longest][:longest]
        block["rounds"] = longest
        return
    if draft.rounds is not None and draft.rounds != 1:
        block["rounds"] = draft.rounds
    if draft.grow:
        for step in steps:
            if isinstance(step.get("reps"), int):
                step["grow"] = draft.grow


def _shared_total(draft: Draft, assumed: Assumptions, items: list[Item]) -> None:
    """A length told for lines that have no dose of their own: the one line takes it, several share it."""
    bare = [i for i in items if not i.dosed]
    if draft.total is None or not bare or len(bare) != len(items) or draft.ladder or draft.reps_each:
        return
    each = span(draft.total) / len(bare)
    if len(bare) > 1:
        assumed.pick("shared-total", draft.line, draft.said, ["the lines share the time"])
    for item in bare:
        item.seconds = draft.total if len(bare) == 1 else max(1, int(each))
        item.minutes = True
    draft.total = None


def _undosed(item: Item, draft: Draft, maker: StepMaker, unread: list[Unread]) -> None:
    """A name without a dose where the head gives none: kept as a note, and told if it is a movement."""
    words = " ".join(t.text for t in item.words)
    draft.notes.append(words)
    # `Carries, 3 rounds`, below it what is carried: what the block is called.
    title = item.row == draft.line and any(i.dosed and i.row != draft.line for i in draft.items)
    if maker.known(item) and not title:
        unread.append(Unread(item.row, words))


def _listed(draft: Draft, items: list[Item]) -> None:
    """Give every line without a dose the numbers of its head, or of the line that has a list."""
    ladder = draft.ladder
    if ladder and len(set(ladder)) == 1 and len(ladder) == len(items) > 1 and not any(i.dosed for i in items):
        # `20-20-20`, below it three names: one number for each.
        draft.ladder, draft.reps_each, ladder = None, ladder[0], None
    for item in items:
        if item.ladder and item.ranged is not None and item.words and item.ranged[0] > item.ranged[1]:
            item.reps = [*range(item.ranged[0], item.ranged[1] - 1, -1)]
    if ladder and draft.own_reps and len(ladder) == len(items) and not any(i.dosed for i in items):
        # `5-10-15 x 5`, below it three names: one number for each, five rounds.
        for item, reps in zip(items, ladder, strict=True):
            item.reps = reps
        draft.ladder = None
    listed = next((i.reps for i in items if isinstance(i.reps, list)), None)
    for item in items:
        _numbers_of_head(draft, item, listed)


def _numbers_of_head(draft: Draft, item: Item, listed: list[int] | list[float] | None) -> None:
    """A line's reps out of its head's ladder or number, or of another line's list."""
    ladder = draft.ladder
    if ladder is not None and not item.dosed:
        item.reps = [one * item.double for one in ladder]
    elif ladder is not None and item.label == "times" and isinstance(item.reps, int):
        item.reps = [one * item.reps for one in ladder]
    elif draft.reps_each is not None and not item.dosed:
        item.reps = draft.reps_each
    elif not item.dosed and listed is not None:
        item.reps = list(listed)
