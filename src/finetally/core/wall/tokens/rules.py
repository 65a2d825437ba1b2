"""Rules of reading: small patterns over tokens, each with what it says and examples that a test holds it to.

A pattern is a row of token kinds: `work=TIME|NUM ON SEP? rest=TIME|NUM OFF`. A name before `=` takes the token's
value; `!W` says that no such token follows, `<W` at the start that none stands in front.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any

from typing_extensions import TypedDict

from finetally.core.wall.parts import Amount, Dose, between
from finetally.core.wall.tokens.token import Token

BARE_REST_SECONDS_FROM = 10
"""A bare number after rest, off or on is seconds from here on, minutes below."""


class FactValue(TypedDict, total=False):
    """What a fact says, by its kind. Times in seconds; None where the pattern has a place that nothing stands at.

    `n`: how often. `window`, `work`, `period`, `total`, `cap`, `s` (a rest): how long. `rest`: what follows `work`
    or a `window`. `repeat`, `again`: the whole so often. `r`: rest as a multiple of the work. `where`: between
    what a rest is. `straight`: one movement after the other, `group`: so many taking turns, `front`: the number
    stands in front, `loose`: a length that is no race, `bare`: between what is not said, `open`: no length is said.
    """

    n: Amount | None
    sets: Amount | None
    reps: Amount | None
    list: Sequence[int]
    window: Amount | None
    work: Amount | None
    rest: Amount | None
    period: Amount
    total: Amount | None
    cap: Amount | None
    s: Dose | None
    repeat: Amount | None
    again: Amount | None
    r: float
    where: str
    group: int
    straight: bool
    front: bool
    loose: bool
    bare: bool
    open: bool
    sides: bool


def merged(before: FactValue, after: FactValue) -> FactValue:
    """What a second fact of a kind says over the first; what is not told in it (None) stays."""
    made: FactValue = {**before}
    told: Any = {name: value for name, value in after.items() if value is not None}
    made.update(told)
    return made


@dataclass(slots=True)
class Fact:
    """What a line says of how time passes: its kind, its values, and which tokens said it."""

    kind: str
    value: FactValue
    first: int
    last: int


@dataclass(slots=True)
class TokenMatch:
    """The tokens that a pattern took, by name."""

    found: dict[str, Token]

    def __contains__(self, name: str) -> bool:
        return name in self.found

    def number(self, name: str) -> float:
        """The number of a token that the pattern always has."""
        return self.found[name].number

    def amount(self, name: str) -> Amount:
        """A time or a distance as it is said, of a token that the pattern always has."""
        return self.found[name].amount

    def seconds(self, name: str) -> Amount:
        """A time, of a token that the pattern always has; a bare number is seconds from 10 on, minutes below."""
        token = self.found[name]
        if token.kind == "NUM":
            return token.number if token.number >= BARE_REST_SECONDS_FROM else token.number * 60
        return token.amount

    def minutes(self, name: str) -> Amount | None:
        """A time; a bare number is minutes. None where the token is not there."""
        token = self.found.get(name)
        if token is None:
            return None
        return token.number * 60 if token.kind == "NUM" else token.amount

    def count(self, name: str) -> Amount | None:
        """A count, at least 1, or a range of it. None where the token is not there."""
        token = self.found.get(name)
        if token is None:
            return None
        return between(*token.pair) if token.kind == "RANGE" else max(1, int(token.number))


Say = Callable[[TokenMatch], FactValue | None]


@dataclass(frozen=True, slots=True)
class Rule:
    """One habit of writing: its pattern, the kind of fact it makes, and how."""

    kind: str
    pattern: re.Pattern[str]
    names: tuple[str, ...]
    say: Say
    examples: tuple[str, ...]
    needs: str = ""
    undosed: bool = False
    unnamed: bool = False


_PART = re.compile(r"(?:(?P<name>\w+)=)?(?P<kinds>[A-Z0-9|.]+)(?P<times>[?*+]?)")
WRITING_RULES: list[Rule] = []
ENDS = frozenset({"SEP", "PLUS", "THEN", "THENS", "COLON", "ARROW", "AND", "SLASH"})
"""Kinds of tokens that end what is named in front of them."""
DOSE_KINDS = frozenset({"NUM", "RANGE", "DIST", "TIME"})
"""Kinds of tokens that dose what is named behind them."""


def compiled(pattern: str) -> tuple[re.Pattern[str], tuple[str, ...]]:
    """A pattern of kinds as a regular expression over `KIND KIND … `, and the names in it.

    Raises ValueError for what is no pattern.
    """
    parts, names = [], []
    for part in pattern.split():
        if part.startswith("<"):
            parts.append(f"(?<!{part[1:]} )")
            continue
        if part.startswith("!"):
            parts.append("(?!" + "|".join(f"{one} " for one in part[1:].split("|")) + ")")
            continue
        m = _PART.fullmatch(part)
        if m is None:
            raise ValueError(f"no pattern: {part}")
        kinds = "|".join(rf"{one} " if one != "." else r"\w+ " for one in m["kinds"].split("|"))
        group = f"(?:{kinds})"
        if m["name"]:
            names.append(m["name"])
            group = f"(?P<{m['name']}>{kinds})"
        parts.append(group + m["times"])
    return re.compile(r"(?<!\w)" + "".join(parts)), tuple(names)


def rule(
    kind: str, *patterns: str, examples: tuple[str, ...], undosed: bool = False, unnamed: bool = False
) -> Callable[[Say], Say]:
    """Register a habit of writing. It is tried in the order of the file; `examples` must each be read by it.

    `undosed`: it holds only where no dose stands in front of it on the line; `unnamed`: nor a name behind a dose.
    """

    def register(say: Say) -> Say:
        for number, pattern in enumerate(patterns):
            made, names = compiled(pattern)
            first = next(
                (
                    p
                    for p in pattern.split()
                    if not p.endswith(("?", "*")) and not p.startswith(("!", "<")) and "|" not in p and p != "FACT"
                ),
                "",
            )
            needs = first.split("=")[-1].rstrip("+")
            WRITING_RULES.append(
                Rule(kind, made, names, say, examples if number == 0 else (), needs, undosed, unnamed)
            )
        return say

    return register


@dataclass(slots=True)
class Scanned:
    """A line's tokens, and the facts found among them; a token that said a fact is taken."""

    tokens: list[Token]
    facts: list[Fact] = field(default_factory=list)
    taken: list[bool] = field(default_factory=list)

    def free(self) -> Iterator[tuple[int, Token]]:
        """The tokens that no fact took, with their numbers."""
        return ((i, t) for i, t in enumerate(self.tokens) if not self.taken[i])

    def has(self, *kinds: str) -> bool:
        """Whether a fact of one of these kinds was found."""
        return any(one.kind in kinds for one in self.facts)


def dosed(kinds: list[str]) -> bool:
    """Whether a dose is among kinds of tokens."""
    return any(kind in DOSE_KINDS for kind in kinds)


def scan(tokens: list[Token]) -> Scanned:
    """Hold a line's tokens against every rule; what one has taken is no longer there for those after it."""
    scanned = Scanned(tokens, [], [False] * len(tokens))
    kinds = [t.kind for t in tokens]
    present = set(kinds)
    code = " ".join(kinds) + " " if kinds else ""
    for one in WRITING_RULES:
        if one.needs and one.needs not in present:
            continue
        m = one.pattern.search(code)
        while m is not None:
            step = m.end()
            first, last = code.count(" ", 0, m.start()), code.count(" ", 0, m.end()) - 1
            found = {}
            for name in one.names:
                if m[name] is not None:
                    found[name] = tokens[code.count(" ", 0, m.start(name))]
            value = one.say(TokenMatch(found))
            if (one.undosed or (one.unnamed and kinds[:first][-1:] in (["W"], ["X"]))) and dosed(kinds[:first]):
                value = None
            if value is not None and last >= first:
                scanned.facts.append(Fact(one.kind, value, first, last))
                for index in range(first, last + 1):
                    scanned.taken[index] = True
                    kinds[index] = "FACT"
                before = len(code)
                code = " ".join(kinds) + " "
                step += len(code) - before
            m = one.pattern.search(code, max(step, 0)) if step < len(code) else None
    scanned.facts.sort(key=lambda fact: fact.first)
    return scanned
