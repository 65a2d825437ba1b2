"""Movements on a line: each with its dose, and what goes with it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from finetally.core.session.values import POUND_KG
from finetally.core.wall.rules import Scanned
from finetally.core.wall.tokens import Token
from finetally.core.wall.words import FILLER

LADDER_RATIO = 2.5
"""A range of reps goes up to so many times its low end; what goes further is more likely a ladder."""


@dataclass(slots=True)
class Item:
    """One movement as it is written: its words and where they stand (columns from 0), its dose, its qualities."""

    words: list[Token] = field(default_factory=list)
    reps: Any = None
    seconds: Any = None
    metres: Any = None
    sets: Any = None
    sides: str | None = None
    shared: bool = False
    load: Any = None
    other_load: Any = None
    other_reps: Any = None
    kit: list[str] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    tempo: list[float] | None = None
    reserve: int | None = None
    rpe: float | None = None
    failure: bool = False
    double: int = 1
    fill: bool = False
    easy: bool = False
    ladder: bool = False
    pace_times: Any = None
    turn: int | None = None
    letter: str = ""
    after_dose: bool = False
    loose_time: Any = None
    pair: tuple[float, float] | None = None
    ranged: tuple[int, int] | None = None
    first: int = 0
    joined: bool = False
    row: int = 0
    label: str = ""
    minutes: bool = False
    rest_after: Any = None
    rest_turn: bool = False
    before: int = 0
    finish: bool = False
    in_window: bool = False
    each_word: bool = False

    @property
    def dosed(self) -> bool:
        """Whether a dose is written."""
        return self.failure or any(v is not None for v in (self.reps, self.seconds, self.metres))

    @property
    def empty(self) -> bool:
        """Whether nothing is written at all."""
        return not self.words and not self.dosed and self.load is None and self.sets is None


SOFT_WORDS = frozenset({"walk", "jog", "off", "walking", "jogging"})
"""What is done between sets, in a bracket behind them."""

HALF_NAMES = frozenset({"up", "over", "out", "clean", "step", "stand"})
"""Words that go on behind an `and`: `step up and over`."""

GOING = frozenset({"walk", "jog", "run", "row", "bike", "ski", "march", "skip", "skipping", "ride", "swim"})
"""What stands before another movement without a comma: `2 min walk hamstring stretch 30 s`."""

NAMING = frozenset({"W", "HARD", "ALT", "MAX", "SOFT", "WORK", "START", "LEFT", "RIGHT", "MINUTE", "LADDER", "STATION", "R",
                    "CIRCUIT", "MOVE", "OVER", "THROUGH", "BWLOAD", "PAIRS", "ON", "OFF", "ODD", "EVEN", "TIMES", "TOTAL",
                    "LENGTH", "LAP", "ORDINAL", "TO", "ADD", "BUYIN", "BACKDOWN", "REST", "SUPERSET", "SET", "NO", "STAY", "DASH", "EVERY"})  # fmt: skip
"""Kinds of words that may be part of a name when nothing else was made of them."""

ENDS = frozenset({"SEP", "PLUS", "THEN", "THENS", "COLON", "ARROW", "AND", "SLASH"})
DOSES = frozenset({"NUM", "RANGE", "LIST", "GROWING", "PAIR", "LRPAIR", "TIME", "TIMELIST", "DIST", "DISTLIST"})


class ItemReader:
    """Goes through the tokens of a line that say no fact, and makes items of them."""

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

    def read(self) -> list[Item]:
        """The items of the line."""
        index = 0
        many = {f.last: f for f in self._scanned.facts if f.kind == "manyreps"}
        while index < len(self._tokens):
            if self._taken[index]:
                self._close()
                if index in many:
                    self._item.sets, self._item.failure = many[index].value["sets"], True
                index += 1
                continue
            index = self._one(index)
        self._close()
        return self.items

    def _peek(self, index: int) -> str:
        if index < len(self._tokens) and not self._taken[index]:
            return self._tokens[index].kind
        return "END"

    def _close(self) -> None:
        item, self._item = self._item, Item()
        if item.empty:
            return
        item.turn = self._turn
        self._choose_words(item)
        _one_side(item)
        last = self.items[-1] if self.items else None
        if not item.words and item.dosed and last is not None and last.words and not last.dosed and last.label != "heading":
            # `hip hinge, 15`: the dose stands behind, apart.
            take_dose(last, item)
            return
        if not item.words and not item.dosed and last is not None and last.words and (item.load is not None or item.sides):
            last.load = last.load or item.load
            last.sides = last.sides or item.sides
            return
        two = self._two_names(item) if item.words and not item.before else None
        if two is not None:
            self.items.extend(two)
            return
        self.items.append(item)

    def _choose_words(self, item: Item) -> None:
        """Words before and behind a dose: the name is what is known, or what stands behind; the rest is a note."""
        if not 0 < item.before < len(item.words):
            return
        front, back = item.words[: item.before], item.words[item.before :]
        if self._known(_joined(front)) and not self._known(_joined(back)):
            item.words, rest = front, back
        elif trimmed_words(back):
            item.words, rest = back, front
            item.after_dose = False
        else:
            item.words, rest = front, back
        words = _joined(rest)
        if words and words not in FILLER:
            item.notes.append(words)
        item.before = 0

    def _two_names(self, item: Item) -> list[Item] | None:
        """`2 min walk hamstring stretch`: two known names side by side, the dose with the first."""
        if (item.seconds is None and item.metres is None) or len(item.words) < 2 or self._known(_joined(item.words)):
            return None
        for cut in range(1, len(item.words)):
            front, back = item.words[:cut], item.words[cut:]
            if _joined(front) in GOING and self._known(_joined(back)):
                second = Item(words=back, first=back[0].start)
                item.words = front
                return [item, second]
        return None

    def _last(self) -> Item | None:
        """The item that a quality belongs to: this one, or the one before it if this has nothing yet."""
        if not self._item.empty:
            return self._item
        return self.items[-1] if self.items else None

    def _one(self, index: int) -> int:
        token = self._tokens[index]
        kind = token.kind
        if kind == "LPAR":
            return self._brackets(index)
        if kind in ("ODD", "EVEN") and not self._item.dosed | bool(self._item.words) or kind in ("ODD", "EVEN") and self._peek(index + 1) in DOSES:
            self._close()
            self._turn = 1 if kind == "ODD" else 2
            return index + 1
        if kind == "ADD":
            at = index + 1
            while self._peek(at) in ("LOAD", "EACH", "PER", "EVERY", "SET", "ROUND", "NUM", "W", "REPS", "A"):
                at += 1
            item = self._last() or self._item
            item.notes.append(" ".join(t.text for t in self._tokens[index:at]))
            return at
        if kind == "EACH":
            item = self._last()
            if item is not None and self._tokens[index - 1].kind in ("NUM", "RANGE", "DIST", "LOAD") and item.dosed:
                item.each_word = True
            return index + 1
        if kind == "PEOPLE":
            self._item = Item()
            return index + 1
        if kind == "X" and self._peek(index + 1) == "NUM" and not self._item.empty:
            return self._times(index)
        if kind in ENDS:
            joins = kind in ("PLUS", "AND")
            if kind == "AND" and self._joined_name(index):
                self._item.words.append(token)
                return index + 1
            if kind == "COLON" and not self._item.dosed and self._peek(index + 1) in DOSES and self._known(_joined(self._item.words)):
                return index + 1
            item = self._item
            heading = kind == "COLON" and bool(item.words) and not item.sets and self._peek(index + 1) != "END"
            heading = heading and (not item.dosed or item.seconds is not None and not self._known(_joined(item.words)))
            heading = heading or kind == "COLON" and bool(item.words) and not item.dosed
            timed = kind == "COLON" and not item.words and item.seconds is not None and self._peek(index + 1) != "END"
            self._close()
            if timed and self.items and self.items[-1].words and self.items[-1].sets is None:
                heading = self.items[-1].seconds is not None and not self._known(_joined(self.items[-1].words))
            if heading and self.items:
                self.items[-1].label = "heading"
            self._item.joined = joins and bool(self.items)
            return index + 1
        if kind == "NUM" and self._peek(index + 1) == "TANK":
            item = self._last() or self._item
            item.reserve = int(token.value)
            item.notes.append(f"{token.text} {self._tokens[index + 1].text}")
            return index + 2
        if kind in DOSES:
            return self._dose(index)
        if kind in QUALITIES:
            item = self._last()
            if item is None:
                item = self._item
            QUALITIES[kind](item, token)
            return index + 1
        if kind == "FINISH":
            item = self._last() or self._item
            item.finish = True
            return index + 1
        if kind == "WITH":
            return self._with(index)
        if kind == "FAILURE" or (kind in ("MAX", "ASMANY", "AMRAP") and (not self._item.words or self._peek(index + 1) != "W")):
            self._item.failure = True
            return index + 1
        if kind == "STAY" and self._peek(index + 1) == "TIME" and self._item.words:
            self._item.in_window = True
            self._item.seconds = self._tokens[index + 1].value
            return index + 2
        if kind == "MINUTE" or kind not in NAMING:
            return index + 1
        self._word(token)
        return index + 1

    def _joined_name(self, index: int) -> bool:
        """Whether `and` belongs to a name: `clean and press`, `up and over`."""
        at, words = index + 1, []
        while self._peek(at) == "W" and len(words) < 4:
            words.append(self._tokens[at].text)
            at += 1
        if not self._item.words or not words or self._tokens[index].text not in ("and", "&"):
            return False
        front = _joined(self._item.words)
        whole = any(self._known(f"{front} and {' '.join(words[:n])}") for n in range(1, len(words) + 1))
        return whole or self._item.words[-1].text in HALF_NAMES

    def _word(self, token: Token) -> None:
        item = self._item
        if not item.words:
            item.first = token.start
        item.words.append(token)

    # Doses
    def _dose(self, index: int) -> int:
        token = self._tokens[index]
        item = self._item
        nxt = self._peek(index + 1)
        if token.kind == "NUM" and nxt == "X" and self._peek(index + 2) in DOSES | {"FAILURE", "MAX", "AMRAP"}:
            return self._sets(index, token.value)
        if token.kind == "NUM" and nxt == "SET":
            after = index + 2
            while self._peek(after) in ("OF", "X", "FOR"):
                after += 1
            if self._peek(after) in DOSES | {"MAX", "FAILURE"}:
                return self._sets(index, token.value, after)
            self._begin()
            self._item.sets = int(token.value)
            return after
        if token.kind == "NUM" and nxt == "X" and self._peek(index + 2) in ("W", "ALT", "HARD", "SOFT"):
            nxt, skip = self._peek(index + 2), 2
        else:
            skip = 1
        if token.kind == "NUM" and self._is_load(index):
            item.load = {"kg": token.value}
            item.notes.append("load without a unit")
            return index + 1
        if token.kind == "LIST" and item.words and item.dosed and len(token.value) in (3, 4) and item.tempo is None and max(token.value) < 10:
            item.tempo = [float(one) for one in [*token.value, 0][:4]]
            return index + 1
        if item.words and item.dosed or (item.dosed and not item.words):
            if not item.words:
                item.loose_time = item.loose_time or item.seconds
            elif token.kind == "TIME" and nxt in ("END", "SEP") and item.seconds is None:
                item.loose_time = token.value
                return index + 1
            self._close()
            item = self._item
        item.after_dose = bool(item.words)
        item.before = len(item.words)
        if token.kind == "NUM" and nxt == "DOWNTO" and self._peek(index + 2) == "NUM":
            item.ranged = (int(token.value), int(self._tokens[index + 2].value))
            item.reps, item.ladder = int(token.value), True
            return index + 3
        if token.kind == "NUM" and nxt == "PLUS" and self._peek(index + 2) == "NUM" and self._peek(index + 3) in ("W", "SIDES"):
            if self._tokens[index + 2].value == token.value:
                item.sides = "each"
            item.reps = int(token.value)
            return index + 3
        self._set_dose(item, token)
        return index + skip

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
        return item is not None and item.dosed and bool(item.words) and self._peek(at + 1) not in ("W", "SIDES")

    def _times(self, index: int) -> int:
        """`x 12` behind a name: its reps; behind a dose: so many sets of it."""
        item, value = self._item, self._tokens[index + 1].value
        if item.dosed:
            item.sets = max(1, int(value))
        else:
            item.reps, item.after_dose = int(value), True
            item.label = item.label or "times"
        return index + 2

    def _is_load(self, index: int) -> bool:
        """Whether a bare number is what is lifted: behind a name that has its dose, and nothing follows."""
        item = self._item
        if not item.words or not item.dosed or self._tokens[index].value < 2:
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
            case "TIME" | "TIMELIST":
                item.seconds = value
                item.minutes = "m" in token.text or "'" in token.text or (":" in token.text and not isinstance(value, dict) and value >= 60)
            case _:
                item.metres = value

    # What goes with it
    def _with(self, index: int) -> int:
        """`w/ 2 DBs`, `with band`: kit, as long as words follow."""
        if all(one.kind == "START" or one.text in FILLER for one in self._item.words) and not self._item.dosed:
            return index + 1
        following = []
        at = index + 1
        while self._peek(at) == "W":
            following.append(self._tokens[at])
            at += 1
        if following and self._known(f"{_joined(self._item.words)} with {_joined(following)}"):
            self._item.words.extend([Token("W", "with", "with", self._tokens[index].start, self._tokens[index].end), *following])
            return at
        at, count = index + 1, None
        if self._peek(at) == "NUM" and self._peek(at + 1) == "W":
            count = self._tokens[at].value
            at += 1
        words = []
        while self._peek(at) in ("W", "OF"):
            words.append(self._tokens[at].text)
            at += 1
        item = self._last() or self._item
        if words:
            item.kit.extend(words)
            item.notes.append(" ".join(("with", *([str(count)] if count else []), *words)))
        return at

    def _brackets(self, index: int) -> int:
        """A bracket: a split of the dose, a load, sides, or words that are kept as a note."""
        at, inside = index + 1, []
        while at < len(self._tokens) and self._tokens[at].kind != "RPAR":
            if not self._taken[at]:
                inside.append(self._tokens[at])
            at += 1
        item = self._last()
        if item is not None and inside:
            _bracket(item, inside)
            if any(t.text.startswith("all") for t in inside) and item.sides == "each":
                for other in self.items:
                    other.sides = other.sides or "each"
        return at + 1


def _joined(words: list[Token]) -> str:
    return " ".join(t.text for t in words)


def trimmed_words(words: list[Token]) -> list[Token]:
    """The words that are no filler."""
    return [t for t in words if t.text not in FILLER]


def take_dose(item: Item, dose: Item) -> None:
    """Give an item the dose of another one that has no words."""
    for name in ("reps", "seconds", "metres", "sets", "load", "other_load", "pair", "ranged", "tempo", "reserve", "loose_time"):
        if getattr(item, name) is None:
            setattr(item, name, getattr(dose, name))
    item.failure, item.minutes, item.ladder = item.failure or dose.failure, dose.minutes, dose.ladder
    item.sides = item.sides or dose.sides
    item.shared = item.shared or dose.shared
    item.label = item.label or dose.label
    item.notes.extend(dose.notes)
    item.after_dose = True


def _one_side(item: Item) -> None:
    """`glute stretch L`, `left calf`: one side."""
    for at in (-1, 0):
        if len(item.words) > 1 and item.words[at].kind in ("LEFT", "RIGHT") and item.sides is None:
            item.sides = "left" if item.words[at].kind == "LEFT" else "right"
            item.words = item.words[:-1] if at == -1 else item.words[1:]
            return


def _bracket(item: Item, inside: list[Token]) -> None:
    kinds = [t.kind for t in inside]
    numbers = [t for t in inside if t.kind in ("NUM", "PAIR", "LRPAIR", "TIME", "DIST")]
    sides = "SIDES" in kinds or "DIRECTION" in kinds
    if "HALFSIDE" in kinds:
        item.shared = True
    elif numbers and (sides or kinds[0] in ("PAIR", "LRPAIR") or "PLUS" in kinds or ("LEFT" in kinds or "RIGHT" in kinds)):
        # `(6 each direction)`, `(4+4)`, `(20 L / 20 R)`: a split of the number in front, not a factor.
        first = numbers[0].value
        first = first[0] if isinstance(first, tuple) else first
        whole = item.reps or item.metres or item.seconds
        if sides and first == whole:
            item.sides = "each"
        else:
            item.shared = True
    else:
        soft = any(k in ("SOFT", "REST") or t.text in SOFT_WORDS for k, t in zip(kinds, inside, strict=True))
        if kinds.count("TIME") == 1 and (len(kinds) == 1 or soft) and item.sets is not None and item.loose_time is None:
            item.loose_time = next(t.value for t in inside if t.kind == "TIME")
            return
        times = [t.value for t in inside if t.kind == "TIME"]
        if len(times) == 1 and not item.dosed and item.words:
            item.seconds = times[0]
        for at, token in enumerate(inside):
            if token.kind == "NUM" and kinds[at + 1 : at + 2] == ["TANK"]:
                item.reserve = int(token.value)
            if token.kind in QUALITIES:
                if token.kind == "LOAD" and item.load is not None:
                    if item.other_load is None and "pct_1rm" not in token.value["load"] and not _same(item.load, token.value["load"]):
                        item.other_load = token.value["load"]
                    continue
                QUALITIES[token.kind](item, token)
    words = " ".join(t.text for t in inside)
    if words:
        item.notes.append(words)


def _same(one: Any, other: Any) -> bool:
    return isinstance(one, dict) and abs(one.get("kg", 0) - other.get("kg", -9)) < 0.3


def _sides(item: Item, token: Token) -> None:
    item.sides = "each"


def _load(item: Item, token: Token) -> None:
    if item.load is None:
        item.load, item.other_load = token.value["load"], token.value.get("other")
    elif "pct_1rm" not in token.value["load"] and not _same(item.load, token.value["load"]) and item.other_load is None:
        item.other_load = token.value["load"]
    if token.value.get("range"):
        item.notes.append(token.text.strip(" @"))


def _loads(item: Item, token: Token) -> None:
    item.load = token.value


def _tempo(item: Item, token: Token) -> None:
    text = str(token.value).lower()
    digits = [one for one in (text if text.isalnum() else text.replace(".", "-").split("-")) if one]
    if len(digits) in (3, 4):
        seconds = [0.0 if one == "x" else float(one) for one in digits]
        item.tempo = [*seconds, 0.0][:4] if len(seconds) == 3 else seconds
    else:
        item.notes.append(token.text)


def _reserve(item: Item, token: Token) -> None:
    item.reserve = int(token.value)


def _rpe(item: Item, token: Token) -> None:
    item.rpe = float(token.value)
    item.notes.append(token.text.strip(" @").upper())


def _half(item: Item, token: Token) -> None:
    item.shared = True


def _tank(item: Item, token: Token) -> None:
    item.notes.append(token.text)


QUALITIES = {
    "SIDES": _sides, "LOAD": _load, "LOADLIST": _loads, "TEMPO": _tempo, "RIR": _reserve, "RPE": _rpe, "HALFSIDE": _half,
    "TANK": _tank,
}  # fmt: skip

__all__ = ["Item", "ItemReader", "POUND_KG"]
