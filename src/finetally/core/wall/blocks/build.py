"""From drafts to blocks of the document: what the clock is, whose turn it is, where rests go."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.amraps import amrap_blocks
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.blocks.easy import easy_rest
from finetally.core.wall.blocks.rounds import round_blocks
from finetally.core.wall.blocks.starts import every_clock
from finetally.core.wall.blocks.steps import StepMaker
from finetally.core.wall.blocks.straight import set_blocks
from finetally.core.wall.blocks.windows import holds_all, rounds_in_windows, window_block
from finetally.core.wall.items.item import Item
from finetally.core.wall.items.names import Names
from finetally.core.wall.parts import BlockPart, as_json, dose_json
from finetally.core.wall.tokens.token import Token
from finetally.core.wall.unread import Unread

CALORIE_MACHINES = (("the rowing machine", "row"), ("the bike", "bike"), ("the ski machine", "ski"))
"""What counts calories, the commonest first."""


def _settle_lengths(draft: Draft, items: Sequence[Item]) -> None:
    """Lengths that are no race, and windows that are no sets to failure."""
    loose = bool(draft.amraps) and draft.amraps[0].get("loose")
    if loose and (draft.each or draft.windows or not any(i.dosed and i.seconds is None for i in items)):
        # `for 8 min: skipping, squats`: a length told, no race against it.
        draft.total, draft.amraps = draft.amraps[0]["window"], []
    for item in items:
        if item.failure and item.seconds is not None and not (item.in_window and len(items) == 1):
            # `30 s max burpees`: a window, whose reps are estimated.
            item.failure = False


def _rest_behind(last: BlockPart, draft: Draft, items: Sequence[Item]) -> None:
    """The rest behind the last block: the draft's own, else what stood behind its last movement."""
    if draft.rest_after is not None:
        last["rest_after_s"] = draft.rest_after
    elif items and items[-1].rest_after is not None and "rest_s" in last["steps"][-1]:
        last["rest_after_s"] = last["steps"][-1].pop("rest_s")


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
    def step_rows(self) -> list[tuple[str, int]]:
        """Movement and line of every item."""
        return self._steps.rows

    @property
    def unknown(self) -> list[str]:
        """Names that nobody knows, as they are written."""
        return self._steps.unknown

    def blocks(self, drafts: Sequence[Draft]) -> list[JsonObject]:
        """The blocks of all drafts in their order."""
        made: list[JsonObject] = []
        for draft in drafts:
            for block in self._ready(draft) or map(as_json, self._of(draft)):
                self.lines[f"blocks[{len(made)}]"] = (draft.line, 1)
                made.append(block)
        return made

    def _ready(self, draft: Draft) -> list[JsonObject]:
        """A block that stood in the written form, with the rest that was told below it."""
        if draft.ready is None:
            return []
        if draft.rest_after is not None:
            draft.ready["rest_after_s"] = dose_json(draft.rest_after)
        return [draft.ready]

    def _of(self, draft: Draft) -> list[BlockPart]:
        # What is done easily during the rests of a harder window.
        easy_rest(draft, self._steps, self._assumed)
        items = self._worked_items(draft)
        _settle_lengths(draft, items)
        draft.items = items
        if not items and not draft.buy_in:
            return self._empty(draft)
        if draft.every is None and any(i.turn is not None for i in items) and not draft.windows:
            draft.every = {"period": 60}
        made = self._clocked(draft)
        for block in made:
            self._dress(block, draft)
        if made:
            _rest_behind(made[-1], draft, items)
        return [b for b in made if b.get("steps")]

    def _worked_items(self, draft: Draft) -> list[Item]:
        """The items that work; what was dosed and names nothing is told as not read."""
        for item in draft.items:
            if item.cal and item.dosed and not item.words:
                self._machine(item)
        items = [i for i in draft.items if i.words or i.rest_turn or (i.dosed and i.sets)]
        working = {id(i) for i in items}
        lost = {i.row for i in draft.items if i.reps is not None and id(i) not in working}
        self.unread.extend(Unread(row, "") for row in sorted(lost))
        return items

    def _clocked(self, draft: Draft) -> list[BlockPart]:
        """The blocks of a draft, under the clock that its head says."""
        windowed = draft.windows is not None or draft.each is not None
        if draft.every is not None:
            return [every_clock(draft, self._steps, self._assumed)]
        if draft.amraps:
            return amrap_blocks(draft, self._steps, self._assumed)
        if windowed and holds_all(draft, self._assumed):
            return [rounds_in_windows(draft, self._steps)]
        if windowed:
            return [window_block(draft, self._steps, self._assumed)]
        if draft.kind == "sets" or any(i.sets for i in draft.items):
            return set_blocks(draft, self._steps, self._assumed)
        return round_blocks(draft, self._steps, self._assumed, self.unread)

    def _machine(self, item: Item) -> None:
        """`12 cal` and no more: which machine counts them is asked."""
        names = [name for name, _ in CALORIE_MACHINES]
        word = CALORIE_MACHINES[self._assumed.pick("calories", item.row, f"{item.reps} cal", names)][1]
        item.words = [Token("W", word, word, item.first, item.first)]

    def _dress(self, block: BlockPart, draft: Draft) -> None:
        if draft.part is not None and draft.part != "main":
            block["part"] = draft.part
        if draft.title:
            block["title"] = draft.title[:200]
        notes = [n for n in draft.notes if n]
        if notes:
            block["notes"] = "\n".join(notes)[:20_000]
        if draft.rest_as:
            block["rest_as"] = draft.rest_as

    def _empty(self, draft: Draft) -> list[BlockPart]:
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
        block: BlockPart = {
            "clock": {"kind": "intervals"},
            "steps": [{"movement": self._steps.key(item, draft), "seconds": seconds}],
        }
        self._dress(block, draft)
        if draft.part in (None, "main", "finisher"):
            block["effort"] = "easy"
        if draft.rest_after is not None:
            block["rest_after_s"] = draft.rest_after
        return [block]
