"""Problems as data: a place, what was found there, what is allowed. Text is made from the fields at the edge."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

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
    else:
        text = repr(value) if isinstance(value, str) else str(value)
    return text if len(text) <= 60 else text[:57] + "..."


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
    """A document that cannot be read or figured. Carries every problem found."""

    def __init__(self, problems: Iterable[Problem]) -> None:
        self.problems = tuple(problems)
        super().__init__("; ".join(p.text for p in self.problems))


def refuse(path: Sequence[PathPart], found: str, allowed: str, code: str) -> DocumentError:
    """A DocumentError with a single problem, ready to raise."""
    return DocumentError([Problem(path_text(path), found, allowed, code)])
