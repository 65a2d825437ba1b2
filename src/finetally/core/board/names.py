"""Movement names on the wall: from words to a key and back."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import NamedTuple

from lark.exceptions import LarkError

from finetally.core.board.grammar import line_parser
from finetally.core.movements.by_dose import SaidDose, movement_by_dose
from finetally.core.movements.library import Library
from finetally.core.movements.names import everyday_names
from finetally.core.movements.sides import one_sided_hold
from finetally.core.session.json_value import JsonObject
from finetally.core.session.parts import written
from finetally.core.session.step import Step

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


MAX_STUB_LOOKUPS = 200
"""Unknown names of one text that nearest names are looked up for; a text of more is no session."""


class MovementWords(NamedTuple):
    """A movement on the wall: its key, and the words that it is called by; None where quotes name it."""

    key: str
    words: str | None


class NameBook:
    """Names, aliases and keys of a library on the wall: from words to a key and back."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._everyday = everyday_names(library)
        self._said: dict[str, str] = {}
        self._near: dict[str, tuple[str, ...]] = {}

    def key_of(self, words: str) -> str | None:
        """The movement that is called so in everyday words; None if nothing is."""
        return self._everyday.find(words)

    def key_with(self, name: MovementWords, said: JsonObject) -> str:
        """The key of a movement with what else is said of it: a bare name may mean another one by its dose."""
        if name.words is None or name.key not in self._library:
            return name.key
        dose = SaidDose(*(said.get(part) for part in SaidDose._fields))
        return movement_by_dose(name.words, dose, names=self._everyday, library=self._library) or name.key

    def exact(self, text: str) -> str | None:
        """What quotes name: a key as it stands, else what is called so."""
        return text if text in self._library else self._everyday.exact(text)

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

    def words_with(self, step: Step) -> str:
        """A step's movement as the wall writes it: in quotes where its dose would name another movement."""
        words = self.words_of(step.movement)
        if words.startswith('"') or step.movement not in self._library:
            return words
        said = written(step)
        return (
            words
            if self.key_with(MovementWords(step.movement, words), said) == step.movement
            else quoted_key(words)
        )

    def words_of(self, key: str) -> str:
        """A key as the wall writes it: its name, in quotes where needed, else the key in quotes."""
        said = self._said.get(key)
        if said is None:
            movement = self._library.get(key)
            name = movement.name if movement is not None else None
            if name and self.key_of(name) == key and reads_as_name(name):
                said = name
            else:
                said = quoted_key(name if name and self.exact(name) == key else key)
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
        pieces = [line_parser().parse(f"{dose} {text}", start="step").children[0] for dose in DOSE_SAMPLES]
    except LarkError:
        return False
    alone = all(len(getattr(piece, "children", ())) == 2 for piece in pieces)
    return len(tree.children) == len(text.split()) and alone


DOSE_SAMPLES = ("1", "1 x", "5:00", "30 s", "10 m", "5 in 1:00")
"""Every kind of dose that may stand in front of a name: behind each, other words mean something else."""
