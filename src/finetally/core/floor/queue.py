"""The queue of a run: beats in order, played and to come, with the copies that orders put in."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from finetally.core.floor.beats import Beat
from finetally.core.floor.events import What

Holding = Literal["entries", "blocks", "never"]


@dataclass(frozen=True, slots=True)
class QueuedBeat:
    """A beat in the queue. `number`: on its sheet; `s`: what it lasts now; `run`, `set`: copies have their own."""

    beat: Beat
    sheet: int
    number: int
    run: int
    set: int | None
    s: float
    copy: bool = False


@dataclass(frozen=True, slots=True)
class Layout:
    """A session laid out anew while it runs: its passes through blocks in `order`, by name.

    `beats`: the new sheet; its beats count for the passes that `changed`, the others stay as they are in the queue.
    """

    order: Sequence[str]
    changed: frozenset[str]
    beats: Sequence[Beat]


def waits(hold: Holding, before: QueuedBeat, item: QueuedBeat) -> bool:
    """Whether time waits for the coach between two beats."""
    if hold == "never" or item.beat.kind == "talk" or item.run == before.run:
        return False
    return hold == "blocks" or item.copy or item.beat.entry != before.beat.entry


class BeatQueue:
    """Beats in order. `place` is the running one, while waiting the one to come; those before it were played.

    Only orders change it: the list is never changed in place, so that it can be kept.
    """

    def __init__(self, beats: Sequence[Beat]) -> None:
        self.sheets: list[Sequence[Beat]] = [beats]
        self.place = 0
        self._lengths: dict[tuple[int, str, float], float] = {}
        self._newest: dict[str, int] = {}
        self._keys = max((beat.run for beat in beats), default=0) + 1
        self._sets = max((beat.set or 0 for beat in beats), default=0) + 1
        self.items = [QueuedBeat(beat, 0, i, beat.run, beat.set, beat.s) for i, beat in enumerate(beats)]
        self.in_force = [(0, i) for i in range(len(beats))]

    @property
    def here(self) -> QueuedBeat | None:
        """The running beat, or the one to come; None at the end."""
        return self.items[self.place] if self.place < len(self.items) else None

    def _last(self, item: QueuedBeat, what: What) -> int:
        """Where the last beat of an item's run or set stands."""
        for index in range(len(self.items) - 1, -1, -1):
            other = self.items[index]
            if other.run == item.run if what == "block" else other.set == item.set:
                return index
        return self.place - 1

    def drop(self, first: int, what: What, of: QueuedBeat, *, keep_closing_rest: bool = False) -> None:
        """Take out what is left from place `first` on of an item's run or set."""
        going = [
            i
            for i in range(first, len(self.items))
            if (self.items[i].run == of.run if what == "block" else self.items[i].set == of.set)
        ]
        if keep_closing_rest and going and self.items[going[-1]].beat.kind == "rest":
            going.pop()
        gone = set(going)
        self.items = [item for i, item in enumerate(self.items) if i not in gone]

    def next_set(self, first: int, run: int, of: int | None) -> QueuedBeat | None:
        """The first beat from place `first` on of another set of the same run."""
        for item in self.items[first:]:
            if item.run == run and item.set is not None and item.set != of:
                return item
        return None

    def again(self, of: QueuedBeat, what: What) -> int:
        """Put an item's run or set in once more, right after its last beat; returns where (-1: nothing comes)."""
        copies = self._run_copy(of) if what == "block" else self._set_copy(of)
        if not copies:
            return -1
        at = self._last(of, what) + 1
        self.items = [*self.items[:at], *copies, *self.items[at:]]
        return at

    def _run_copy(self, of: QueuedBeat) -> list[QueuedBeat]:
        """The run as on the sheet, without its talk."""
        sheet = self._newest.get(of.beat.passage, 0)
        own = [(n, beat) for n, beat in enumerate(self.sheets[sheet]) if beat.passage == of.beat.passage]
        return self._copy_of(own, sheet)

    def _copy_of(self, own: Sequence[tuple[int, Beat]], sheet: int) -> list[QueuedBeat]:
        """Beats of a pass as a run of its own, without its talk."""
        self._keys += 1
        fresh: dict[int, int] = {}
        return [
            self._item(beat, sheet, number, self._keys, self._fresh_set(beat.set, fresh), copy=True)
            for number, beat in own
            if beat.kind != "talk"
        ]

    def _fresh_set(self, old: int | None, fresh: dict[int, int]) -> int | None:
        if old is None:
            return None
        if old not in fresh:
            self._sets += 1
            fresh[old] = self._sets
        return fresh[old]

    def _set_copy(self, of: QueuedBeat) -> list[QueuedBeat]:
        """The round as it stands in the queue; where it ends in work, with the rest that stood before it."""
        if of.set is None:
            return []
        places = [i for i, item in enumerate(self.items) if item.set == of.set]
        round_ = [self.items[i] for i in places]
        before = self.items[places[0] - 1] if places[0] > 0 else None
        self._sets += 1
        copies = [self._again(item, self._sets) for item in round_]
        stood = before is not None and before.run == of.run and before.beat.kind == "rest"
        if before is not None and stood and round_[-1].beat.kind == "work":
            copies.insert(0, self._again(before, of.set))
        return copies

    def _again(self, item: QueuedBeat, set_: int) -> QueuedBeat:
        return replace(item, set=set_, s=self._length(item.beat))

    def _item(
        self, beat: Beat, sheet: int, number: int, run: int, set_: int | None, *, copy: bool = False
    ) -> QueuedBeat:
        return QueuedBeat(beat, sheet, number, run, set_, self._length(beat), copy)

    def _length(self, beat: Beat) -> float:
        if beat.ends != "clock" or beat.set is None:
            return beat.s
        return self._lengths.get((beat.block, beat.kind, beat.s), beat.s)

    def set_length(self, block: int, kind: str, seconds: float) -> bool:
        """Give the beats of a block that are like the first of that kind from here on another length.

        Those that come later as copies, too. Returns whether there are any.
        """
        planned: float | None = None
        items = list(self.items)
        for index in range(self.place, len(items)):
            item = items[index]
            beat = item.beat
            if beat.block != block or beat.kind != kind or beat.ends != "clock" or item.set is None:
                continue
            if planned is None:
                planned = beat.s
            if beat.s == planned:
                items[index] = replace(item, s=seconds)
        if planned is None:
            return False
        self._lengths[block, kind, planned] = seconds
        self.items = items
        return True

    def lay_out(self, layout: Layout, *, running: bool) -> None:
        """Replace what has not begun by what a new layout has there. The pass that runs goes on where it is.

        What was skipped stays so; what now stands before the running pass is not made up for.
        """
        self.sheets.append(layout.beats)
        sheet, after = len(self.sheets) - 1, self.place + running
        now = self.items[after - 1] if after else None
        kept, rest = self.items[:after], self.items[after:]
        mine, later = _split(rest, now)
        self._newest.update(dict.fromkeys(layout.changed, sheet))
        if now is not None and now.beat.passage in layout.changed:
            mine = self._laid(layout, sheet, now, {item.run for item in mine if item.run != now.run})
        elif now is not None and now.beat.passage not in layout.order:
            mine = []
        coming = self._coming(layout, sheet, now, later)
        self.items = [*kept, *mine, *coming]
        self._keys += 1 + max((beat.run for beat in layout.beats), default=0)
        self._sets += 1 + max((beat.set or 0 for beat in layout.beats), default=0)
        begun_keys = {(item.sheet, item.number) for item in kept}
        there = begun_keys | {(item.sheet, item.number) for item in self.items}
        old = [
            key
            for key in self.in_force
            if key in there or self.sheets[key[0]][key[1]].passage not in layout.changed
            if self.sheets[key[0]][key[1]].passage in layout.order or key in begun_keys
        ]
        known = set(old)
        self.in_force = [
            *old,
            *dict.fromkeys(
                (item.sheet, item.number) for item in self.items if (item.sheet, item.number) not in known
            ),
        ]

    def _laid(self, layout: Layout, sheet: int, now: QueuedBeat, copies: set[int]) -> list[QueuedBeat]:
        """What is left of the running pass on a new sheet, and the copies of it that were still to come."""
        own = [(n, beat) for n, beat in enumerate(layout.beats) if beat.passage == now.beat.passage]
        left = own[_begun(self.sheets[now.sheet], now) :]
        if not left and own and _rests_after(own[-1][1]) and not _rests_after(now.beat):
            # More was done than there now is: the rest after the block is still to come.
            left = own[-1:]
        laid = [self._item(beat, sheet, n, now.run, self._moved(beat.set)) for n, beat in left]
        for _ in copies:
            laid += self._copy_of(own, sheet)
        return laid

    def _moved(self, set_: int | None) -> int | None:
        return None if set_ is None else self._sets + 1 + set_

    def _coming(
        self, layout: Layout, sheet: int, now: QueuedBeat | None, later: list[QueuedBeat]
    ) -> list[QueuedBeat]:
        """The passes after the running one, in the new order: as they stand, or as the new sheet has them."""
        here = now.beat.passage if now is not None else None
        done = self._passed(now)
        standing: dict[str, list[QueuedBeat]] = {}
        for item in later:
            standing.setdefault(item.beat.passage, []).append(item)
        new: dict[str, list[QueuedBeat]] = {}
        for n, beat in enumerate(layout.beats):
            item = self._item(beat, sheet, n, self._keys + 1 + beat.run, self._moved(beat.set))
            new.setdefault(beat.passage, []).append(item)
        order = list(layout.order)
        if here in order:
            order = order[order.index(here) + 1 :]
        left_out = {key for key in done if key not in standing}
        coming: list[QueuedBeat] = []
        for passage in order:
            if passage not in left_out:
                coming += new.get(passage, []) if passage in layout.changed else standing.get(passage, [])
        return coming

    def _passed(self, now: QueuedBeat | None) -> set[str]:
        """Passes that were on an earlier sheet up to now, or were to come and were skipped."""
        if now is None:
            return set()
        return {self.sheets[s][n].passage for s, n in self.in_force}


def _split(rest: Sequence[QueuedBeat], now: QueuedBeat | None) -> tuple[list[QueuedBeat], list[QueuedBeat]]:
    """What is left of the running pass with the copies that follow it, and what comes after them."""
    place = 0
    while now is not None and place < len(rest) and (rest[place].run == now.run or rest[place].copy):
        place += 1
    return list(rest[:place]), list(rest[place:])


def _rests_after(beat: Beat) -> bool:
    """Whether a beat is a rest of no round."""
    return beat.kind == "rest" and beat.set is None


def _begun(sheet: Sequence[Beat], now: QueuedBeat) -> int:
    """How many beats of its pass had begun with this one."""
    return sum(beat.passage == now.beat.passage for beat in sheet[: now.number + 1])
