"""A line as it is read: its facts, its movements, and habits of writing that go over several of them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any

from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.item import Item
from finetally.core.wall.items import ItemReader
from finetally.core.wall.lines import Line
from finetally.core.wall.names import Names, trimmed
from finetally.core.wall.qualities import take_dose
from finetally.core.wall.rules import Fact, Scanned, scan
from finetally.core.wall.tokens import Token, tokens_of

HEADS = frozenset(
    {
        "amrap",
        "every",
        "windows",
        "each",
        "rounds",
        "pyramid",
        "superset",
        "stations",
        "laps",
        "total",
        "turns",
        "cap",
        "fortime",
        "grow",
        "growlist",
        "deathby",
        "repeat",
        "forlong",
    }
)
"""Facts that are said of a block as a whole."""
STARTING = frozenset(
    {"amrap", "every", "windows", "each", "rounds", "pyramid", "superset", "stations", "growlist", "deathby", "forlong"}
)
"""Facts that begin a block."""


@dataclass(slots=True)
class Read:
    """A line with its facts and items."""

    line: Line
    scanned: Scanned
    items: list[Item]
    block_label: bool = False

    @property
    def heads(self) -> list[Fact]:
        return [f for f in self.scanned.facts if f.kind in HEADS]

    @property
    def rests(self) -> list[Fact]:
        return [f for f in self.scanned.facts if f.kind == "rest"]

    @property
    def starts(self) -> bool:
        """Whether the line begins a block by what it says."""
        return self.scanned.has(*STARTING)

    @property
    def named(self) -> list[Item]:
        """The items that have words."""
        return [one for one in self.items if one.words]


class LineScanner:
    """Makes of each line what it says; remembers the last length of a lane, for lines that only count lengths."""

    def __init__(self, names: Names, assumed: Assumptions) -> None:
        self._names = names
        self._assumed = assumed
        self._length: Any = None

    def scan(self, line: Line) -> Read:
        """A line with what it says: its facts, and its movements with their doses."""
        if line.style == "note":
            return Read(line, Scanned([]), [])
        tokens = tokens_of(line.low)
        for habit in HABITS:
            tokens = habit(tokens)
        scanned = scan(tokens)
        if [t.kind for t in scanned.tokens] == ["X", "NUM"]:
            scanned.facts.append(Fact("rounds", {"n": int(scanned.tokens[1].value)}, 0, 1))
            scanned.taken = [True, True]
        if [t.kind for t in scanned.tokens if t.kind not in ("SEP", "OF")] == ["NUM", "SET"]:
            number = next(t for t in scanned.tokens if t.kind == "NUM")
            scanned.facts.append(Fact("rounds", {"n": max(1, int(number.value))}, 0, 1))
            scanned.taken = [True] * len(scanned.tokens)
        items = ItemReader(scanned, lambda words: self._names.known(words) is not None).read()
        if len(items) > 1 and items[0].label == "heading" and not items[0].dosed and not items[1].words:
            # `Pull-up ladder: 1-2-3 x 3`: the heading names what the numbers count.
            words = [t for t in items[0].words if t.kind != "LADDER"]
            ladder = len(words) < len(items[0].words)
            if ladder and words and items[1].dosed and self._names.known(" ".join(t.text for t in words)):
                items[1].words = words
                items.pop(0)
        long_head(scanned, items)
        for item in items:
            ladder_words(item)
            self._bare_metres(item, line)
        self._line_lengths(scanned, items)
        self._track_laps(scanned, items, line)
        repeated_window(scanned, items)
        shared_doses(items)
        back_again(scanned, items)
        if sets_of_all(scanned, items, lambda words: self._names.known(words) is not None):
            said = ["one a window", "all windows of one, then of the next"]
            one_each = items[0].seconds is not None and items[0].sets == len(items)
            if one_each and self._assumed.pick("window-each", line.number, line.text, said) == 0:
                for item in items:
                    item.sets = None
                return Read(line, scanned, items)
            said = ["all sets of one, then of the next", "round by round"]
            if self._assumed.pick("sets-order", line.number, line.text, said) == 1:
                scanned.facts.append(Fact("rounds", {"n": items[0].sets}, 0, 0))
                for item in items:
                    item.sets = None
        self._times_of_all(scanned, items, line)
        each = next((f.value["n"] for f in scanned.facts if f.kind == "repseach"), None)
        for item in items:
            if each is not None and item.words and not item.dosed:
                item.reps = each
        for item in items:
            item.row = line.number
        return Read(line, scanned, items)

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
                item.metres = count * self._length


    def _times_of_all(self, scanned: Scanned, items: list[Item], line: Line) -> None:
        """`1 deadlift + 1 clean x 6`, `10 squats, 10 push-ups x 3`: rounds of the line, or sets of its last."""
        if len(items) < 2 or not items[-1].behind or scanned.has(*STARTING):
            return
        if any(not i.dosed or not i.words or (i.sets is not None) != (i is items[-1]) for i in items):
            return
        complex_ = all(i.joined for i in items[1:])
        if not complex_ and any(i.seconds is not None and longest(i.seconds) >= LONG_DOSE_S for i in items):
            return
        said = [f"{items[-1].sets} rounds of the line", f"{items[-1].sets} sets of the last"]
        if complex_ or self._assumed.pick("times-behind", line.number, line.text, said) == 0:
            scanned.facts.append(Fact("rounds", {"n": items[-1].sets}, 0, 0))
            items[-1].sets = None

    def _track_laps(self, scanned: Scanned, items: list[Item], line: Line) -> None:
        """`2 laps jog`: round a track, where it says no more."""
        laps = next((f for f in scanned.facts if f.kind == "laps"), None)
        named = [i for i in items if i.words]
        if laps is None or len(named) != 1 or named[0].dosed or name_text(named[0]).split()[-1:] not in ON_TRACK:
            return
        length = LAP_M[self._assumed.pick("lap-length", line.number, line.text, [f"a lap of {m} m" for m in LAP_M])]
        count = laps.value["n"]
        named[0].metres = {k: v * length for k, v in count.items()} if isinstance(count, dict) else count * length
        scanned.facts.remove(laps)


LONG_DOSE_S = 120
"""What takes so long is done once: `5 min bike, 10 squats x 3`."""
LAP_M = (400, 200)
"""Metres of a lap that is only called so: a track's, or a small field's."""
ON_TRACK = (["jog"], ["run"], ["walk"], ["jogging"], ["running"], ["walking"])


def bracketed_rounds(tokens: list[Token]) -> list[Token]:
    """`6 x (200 m run, 10 burpees)`: the bracket holds what is done six times."""
    for i in range(len(tokens) - 2):
        if [t.kind for t in tokens[i : i + 3]] == ["NUM", "X", "LPAR"]:
            tokens[i + 1].kind, tokens[i + 2].kind = "ROUND", "COLON"
            depth = next((k for k in range(i + 3, len(tokens)) if tokens[k].kind == "RPAR"), None)
            if depth is not None:
                tokens[depth].kind = "SEP"
            break
    return tokens


def sets_on_starts(tokens: list[Token]) -> list[Token]:
    """`10 x 3 EMOM`: ten starts of three."""
    for i in range(len(tokens) - 3):
        if [t.kind for t in tokens[i : i + 4]] == ["NUM", "X", "NUM", "EVERYT"]:
            sets, times, reps, starts = tokens[i : i + 4]
            return [*tokens[:i], reps, starts, times, sets, *tokens[i + 4 :]]
    return tokens


BOUTS = frozenset({"block", "blocks", "bout", "bouts", "effort", "efforts", "goes", "blast", "blasts"})


def clusters(tokens: list[Token]) -> list[Token]:
    """`1+1+1 x 5`: five sets of what the parts come to."""
    for i, token in enumerate(tokens):
        if token.kind != "SUM":
            continue
        token.kind = "NUM"
        if [t.kind for t in tokens[i + 1 : i + 3]] == ["X", "NUM"]:
            return [*tokens[:i], tokens[i + 2], tokens[i + 1], token, *tokens[i + 3 :]]
    return tokens


def bouts(tokens: list[Token]) -> list[Token]:
    """`6 efforts of 20 s`, `3 blocks of tabata`: sets by another name."""
    for number, word, of in zip(tokens, tokens[1:], tokens[2:], strict=False):
        if number.kind == "NUM" and word.text in BOUTS and of.kind in ("OF", "X", "COLON"):
            word.kind = "SET"
    return tokens


SINGLES = {"single": 1, "singles": 1, "doubles": 2, "triples": 3}


def heavy_singles(tokens: list[Token]) -> list[Token]:
    """`6 singles @ 85%`: six sets of one; without a load they are turns of a rope."""
    if not any(t.kind == "LOAD" for t in tokens):
        return tokens
    for i in range(len(tokens) - 1):
        number, word = tokens[i : i + 2]
        if number.kind == "NUM" and word.text in SINGLES:
            times = Token("X", "x", "x", word.start, word.start)
            reps = Token("NUM", str(SINGLES[word.text]), float(SINGLES[word.text]), word.start, word.end)
            return [*tokens[: i + 1], times, reps, *tokens[i + 2 :]]
    return tokens


HEAVIEST_REPS, LIGHTEST_WAVE_KG = 20, 30


def bare_waves(tokens: list[Token]) -> list[Token]:
    """`100x5, 110x5, 120x3`: what is lifted, and how often; the first number is no count of sets."""
    kinds = [t.kind for t in tokens]
    for shape, kg, often in ((["NUM", "X", "NUM"], 0, 2), (["NUM", "AT", "NUM"], 2, 0)):
        found = [i for i in range(len(kinds) - 2) if kinds[i : i + 3] == shape]
        if len(found) < 2 or any(b - a > 4 for a, b in pairwise(found)):
            continue
        if any(tokens[i + kg].value < LIGHTEST_WAVE_KG or tokens[i + often].value > HEAVIEST_REPS for i in found):
            continue
        first, last = found[0], found[-1] + 3
        start, end = tokens[first].start, tokens[last - 1].end
        reps = Token("LIST", "", [int(tokens[i + often].value) for i in found], start, end)
        loads = Token("LOADLIST", "bare", [{"kg": tokens[i + kg].value} for i in found], end, end)
        return [*tokens[:first], reps, loads, *tokens[last:]]
    return tokens


def in_sets(tokens: list[Token]) -> list[Token]:
    """`100 swings in sets of 20`: five sets of twenty."""
    for i in range(len(tokens) - 3):
        if [t.kind for t in tokens[i : i + 4]] != ["STAY", "SET", "OF", "NUM"]:
            continue
        size, total = tokens[i + 3], next((t for t in tokens[:i] if t.kind == "NUM"), None)
        if total is None or size.value < 1 or total.value % size.value or total.value <= size.value:
            return tokens
        at = tokens.index(total)
        sets = Token("NUM", total.text, total.value // size.value, total.start, total.end)
        times = Token("X", "x", "x", total.end, total.end)
        reps = Token("NUM", size.text, size.value, total.end, total.end)
        return [*tokens[:at], sets, times, reps, *tokens[at + 1 : i], *tokens[i + 4 :]]
    return tokens


def bracketed_names(tokens: list[Token]) -> list[Token]:
    """`10 to 1 (push-ups + sit-ups)`: the bracket holds what the numbers count."""
    if len(tokens) < 4 or tokens[0].kind not in ("LIST", "RANGE", "GROWING") or tokens[1].kind != "LPAR":
        return tokens
    end = next((k for k in range(2, len(tokens)) if tokens[k].kind == "RPAR"), None)
    if end is not None and all(t.kind in ("W", "PLUS", "SEP", "AND", "SLASH", "ALT") for t in tokens[2:end]):
        tokens[1].kind, tokens[end].kind = "COLON", "SEP"
    return tokens


def bracketed_list(tokens: list[Token]) -> list[Token]:
    """`Press ladder (1,2,3) x 5`: the numbers in the bracket are the ladder."""
    for i in range(len(tokens) - 3):
        if [t.kind for t in tokens[i : i + 4]] == ["LADDER", "LPAR", "LIST", "RPAR"]:
            return [*tokens[: i + 1], tokens[i + 2], *tokens[i + 4 :]]
    return tokens


def waves(tokens: list[Token]) -> list[Token]:
    """`60 kg x 5, 80 kg x 3` and `5 @ 60 kg, 3 @ 80 kg`: sets with a load each become two lists."""
    kinds = [t.kind for t in tokens]
    for shape in (("LOAD", "X", "NUM"), ("NUM", "AT", "LOAD"), ("LOAD", "FOR", "NUM")):
        found = [i for i in range(len(kinds) - 2) if tuple(kinds[i : i + 3]) == shape]
        if len(found) < 2 or any(b - a > 4 for a, b in pairwise(found)):
            continue
        number = shape.index("NUM")
        reps = [int(tokens[i + number].value) for i in found]
        loads = [tokens[i + shape.index("LOAD")].value["load"] for i in found]
        first, last = found[0], found[-1] + 3
        start, end = tokens[first].start, tokens[last - 1].end
        made = [Token("LIST", "", reps, start, end), Token("LOADLIST", "", loads, end, end)]
        return [*tokens[:first], *made, *tokens[last:]]
    return tokens


HABITS = (
    clusters, sets_on_starts, bracketed_rounds, bouts, heavy_singles, bracketed_list, bracketed_names, in_sets, bare_waves, waves,
)  # fmt: skip
"""Ways of writing that are put into the usual order before the rules read a line."""


def shared_doses(items: list[Item]) -> None:
    """`skips, high knees, heel kicks 20 m each`, `hamstrings and quads 30 s`: the last dose is of all of them."""
    for at, item in enumerate(items):
        before = []
        for one in reversed(items[:at]):
            if one.dosed or not one.words or one.label == "heading":
                break
            before.append(one)
        if not item.dosed or not item.after_dose or not before:
            if item.each_word and item.sides is None and item.reps is not None:
                item.sides = "each"
            continue
        if item.each_word or item.joined or (item.sides == "each" and item.seconds is not None):
            for one in before[:1] if item.joined and not item.each_word else before:
                take_dose(one, item)
                one.sides = item.sides


def back_again(scanned: Scanned, items: list[Item]) -> None:
    """`10 squats, 20 push-ups, then back up`, `1-2-3 and back down`: the same way back, the turning point once."""
    if not any(t.kind == "BACKDOWN" for t in scanned.tokens):
        return
    for item in items:
        item.words = [t for t in item.words if t.kind not in ("BACKDOWN", "THEN")]
        item.notes = [n for n in item.notes if "back" not in n]
    items[:] = [i for i in items if not i.empty]
    listed = [i for i in items if isinstance(i.reps, list)]
    for item in listed:
        item.reps = [*item.reps, *reversed(item.reps[:-1])]
    if not listed and len(items) > 1 and all(i.dosed and i.words and i.sets is None for i in items):
        items.extend(replace(i) for i in reversed(items[:-1]))


def long_head(scanned: Scanned, items: list[Item]) -> None:
    """`5 min: cat cow, thread the needle`: how long all of it takes."""
    if len(items) < 3 or items[0].words or items[0].seconds is None or items[0].sets is not None:
        return
    colon = next((t for t in scanned.tokens if t.kind == "COLON"), None)
    if colon is None or scanned.has(*STARTING) or any(not i.words for i in items[1:]):
        return
    if any(t.start < colon.start for i in items[1:] for t in i.words):
        return
    scanned.facts.insert(0, Fact("forlong", {"total": items.pop(0).seconds}, 0, 0))


def sets_of_all(scanned: Scanned, items: list[Item], known: Callable[[str], bool]) -> bool:
    """`3 sets of 12: leg press, leg curl`: the sets and the dose in front of the colon are those of all."""
    if len(items) < 3 or items[0].sets is None or not items[0].dosed or known(name_text(items[0])):
        return False
    if any(i.dosed or not i.words for i in items[1:]) or not any(t.kind == "COLON" for t in scanned.tokens):
        return False
    first = items.pop(0)
    for item in items:
        item.reps, item.seconds, item.metres, item.sets = first.reps, first.seconds, first.metres, first.sets
        item.failure, item.sides = first.failure, item.sides or first.sides
    return True


def repeated_window(scanned: Scanned, items: list[Item]) -> None:
    """`5 x 3 min: 10 pull-ups, 15 push-ups`: a window again and again, and what is done in it."""
    if len(items) < 2 or items[0].words or items[0].sets is None or items[0].seconds is None:
        return
    if (
        all(i.words and i.dosed for i in items[1:])
        and any(t.kind == "COLON" for t in scanned.tokens)
        and not scanned.has("windows", "every", "amrap")
    ):
        first = items.pop(0)
        scanned.facts.insert(0, Fact("amrap", {"window": first.seconds, "repeat": first.sets}, 0, 0))


def ladder_words(item: Item) -> None:
    """`burpee ladder 1-10`: the word says what the numbers are, and belongs to no name."""
    listed = any(isinstance(v, list) for v in (item.reps, item.seconds, item.metres))
    if (listed or item.ranged is not None) and any(t.kind == "LADDER" for t in item.words):
        item.ladder = True
        item.words = [t for t in item.words if t.kind != "LADDER"]


def head_list(one: Read) -> tuple[list[int], bool] | None:
    """A list of numbers that stands on a head by itself: `21-15-9`, `Squad ladder: 3, 6, 9`."""
    ladder = any(t.kind == "LADDER" for t in one.scanned.tokens)
    for item in one.items:
        if isinstance(item.reps, list) and (
            not item.words or (ladder and not item.sets and len(one.items) == 1 and item.label == "heading")
        ):
            return list(item.reps), item.ladder
        if (
            ladder
            and isinstance(item.reps, list)
            and item.words
            and all(t.kind == "LADDER" or t.kind in ("ALT",) for t in item.words)
        ):
            return list(item.reps), item.ladder
        if item.ranged is not None and not item.words and (item.ladder or 1 in item.ranged or ladder):
            return counting(*item.ranged), False
    return None


def counting(a: int, b: int) -> list[int]:
    step = 1 if b >= a else -1
    return list(range(a, b + step, step))[:200]


def name_text(item: Item) -> str:
    return " ".join(trimmed([t.text for t in item.words]))


def longest(value: Any) -> float:
    if isinstance(value, dict):
        return float(value["high"])
    return float(value) if isinstance(value, int | float) else 0.0


def seconds_only(one: Read) -> bool:
    return all(i.reps is None and i.metres is None for i in one.items)
