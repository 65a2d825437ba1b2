"""From drafts to blocks of the document: what the clock is, whose turn it is, where rests go."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from finetally.core.movements.library import Library
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.draft import Draft
from finetally.core.wall.item import Item
from finetally.core.wall.names import Names
from finetally.core.wall.starts import every_clock
from finetally.core.wall.steps import StepMaker, span
from finetally.core.wall.unread import Unread
from finetally.core.wall.windows import holds_all, rounds_in_windows, window_block

Block = dict[str, Any]
EVEN = 0.02
"""How far a number of rounds may be from a whole one."""
EASY_SPEED_MPS = 1.4
"""The speed of a walk back."""


class Builder:
    """Makes blocks of drafts; collects what is unknown, and what is in no figure."""

    def __init__(self, library: Library, names: Names, assumed: Assumptions) -> None:
        self._library = library
        self._assumed = assumed
        self._steps = StepMaker(library, names, assumed)
        self.unread: list[Unread] = []
        self.loose_notes: list[str] = []
        self.lines: dict[str, tuple[int, int]] = {}

    @property
    def places(self) -> list[tuple[str, str, int]]:
        """Every new name with its words and its line."""
        return self._steps.places

    @property
    def unknown(self) -> list[str]:
        """Names that nobody knows, as they are written."""
        return self._steps.unknown

    def blocks(self, drafts: Sequence[Draft]) -> list[Block]:
        """The blocks of all drafts in their order."""
        made: list[Block] = []
        for draft in drafts:
            for block in self._of(draft):
                self.lines[f"blocks[{len(made)}]"] = (draft.line, 1)
                made.append(block)
        return made

    def _of(self, draft: Draft) -> list[Block]:
        if draft.ready is not None:
            if draft.rest_after is not None:
                draft.ready["rest_after_s"] = draft.rest_after
            return [draft.ready]
        # What is done easily during the rests of a harder window.
        self._easy_rest(draft)
        items = [i for i in draft.items if i.words or i.rest_turn or (i.dosed and i.sets)]
        if (
            draft.amraps
            and draft.amraps[0].get("loose")
            and (draft.each or draft.windows or not any(i.dosed for i in items))
        ):
            # `for 8 min: skipping, squats`: a length told, no race against it.
            draft.total, draft.amraps = draft.amraps[0]["window"], []
        for item in items:
            if item.failure and item.seconds is not None and not item.in_window:
                # `30 s max burpees`: a window, whose reps are estimated.
                item.failure = False
        draft.items = items
        if not items and not draft.buy_in:
            return self._empty(draft)
        if draft.every is None and any(i.turn is not None for i in items) and not draft.windows:
            draft.every = {"period": 60}
        if draft.every is not None:
            made = self._every(draft)
        elif draft.amraps:
            made = self._amrap(draft)
        elif (draft.windows is not None or draft.each is not None) and holds_all(draft, self._assumed):
            made = [rounds_in_windows(draft, self._steps)]
        elif draft.windows is not None or draft.each is not None:
            made = [window_block(draft, self._steps, self._assumed)]
        elif draft.kind == "sets" or any(i.sets for i in items):
            made = self._sets(draft)
        else:
            made = self._rounds(draft)
        for block in made:
            self._dress(block, draft)
        if made and draft.rest_after is not None:
            made[-1]["rest_after_s"] = draft.rest_after
        if (
            made
            and items
            and items[-1].rest_after is not None
            and draft.rest_after is None
            and "rest_s" in made[-1]["steps"][-1]
        ):
            made[-1]["rest_after_s"] = made[-1]["steps"][-1].pop("rest_s")
        return [b for b in made if b.get("steps")]

    def _dress(self, block: Block, draft: Draft) -> None:
        if draft.part not in (None, "main"):
            block["part"] = draft.part
        if draft.title:
            block["title"] = draft.title[:200]
        notes = [n for n in draft.notes if n]
        if notes:
            block["notes"] = "\n".join(notes)[:20_000]
        if draft.rest_as:
            block["rest_as"] = draft.rest_as

    def _empty(self, draft: Draft) -> list[Block]:
        """A head with nothing under it: with a length, one easy block of it; else words that are kept."""
        seconds = draft.total
        if draft.clocked or seconds is None:
            if draft.windows is not None or draft.each is not None or draft.growing:
                draft.items = [self._steps.nameless(draft)]
                return self._of(draft)
            words = draft.title or draft.said
            if draft.clocked or draft.line:
                self.loose_notes.append(words)
                if draft.clocked:
                    self.unread.append(Unread(draft.line, draft.said))
            self.loose_notes.extend(draft.notes)
            return []
        item = self._steps.nameless(draft)
        item.seconds = seconds
        draft.items = [item]
        block = {
            "clock": {"kind": "intervals"},
            "steps": [{"movement": self._steps.key(item, draft), "seconds": seconds}],
        }
        self._dress(block, draft)
        if draft.part in (None, "main", "finisher"):
            block["effort"] = "easy"
        if draft.rest_after is not None:
            block["rest_after_s"] = draft.rest_after
        return [block]

    def _easy_rest(self, draft: Draft) -> None:
        """`20 s sprint / 40 s easy` on one line: the easy part is the rest of the harder one."""
        kept: list[Item] = []
        for item in draft.items:
            soft = (
                bool(item.words)
                and self._steps.easy_words(item)
                and (
                    item.seconds is not None
                    or (
                        item.metres is not None
                        and item.joined is False
                        and bool(kept)
                        and kept[-1].sets is not None
                    )
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
                picked = self._assumed.pick(
                    "easy-rest", item.row, draft.said, ["the easy part is the rest", "a movement of its own"]
                )
                if picked == 0:
                    if draft.rest_between is None and (hard.sets or draft.rounds):
                        draft.rest_between = item.seconds
                    else:
                        hard.rest_after = item.seconds
                    easy = self._steps.easy_movement(item)
                    draft.rest_as = easy or draft.rest_as
                    continue
            kept.append(item)
        draft.items = kept
        way_back(draft, self._assumed)

    # Starts
    def _every(self, draft: Draft) -> list[Block]:
        return [every_clock(draft, self._steps, self._assumed)]

    # Windows of rounds
    def _amrap(self, draft: Draft) -> list[Block]:
        windows = [one["window"] for one in draft.amraps]
        made: list[Block] = []
        if windows == [None]:
            windows = [draft.total]
        if windows == [None]:
            minutes = self._assumed.pick(
                "amrap-length", draft.line, draft.said, ["ten minutes", "five minutes", "twenty minutes"]
            )
            windows = [(600, 300, 1200)[minutes]]
        inline_list(draft)
        bought = self._bought(draft)
        if bought is not None:
            made.append(bought[0])
            windows = [max(1, round(span(windows[0]) - bought[1], 1)) if bought[2] else windows[0]]
        single = len(draft.items) == 1 and not draft.items[0].dosed
        for index, window in enumerate(windows):
            items = draft.again if index == 1 and draft.again else draft.items
            if items is draft.again:
                for new, old in zip(draft.again, draft.items, strict=False):
                    new.words = new.words or old.words
                    new.load = new.load or old.load
                items = [i for i in draft.again if i.words]
            steps = [self._steps.dosed(item, draft, rounds=1) for item in items]
            if single:
                steps = [{**steps[0], "reps": 1}]
            clock: dict[str, Any] = {"kind": "amrap", "window_s": window}
            if draft.rest is not None and len(draft.amraps) == 1 and "repeat" not in draft.amraps[0]:
                clock["rest_s"] = draft.rest
            block: Block = {"clock": clock, "steps": steps}
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
                self._grow_ladder(draft, steps)
            made.append(block)
        if len(windows) > 1:
            for block in made[:-1]:
                block["rest_after_s"] = draft.rest if draft.rest is not None else draft.rest_between or 0
                block["clock"].pop("rest_s", None)
        if "partner" in draft.said.lower() or "i go" in draft.said.lower() or "two people" in draft.said.lower():
            self._assumed.pick(
                "partners",
                draft.line,
                draft.said,
                ["for one who works all the time", "one person works half the time"],
            )
        return made

    def _grow_ladder(self, draft: Draft, steps: list[dict[str, Any]]) -> None:
        ladder = draft.ladder or []
        step = ladder[1] - ladder[0] if len(ladder) > 1 else 0
        for one in steps:
            if "reps" not in one and "seconds" not in one and "metres" not in one:
                one["reps"] = ladder[0]
                if step > 0:
                    one["grow"] = step

    def _bought(self, draft: Draft) -> tuple[Block, float, bool] | None:
        if not draft.buy_in:
            return None
        steps = [self._steps.dosed(item, draft, rounds=1) for item in draft.buy_in]
        seconds = sum(self._steps.bare_seconds(one) for one in steps)
        readings = ["the minutes begin with the buy-in", "the minutes begin after the buy-in"]
        inside = self._assumed.pick("buy-in", draft.line, draft.said, readings) == 0
        return {"clock": {"kind": "task"}, "steps": steps, "title": "buy-in"}, seconds, inside

    # Sets
    def _sets(self, draft: Draft) -> list[Block]:
        if draft.rest is not None and draft.rest_between is None:
            draft.rest_between = draft.rest
        items = draft.items
        counts = {i.sets or (draft.rounds if isinstance(draft.rounds, int) else 1) for i in items}
        if len(items) > 1 and len(counts) == 1 and (draft.letter or draft.superset):
            return [self._set_block(draft, items, next(iter(counts)))]
        if len(items) > 1 and draft.letter:
            return self._uneven(draft, items)
        made = []
        for item in items:
            made.append(self._set_block(draft, [item], item.sets or draft.rounds or 1))
        return made

    def _uneven(self, draft: Draft, items: list[Item]) -> list[Block]:
        """A group whose sets differ: together as long as all have some, then what is left."""
        made: list[Block] = []
        done = 0
        between = draft.rest_between or 0
        for count in sorted({i.sets or 1 for i in items}):
            left = [i for i in items if (i.sets or 1) >= count]
            block = self._set_block(draft, left, count - done)
            if made and between:
                made[-1]["rest_after_s"] = between
            made.append(block)
            done = count
        return made

    def _set_block(self, draft: Draft, items: list[Item], rounds: Any) -> Block:
        steps = [
            self._steps.dosed(item, draft, rounds=rounds if isinstance(rounds, int) else None) for item in items
        ]
        self._rest_by_ratio(draft, steps)
        if isinstance(rounds, int) and rounds > 1:
            whole_lengths(steps)
        listed = max((len(s[d]) for s in steps for d in DOSES if isinstance(s.get(d), list)), default=0)
        timed = all("seconds" in s and "reps" not in s and "metres" not in s for s in steps)
        clock: dict[str, Any] = {"kind": "intervals" if timed else "task"}
        if draft.rest_between:
            clock["round_rest_s"] = draft.rest_between
        block: Block = {"clock": clock, "steps": steps}
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

    # Rounds and doses
    def _rounds(self, draft: Draft) -> list[Block]:
        if draft.rest is not None and draft.rest_between is None:
            draft.rest_between = draft.rest
        items = draft.items
        if len(items) == 1 and items[0].failure and items[0].seconds is not None and items[0].in_window:
            # As many of one movement as a time holds.
            step = self._steps.dosed(items[0], draft, rounds=1)
            window = step.pop("seconds")
            return [{"clock": {"kind": "amrap", "window_s": window}, "steps": [{**step, "reps": 1}]}]
        self._shared_total(draft, items)
        self._rounds_in_total(draft, items)
        if self._fills_the_time(draft, items):
            return self._amrap(draft)
        ladder = draft.ladder
        for item in items:
            if item.ladder and item.ranged is not None and item.words:
                item.reps = (
                    [*range(item.ranged[0], item.ranged[1] - 1, -1)]
                    if item.ranged[0] > item.ranged[1]
                    else item.reps
                )
        listed = next((i.reps for i in items if isinstance(i.reps, list)), None)
        steps = []
        for item in items:
            if ladder is not None and not item.dosed:
                item.reps = [one * item.double for one in ladder]
            elif ladder is not None and item.label == "times" and isinstance(item.reps, int):
                item.reps = [one * item.reps for one in ladder]
            elif draft.reps_each is not None and not item.dosed:
                item.reps = draft.reps_each
            elif not item.dosed and listed is not None:
                item.reps = list(listed)
            if not item.dosed:
                self._undosed(item, draft)
                continue
            steps.append(
                self._steps.dosed(item, draft, rounds=draft.rounds if isinstance(draft.rounds, int) else 1)
            )
        if not steps:
            return []
        return [self._round_block(draft, steps)]

    def _rounds_in_total(self, draft: Draft, items: list[Item]) -> None:
        """`8 min of: 30 s plank, 30 s side plank, …`: as often as the seconds fit, where that is a whole number."""
        if draft.total is None or draft.rounds is not None or len(items) < 2 or draft.told_total:
            return
        if any(item.seconds is None or isinstance(item.seconds, list) for item in items):
            return
        rests = span(draft.rest_between or 0) + sum(span(i.rest_after or 0) for i in items)
        once = rests + sum(span(i.seconds) * (2 if i.sides == "each" else 1) for i in items)
        times = span(draft.total) / once if once else 0
        if times < 2 or abs(times - round(times)) > EVEN:
            return
        said = [f"{round(times)} rounds fill it", "once through"]
        if self._assumed.pick("told-window", draft.line, draft.said, said) == 0:
            draft.rounds, draft.total = round(times), None
            if items[-1].rest_after is not None and draft.rest_between is None:
                draft.rest_between, items[-1].rest_after = items[-1].rest_after, None

    def _fills_the_time(self, draft: Draft, items: list[Item]) -> bool:
        """`20 min: 10 burpees, 10 swings`: what is far shorter than its time is done again and again."""
        if draft.growing and draft.ladder and draft.total is not None and not draft.amraps:
            draft.amraps, draft.total = [{"window": draft.total}], None
            return True
        once = draft.rounds is not None or draft.ladder or draft.fortime or draft.told_total or draft.cap
        if once or draft.total is None or draft.part not in (None, "main", "finisher") or len(items) < 2:
            return False
        if any(not isinstance(i.reps, int) and i.metres is None for i in items):
            return False
        steps = [self._steps.dosed(item, draft, rounds=1) for item in items]
        if sum(self._steps.bare_seconds(one) for one in steps) * 2 > span(draft.total):
            return False
        length = f"{span(draft.total) / 60:g} min"
        said = [f"as many rounds as {length} hold", f"once; {length} are the told length"]
        if self._assumed.pick("told-window", draft.line, draft.said, said) == 1:
            return False
        draft.amraps, draft.total = [{"window": draft.total}], None
        return True

    def _rest_by_ratio(self, draft: Draft, steps: list[dict[str, Any]]) -> None:
        """`work:rest 1:2`: rest by the work of a round; of a list of reps, by its middle."""
        if draft.ratio is None or draft.rest_between:
            return
        middle = [
            {k: sum(v) / len(v) if isinstance(v, list) and k in DOSES else v for k, v in one.items()} for one in steps
        ]
        seconds = round(sum(self._steps.bare_seconds(one) for one in middle) * draft.ratio)
        self._assumed.pick("ratio-rest", draft.line, draft.said, [f"{seconds} s of rest"])
        draft.rest_between = seconds

    def _round_block(self, draft: Draft, steps: list[dict[str, Any]]) -> Block:
        self._rest_by_ratio(draft, steps)
        lists = [len(s[d]) for s in steps for d in DOSES if isinstance(s.get(d), list)]
        timed = (
            all("seconds" in s and "reps" not in s and "metres" not in s for s in steps)
            and not draft.cap
            and not draft.fortime
        )
        clock: dict[str, Any] = {"kind": "intervals" if timed else "task"}
        if draft.rest_between:
            clock["round_rest_s"] = draft.rest_between
        if draft.cap:
            clock["cap_s"] = draft.cap
        block: Block = {"clock": clock, "steps": steps}
        if draft.pyramid:
            block["visit"] = "build-strip"
        if lists:
            longest = max(lists)
            for step in steps:
                for dose in DOSES:
                    if isinstance(step.get(dose), list):
                        step[dose] = (step[dose] + [step[dose][-1]] * longest)[:longest]
            block["rounds"] = longest
        elif draft.rounds is not None and draft.rounds != 1:
            block["rounds"] = draft.rounds
        if draft.grow and not lists:
            for step in steps:
                if isinstance(step.get("reps"), int):
                    step["grow"] = draft.grow
        if draft.total is not None:
            block["announced_s"] = draft.total
        return block

    def _shared_total(self, draft: Draft, items: list[Item]) -> None:
        """A length told for lines that have no dose of their own: the one line takes it, several share it."""
        bare = [i for i in items if not i.dosed]
        if draft.total is None or not bare or len(bare) != len(items) or draft.ladder or draft.reps_each:
            return
        each = span(draft.total) / len(bare)
        if len(bare) > 1:
            self._assumed.pick("shared-total", draft.line, draft.said, ["the lines share the time"])
        for item in bare:
            item.seconds = draft.total if len(bare) == 1 else max(1, int(each))
            item.minutes = True
        draft.total = None

    def _undosed(self, item: Item, draft: Draft) -> None:
        """A name without a dose where the head gives none: kept as a note, and told if it is a movement."""
        words = " ".join(t.text for t in item.words)
        draft.notes.append(words)
        if self._steps.known(item):
            self.unread.append(Unread(item.row, words))


DOSES = ("reps", "seconds", "metres")


def inline_list(draft: Draft) -> None:
    """`AMRAP 9: 3-6-9… thrusters, burpees`: the list in front is that of all the lines."""
    first = next((i for i in draft.items if isinstance(i.reps, list)), None)
    if first is None:
        return
    if first.ladder and draft.ladder is None:
        draft.ladder, draft.growing = list(first.reps), True
        first.reps = None
        return
    for item in draft.items:
        if not item.dosed:
            item.reps = list(first.reps)


def whole_lengths(steps: list[dict[str, Any]]) -> None:
    """`10-20-30-20-10 m x 4`: the lengths of one set come one behind the other."""
    for step in steps:
        lengths = step.get("metres")
        if isinstance(lengths, list):
            step["metres"] = sum(lengths)
            step["note"] = "; ".join([*([step["note"]] if "note" in step else []), "-".join(f"{m:g}" for m in lengths)])


WAY_BACK = re.compile(r"(?:with )?(?:easy |slow )?(?P<how>walk|jog)(?:ing)?(?: (?:back|down|home|to|the|start|recovery|rest))+")
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
