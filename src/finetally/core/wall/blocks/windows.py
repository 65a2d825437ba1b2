"""Windows of work and rest: rounds of them, pairs, straight ones, a pyramid."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.blocks.steps import StepMaker, span
from finetally.core.wall.items.item import Item
from finetally.core.wall.parts import Amount, BlockPart, ClockPart, Dose, StepPart
from finetally.core.wall.tokens.rules import FactValue


def window_of(draft: Draft) -> Amount:
    """How long the windows of a head are."""
    told: FactValue = draft.windows or draft.each or {}
    return told["work"] or 0


def window_block(draft: Draft, maker: StepMaker, assumed: Assumptions) -> BlockPart:
    """The block of a head of windows and its lines."""
    work = window_of(draft)
    rest: Dose | None = draft.windows["rest"] if draft.windows and "rest" in draft.windows else draft.rest
    if draft.windows is not None and draft.rest is not None and draft.rest_between is None:
        draft.rest_between = draft.rest
    total = draft.total
    per_side = _per_side(draft, work, total, maker, assumed)
    _rest_windows(draft, work, rest)
    steps = [maker.windowed(item, draft, work, per_side=per_side) for item in draft.items]
    clock = _window_clock(draft, work, rest)
    block: BlockPart = {"clock": clock, "steps": steps}
    if draft.pyramid:
        block["visit"] = "build-strip"
    rounds = _in_turn(draft, steps, _one_window_each(draft, steps, assumed), assumed)
    if turns_in_total(draft, steps, work, rest or 0):
        total = None
    if rounds is None and total is not None:
        windows = sum(2 if "seconds" in one and one.get("sides") == "each" else 1 for one in steps)
        rounds = _rounds_in(assumed, draft, work, rest or 0, total, windows)
    rounds = _grouped(draft, block, rounds, assumed)
    if rounds is not None and rounds != 1:
        block["rounds"] = rounds
    if (draft.windows is not None or rest) and total is not None:
        readings = ["no rest after the last window", "the last rest is taken too"]
        if assumed.pick("closing-rest", draft.line, draft.said, readings) == 1:
            clock["closing_rest"] = True
    return block


def _window_clock(draft: Draft, work: Amount, rest: Dose | None) -> ClockPart:
    clock: ClockPart = {"kind": "intervals", "work_s": work}
    if rest:
        clock["rest_s"] = rest
    if draft.rest_between is not None:
        clock["round_rest_s"] = draft.rest_between
    if draft.rest_groups is not None:
        clock["group_rest_s"] = draft.rest_groups
    return clock


def _one_window_each(draft: Draft, steps: Sequence[StepPart], assumed: Assumptions) -> Amount | None:
    """The rounds said; of `6 x 40/20: …` with six movements on one line they may be one window for each."""
    told, rounds = draft.windows or {}, draft.rounds
    one_line = len({item.row for item in draft.items}) == 1
    if one_line and rounds == len(steps) > 2 and told.get("n") == rounds:
        # Behind the windows the number is more often one of rounds.
        said = ["one window for each", f"{rounds} rounds of them"]
        first = 0 if told.get("front") else 1
        return None if assumed.pick("windows-each", draft.line, draft.said, said, first=first) == 0 else rounds
    return rounds


def _in_turn(draft: Draft, steps: Sequence[StepPart], rounds: Amount | None, assumed: Assumptions) -> Amount | None:
    """Rounds of `8 x 20/10, alternating`: as many windows in turn, or as many rounds of them."""
    turns = draft.alternate or "altern" in draft.said.lower()
    said_n = draft.windows is not None and draft.windows.get("n") == rounds and not draft.windows.get("straight")
    if turns and isinstance(rounds, int) and said_n and len(steps) > 1 and rounds % len(steps) == 0:
        said = [f"{rounds} windows in turn", f"{rounds} rounds of them"]
        if assumed.pick("windows-in-turn", draft.line, draft.said, said) == 0:
            return rounds // len(steps)
    return rounds


def turns_in_total(draft: Draft, steps: list[StepPart], work: Amount, rest: Dose | None) -> bool:
    """`1:00 on 1:00 off for 10 min, alternate`: the windows that fit, in turn, also where the last round is cut."""
    if draft.total is None or draft.rounds is not None or len(steps) < 2 or "altern" not in draft.said.lower():
        return False
    if any(one.get("sides") == "each" for one in steps):
        return False
    slot = span(work) + span(rest)
    count = int((span(draft.total) + span(rest) + 0.5) // slot) if slot > 0 else 0
    if count <= len(steps) or count % len(steps) == 0 or count > MOST_TURNS:
        return False
    steps.extend(steps[at % len(steps)].copy() for at in range(len(steps), count))
    return True


MOST_TURNS = 60
"""Windows that are written out one by one."""


def _grouped(draft: Draft, block: BlockPart, rounds: Amount | None, assumed: Assumptions) -> Amount | None:
    """Put in which movements are worked through together, and how often the whole is done; returns the rounds."""
    clock, several = block["clock"], len(block["steps"]) > 1
    group = (draft.windows or {}).get("group")
    if (draft.windows or {}).get("straight") and several:
        readings = ["eight of the one, then eight of the next", "taking turns in eight windows"]
        turns = 1 if draft.alternate or "altern" in draft.said.lower() else 0
        if assumed.pick("tabata-order", draft.line, draft.said, readings, first=turns) == 1:
            rounds = rounds if draft.total is not None else max(1, 8 // len(block["steps"]))
        else:
            group = 1
            if draft.rest_between is not None and draft.rest_groups is None:
                clock["group_rest_s"] = clock.pop("round_rest_s")
    if draft.repeat is not None and draft.repeat not in (1, len(block["steps"])):
        block["repeat"] = draft.repeat
        if draft.rest_between is not None:
            block["rest_between_repeats_s"] = draft.rest_between
            clock.pop("round_rest_s", None)
    if group is not None and several and not draft.alternate:
        block["group"] = group
    return rounds


def _rest_windows(draft: Draft, work: Amount, rest: Dose | None) -> None:
    """A line that only says `rest` among windows is a window of rest."""
    kept: list[Item] = []
    for item in draft.items:
        if not item.rest_turn:
            kept.append(item)
            continue
        if not kept:
            continue
        free = span(work) + 2 * span(rest)
        if item is draft.items[-1]:
            draft.rest_between = span(draft.rest_between) + free
        else:
            kept[-1].rest_after = free
    draft.items = kept


def _per_side(draft: Draft, work: Amount, total: Amount | None, maker: StepMaker, assumed: Assumptions) -> bool:
    """Whether a head's window is each side's: said so, or the stretches of a cool-down."""
    if draft.sides_each:
        return True
    if draft.part != "cool-down":
        return False
    if (
        total is not None
        and abs(
            span(work) * len(draft.items) * (draft.rounds if isinstance(draft.rounds, int) else 1) - span(total)
        )
        < 1
    ):
        return False
    if not any(maker.one_sided_stretch(i, draft) for i in draft.items):
        return False
    said = ["each side has the window", "the window is for both sides"]
    return assumed.pick("stretch-window", draft.line, draft.said, said) == 0


def _rounds_in(
    assumed: Assumptions, draft: Draft, work: Amount, rest: Dose | None, total: Amount | None, lines: int
) -> int | None:
    slot = span(work) + span(rest)
    windows = max(1, int((span(total) + span(rest) + 0.5) // slot)) if slot > 0 else 1
    if windows <= lines:
        return None
    rounds = windows / lines
    if rounds != int(rounds):
        said = [f"{int(rounds)} rounds fit", f"{int(rounds) + 1} rounds"]
        return int(rounds) + assumed.pick("rounds-in-total", draft.line, draft.said, said)
    return int(rounds)


LONG_WINDOW_S = 90
"""A window from here on is more likely for all the lines than for one of them, where each has its dose."""


def holds_all(draft: Draft, assumed: Assumptions) -> bool:
    """`3 min on / 1 min off x 5: 10 burpees, 15 swings`: all of it in every window."""
    windows: FactValue = draft.windows or draft.each or {}
    if draft.windows is None and not (isinstance(draft.rounds, int) and draft.rounds > 1):
        return False
    if windows.get("straight") or windows.get("group") or len(draft.items) < 2 or not draft.items[0].dosed:
        return False
    if span(window_of(draft)) < LONG_WINDOW_S or any(i.seconds is not None for i in draft.items):
        return False
    if any(not i.dosed for i in draft.items):
        return False
    said = ["every window holds all the lines", "a window for each line"]
    return assumed.pick("window-holds", draft.line, draft.said, said) == 0


def rounds_in_windows(draft: Draft, maker: StepMaker) -> BlockPart:
    """Windows that each hold all the lines: as many rounds as fit, or once and the last line until the end."""
    work, windows = window_of(draft), draft.windows or draft.each or {}
    rest: Dose = windows.get("rest") or draft.rest or draft.rest_between or 0
    times = draft.rounds if draft.rounds is not None else 1
    last = draft.items[-1]
    steps = [maker.dosed(item, draft, rounds=1) for item in draft.items]
    if last.failure and isinstance(times, int):
        for step in steps[:-1]:
            step["chain"] = True
        steps[-1].pop("reps", None)
        steps[-1]["fill"] = True
        period = span(work) + span(rest)
        clock: ClockPart = {"kind": "every", "period_s": period, "work_until_s": span(work), "periods": times}
        return {"clock": clock, "steps": steps}
    block: BlockPart = {"clock": {"kind": "amrap", "window_s": work}, "steps": steps}
    if times != 1:
        block["repeat"] = times
        if rest:
            block["rest_between_repeats_s"] = rest
    return block
