"""What goes with a movement: sides, loads, tempo, and what a bracket behind it says."""

from __future__ import annotations

from finetally.core.wall.items.item import SOFT_WORDS, Item
from finetally.core.wall.parts import LoadPart, LoadsPart
from finetally.core.wall.tokens.token import Token
from finetally.core.wall.tokens.words import FILLER, KIT_WORDS

TIMED_WORDS = frozenset(
    {"sprint", "run", "hold", "plank", "hang", "effort", "interval", "stride", "carrie", "carry", "sit"}
)
"""Last words of names that are done for a time or a distance: a number in front counts sets."""
BAR_KG = 20
"""What an empty bar weighs: less is no load of a barbell."""
BAR_WORDS = frozenset(
    one + ending for one in ("deadlift", "squat", "clean", "thruster", "row", "jerk") for ending in ("", "s")
) | {"dl", "bench", "press", "presses", "snatch", "snatches"}
"""Last words of names that are loaded with a barbell."""
LIGHTEST_BRACKET_KG = 4
"""A bare number in a bracket behind a movement with kit is what the kit weighs, from here on."""


def joined(words: list[Token]) -> str:
    """Words as they were written, a blank between."""
    return " ".join(t.text for t in words)


def trimmed_words(words: list[Token]) -> list[Token]:
    """The words that are no filler."""
    return [t for t in words if t.text not in FILLER]


def take_dose(item: Item, dose: Item) -> None:
    """Give an item the dose of another one that has no words."""
    for name in (
        "reps",
        "seconds",
        "metres",
        "sets",
        "load",
        "other_load",
        "pair",
        "ranged",
        "tempo",
        "reserve",
        "loose_time",
    ):
        if getattr(item, name) is None:
            setattr(item, name, getattr(dose, name))
    item.failure, item.minutes, item.ladder = item.failure or dose.failure, dose.minutes, dose.ladder
    item.sides = item.sides or dose.sides
    item.shared = item.shared or dose.shared
    item.label = item.label or dose.label
    item.notes.extend(dose.notes)
    item.after_dose = True


def one_side(item: Item) -> None:
    """`glute stretch L`, `left calf`: one side."""
    for at in (-1, 0):
        if len(item.words) > 1 and item.words[at].kind in ("LEFT", "RIGHT", "R") and item.sides is None:
            item.sides = "left" if item.words[at].kind == "LEFT" else "right"
            item.words = item.words[:-1] if at == -1 else item.words[1:]
            return


def read_bracket(item: Item, inside: list[Token]) -> None:
    """Take what a bracket behind a movement says: a split of its dose, sets, a rest, a load, or a note."""
    kinds = [t.kind for t in inside]
    if "HALFSIDE" in kinds:
        item.shared = True
    elif _split(kinds):
        # `(6 each direction)`, `(4+4)`, `(20 L / 20 R)`: a split of the number in front, not a factor.
        first = next(t.value for t in inside if t.kind in _SPLITS)
        first = first[0] if isinstance(first, tuple) else first
        each = bool({"SIDES", "DIRECTION"} & set(kinds)) and first == (item.reps or item.metres or item.seconds)
        item.sides, item.shared = ("each", item.shared) if each else (item.sides, True)
    elif (
        _dose_behind(item, inside, kinds)
        or _timed_sets(item, inside, kinds)
        or _rest_behind(item, inside, kinds)
        or _bare_load(item, inside, kinds)
    ):
        return
    else:
        _each_quality(item, inside, kinds)
    words = " ".join(t.text for t in inside)
    item.notes = [n for n in item.notes if n not in words]
    if words and any(k not in ("LOAD", "SIDES", "TEMPO", "RIR", "RPE") for k in kinds):
        item.notes.append(words)


_SPLITS = frozenset({"NUM", "PAIR", "LRPAIR", "TIME", "DIST"})


def _split(kinds: list[str]) -> bool:
    said = {"SIDES", "DIRECTION", "PLUS", "LEFT", "RIGHT"} & set(kinds)
    return bool(_SPLITS & set(kinds)) and (bool(said) or kinds[0] in ("PAIR", "LRPAIR"))


def _timed_sets(item: Item, inside: list[Token], kinds: list[str]) -> bool:
    """`6 hill sprints (10 s)`: six sets of it."""
    if kinds not in (["TIME"], ["DIST"]) or not isinstance(item.reps, int) or item.sets is not None:
        return False
    timed = bool(item.words) and item.words[-1].text.rstrip("s") in TIMED_WORDS
    if not timed or item.seconds is not None or item.metres is not None:
        return False
    item.sets, item.reps = item.reps, None
    item.seconds = inside[0].value if kinds == ["TIME"] else None
    item.metres = inside[0].value if kinds == ["DIST"] else None
    return True


def _rest_behind(item: Item, inside: list[Token], kinds: list[str]) -> bool:
    """`3x10 (90 s)`, `(2 min walk)`: what is taken in between."""
    soft = any(k in ("SOFT", "REST") or t.text in SOFT_WORDS for k, t in zip(kinds, inside, strict=True))
    sets = item.sets is not None or (item.words and item.reps is not None and item.seconds is None)
    if kinds.count("TIME") != 1 or not (len(kinds) == 1 or soft) or not sets or item.loose_time is not None:
        return False
    item.loose_time = next(t.value for t in inside if t.kind == "TIME")
    return True


def _dose_behind(item: Item, inside: list[Token], kinds: list[str]) -> bool:
    """`squats (15)`, `run (200 m)`: the dose of a name that has none; behind a tool's name a number is its load."""
    if item.dosed or not item.words or kinds not in (["NUM"], ["NUM", "REPS"], ["DIST"], ["TIME"]):
        return False
    if kinds == ["NUM"] and item.words[0].text in KIT_WORDS:
        return False
    value = inside[0].value
    item.after_dose = True
    if kinds[0] == "NUM":
        item.reps = int(value)
    elif kinds[0] == "DIST":
        item.metres = value
    else:
        item.seconds = value
    return True


def _bare_load(item: Item, inside: list[Token], kinds: list[str]) -> bool:
    """`12 kb swings (24)`, `5 deadlifts (100/70)`: kilograms without the word."""
    if kinds not in (["NUM"], ["PAIR"]) or item.load is not None or not item.words:
        return False
    if not item.dosed and item.words[0].text not in KIT_WORDS:
        return False
    first, other = (inside[0].value, None) if kinds == ["NUM"] else inside[0].value
    barbell = first >= BAR_KG and item.words[-1].text in BAR_WORDS
    if first < LIGHTEST_BRACKET_KG or not (barbell or item.words[0].text in KIT_WORDS):
        return False
    item.load = {"kg": first}
    item.other_load = None if other is None else {"kg": other}
    item.notes.append("load without a unit")
    return True


def _each_quality(item: Item, inside: list[Token], kinds: list[str]) -> None:
    times = [t.value for t in inside if t.kind == "TIME"]
    if len(times) == 1 and not item.dosed and item.words:
        item.seconds = times[0]
    for at, token in enumerate(inside):
        if token.kind == "NUM" and kinds[at + 1 : at + 2] == ["TANK"]:
            item.reserve = int(token.value)
        if token.text in KIT_WORDS:
            item.kit.append(token.text)
        if token.kind not in QUALITY_READERS:
            continue
        if token.kind == "LOAD" and item.load is not None:
            told = token.value["load"]
            if item.other_load is None and "pct_1rm" not in told and not _same(item.load, told):
                item.other_load = told
            continue
        QUALITY_READERS[token.kind](item, token)


def _same(one: LoadsPart | None, other: LoadPart) -> bool:
    return isinstance(one, dict) and abs(one.get("kg", 0) - other.get("kg", -9)) < 0.3


def _sides(item: Item, token: Token) -> None:
    item.sides = "each"


def _load(item: Item, token: Token) -> None:
    if item.load is None:
        item.load, item.other_load = token.value["load"], token.value.get("other")
    elif (
        "pct_1rm" not in token.value["load"]
        and not _same(item.load, token.value["load"])
        and item.other_load is None
    ):
        item.other_load = token.value["load"]
    if token.value.get("range"):
        item.notes.append(token.text.strip(" @"))


def _loads(item: Item, token: Token) -> None:
    item.load = token.value
    if token.text == "bare":
        item.notes.append("load without a unit")


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
    item.failure = item.failure or "failure" in token.text


def _rpe(item: Item, token: Token) -> None:
    item.rpe = float(token.value)
    item.notes.append(token.text.strip(" @").upper())


def _half(item: Item, token: Token) -> None:
    item.shared = True


def _noted(item: Item, token: Token) -> None:
    item.notes.append(token.text)


def _pace(item: Item, token: Token) -> None:
    item.pace = token.value
    item.notes.append(token.text.strip())


def _tank(item: Item, token: Token) -> None:
    item.notes.append(token.text)


QUALITY_READERS = {
    "SIDES": _sides, "LOAD": _load, "LOADLIST": _loads, "TEMPO": _tempo, "RIR": _reserve, "RPE": _rpe,
    "PACE": _pace, "PAUSE": _noted, "TOWARM": _noted, "ZONE": _noted, "HALFSIDE": _half, "TANK": _tank,
}  # fmt: skip
