"""Movements on a line: each with its dose, and what goes with it."""

from __future__ import annotations

from finetally.core.wall.items.asides import AsideReader
from finetally.core.wall.items.item import DOSE_TOKENS, GOING, HALF_NAMES, NAMING, Item
from finetally.core.wall.items.qualities import (
    QUALITY_READERS,
    joined,
    one_side,
    take_dose,
    trimmed_words,
)
from finetally.core.wall.parts import whole
from finetally.core.wall.tokens.rules import ENDS
from finetally.core.wall.tokens.token import Token
from finetally.core.wall.tokens.words import FILLER


class ItemReader(AsideReader):
    """Goes through the tokens of a line that say no fact, and makes items of them."""

    def read(self) -> list[Item]:
        """The items of the line."""
        index = 0
        many = {f.last: f for f in self._scanned.facts if f.kind == "manyreps"}
        while index < len(self._tokens):
            if self._taken[index]:
                self._close()
                if index in many:
                    self._item.sets, self._item.failure = whole(many[index].value["sets"]), True
                index += 1
                continue
            index = self._one(index)
        self._close()
        return self.items

    def _close(self) -> None:
        item, self._item = self._item, Item()
        if item.empty:
            return
        item.turn = self._turn
        how = [t for t in item.words if t.kind == "HARD" and " " in t.text]
        if how and len(how) < len(item.words):
            # `max distance row`: how it is done, no part of its name.
            item.words = [t for t in item.words if t not in how]
            item.before = min(item.before, len(item.words))
            item.notes.extend(t.text for t in how)
            if any("effort" in t.text for t in how):
                if item.label == "times" and item.sets is None:
                    # `3 x max effort plank`
                    item.sets, item.reps = whole(item.reps), None
                item.failure = item.failure or not item.dosed
        self._choose_words(item)
        one_side(item)
        last = self.items[-1] if self.items else None
        if (
            not item.words
            and item.dosed
            and last is not None
            and last.words
            and not last.dosed
            and last.label != "heading"
        ):
            # `hip hinge, 15`: the dose stands behind, apart.
            take_dose(last, item)
            return
        if (
            not item.words
            and not item.dosed
            and last is not None
            and last.words
            and (item.load is not None or item.sides)
        ):
            last.load = last.load or item.load
            last.sides = last.sides or item.sides
            return
        if self._sets_behind(item):
            return
        two = self._two_names(item) if item.words and not item.before else None
        if two is not None:
            self.items.extend(two)
            return
        self.items.append(item)

    def _sets_behind(self, item: Item) -> bool:
        """`squats, 12 reps, 4 sets`: sets told apart behind the one movement of a line."""
        if item.words or item.dosed or item.sets is None or len(self.items) != 1:
            return False
        only = self.items[0]
        if not only.words or not only.dosed or only.sets is not None:
            return False
        if self._scanned.has("every", "amrap", "windows", "each", "rounds"):
            return False
        only.sets = item.sets
        return True

    def _choose_words(self, item: Item) -> None:
        """Words before and behind a dose: the name is what is known, or what stands behind; the rest is a note."""
        if not 0 < item.before < len(item.words):
            return
        front, back = item.words[: item.before], item.words[item.before :]
        if self._known(joined(front)) and not self._known(joined(back)):
            item.words, rest = front, back
        elif trimmed_words(back):
            item.words, rest = back, front
            item.after_dose = False
        else:
            item.words, rest = front, back
        words = joined(rest)
        if words and words not in FILLER:
            item.notes.append(words)
        item.before = 0

    def _two_names(self, item: Item) -> list[Item] | None:
        """`2 min walk hamstring stretch`: two known names side by side, the dose with the first."""
        if (item.seconds is None and item.metres is None) or len(item.words) < 2 or self._known(joined(item.words)):
            return None
        for cut in range(1, len(item.words)):
            front, back = item.words[:cut], item.words[cut:]
            if joined(front) in GOING and self._known(joined(back)):
                second = Item(words=back, first=back[0].start)
                item.words = front
                return [item, second]
        return None

    def _one(self, index: int) -> int:
        """Take the token at `index`; returns where to go on."""
        token = self._tokens[index]
        after = self._said_about(index, token.kind)
        if after is not None:
            return after
        kind = token.kind
        if kind in ENDS:
            return self._end(index)
        if kind in DOSE_TOKENS:
            return self._dose(index)
        if kind in QUALITY_READERS:
            QUALITY_READERS[kind](self._here(), token)
            return index + 1
        if kind in NAMING and kind != "MINUTE":
            self._word(token)
        return index + 1

    def _end(self, index: int) -> int:
        """A comma, a plus, a colon: the movement before it is told, or was the heading of what follows."""
        kind = self._tokens[index].kind
        item, last = self._item, self._peek(index + 1) == "END"
        if kind == "AND" and self._joined_name(index):
            item.words.append(self._tokens[index])
            return index + 1
        known = bool(item.words) and self._known(joined(item.words))
        if kind == "COLON" and item.failure and item.seconds is not None and not item.words:
            # `60 s max reps: squats`
            return index + 1
        if (
            kind == "COLON"
            and not item.dosed
            and (known or (item.words and item.load is not None))
            and self._peek(index + (2 if self._peek(index + 1) == "OF" else 1)) in DOSE_TOKENS
        ):
            return index + 1
        heading = kind == "COLON" and bool(item.words) and not item.dosed
        if kind == "COLON" and item.words and item.seconds is not None and not item.sets and not last:
            heading = not known
        timed = kind == "COLON" and not item.words and item.seconds is not None and not last
        self._close()
        if timed and self.items and self.items[-1].words and self.items[-1].sets is None:
            heading = self.items[-1].seconds is not None and not self._known(joined(self.items[-1].words))
        if heading and self.items:
            self.items[-1].label = "heading"
        self._item.joined = kind in ("PLUS", "AND") and bool(self.items)
        return index + 1

    def _joined_name(self, index: int) -> bool:
        """Whether `and` belongs to a name: `clean and press`, `up and over`."""
        at = index + 1
        words: list[str] = []
        while self._peek(at) == "W" and len(words) < 4:
            words.append(self._tokens[at].text)
            at += 1
        if not self._item.words or not words or self._tokens[index].text not in ("and", "&"):
            return False
        front = joined(self._item.words)
        whole = any(self._known(f"{front} and {' '.join(words[:n])}") for n in range(1, len(words) + 1))
        return whole or self._item.words[-1].text in HALF_NAMES

    def _word(self, token: Token) -> None:
        item = self._item
        going = token.text in ("walk", "jog") and item.before and len(item.words) == item.before
        if going and item.sets is not None and self._known(joined(item.words)):
            # `hill sprints 8 x 20 s walk back 60 s`: what is done in between.
            self._close()
            item = self._item
        if not item.words:
            item.first = token.start
        item.words.append(token)
