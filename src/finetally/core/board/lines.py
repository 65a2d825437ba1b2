"""From the parsed line to what it says: parts of a document, as plain values."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Sequence

from lark import Token, Transformer, v_args

from finetally.core.board.names import MovementWords, NameBook, Stub
from finetally.core.board.phrases import HEAD_PHRASES, PRESETS, PhraseKey
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.values import POUND_KG

Statement = tuple[PhraseKey, JsonValue]
"""What is said: where it goes, and its value."""


def _num(token: str) -> int | float:
    return float(token) if "." in token else int(token)


def _split(token: str) -> list[str]:
    if token[:7].lower() == "between":
        return [part.strip() for part in token[7:].lower().split("and")]
    for dash in ("–", "to", "-"):
        if dash in token:
            return [part.strip() for part in token.split(dash)]
    raise ValueError(token)


def _clock(token: str) -> int:
    seconds = 0
    for part in token.strip().split(":"):
        seconds = seconds * 60 + int(part)
    return seconds


def _unquoted(token: str) -> str:
    return token[1:-1]


def _times(value: JsonValue, factor: float) -> JsonValue:
    if isinstance(value, list):
        return [_times(one, factor) for one in value]
    if isinstance(value, dict):
        return {key: _times(one, factor) if key != "from" else one for key, one in value.items()}
    if not isinstance(value, int | float):
        return value
    made = value * factor
    return int(made) if float(made).is_integer() else made


def _spoken(parts: Sequence[JsonValue]) -> JsonValue:
    """The value among the words around it."""
    return next(part for part in parts if not isinstance(part, Token))


def _loaded(key: str, value: JsonValue, count: float | None) -> JsonObject:
    """One load; what is typed in pounds is kept in kilograms to the gram."""
    pounds = round(value * POUND_KG, 3) if key == "lb" and isinstance(value, int | float) else None
    made: JsonObject = {"kg" if key == "lb" else key: value if pounds is None else pounds}
    if count is not None:
        made["count"] = count
    return made if pounds is None else {**made, "unit": "lb"}


def _word(token: str) -> str:
    text = token.lower().split()[-1].replace(" ", "-")
    return "all-out" if text in ("all-out", "allout", "out") else text


@v_args(inline=True)
class LineReader(Transformer[Token, JsonValue]):
    """Turns the tree of one line into values. Names that nobody knows become stubs, with their column."""

    def __init__(self, names: NameBook, line: int, indent: int) -> None:
        super().__init__()
        self._names = names
        self._line = line
        self._indent = indent
        self.stubs: list[Stub] = []

    # How much, how long, how far
    def number(self, one: Token) -> JsonValue:
        return _num(one)

    def ranged(self, one: Token) -> JsonObject:
        low, high = _split(one)
        return {"low": _num(low), "high": _num(high)}

    def planned(self, one: Token, _plan: Token, plan: Token) -> JsonObject:
        return {**self.ranged(one), "plan": _num(plan)}

    def listed(self, one: Token) -> JsonValue:
        return [_num(part.strip()) for part in one.replace("then", "/").split("/")]

    def score(self, plan: Token, take: Token, _of: Token, block: Token, *most: Token) -> JsonObject:
        name = _unquoted(block) if block.type == "QUOTED" else str(block)
        made: JsonObject = {"from": {"block": name, "take": take.lower()}, "plan": _num(plan)}
        return {**made, "cap": _num(most[1])} if most else made

    def clocktime(self, one: Token) -> JsonValue:
        return _clock(one)

    def clockrange(self, one: Token) -> JsonObject:
        low, high = _split(one)
        return {"low": _clock(low), "high": _clock(high)}

    def seconds(self, value: JsonValue, _unit: Token) -> JsonValue:
        return value

    def minutes(self, value: JsonValue, _unit: Token) -> JsonValue:
        return _times(value, 60)

    def distance(self, value: JsonValue, _unit: Token) -> JsonValue:
        return value

    # Names
    def words(self, *words: Token) -> MovementWords:
        text = " ".join(words)
        key = self._names.key_of(text)
        if key is not None:
            return MovementWords(key, text)
        stub = self._names.stub(text, self._line, self._indent + (words[0].column or 1))
        self.stubs.append(stub)
        return MovementWords(stub.key, text)

    def quoted(self, one: Token) -> MovementWords:
        text = _unquoted(one)
        key = self._names.exact(text)
        if key is None:
            stub = self._names.stub(text, self._line, self._indent + (one.column or 1))
            self.stubs.append(dataclasses.replace(stub, key=text, quoted=True))
        return MovementWords(key if key is not None else text, None)

    # Steps: each gives pairs of key and value
    def reps(self, *parts: JsonValue) -> Statement:
        return ("reps",), _spoken(parts)

    def timed(self, *parts: JsonValue) -> Statement:
        return ("seconds",), parts[-1]

    def far(self, *parts: JsonValue) -> Statement:
        return ("metres",), parts[-1]

    def within(self, reps: JsonValue, _within: Token, seconds: JsonValue) -> list[Statement]:
        return [(("reps",), reps), (("seconds",), seconds)]

    def each(self, _one: Token) -> Statement:
        return ("sides",), "each"

    def turns(self, _one: Token) -> Statement:
        return ("sides",), "alternate"

    def swap(self, _one: Token) -> Statement:
        return ("sides",), "swap"

    def both(self, _one: Token) -> Statement:
        return ("sides",), "both"

    def left(self, _one: Token) -> Statement:
        return ("sides",), "left"

    def right(self, _one: Token) -> Statement:
        return ("sides",), "right"

    def shared(self, _one: Token) -> Statement:
        return ("shared",), True

    def fill(self, _one: Token) -> Statement:
        return ("fill",), True

    def failure(self, _to: Token, *plan: Token) -> Statement:
        made: JsonObject = {"to_failure": True}
        return ("reps",), {**made, "plan": _num(plan[-1])} if plan else made

    def grow(self, one: Token) -> Statement:
        digits = "".join(c for c in one if c.isdigit() or c == "-")
        return ("grow",), int(digits)

    def tempo(self, one: Token) -> Statement:
        return ("tempo",), [_num(part.strip()) for part in one.split(None, 1)[1].split("-")]

    def effort(self, one: Token) -> Statement:
        return ("effort",), _word(one)

    def reserve(self, one: Token, _in: Token) -> Statement:
        return ("reserve",), _num(one)

    def pace(self, seconds: JsonValue, _rep: Token) -> Statement:
        return ("pace_s",), seconds

    def own_rest(self, _rest: Token, seconds: JsonValue) -> Statement:
        return ("rest_s",), seconds

    def note(self, _key: Token, *text: Token) -> Statement:
        said = "".join(text)
        return ("note",), _unquoted(said) if said[:1] in '"“' and said[-1:] in '"”' and len(said) > 1 else said

    def factor(self, one: Token, _of: Token) -> Statement:
        return ("dose_factor",), _num(one)

    def _load(self, key: str, parts: Sequence[JsonValue]) -> Statement:
        count = next((_num(part) for part in parts if isinstance(part, Token) and part.type == "NUMBER"), None)
        value = _spoken(parts)
        if isinstance(value, list):
            return ("load",), [_loaded(key, one, count) for one in value]
        return ("load",), _loaded(key, value, count)

    def kilograms(self, *parts: JsonValue) -> Statement:
        return self._load("kg", parts)

    def pounds(self, *parts: JsonValue) -> Statement:
        return self._load("lb", parts)

    def percent(self, *parts: JsonValue) -> Statement:
        return self._load("pct_1rm", parts)

    def body(self, *parts: JsonValue) -> Statement:
        return self._load("bodyweight", parts)

    def load(self, said: Statement) -> Statement:
        return said

    def quality(self, said: Statement) -> Statement:
        return said

    def dose(self, said: Statement | list[Statement]) -> Statement | list[Statement]:
        return said

    def piece(self, *parts: MovementWords | Statement | list[Statement]) -> JsonObject:
        made: JsonObject = {}
        name: MovementWords | None = None
        for part in parts:
            if isinstance(part, MovementWords):
                name = part
            else:
                for (key,), value in part if isinstance(part, list) else [part]:
                    made[key] = value
        return {"movement": self._names.key_with(name, made), **made} if name is not None else made

    def step(self, *pieces: JsonObject) -> list[JsonObject]:
        return [
            {**piece, "chain": True} if index < len(pieces) - 1 else piece for index, piece in enumerate(pieces)
        ]

    def option_body(self, *parts: MovementWords | Statement | list[Statement]) -> JsonObject:
        return self.piece(*parts)

    def option(self, _or: Token, label: Token, *parts: Token | JsonObject) -> JsonObject:
        made: JsonObject = {"label": _unquoted(label)}
        kit: list[JsonValue] = []
        for part in parts:
            if isinstance(part, dict):
                made.update(part)
            elif part.type == "LEVEL":
                made["level"] = part.lower()
            elif part.type == "QUOTED":
                kit.append(_unquoted(part))
        return {**made, "kit": kit} if kit else made

    # Lines about blocks
    def station(self, _at: Token, *parts: JsonValue) -> JsonObject:
        words = [str(part) for part in parts if isinstance(part, Token) and part.type == "WORD"]
        made: JsonObject = {}
        kit: list[JsonValue] = []
        last = ""
        for index, part in enumerate(parts):
            if not isinstance(part, Token):
                made["rounds"] = part
            elif part.type == "QUOTED" and not words and index == 0:
                made["name"] = _unquoted(part)
            elif part.type == "QUOTED":
                kit.append(_unquoted(part))
            elif part.type == "NUMBER" and last == "ROOM_FOR":
                made["capacity"] = _num(part)
            last = part.type if isinstance(part, Token) else ""
        if words:
            made["name"] = " ".join(words)
        return {**made, "kit": kit} if kit else made

    def together(self, _word: Token, *parts: JsonValue) -> JsonObject:
        made: JsonObject = {"section": ""}
        waiting: JsonValue = None
        for part in parts:
            if not isinstance(part, Token):
                waiting = part
            elif part.type == "QUOTED":
                made["section"] = _unquoted(part)
            else:
                made["times" if part.type == "P_REPEAT" else "rest_between_s"] = waiting
        return made

    def rest(self, _rest: Token, seconds: JsonValue, *afterwards: Token) -> JsonValue:
        return seconds

    # The head of a block: pairs of a place in the block and a value
    def opening(self, *tokens: Token) -> list[Statement]:
        said: list[Statement] = []
        for token in tokens:
            if token.type == "PART":
                part = token.lower().replace(" ", "-")
                part = {"warmup": "warm-up", "cooldown": "cool-down", "main-part": "main"}.get(part, part)
                # Main is what a block is where nothing is said, so nothing is kept.
                if part not in ("block", "main"):
                    said.append((("part",), part))
            elif token.type == "QUOTED":
                said.append((("title",), _unquoted(token)))
            else:
                said.append((("optional",), "exit" if "stop" in token.lower() else "skip"))
        return said

    def pulse(self, *parts: JsonValue) -> list[Statement]:
        times = [part for part in parts if not isinstance(part, Token)]
        return [(("on_off", key), value) for key, value in zip(("work_s", "rest_s"), times, strict=False)]

    def call_half(self, _call: Token, say: Token, _half: Token) -> Statement:
        return ("calls",), {"half": True, "say": _unquoted(say)}

    def call_at(self, _call: Token, say: Token, _at: Token, seconds: JsonValue) -> Statement:
        return ("calls",), {"at_s": seconds, "say": _unquoted(say)}

    def call_before(self, _call: Token, say: Token, seconds: JsonValue, _end: Token) -> Statement:
        return ("calls",), {"before_end_s": seconds, "say": _unquoted(say)}

    def resting(self, _word: Token, name: MovementWords) -> Statement:
        return ("rest_as",), name.key

    def scored_as(self, _word: Token, name: Token) -> Statement:
        return ("id",), _unquoted(name)

    def rpe(self, _word: Token, one: Token, _of: Token) -> Statement:
        return ("rpe",), _num(one)

    def at_each(self, _word: Token) -> Statement:
        return ("at_each",), True

    def phrase(self, said: Statement | list[Statement]) -> Statement | list[Statement]:
        return said

    def head(self, *parts: Statement | list[Statement]) -> list[Statement]:
        said: list[Statement] = []
        for part in parts:
            said.extend(part if isinstance(part, list) else [part])
        return said

    # Lines about the session
    def caution(self, _key: Token, text: Token) -> Statement:
        return ("cautions",), str(text)

    def tags(self, _key: Token, text: Token) -> Statement:
        return ("tags",), [one.strip() for one in text.split(",") if one.strip()]

    def people(self, _key: Token, one: Token) -> Statement:
        return ("people",), _num(one)

    def space(self, _key: Token, text: Token) -> Statement:
        sides = [part.strip() for part in text.lower().removesuffix("m").replace("×", "x").split("x")]
        if all(part.replace(".", "", 1).isdigit() for part in sides):
            numbers: list[JsonValue] = [_num(part) for part in sides]
            return ("space_m",), numbers if len(numbers) > 1 else numbers[0]
        return ("space_m",), str(text)

    def slack(self, _key: Token, seconds: JsonValue) -> Statement:
        return ("slack_s",), seconds

    def planned_effort(self, _key: Token, one: Token, _of: Token) -> Statement:
        return ("rpe",), _num(one)

    def alone(self, _word: Token) -> Statement:
        return ("stands_alone",), True


def _phrase_method(name: str) -> Callable[..., list[Statement]]:
    phrase = next(one for one in HEAD_PHRASES if one.name == name)

    def method(self: LineReader, *parts: JsonValue) -> list[Statement]:
        value = next((part for part in parts if not isinstance(part, Token)), phrase.value)
        return [*phrase.also, (phrase.key, value)]

    return v_args(inline=True)(method)


def _preset_method(values: tuple[Statement, ...]) -> Callable[..., list[Statement]]:
    def method(self: LineReader, *parts: JsonValue) -> list[Statement]:
        return list(values)

    return v_args(inline=True)(method)


for _one in HEAD_PHRASES:
    setattr(LineReader, f"p_{_one.name}", _phrase_method(_one.name))
for _preset in PRESETS:
    setattr(LineReader, f"q_{_preset.name}", _preset_method(_preset.values))
