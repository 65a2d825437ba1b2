"""Movement names on the wall: from words to a key and back."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from lark.exceptions import LarkError

from finetally.core.board.grammar import line_parser
from finetally.core.movements.library import Library
from finetally.core.movements.sides import one_sided_hold

_PLAIN = re.compile(r"[^\W\d_][\w'’]*(-[\w'’]+)*( [^\W\d_][\w'’]*(-[\w'’]+)*)*")


@dataclass(frozen=True, slots=True)
class Stub:
    """A movement that nobody knows yet: where it stands, the key it got, and the nearest names."""

    key: str
    words: str
    line: int
    column: int
    nearest: tuple[str, ...]
    quoted: bool = False


def _folded(text: str) -> str:
    return " ".join(text.lower().replace("’", "'").replace("-", " ").replace("_", " ").split())


def _singular(text: str) -> str:
    for ending, stem in (("ies", "y"), ("sses", "ss"), ("ches", "ch"), ("shes", "sh"), ("s", "")):
        if text.endswith(ending) and not (ending == "s" and text.endswith("ss")):
            return text[: -len(ending)] + stem
    return text


MAX_STUB_LOOKUPS = 200
"""Unknown names of one text that nearest names are looked up for; a text of more is no session."""


@lru_cache(maxsize=16)
def _keys_of(library: Library) -> dict[str, str]:
    keys: dict[str, str] = {}
    for key, movement in library.items():
        for text in (movement.name or key, key):
            keys.setdefault(_folded(text), key)
    for key, movement in library.items():
        for text in movement.aliases or ():
            keys.setdefault(_folded(text), key)
    for text, key in list(keys.items()):
        keys.setdefault(_singular(text), key)
    return keys


class NameBook:
    """Names, aliases and keys of a library. What several movements are called alike, the first has."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._keys = _keys_of(library)
        self._said: dict[str, str] = {}
        self._near: dict[str, tuple[str, ...]] = {}

    def key_of(self, words: str) -> str | None:
        """The movement that is called so, forgiving case, hyphens and plurals; None if nothing is."""
        text = _folded(words)
        return self._keys.get(text) or self._keys.get(_singular(text))

    def exact(self, text: str) -> str | None:
        """What quotes name: a key as it stands, else what is called so."""
        return text if text in self._library else self.key_of(text)

    def stub(self, words: str, line: int, column: int) -> Stub:
        """Words that name no movement."""
        key = " ".join(words.split())[:120] or "movement"
        near = self._near.get(key)
        if near is None and len(self._near) < MAX_STUB_LOOKUPS:
            names = (self._library[one].name or one for one in self._library.nearest(key))
            near = self._near[key] = tuple(names)
        return Stub(key, words, line, column, near or ())

    def holds_a_side(self, key: str) -> bool:
        """Whether a movement is a stretch or hold that each side has for itself."""
        return one_sided_hold(self._library.get(key), key)

    def words_of(self, key: str) -> str:
        """What stands on the wall for a key: its name if that reads back, else the key in quotes."""
        said = self._said.get(key)
        if said is None:
            movement = self._library.get(key)
            name = movement.name if movement is not None else None
            said = name if name and self.key_of(name) == key and reads_as_name(name) else quoted_key(key)
            self._said[key] = said
        return said


def quoted_key(key: str) -> str:
    """A key in quotes; a dash for one that no quotes can hold, which only the full form tells."""
    fits = '"' not in key and key == " ".join(key.split()) and key
    return f'"{key}"' if fits else '"-"'


def reads_as_name(text: str) -> bool:
    """Whether words can stand on the wall without quotes: no digit, and nothing that says something else."""
    if not _PLAIN.fullmatch(text):
        return False
    try:
        tree = line_parser().parse(text, start="name")
        step = line_parser().parse(f"1 {text}", start="step")
    except LarkError:
        return False
    piece = step.children[0]
    return len(tree.children) == len(text.split()) and len(getattr(piece, "children", ())) == 2
