"""What is wrong with a text: where, what was found, what could stand there."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lark.exceptions import UnexpectedCharacters, UnexpectedEOF, UnexpectedInput, UnexpectedToken

from finetally.core.session.problems import shown

MAX_BOARD_PROBLEMS = 100
"""Problems listed of one text."""


@dataclass(frozen=True, slots=True)
class BoardProblem:
    """One place of a text: line and column count from 1."""

    line: int
    column: int
    found: str
    allowed: str
    code: str

    @property
    def text(self) -> str:
        """One line for people."""
        return f"line {self.line}, column {self.column}: found {self.found}; allowed: {self.allowed}"


class BoardError(ValueError):
    """A text that cannot be read. Carries every problem found."""

    def __init__(self, problems: Iterable[BoardProblem]) -> None:
        self.problems = tuple(problems)[:MAX_BOARD_PROBLEMS]
        super().__init__("; ".join(one.text for one in self.problems))


def of_line(error: UnexpectedInput, text: str, line: int, indent: int, allowed: str) -> BoardProblem:
    """A line that the grammar does not know, as a problem. `allowed` says what such a line holds."""
    column = len(text) if isinstance(error, UnexpectedEOF) or (error.column or 0) < 1 else error.column - 1
    if isinstance(error, UnexpectedToken) and error.token.type == "$END":
        column = len(text)
    rest = text[column:].strip()
    first = rest.split(",")[0].split(":")[0].strip() or rest
    found = shown(first) if rest else "the end of the line"
    code = "word" if isinstance(error, UnexpectedCharacters) else "order"
    return BoardProblem(line, indent + column + 1, found, allowed, code)
