"""Words that say something about a movement instead of naming one: each, for time, at a pace, in brackets."""

from __future__ import annotations

from collections.abc import Callable

from finetally.core.wall.items.doses import DoseReader
from finetally.core.wall.items.item import DOSE_TOKENS, Item
from finetally.core.wall.items.qualities import (
    QUALITY_READERS,
    joined,
    read_bracket,
)
from finetally.core.wall.tokens.token import Token
from finetally.core.wall.tokens.words import FILLER


class AsideReader(DoseReader):
    """Takes what is said beside movements, and gives it to the item at hand or the one before it."""

    def _end(self, index: int) -> int:
        """Take a sign that ends a movement; returns where to go on."""
        raise NotImplementedError

    def _last(self) -> Item | None:
        """The item that a quality belongs to: this one, or the one before it if this has nothing yet."""
        if not self._item.empty:
            return self._item
        return self.items[-1] if self.items else None

    def _here(self) -> Item:
        """The item that something belongs to: this one, or the one before it if this has nothing yet."""
        return self._last() or self._item

    def _said_about(self, index: int, kind: str) -> int | None:
        """Words that say something about a movement instead of naming one; None if these do not."""
        reader = SAYERS.get(kind)
        return None if reader is None else reader(self, index, self._peek(index + 1))

    def _on_parity(self, index: int, following: str) -> int | None:
        return index + 1 if self._parity(self._tokens[index].kind, following) else None

    def _on_each(self, index: int, following: str) -> int:
        last = self._last()
        if last is not None and last.dosed and self._tokens[index - 1].kind in ("NUM", "RANGE", "DIST", "LOAD"):
            last.each_word = True
        return index + 1

    def _on_people(self, index: int, following: str) -> int:
        self._item = Item()
        return index + 1

    def _on_times(self, index: int, following: str) -> int | None:
        return self._times(index) if following == "NUM" and not self._item.empty else None

    def _on_number(self, index: int, following: str) -> int | None:
        if following != "TANK":
            return None
        here = self._here()
        here.reserve = int(self._tokens[index].value)
        here.notes.append(f"{self._tokens[index].text} {self._tokens[index + 1].text}")
        return index + 2

    def _on_after_each(self, index: int, following: str) -> int | None:
        return index + 2 if following in ("SET", "ROUND") else None

    def _on_calories(self, index: int, following: str) -> int:
        self._here().cal = True
        return index + 1

    def _on_or(self, index: int, following: str) -> int | None:
        if not self._item.words:
            return None
        self._close()
        self._item.either = True
        return index + 1

    def _on_cash_out(self, index: int, following: str) -> int:
        self._close()
        self._item.cash = True
        return index + 1

    def _on_remaining(self, index: int, following: str) -> int:
        self._item.fill = True
        return index + 1

    def _on_finish(self, index: int, following: str) -> int:
        self._here().finish = True
        return index + 1

    def _on_failure(self, index: int, following: str) -> int:
        self._item.failure = True
        return index + 1

    def _on_many(self, index: int, following: str) -> int | None:
        return self._on_failure(index, following) if not self._item.words or following != "W" else None

    def _on_at(self, index: int, following: str) -> int | None:
        item = self._item
        if following != "TIME" or not isinstance(item.metres, int | float):
            return None
        time = self._tokens[index + 1]
        if index + 2 < len(self._tokens) and self._tokens[index + 2].text == "pace":
            # `row 250 m @ 1:50 pace`: of 500 m on a machine, of a kilometre on foot.
            machine = any(t.text in ("row", "rower", "ski", "erg") for t in item.words)
            item.pace = time.value / (500 if machine else 1000)
            item.notes.append(f"@ {time.text} pace")
            return index + 3
        # `4 x 400 m @ 90 s`: how long each takes.
        item.pace = time.value / item.metres
        item.notes.append(f"@ {time.text}")
        return index + 2

    def _on_stay(self, index: int, following: str) -> int | None:
        if following != "TIME":
            return None
        seconds = self._tokens[index + 1].value
        if self._item.empty and self.items and not self.items[-1].dosed:
            # `Deadlift, build to a heavy 3 in 15 min`
            self.items[-1].seconds, self.items[-1].minutes = seconds, True
            return index + 2
        if self._item.words:
            self._item.in_window, self._item.seconds = True, seconds
            return index + 2
        return None

    def _parity(self, kind: str, following: str) -> bool:
        """`odd: 5 burpees`, `5 burpees odd`: whose starts those are."""
        turn, named = 1 if kind == "ODD" else 2, bool(self._item.words)
        if following in DOSE_TOKENS or not (self._item.dosed or named):
            self._close()
            self._turn = turn
            return True
        if self._item.dosed and named and following in ("END", "SEP"):
            self._turn = turn
            self._close()
            self._turn = None
            return True
        return False

    def _added(self, index: int) -> int:
        """`add 2.5 kg each set`: a note, no load."""
        at = index + 1
        while self._peek(at) in ("LOAD", "EACH", "PER", "EVERY", "SET", "ROUND", "NUM", "W", "REPS"):
            at += 1
        self._here().notes.append(" ".join(t.text for t in self._tokens[index:at]))
        return at

    def _with(self, index: int) -> int:
        """`w/ 2 DBs`, `with band`: kit, as long as words follow."""
        if all(one.kind == "START" or one.text in FILLER for one in self._item.words) and not self._item.dosed:
            return index + 1
        following = []
        at = index + 1
        while self._peek(at) == "W":
            following.append(self._tokens[at])
            at += 1
        count_at = self._peek(index + 1) == "NUM" and self._peek(index + 2) == "W"
        if count_at and self._item.dosed and self._named_behind(index + 2):
            # `50 sit-ups with 10 push-ups after each`
            return self._end(index)
        if following and self._known(f"{joined(self._item.words)} with {joined(following)}"):
            self._item.words.extend(
                [Token("W", "with", "with", self._tokens[index].start, self._tokens[index].end), *following]
            )
            return at
        at, count = index + 1, None
        if self._peek(at) == "NUM" and self._peek(at + 1) == "W":
            count = self._tokens[at].value
            at += 1
        article = 1 if self._peek(at) == "W" and self._tokens[at].text in ("a", "one") else 0
        if self._peek(at + article) == "LOAD" and self._peek(at + article + 1) == "W":
            # `with a 20 kg bell`
            QUALITY_READERS["LOAD"](self._here(), self._tokens[at + article])
            at += article + 1
        words: list[str] = []
        while self._peek(at) in ("W", "OF"):
            words.append(self._tokens[at].text)
            at += 1
        item = self._here()
        if words:
            item.kit.extend(words)
            item.notes.append(" ".join(("with", *([str(count)] if count else []), *words)))
        return at

    def _named_behind(self, at: int) -> bool:
        """Whether a movement's name begins at a token."""
        words: list[str] = []
        while self._peek(at) == "W" and len(words) < 4:
            words.append(self._tokens[at].text)
            at += 1
        return any(self._known(" ".join(words[:n])) for n in range(1, len(words) + 1))

    def _brackets(self, index: int) -> int:
        """A bracket: a split of the dose, a load, sides, or words that are kept as a note."""
        at, inside = index + 1, []
        while at < len(self._tokens) and self._tokens[at].kind != "RPAR":
            if not self._taken[at]:
                inside.append(self._tokens[at])
            at += 1
        item = self._last()
        if item is None and inside and self._known(joined(inside)):
            # `4 x 4 min hard / 3 min easy (row)`
            self.items.append(Item(words=inside, first=inside[0].start))
        if item is not None and inside:
            read_bracket(item, inside)
            if any(t.text.startswith("all") for t in inside) and item.sides == "each":
                for other in self.items:
                    other.sides = other.sides or "each"
        return at + 1


SAYERS: dict[str, Callable[[AsideReader, int, str], int | None]] = {
    "LPAR": lambda reader, index, _: reader._brackets(index),
    "ODD": AsideReader._on_parity,
    "EVEN": AsideReader._on_parity,
    "ADD": lambda reader, index, _: reader._added(index),
    "EACH": AsideReader._on_each,
    "PEOPLE": AsideReader._on_people,
    "X": AsideReader._on_times,
    "NUM": AsideReader._on_number,
    "AFTEREACH": AsideReader._on_after_each,
    "CAL": AsideReader._on_calories,
    "OR": AsideReader._on_or,
    "CASHOUT": AsideReader._on_cash_out,
    "REMAINING": AsideReader._on_remaining,
    "FINISH": AsideReader._on_finish,
    "WITH": lambda reader, index, _: reader._with(index),
    "FAILURE": AsideReader._on_failure,
    "MAX": AsideReader._on_many,
    "ASMANY": AsideReader._on_many,
    "AMRAP": AsideReader._on_many,
    "AT": AsideReader._on_at,
    "STAY": AsideReader._on_stay,
}
"""By a token's kind: who takes words that say something about a movement; handed where they stand, what follows."""
