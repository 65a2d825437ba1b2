"""Everyday names of movements: one word or two, plural, shortened, misspelt. Never a guess over another's own name."""

from __future__ import annotations

import re
from collections.abc import Iterable
from functools import lru_cache
from types import MappingProxyType

from rapidfuzz import process
from rapidfuzz.distance import OSA

from finetally.core.movements.library import LONGEST_NAME_CHARS, Library

SHORT_FORMS = MappingProxyType(
    {
        "kb": "kettlebell", "kbs": "kettlebell", "bell": "kettlebell", "bells": "kettlebell", "db": "dumbbell", "dbs": "dumbbell",
        "dumbell": "dumbbell", "dumbells": "dumbbell", "bb": "barbell", "bbs": "barbell", "bw": "bodyweight", "rev": "reverse", "sl": "one leg", "sa": "one arm", "single": "one", "1": "one",
        "oh": "overhead", "ohd": "overhead", "farmers": "farmer", "farmer's": "farmer", "devils": "devil", "devil's": "devil",
        "child's": "childs", "child": "childs", "worlds": "world", "world's": "world", "russians": "russian", "mb": "medicine ball",
        "medball": "medicine ball", "trx": "suspension", "incl": "incline", "ext": "extension", "hams": "hamstring",
        "med": "medicine", "goblets": "goblet squat", "rucksack": "pack", "backpack": "pack", "tyre": "tire", "tyres": "tire",
        "hspu": "handstand push up", "pressup": "push up", "pu": "push up", "hr": "hand release", "banded": "band", "mtn": "mountain", "tricep": "triceps", "tri": "triceps", "bicep": "biceps", "flys": "fly", "flies": "fly", "lateral": "side", "laterals": "side",
    }
)  # fmt: skip
"""Words that stand for others wherever they stand in a name; an empty one says nothing of the movement itself."""

NOT_COUNTED = frozenset(
    [
        "the",
        "a",
        "of",
        "an",
        "steps",
        "step",
        "position",
        "positions",
        "easy",
        "ez",
        "heavy",
        "strict",
        "slow",
        "slowly",
        "smooth",
        "controlled",
        "quality",
        "good",
        "your",
        "with",
        "on",
        "some",
        "full",
        "proper",
        "tempo",
        "paused",
        "pause",
        "weighted",
        "loaded",
        "synchro",
        "synchronised",
        "synchronized",
        "partner",
        "perfect",
        "steady",
        "quick",
        "fast",
        "hard",
        "light",
        "nice",
        "more",
        "gentle",
        "relaxed",
        "deliberate",
        "bodyweight",
        "alt",
        "alternate",
        "alternating",
        "alternated",
    ]
)
"""Words that do not change which movement is meant."""

KIT_ALONE = frozenset({"kettlebell", "dumbbell", "barbell"})
"""What is a movement's short name only as it is written (`20 kbs`): `kettlebell` alone is none."""

_SPLIT = re.compile(r"[^\w']+")
TYPO_FROM = 5
"""Letters from which a word with one wrong, missing, doubled or swapped letter is still told."""


@lru_cache(maxsize=20_000)
def singular(word: str) -> str:
    """A word without its plural ending."""
    for ending, stem in (
        ("ies", "y"),
        ("sses", "ss"),
        ("ches", "ch"),
        ("shes", "sh"),
        ("xes", "x"),
        ("lves", "lf"),
    ):
        if word.endswith(ending) and len(word) > len(ending) + 1:
            return word[: -len(ending)] + stem
    if word.endswith("s") and not word.endswith(("ss", "us", "is")) and len(word) > 2:
        return word[:-1]
    return word


@lru_cache(maxsize=20_000)
def canonical(text: str) -> tuple[str, ...]:
    """The words of a name in their plain form: short forms spelt out, plurals and hyphens gone."""
    made: list[str] = []
    for word in _SPLIT.split(text.lower().replace("’", "'").replace("_", " ")):
        if not word:
            continue
        long = SHORT_FORMS.get(word)
        if long is None:
            long = SHORT_FORMS.get(singular(word), singular(word.strip("'").removesuffix("'s")))
        made.extend(long.split())
    for at in range(len(made) - 1):
        # A press-up is a push-up wherever it stands in a name.
        if made[at] == "press" and made[at + 1] == "up":
            made[at] = "push"
    return tuple(made)


def folded(text: str) -> str:
    """A name as it is compared letter by letter: no capitals, hyphens or doubled blanks."""
    return " ".join(text.lower().replace("’", "'").replace("-", " ").replace("_", " ").split())


@lru_cache(maxsize=16)
def everyday_names(library: Library) -> EverydayNames:
    """The names of a library: the one resolver of texts, board text and typed movements."""
    return EverydayNames(library)


class EverydayNames:
    """Names, aliases and keys of a library in every everyday form. What two would be called alike, neither is by it.

    Immutable, and shared by all texts of a process: what a text may cost is counted in its own `Spelling`.
    """

    def __init__(self, library: Library) -> None:
        self._written = _as_written(library)
        self._keys: dict[str, str] = {}
        self._words: set[str] = set()
        self._exact: dict[str, str] = {}
        taken: dict[str, set[str]] = {}
        for key, movement in library.items():
            for text in (movement.name or key, key):
                self._enter(text, key)
        for key, movement in library.items():
            for text in movement.aliases or ():
                if "".join(canonical(text)) in KIT_ALONE:
                    self._exact[text.lower()] = key
                    continue
                taken.setdefault("".join(canonical(text)), set()).add(key)
                self._words.update(canonical(text))
        for joined, keys in taken.items():
            if len(keys) == 1:
                self._keys.setdefault(joined, next(iter(keys)))
        self.long_words = sorted(word for word in self._words if len(word) >= TYPO_FROM)

    def _enter(self, text: str, key: str) -> None:
        words = canonical(text)
        self._words.update(words)
        self._keys.setdefault("".join(words), key)

    def knows(self, word: str) -> bool:
        """Whether a word is in any name."""
        return singular(word.lower()) in self._words

    def exact(self, text: str) -> str | None:
        """The movement whose key, name or alias this is, forgiving capitals, hyphens and plurals."""
        written = folded(text)
        return self._written.get(written) or self._written.get(_without_plural(written))

    def find(self, text: str) -> str | None:
        """The movement that is called so; None if nothing is."""
        if len(text) > LONGEST_NAME_CHARS:
            return None
        found = self.exact(text)
        if found is not None:
            return found
        words = canonical(text)
        if not words or "".join(words) in KIT_ALONE:
            return self._exact.get(text.lower().strip())
        return self._of(words) or self._of(tuple(w for w in words if w not in NOT_COUNTED))

    def _of(self, words: Iterable[str]) -> str | None:
        joined = "".join(words)
        return self._keys.get(joined) if joined else None

    def called(self, words: Iterable[str]) -> str | None:
        """The movement of plain words (`canonical`); None if there is none."""
        return self._of(words)

    def is_word(self, word: str) -> bool:
        """Whether a plain word is in any name."""
        return word in self._words

    def joined_near(self, joined: str) -> dict[str, str]:
        """Names about as long as `joined`, their words written together, with their movements."""
        return {name: key for name, key in self._keys.items() if abs(len(name) - len(joined)) < 2}


def _as_written(library: Library) -> dict[str, str]:
    """Movements by key, name and alias as they are written; an alias of two movements is neither's."""
    keys: dict[str, str] = {}
    for key, movement in library.items():
        for text in (movement.name or key, key):
            keys.setdefault(folded(text), key)
    of_alias: dict[str, set[str]] = {}
    for key, movement in library.items():
        for text in movement.aliases or ():
            of_alias.setdefault(folded(text), set()).add(key)
    for text, owners in of_alias.items():
        if len(owners) == 1:
            keys.setdefault(text, next(iter(owners)))
    for text, key in list(keys.items()):
        if "".join(canonical(text)) not in KIT_ALONE:
            keys.setdefault(_without_plural(text), key)
    return keys


def _without_plural(text: str) -> str:
    for ending, stem in (("ies", "y"), ("sses", "ss"), ("ches", "ch"), ("shes", "sh"), ("s", "")):
        if text.endswith(ending) and not (ending == "s" and text.endswith("ss")):
            return text[: -len(ending)] + stem
    return text


class Spelling:
    """Movements meant by misspelt names, for one text: near words are looked up for so many words and no more."""

    def __init__(self, names: EverydayNames) -> None:
        self._names = names
        self._near: dict[str, str | None] = {}

    def movement(self, text: str) -> str | None:
        """The movement that is meant where a word or two has one letter wrong; None where that is not plain."""
        words = canonical(text)
        if len(text) > LONGEST_NAME_CHARS or not words or len(words) > 5:
            return None
        kept = [w for w in words if w not in NOT_COUNTED]
        mended = [self._mended(w) if len(w) >= TYPO_FROM and not self._names.is_word(w) else w for w in kept]
        if any(w is None for w in mended) or mended == kept:
            joined = "".join(kept)
            return self._joined(joined) if len(joined) >= TYPO_FROM + 1 and len(kept) == 1 else None
        return self._names.called([w for w in mended if w])

    def _mended(self, word: str) -> str | None:
        """The one word of the library's names that this is a slip of."""
        if word not in self._near:
            if len(self._near) >= MOST_TYPOS:
                return None
            near = _slips(word, self._names.long_words)
            self._near[word] = near[0] if len(near) == 1 else None
        return self._near[word]

    def _joined(self, joined: str) -> str | None:
        """The one movement whose name, written together, this is a slip of."""
        name = f"={joined}"
        if name not in self._near:
            if len(self._near) >= MOST_TYPOS:
                return None
            names = self._names.joined_near(joined)
            keys = {names[one] for one in _slips(joined, list(names))}
            self._near[name] = next(iter(keys)) if len(keys) == 1 else None
        return self._near[name]


def _slips(typed: str, among: list[str]) -> list[str]:
    """Words that what was typed is a slip of."""
    near = process.extract(typed, among, scorer=OSA.distance, score_cutoff=1, limit=4)
    return [one[0] for one in near if _slip(typed, one[0])]


def _slip(typed: str, meant: str) -> bool:
    """Whether one is a slip of the other: letters swapped, missing or doubled; a wrong letter only in a long word."""
    same_letters = len(typed) == len(meant) and sorted(typed) != sorted(meant)
    return len(typed) >= WRONG_LETTER_FROM if same_letters else True


WRONG_LETTER_FROM = 7
"""Letters from which one wrong letter still leaves no doubt: `squad` is no squat."""

MOST_TYPOS = 400
"""Words of one text that near ones are looked up for; a text of more is no session."""
