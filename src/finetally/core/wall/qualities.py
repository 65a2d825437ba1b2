"""What goes with a movement: sides, loads, tempo, and what a bracket behind it says."""

from __future__ import annotations

from typing import Any

from finetally.core.wall.item import SOFT_WORDS, Item
from finetally.core.wall.tokens import Token
from finetally.core.wall.words import FILLER, KIT_WORDS

TIMED_WORDS = frozenset({"sprint", "run", "hold", "plank", "hang", "effort", "interval", "stride", "carrie", "carry", "sit"})
"""Last words of names that are done for a time or a distance: a number in front counts sets."""
BAR_KG = 20
"""What an empty bar weighs: less is no load of a barbell."""
BAR_WORDS = frozenset(
    "deadlift deadlifts dl squat squats bench press presses clean cleans snatch snatches thruster thrusters row rows jerk jerks".split()
)
"""Last words of names that are loaded with a barbell."""
LIGHTEST_BRACKET_KG = 4
"""A bare number in a bracket behind a movement with kit is what the kit weighs, from here on."""


def joined(words: list[Token]) -> str:
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
    kinds = [t.kind for t in inside]
    numbers = [t for t in inside if t.kind in ("NUM", "PAIR", "LRPAIR", "TIME", "DIST")]
    sides = "SIDES" in kinds or "DIRECTION" in kinds
    if "HALFSIDE" in kinds:
        item.shared = True
    elif numbers and (
        sides or kinds[0] in ("PAIR", "LRPAIR") or "PLUS" in kinds or ("LEFT" in kinds or "RIGHT" in kinds)
    ):
        # `(6 each direction)`, `(4+4)`, `(20 L / 20 R)`: a split of the number in front, not a factor.
        first = numbers[0].value
        first = first[0] if isinstance(first, tuple) else first
        whole = item.reps or item.metres or item.seconds
        if sides and first == whole:
            item.sides = "each"
        else:
            item.shared = True
    else:
        if kinds in (["TIME"], ["DIST"]) and isinstance(item.reps, int) and item.sets is None and item.words:
            if item.words[-1].text.rstrip("s") in TIMED_WORDS and item.seconds is None and item.metres is None:
                # `6 hill sprints (10 s)`
                item.sets, item.reps = item.reps, None
                item.seconds = inside[0].value if kinds == ["TIME"] else None
                item.metres = inside[0].value if kinds == ["DIST"] else None
                return
        soft = any(k in ("SOFT", "REST") or t.text in SOFT_WORDS for k, t in zip(kinds, inside, strict=True))
        if (
            kinds.count("TIME") == 1
            and (len(kinds) == 1 or soft)
            and (item.sets is not None or (item.words and item.reps is not None and item.seconds is None))
            and item.loose_time is None
        ):
            item.loose_time = next(t.value for t in inside if t.kind == "TIME")
            return
        if kinds in (["NUM"], ["PAIR"]) and item.dosed and item.load is None and item.words:
            first, other = (inside[0].value, None) if kinds == ["NUM"] else inside[0].value
            if first >= LIGHTEST_BRACKET_KG and (item.words[0].text in KIT_WORDS or (first >= BAR_KG and item.words[-1].text in BAR_WORDS)):
                # `12 kb swings (24)`
                item.load = {"kg": first}
                item.other_load = None if other is None else {"kg": other}
                item.notes.append("load without a unit")
                return
        times = [t.value for t in inside if t.kind == "TIME"]
        if len(times) == 1 and not item.dosed and item.words:
            item.seconds = times[0]
        for at, token in enumerate(inside):
            if token.kind == "NUM" and kinds[at + 1 : at + 2] == ["TANK"]:
                item.reserve = int(token.value)
            if token.kind in QUALITIES:
                if token.kind == "LOAD" and item.load is not None:
                    if (
                        item.other_load is None
                        and "pct_1rm" not in token.value["load"]
                        and not _same(item.load, token.value["load"])
                    ):
                        item.other_load = token.value["load"]
                    continue
                QUALITIES[token.kind](item, token)
    words = " ".join(t.text for t in inside)
    if words and any(k not in ("LOAD", "SIDES", "TEMPO", "RIR", "RPE") for k in kinds):
        item.notes.append(words)


def _same(one: Any, other: Any) -> bool:
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


QUALITIES = {
    "SIDES": _sides, "LOAD": _load, "LOADLIST": _loads, "TEMPO": _tempo, "RIR": _reserve, "RPE": _rpe,
    "PACE": _pace, "PAUSE": _noted, "ZONE": _noted, "HALFSIDE": _half, "TANK": _tank,
}  # fmt: skip
