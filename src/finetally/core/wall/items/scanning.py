"""From a line to what it says, with the habits of writing that go over several of its movements."""

from __future__ import annotations

from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.items.doses import BARE_METRES_FROM
from finetally.core.wall.items.item import SOFT_WORDS, Item
from finetally.core.wall.items.items import ItemReader
from finetally.core.wall.items.names import Names, trimmed
from finetally.core.wall.items.qualities import take_dose
from finetally.core.wall.items.read import STARTING, ReadLine, longest, name_text
from finetally.core.wall.items.sharing import (
    FIRST_SHARED,
    LONG_DOSE_S,
    back_again,
    growing_for,
    ladder_words,
    load_of_all,
    repeated_window,
    rest_letters,
    rests_within,
    sets_of_all,
    sets_of_line,
    shared_doses,
)
from finetally.core.wall.parts import Dose, times
from finetally.core.wall.text.lines import Line
from finetally.core.wall.tokens.habits import HABITS
from finetally.core.wall.tokens.rules import Fact, Scanned, scan
from finetally.core.wall.tokens.token import Token
from finetally.core.wall.tokens.tokens import tokens_of


class LineScanner:
    """Makes of each line what it says; remembers the last length of a lane, for lines that only count lengths."""

    def __init__(self, names: Names, assumed: Assumptions) -> None:
        self._names = names
        self._assumed = assumed
        self._length: Dose | None = None

    def scan(self, line: Line) -> ReadLine:
        """A line with what it says: its facts, and its movements with their doses."""
        if line.style == "note":
            return ReadLine(line, Scanned([]), [])
        tokens = tokens_of(line.low)
        for habit in HABITS:
            tokens = habit(tokens)
        scanned = scan(tokens)
        only_a_number(scanned)
        items = ItemReader(scanned, lambda words: self._names.known(words) is not None).read()
        rest_letters(scanned, items)
        self._heading_counts(items)
        self._listed_metres(items, line)
        for share in FIRST_SHARED:
            share(scanned, items)
        for item in items:
            ladder_words(item)
            self._bare_metres(item, line)
        self._line_lengths(scanned, items)
        self._track_laps(scanned, items, line)
        repeated_window(scanned, items)
        shared_doses(items)
        back_again(scanned, items)
        self._either(items, line)
        self._sets_of_all(scanned, items, line)
        growing_for(scanned, items)
        load_of_all(scanned, items)
        self._times_of_all(scanned, items, line)
        self._sets_of_line(scanned, items, line)
        each = next((f.value["n"] for f in scanned.facts if f.kind == "repseach"), None)
        for item in items:
            if each is not None and item.words and not item.dosed:
                item.reps = each
        rests_within(scanned, items)
        for item in items:
            item.row = line.number
        return ReadLine(line, scanned, items)

    def _heading_counts(self, items: list[Item]) -> None:
        """`Pull-up ladder: 1-2-3 x 3`: the heading names what the numbers count."""
        if len(items) < 2 or items[0].label != "heading" or items[0].dosed or items[1].words:
            return
        words = [t for t in items[0].words if t.kind != "LADDER"]
        ladder = len(words) < len(items[0].words)
        if ladder and words and items[1].dosed and self._names.known(" ".join(t.text for t in words)):
            items[1].words = words
            items.pop(0)

    def _listed_metres(self, items: list[Item], line: Line) -> None:
        """`Track: 400-300-200-100`: large numbers of nothing in particular are metres that are run."""
        if len(items) != 2 or items[0].label != "heading" or items[0].dosed or items[1].words:
            return
        reps = items[1].reps
        if not isinstance(reps, list) or min(reps) < BARE_METRES_FROM:
            return
        items[1].metres, items[1].reps = reps, None
        self._bare_metres(items[1], line)

    def _sets_of_all(self, scanned: Scanned, items: list[Item], line: Line) -> None:
        """`3 sets of 12: leg press, leg curl`: the sets of every one, one by one or round by round."""
        if not sets_of_all(scanned, items, lambda words: self._names.known(words) is not None):
            return
        said = ["one a window", "all windows of one, then of the next"]
        each = items[0].seconds is not None and items[0].sets == len(items)
        if each and self._assumed.pick("window-each", line.number, line.text, said) == 0:
            for item in items:
                item.sets = None
            return
        said = ["all sets of one, then of the next", "round by round"]
        if self._assumed.pick("sets-order", line.number, line.text, said) == 1:
            scanned.facts.append(Fact("rounds", {"n": items[0].sets}, 0, 0))
            for item in items:
                item.sets = None

    def _bare_metres(self, item: Item, line: Line) -> None:
        """Metres of nothing in particular are run."""
        if item.metres is None or trimmed([t.text for t in item.words if t.kind not in ("HARD", "SOFT")]):
            return
        how = [t.text for t in item.words]
        item.notes.extend(how)
        item.words = [Token("W", "run", "run", item.first, item.first)]
        self._assumed.pick("bare-metres", line.number, line.text, ["run"])

    def _line_lengths(self, scanned: Scanned, items: list[Item]) -> None:
        """`3 lengths jog back`: as many lengths as are told, of the length that was told last."""
        count = next((f.value["n"] for f in scanned.facts if f.kind == "lengths"), None)
        if count is None:
            return
        scanned.facts = [f for f in scanned.facts if f.kind != "lengths"]
        for item in items:
            if item.metres is not None:
                self._length = item.metres
            if item.words and isinstance(self._length, int | float) and (item.metres is not None or not item.dosed):
                item.metres = times(count, self._length)

    def _either(self, items: list[Item], line: Line) -> None:
        """`200 double-unders or 400 singles`: the first is planned."""
        for at in range(len(items) - 1, 0, -1):
            other, first = items[at], items[at - 1]
            if not other.either or not other.words or not first.words:
                continue
            texts = [" ".join(t.text for t in i.words) for i in (first, other)]
            if not other.dosed:
                take_dose(other, first)
            picked = self._assumed.pick("either", line.number, line.text, texts)
            kept, gone = (first, other) if picked == 0 else (other, first)
            kept.notes.append(f"or {' '.join(t.text for t in gone.words)}")
            items.remove(gone)

    def _times_of_all(self, scanned: Scanned, items: list[Item], line: Line) -> None:
        """`1 deadlift + 1 clean x 6`, `10 squats, 10 push-ups x 3`: rounds of the line, or sets of its last."""
        if len(items) < 2 or not items[-1].behind or scanned.has(*STARTING):
            return
        if any(not i.dosed or not i.words or (i.sets is not None) != (i is items[-1]) for i in items):
            return
        complex_ = all(i.joined for i in items[1:])
        soft = len(items) == 2 and any(t.text in SOFT_WORDS or t.kind == "SOFT" for t in items[1].words)
        if (
            not complex_
            and not soft
            and any(i.seconds is not None and longest(i.seconds) >= LONG_DOSE_S for i in items)
        ):
            return
        said = [f"{items[-1].sets} rounds of the line", f"{items[-1].sets} sets of the last"]
        if complex_ or soft or self._assumed.pick("times-behind", line.number, line.text, said) == 0:
            scanned.facts.append(Fact("rounds", {"n": items[-1].sets}, 0, 0))
            items[-1].sets = None

    def _sets_of_line(self, scanned: Scanned, items: list[Item], line: Line) -> None:
        """`3 x 10 squats, 10 push-ups`: rounds of the line, or sets of its first."""
        found = sets_of_line(scanned, items)
        if not found:
            return
        first = next(i for i in items if i.sets is not None)
        said = [f"{first.sets} rounds of the line", f"{first.sets} sets of the first"]
        if found == "all" or self._assumed.pick("sets-of-line", line.number, line.text, said) == 0:
            scanned.facts.append(Fact("rounds", {"n": first.sets}, 0, 0))
            first.sets = None

    def _track_laps(self, scanned: Scanned, items: list[Item], line: Line) -> None:
        """`2 laps jog`: round a track, where it says no more."""
        laps = next((f for f in scanned.facts if f.kind == "laps"), None)
        named = [i for i in items if i.words]
        if laps is None or len(named) != 1 or named[0].dosed or name_text(named[0]).split()[-1:] not in ON_TRACK:
            return
        length = LAP_M[self._assumed.pick("lap-length", line.number, line.text, [f"a lap of {m} m" for m in LAP_M])]
        named[0].metres = times(laps.value["n"] or 1, length)
        scanned.facts.remove(laps)


LAP_M = (400, 200)
"""Metres of a lap that is only called so: a track's, or a small field's."""
ON_TRACK = (["jog"], ["run"], ["walk"], ["jogging"], ["running"], ["walking"])


def only_a_number(scanned: Scanned) -> None:
    """A line `x 3`, `3 x` or `3 sets:` and no more: so many rounds."""
    kinds = [t.kind for t in scanned.tokens]
    if kinds not in (["X", "NUM"], ["NUM", "X"]) and [k for k in kinds if k not in ("SEP", "OF")] not in (
        ["NUM", "SET"],
        ["NUM", "TIMES"],
    ):
        return
    number = next(t for t in scanned.tokens if t.kind == "NUM")
    scanned.facts.append(Fact("rounds", {"n": max(1, int(number.value))}, 0, 1))
    scanned.taken = [True] * len(scanned.tokens)
