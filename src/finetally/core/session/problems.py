"""Problems as data: a place, what was found there, what is allowed. Text is made from the fields at the edge."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from finetally.core.session.limits import MAX_PROBLEMS

MAX_SHOWN, MAX_PLACE = 60, 200
"""Characters that are shown of what was found, and of a place: a key may be as long as the file."""

PathPart = str | int
Path = tuple[PathPart, ...]


def path_text(path: Sequence[PathPart]) -> str:
    """Write a path as `blocks[0].clock.work_s`; the whole document is `(document)`."""
    text = ""
    for part in path:
        if isinstance(part, int):
            text += f"[{part}]"
        else:
            text += f".{part}" if text else part
        if len(text) > MAX_PLACE:
            return text[: MAX_PLACE - 3] + "..."
    return text or "(document)"


def shown(value: object) -> str:
    """Show a found value in at most 60 characters."""
    if isinstance(value, dict):
        text = "an object"
    elif isinstance(value, list):
        text = f"a list of {len(value)}"
    elif value is None:
        text = "null"
    elif isinstance(value, bool):
        text = "true" if value else "false"
    elif isinstance(value, str):
        text = repr(value[:MAX_SHOWN])
    elif isinstance(value, int) and value.bit_length() > 1024:
        text = "a number of hundreds of digits"
    else:
        text = str(value)
    return text if len(text) <= MAX_SHOWN else text[: MAX_SHOWN - 3] + "..."


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing wrong with a document: `path` into it, `found`, `allowed`, and a stable `code`."""

    path: str
    found: str
    allowed: str
    code: str

    @property
    def text(self) -> str:
        """One line for people."""
        return f"{self.path}: found {self.found}; allowed: {self.allowed}"


class DocumentError(ValueError):
    """A document that cannot be read or figured. Carries every problem found, up to MAX_PROBLEMS."""

    def __init__(self, problems: Iterable[Problem]) -> None:
        self.problems = tuple(itertools.islice(problems, MAX_PROBLEMS))
        super().__init__("; ".join(p.text for p in self.problems))


def refuse(path: Sequence[PathPart], found: str, allowed: str, code: str) -> DocumentError:
    """A DocumentError with a single problem, ready to raise."""
    return DocumentError([Problem(path_text(path), found, allowed, code)])
