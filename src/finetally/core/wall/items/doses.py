"""How much of a movement: reps, seconds, metres, sets; and bare numbers that are a load."""

from __future__ import annotations

from collections.abc import Callable

from finetally.core.wall.items.item import DOSE_TOKENS, GOING, Item
from finetally.core.wall.items.qualities import joined
from finetally.core.wall.tokens.rules import Fact, Scanned
from finetally.core.wall.tokens.token import Token

LARGEST_TEMPO_S = 10
LARGEST_SPLIT = 30
"""`6 + 6` of a movement are its sides; larger numbers are doses of two."""
BARE_METRES_FROM = 100
"""`Row 500` is metres from here on: of a machine or a run nobody counts so many reps."""
LIGHTEST_WAVE_KG = 20
"""Numbers of a list behind a dose are what is lifted, from here on."""
SHORTEST_WHOLE_S = 240
"""A time behind `for` is that of all the line from here on."""
LIGHTEST_KG = 2
"""A bare number below is no load of anything."""


class DoseReader:
    """Takes the numbers of a line; what it is building is the item at hand, what is done are the items."""

    def __init__(self, scanned: Scanned, known: Callable[[str], bool] = lambda _: False) -> None:
        self._known = known
        self._scanned = scanned
        self._turn: int | None = None
        self._tokens = scanned.tokens
        self._taken = scanned.taken
        self.items: list[Item] = []
        self._item = Item()
        self._depth = 0
        self._bracket: list[Token] = []

    def _peek(self, index: int) -> str:
        if index < len(self._tokens) and not self._taken[index]:
            return self._tokens[index].kind
        return "END"

    def _close(self) -> None:
        """End the item at hand."""
        raise NotImplementedError

    def _dose(self, index: int) -> int:
        """Take the dose at `index`, with the sets in front of it; returns where to go on."""
        token, item = self._tokens[index], self._item
        nxt = self._peek(index + 1)
        in_front = self._sets_in_front(index)
        if in_front is not None:
            return in_front
        skip = 1
        if token.kind == "NUM" and nxt == "X" and self._peek(index + 2) in ("W", "ALT", "HARD", "SOFT"):
            nxt, skip = self._peek(index + 2), 2
        if self._no_dose(item, token, index):
            return index + 1
        if item.dosed:
            if self._is_length(item, token, nxt, index):
                return index + 1
            self._close()
            item = self._item
        item.after_dose = bool(item.words)
        item.before = len(item.words)
        if token.kind == "NUM":
            after = self._number(item, token, nxt, index)
            if after is not None:
                return after
        self._set_dose(item, token)
        if skip == 2 and nxt == "HARD":
            item.label = "times"
        return index + skip

    def _is_length(self, item: Item, token: Token, nxt: str, index: int) -> bool:
        """Whether a second dose of an item is a length of it and begins no other; a nameless one keeps its time."""
        if not item.words:
            item.loose_time = item.loose_time or item.seconds
        elif token.kind == "TIME" and nxt == "END" and index and self._for_so_long(index):
            return True
        elif token.kind == "TIME" and nxt in ("END", "SEP") and item.seconds is None:
            item.loose_time = token.value
            return True
        return False

    def _for_so_long(self, index: int) -> bool:
        """`10 push-ups, 10 squats for 15 minutes`: how long all of it is done."""
        seconds = self._tokens[index].value
        several = any(i.words and i.dosed for i in self.items)
        if self._tokens[index - 1].kind != "FOR" or not several or not isinstance(seconds, int):
            return False
        if seconds < SHORTEST_WHOLE_S:
            return False
        self._scanned.facts.append(Fact("forlong", {"total": seconds}, index, index))
        return True

    def _sets_in_front(self, index: int) -> int | None:
        """`3 x …`, `3 sets of …`; None where no sets stand here."""
        token, nxt = self._tokens[index], self._peek(index + 1)
        if token.kind != "NUM":
            return None
        if nxt == "X" and self._peek(index + 2) in DOSE_TOKENS | {"FAILURE", "MAX", "AMRAP"}:
            return self._sets(index, token.value)
        if nxt != "SET":
            return None
        after = index + 2
        while self._peek(after) in ("OF", "X", "FOR"):
            after += 1
        if self._peek(after) == "SEP" and self._peek(after + 1) in DOSE_TOKENS and self._peek(after + 2) == "REPS":
            # `3 sets - 10 reps`
            after += 1
        if self._peek(after) in DOSE_TOKENS | {"MAX", "FAILURE"}:
            return self._sets(index, token.value, after)
        self._begin()
        self._item.sets = int(token.value)
        return after

    def _no_dose(self, item: Item, token: Token, index: int) -> bool:
        """Numbers behind a dosed name that are its load or its tempo."""
        if token.kind in ("NUM", "PAIR") and self._is_load(index):
            first, other = token.value if token.kind == "PAIR" else (token.value, None)
            item.load = {"kg": first}
            item.other_load = None if other is None else {"kg": other}
            item.notes.append("load without a unit")
            return True
        tempo = token.kind == "LIST" and item.words and item.dosed and item.tempo is None
        listed = token.kind == "LIST" and item.sets is not None and item.dosed and item.words and item.load is None
        if listed and min(token.value) >= LIGHTEST_WAVE_KG:
            # `squat 3x5 65/75/85`
            item.load = [{"kg": one} for one in token.value]
            item.notes.append("load without a unit")
            return True
        if tempo and len(token.value) in (3, 4) and max(token.value) < LARGEST_TEMPO_S:
            item.tempo = [float(one) for one in [*token.value, 0][:4]]
            return True
        return False

    def _number(self, item: Item, token: Token, nxt: str, index: int) -> int | None:
        """A number that is more than reps: metres of a machine, a way down, two sides; else None."""
        if token.value >= BARE_METRES_FROM and joined(item.words) in GOING and nxt not in ("W", "X"):
            item.metres = token.value
            return index + 1
        if nxt == "DOWNTO" and self._peek(index + 2) == "NUM":
            item.ranged = (int(token.value), int(self._tokens[index + 2].value))
            item.reps, item.ladder = int(token.value), True
            return index + 3
        two = nxt == "PLUS" and self._peek(index + 2) == "NUM" and self._peek(index + 3) in ("W", "SIDES")
        if two and not item.words and token.value < LARGEST_SPLIT:
            if self._tokens[index + 2].value == token.value:
                item.sides = "each"
            item.reps = int(token.value)
            return index + 3
        return None

    def _begin(self) -> None:
        if self._item.words and self._item.dosed:
            self._close()

    def _sets(self, index: int, sets: float, at: int | None = None) -> int:
        self._begin()
        item = self._item
        at = index + 2 if at is None else at
        token = self._tokens[at]
        if self._peek(at) == "NUM" and self._two_loads(index, at):
            # `2 x 24` behind a dose: two bells.
            item = self.items[-1] if item.empty and self.items else item
            item.load = {"kg": token.value, "count": int(sets)}
            item.notes.append("load without a unit")
            return at + 1
        item.sets = max(1, int(sets))
        item.after_dose = bool(item.words)
        item.before = len(item.words)
        if token.kind in ("FAILURE", "MAX", "AMRAP"):
            item.failure = True
        else:
            self._set_dose(item, token)
        return at + 1

    def _two_loads(self, index: int, at: int) -> bool:
        item = self._item if not self._item.empty else (self.items[-1] if self.items else None)
        if index and self._tokens[index - 1].kind in ("PLUS", "AND", "THEN", "THENS"):
            return False
        return (
            item is not None
            and item.dosed
            and bool(item.words)
            and self._peek(at + 1) not in ("W", "SIDES", "LOAD", "AT", "NUM")
        )

    def _times(self, index: int) -> int:
        """`x 12` behind a name: its reps; behind a dose: so many sets of it."""
        item, value = self._item, self._tokens[index + 1].value
        if item.dosed:
            item.sets, item.behind = max(1, int(value)), True
            if self._peek(index + 2) in ("SET", "TIMES", "ROUND"):
                return index + 3
        else:
            item.reps, item.after_dose = int(value), True
            item.label = item.label or "times"
        return index + 2

    def _is_load(self, index: int) -> bool:
        """Whether a bare number is what is lifted: behind a name that has its dose, and nothing follows."""
        item = self._item
        value = self._tokens[index].value
        lightest = min(value) if isinstance(value, tuple) else value
        if not item.words or not item.dosed or lightest < LIGHTEST_KG:
            return False
        return self._peek(index + 1) in ("END", "SEP", "RPAR", "PLUS")

    def _set_dose(self, item: Item, token: Token) -> None:
        value = token.value
        match token.kind:
            case "NUM":
                item.reps = int(value) if float(value).is_integer() else max(1, round(value))
            case "RANGE":
                item.ranged = value
                item.reps = {"low": min(value), "high": max(value)} if value[0] != value[1] else value[0]
            case "LIST" | "GROWING":
                item.reps = list(value)
                item.ladder = token.kind == "GROWING"
            case "PAIR":
                item.pair = value
                item.reps = int(value[0])
            case "LRPAIR":
                item.reps = value[0]
                item.sides = "each"
            case "LRTIME":
                item.seconds, item.sides = value, "each"
            case "TIME" | "TIMELIST":
                item.seconds = value
                item.minutes = (
                    "m" in token.text
                    or "'" in token.text
                    or (":" in token.text and not isinstance(value, dict) and value >= 60)
                )
            case _:
                item.metres = value
