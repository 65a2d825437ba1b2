"""Windows of rounds: how long, how often, what is bought in, what goes on growing."""

from __future__ import annotations

from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.blocks.steps import StepMaker, span
from finetally.core.wall.items.item import Item
from finetally.core.wall.parts import Amount, BlockPart, ClockPart, StepPart


def amrap_blocks(draft: Draft, maker: StepMaker, assumed: Assumptions) -> list[BlockPart]:
    """The windows of a head, each with its rounds."""
    numbered = _numbered(draft)
    if numbered:
        return _one_each(draft, maker, numbered)
    made: list[BlockPart] = []
    windows = _lengths(draft, assumed)
    inline_list(draft)
    bought = _bought(draft, maker, assumed)
    if bought is not None:
        made.append(bought[0])
        windows = [max(1, round(span(windows[0]) - bought[1], 1)) if bought[2] else windows[0]]
    single = len(draft.items) == 1 and not draft.items[0].dosed
    for index, window in enumerate(windows):
        block = _window(draft, maker, index, window, single=single)
        made.append(block)
    if len(windows) > 1:
        for block in made[:-1]:
            block["rest_after_s"] = draft.rest if draft.rest is not None else draft.rest_between or 0
            block["clock"].pop("rest_s", None)
    if draft.cash_out:
        steps = [maker.dosed(item, draft, rounds=1) for item in draft.cash_out]
        made.append({"clock": {"kind": "task"}, "steps": steps, "title": "cash-out"})
    if "partner" in draft.said.lower() or "i go" in draft.said.lower() or "two people" in draft.said.lower():
        assumed.pick(
            "partners",
            draft.line,
            draft.said,
            ["for one who works all the time", "one person works half the time"],
        )
    return made


def _numbered(draft: Draft) -> list[list[Item]]:
    """`3 x 5 min AMRAP`, below it lines 1, 2 and 3: the movements of each window; empty where lines are of all."""
    repeat = draft.amraps[0].get("repeat") if len(draft.amraps) == 1 else None
    if not isinstance(repeat, int) or repeat < 2 or any(not i.letter or not i.dosed for i in draft.items):
        return []
    rows: dict[int, list[Item]] = {}
    for item in draft.items:
        rows.setdefault(item.row, []).append(item)
    several = len(rows) == repeat and all(len(items) > 1 for items in rows.values())
    return list(rows.values()) if several else []


def _one_each(draft: Draft, maker: StepMaker, numbered: list[list[Item]]) -> list[BlockPart]:
    """A window for each of the numbered lines."""
    between = draft.rest if draft.rest is not None else draft.rest_between
    made: list[BlockPart] = []
    for items in numbered:
        clock: ClockPart = {"kind": "amrap", "window_s": draft.amraps[0]["window"] or 0}
        made.append({"clock": clock, "steps": [maker.dosed(i, draft, rounds=1) for i in items]})
    if between is not None:
        for block in made[:-1]:
            block["rest_after_s"] = between
    return made


def _grow_ladder(draft: Draft, steps: list[StepPart]) -> None:
    ladder = draft.ladder or []
    step = ladder[1] - ladder[0] if len(ladder) > 1 else 0
    for one in steps:
        if "reps" not in one and "seconds" not in one and "metres" not in one:
            one["reps"] = ladder[0]
            if step > 0:
                one["grow"] = step


def _bought(draft: Draft, maker: StepMaker, assumed: Assumptions) -> tuple[BlockPart, float, bool] | None:
    if not draft.buy_in:
        return None
    steps = [maker.dosed(item, draft, rounds=1) for item in draft.buy_in]
    seconds = sum(maker.bare_seconds(one) for one in steps)
    readings = ["the minutes begin with the buy-in", "the minutes begin after the buy-in"]
    inside = assumed.pick("buy-in", draft.line, draft.said, readings) == 0
    return {"clock": {"kind": "task"}, "steps": steps, "title": "buy-in"}, seconds, inside


def _lengths(draft: Draft, assumed: Assumptions) -> list[Amount]:
    """The windows in seconds; one that nobody told is assumed."""
    told = [one["window"] for one in draft.amraps]
    windows = [draft.total] if told == [None] else told
    if windows == [None]:
        lengths = ["ten minutes", "five minutes", "twenty minutes"]
        return [(600, 300, 1200)[assumed.pick("amrap-length", draft.line, draft.said, lengths)]]
    return [window for window in windows if window is not None]


def _window(draft: Draft, maker: StepMaker, index: int, window: Amount, *, single: bool) -> BlockPart:
    """One of the windows, again and again where the head says so."""
    items = draft.again if index == 1 and draft.again else draft.items
    if items is draft.again:
        for new, old in zip(draft.again, draft.items, strict=False):
            new.words = new.words or old.words
            new.load = new.load or old.load
        items = [i for i in draft.again if i.words]
    steps = [maker.dosed(item, draft, rounds=1) for item in items]
    if single:
        steps = [{**steps[0], "reps": 1}]
    clock: ClockPart = {"kind": "amrap", "window_s": window}
    if draft.rest is not None and len(draft.amraps) == 1 and "repeat" not in draft.amraps[0]:
        clock["rest_s"] = draft.rest
    block: BlockPart = {"clock": clock, "steps": steps}
    repeat = draft.amraps[index].get("repeat") if index < len(draft.amraps) else None
    if repeat is None and draft.rounds is not None and isinstance(draft.rounds, int):
        repeat = draft.rounds
    if repeat is not None and repeat != 1:
        block["repeat"] = repeat
        between = draft.rest_between if draft.rest_between is not None else draft.rest
        if between:
            block["rest_between_repeats_s"] = between
        clock.pop("rest_s", None)
    if draft.grow:
        steps[0]["grow"] = draft.grow
    if draft.ladder:
        _grow_ladder(draft, steps)
    return block


def inline_list(draft: Draft) -> None:
    """`AMRAP 9: 3-6-9… thrusters, burpees`: the list in front is that of all the lines."""
    first = next(((i, i.reps) for i in draft.items if isinstance(i.reps, list)), None)
    if first is None:
        return
    item, reps = first
    if item.ladder and draft.ladder is None:
        draft.ladder, draft.growing = [int(one) for one in reps], True
        item.reps = None
        return
    for item in draft.items:
        if not item.dosed:
            item.reps = reps.copy()
