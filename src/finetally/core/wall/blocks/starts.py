"""Starts every so long: whose turn it is, and how many starts there are."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.blocks.steps import StepMaker, span
from finetally.core.wall.items.item import Item
from finetally.core.wall.parts import DOSES, Amount, BlockPart, ClockPart, StepPart, is_dosed, whole
from finetally.core.wall.tokens.rules import FactValue

TURNS, ALL = 0, 1
STARTS_SAID = ("ten starts", "fifteen starts", "twenty starts")


def slots_of(items: list[Item], *, apart: bool = False) -> list[list[Item]]:
    """Movements that share a start: those joined by a plus on one line. `apart`: they alternate, so none do."""
    if apart and len({item.row for item in items}) == 1:
        return [[item] for item in items]
    slots: list[list[Item]] = []
    for item in items:
        if (slots and item.joined and slots[-1][-1].row == item.row and not item.rest_turn) or (
            slots and item.turn is not None and slots[-1][-1].turn == item.turn and slots[-1][-1].row == item.row
        ):
            slots[-1].append(item)
        else:
            slots.append([item])
    return slots


def every_clock(draft: Draft, maker: StepMaker, assumed: Assumptions) -> BlockPart:
    """The block of a head of starts and its lines."""
    every: FactValue = draft.every or {}
    period = every.get("period", 60)
    total = every.get("total", draft.total)
    slots = slots_of(draft.items, apart=draft.alternate or "altern" in draft.said.lower())
    free = sum(1 for slot in slots if slot[0].rest_turn)
    slots = [slot for slot in slots if not slot[0].rest_turn]
    rounds = every.get("n") or draft.rounds
    sets = slots[0][0].sets if len(slots) == 1 and rounds is None else None
    if sets is not None and (total is None or sets * span(period) <= span(total)):
        # `5 x 2 every 2 min`: as many starts as sets, also where the part is told to take longer.
        rounds, total = sets, None
    lines = len(slots) + free
    marked = _is_marked(draft, slots, lines)
    if any(item.fill for slot in slots for item in slot[-1:]) and len(slots) > 1 and not marked:
        # `5 burpees, remaining time plank`: the one behind the other, in every start.
        slots, lines = [[item for slot in slots for item in slot]], 1
    order = TURNS if marked else _order(draft, slots, period, total, rounds, assumed)
    clock: ClockPart = {"kind": "every", "period_s": period}
    block: BlockPart = {"clock": clock}
    if order == ALL:
        slots = [[item for slot in slots for item in slot]]
        lines = 1
    starts = _starts(draft, period, total, rounds, lines, order, marked=marked)
    if free:
        clock["free"] = free
        if isinstance(starts, int) and starts >= lines:
            starts = max(1, starts // lines) * (lines - free)
    if starts is None and not draft.growing and lines == 1:
        starts = (10, 15, 20)[assumed.pick("starts-number", draft.line, draft.said, STARTS_SAID)]
    if starts is not None and starts != len(slots):
        clock["periods"] = starts
    if draft.growing and draft.ladder is None:
        _growing_starts(draft, clock, period, starts, assumed)
    block["steps"] = _steps(draft, slots, maker, assumed)
    _lists(block, len(slots))
    _again(block, every, draft)
    return block


def _is_marked(draft: Draft, slots: Sequence[Sequence[Item]], lines: int) -> bool:
    """Whether the writing itself says that lines take turns: by marks, letters, or a word for it."""
    if any(slot[0].turn is not None for slot in slots) or draft.turns or draft.alternate:
        return True
    return "altern" in draft.said.lower() or (all(slot[0].letter for slot in slots) and lines > 1)


def _growing_starts(
    draft: Draft, clock: ClockPart, period: Amount, starts: Amount | None, assumed: Assumptions
) -> None:
    """Starts whose reps grow: from one rep, for as long as is said or assumed."""
    for item in draft.items:
        item.reps = item.reps or draft.first or 1
        if starts is None and item.seconds is not None:
            # `Death by burpees, 10 min`
            clock["periods"] = starts = max(1, round(span(item.seconds) / span(period)))
            item.seconds = None
    if starts is None:
        minutes = assumed.pick(
            "death-by", draft.line, draft.said, ["ten minutes", "fifteen minutes", "twenty minutes"]
        )
        clock["periods"] = (10, 15, 20)[minutes]


def _again(block: BlockPart, every: FactValue, draft: Draft) -> None:
    """The whole block again, as often as is said, with the rest between."""
    repeat = every.get("repeat")
    if not repeat or repeat == 1:
        return
    block["repeat"] = repeat
    between = draft.rest_between if draft.rest_between is not None else draft.rest
    if between:
        block["rest_between_repeats_s"] = between


def _order(
    draft: Draft,
    slots: list[list[Item]],
    period: Amount,
    total: Amount | None,
    rounds: Amount | None,
    assumed: Assumptions,
) -> int:
    lines = len(slots)
    if lines < 2:
        return TURNS
    first = ALL
    if total is not None and isinstance(rounds, int):
        starts = round(span(total) / span(period))
        first = TURNS if rounds * lines == starts else ALL
    elif total is not None and span(period) <= 60 and rounds is None:
        first = TURNS
    readings = ["the lines take turns, one a start", "every start does all the lines"]
    return assumed.pick("starts-order", draft.line, draft.said, readings, first=first)


def _starts(
    draft: Draft,
    period: Amount,
    total: Amount | None,
    rounds: Amount | None,
    lines: int,
    order: int,
    *,
    marked: bool,
) -> Amount | None:
    if total is not None:
        return max(1, round(span(total) / span(period)))
    if rounds is None:
        return None
    if not isinstance(rounds, int):
        return rounds if lines == 1 else None
    if order == ALL or lines == 1:
        return rounds
    # `x 16` with four lines that take turns is sixteen starts; `4 rounds` of them is all four lines, four times.
    said_rounds = draft.rounds is not None or rounds < lines or rounds % lines != 0
    return rounds * lines if said_rounds else rounds


def _lists(block: BlockPart, slots: int) -> None:
    """A list of reps on starts: one number a start; `2-2-2` of many starts is a cluster in each of them."""
    listed = [(step, reps) for step in block["steps"] if isinstance(reps := step.get("reps"), list)]
    if not listed:
        return
    periods = whole(block["clock"].get("periods"))
    visits = max(1, (periods or 1) // max(1, slots))
    if periods is None:
        visits = block["rounds"] = max(len(reps) for _, reps in listed)
    for step, reps in listed:
        if len(set(reps)) == 1 and len(reps) != visits:
            step["reps"] = sum(reps)
            step["note"] = "; ".join([*([step["note"]] if "note" in step else []), "-".join(map(str, reps))])
        else:
            step["reps"] = [reps[i % len(reps)] for i in range(visits)]


WHOLE_START = ("the whole start", "40 s of it")


def _undosed(step: StepPart, item: Item, draft: Draft, assumed: Assumptions, *, last: bool) -> None:
    """A name alone on a start: the work told for all, else the whole start."""
    if draft.start_work is not None:
        step["seconds"] = draft.start_work
    elif last and assumed.pick("start-length", item.row, " ".join(t.text for t in item.words), WHOLE_START) == 0:
        step["fill"] = True
    else:
        step["seconds"] = 40


def _steps(draft: Draft, slots: list[list[Item]], maker: StepMaker, assumed: Assumptions) -> list[StepPart]:
    made = []
    for slot in slots:
        for index, item in enumerate(slot):
            step = maker.dosed(item, draft, rounds=1)
            if draft.grow and isinstance(step.get("reps"), int):
                step["grow"] = draft.grow
            if draft.ladder and not is_dosed(step):
                step["reps"] = draft.ladder[0]
            if item.fill and index == len(slot) - 1:
                # What is done in the time that is left.
                for dose in DOSES:
                    step.pop(dose, None)
                step["fill"] = True
            elif not is_dosed(step):
                _undosed(step, item, draft, assumed, last=index == len(slot) - 1)
            if index < len(slot) - 1:
                step["chain"] = True
            made.append(step)
    return made
