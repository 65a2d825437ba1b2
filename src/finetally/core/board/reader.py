"""Board text → session document. Line by line, every problem with its place, nothing half-read."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from typing import Any

from lark.exceptions import UnexpectedInput

from finetally.core.board.blocks import BlockDraft
from finetally.core.board.grammar import line_parser
from finetally.core.board.lines import LineReader, Statement
from finetally.core.board.names import NameBook, Stub
from finetally.core.board.problems import BoardError, BoardProblem, of_line
from finetally.core.board.unsaid import Patch, laid_over
from finetally.core.movements.library import Library
from finetally.core.session.cleaning import cleaned
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.limits import MAX_BYTES, MAX_DEPTH
from finetally.core.session.movement import MovementDef
from finetally.core.session.problems import DocumentError, shown
from finetally.core.session.reading import read_json

TRAILER_BEGINS = "--- not for the wall ---"
TRAILER_ENDS = "--- end ---"
DEEPEST_PATCH = 2 * MAX_DEPTH + 2
"""Levels of a trailer: each of the document's takes two in a patch."""
MAX_LINES = 20_000
"""Lines of one text: two hundred blocks of a hundred lines."""

PART_HEAD = re.compile(r"(warm[- ]?up|main(\s+part)?|finisher|cool[- ]?down|block)\s*(\(|\"|“|:)", re.IGNORECASE)
TITLE_WORD = re.compile(r"title\s*:\s*", re.IGNORECASE)
"""What may stand in front of a title, where it could be taken for something to do."""
QUOTED_TITLE = re.compile(r'"[^"\n]+"')
"""A title that could be read as something else is written in quotes after `title:`."""
META = re.compile(r"(notes?|cautions?|tags?|people|space|slack|effort)\s*:|stands\s+alone", re.IGNORECASE)
TOLD_LENGTH = re.compile(r"\d[\d:.]*(\s*(-|–|to)\s*\d[\d:.]*)?\s*[a-z']*", re.IGNORECASE)
"""What may stand after the last comma of the title: the length told."""
MOST_OF_LENGTH = 40
"""Characters of a length told: `1:05:00 to 1:10:00 minutes`, and room."""
LINE_FORMS = {
    "head": "a part, a colon and what it is: Main: 20 s on / 10 s off, 8 rounds",
    "step": "a dose, a movement and what goes with it: 12 one-arm snatch, each side, 16 kg",
    "option": 'or "label", easier: 8 knee push-up',
    "station": "at mat, 2 rounds:",
    "together": 'together "name", 3 times, 1:00 between:',
    "rest": "rest 1:00",
    "meta": "note:, caution:, tags:, people:, space:, slack:, effort: 7 of 10, stands alone",
}


@dataclass(slots=True)
class BoardReading:
    """A text that was read: the document, movements that nobody knows yet, and the line of each part by path."""

    document: JsonObject
    stubs: list[Stub] = field(default_factory=list)
    lines: dict[str, tuple[int, int]] = field(default_factory=dict)
    explicit: dict[str, set[str]] = field(default_factory=dict)


def read_board(text: str, *, library: Library, unsaid: Patch | None = None) -> BoardReading:
    """Read a text. `unsaid` is what an earlier document held beyond its wall; the text's own trailer goes first.

    Raises BoardError with every problem. The document is not validated: what is missing is told there.
    """
    lines = clean_lines(text)
    lines, patch = without_trailer(lines)
    patch = patch if patch is not None else unsaid
    board = read_lines(lines, library=library.with_definitions(definitions_in(patch)))
    board.document = laid_over(board.document, patch)
    return board


def read_lines(lines: list[str], *, library: Library) -> BoardReading:
    """Read lines without a trailer. Raises BoardError with every problem."""
    reader = _Reader(library)
    reader.read(lines)
    document = reader.document()
    if reader.problems:
        raise BoardError(sorted(reader.problems, key=lambda one: (one.line, one.column)))
    return BoardReading(document, reader.stubs, reader.places, reader.explicit)


def clean_lines(text: str) -> list[str]:
    """The lines of a text without control characters. Raises BoardError if there are too many."""
    lines = split_lines(text)
    if len(lines) > MAX_LINES:
        raise BoardError([BoardProblem(MAX_LINES, 1, f"{len(lines)} lines", f"up to {MAX_LINES}", "too_large")])
    return lines


def split_lines(text: str) -> list[str]:
    """The lines of a text without control characters. Raises BoardError for one that is too long."""
    if len(text) > MAX_BYTES:
        raise BoardError([BoardProblem(1, 1, f"{len(text)} characters", f"up to {MAX_BYTES}", "too_large")])
    return cleaned(text).replace("\r\n", "\n").replace("\r", "\n").split("\n")


def definitions_in(patch: Patch | None) -> list[MovementDef]:
    """The movements that a trailer defines."""
    given = (patch or {}).get("set")
    movements = given.get("movements") if isinstance(given, dict) else None
    made = []
    for one in movements if isinstance(movements, list) else ():
        try:
            made.append(MovementDef.model_validate(one))
        except ValueError:
            continue  # told with its path when the document is validated
    return made


def without_trailer(lines: list[str]) -> tuple[list[str], Patch | None]:
    """The lines in front of the trailer, and the patch that it holds. Raises BoardError for one that is broken."""
    begin = next((i for i, line in enumerate(lines) if line.strip() == TRAILER_BEGINS), None)
    if begin is None:
        return lines, None
    end = next((i for i in range(begin + 1, len(lines)) if lines[i].strip() == TRAILER_ENDS), len(lines))
    try:
        patch = read_json("\n".join(lines[begin + 1 : end]), deepest=DEEPEST_PATCH)
    except DocumentError as error:
        problem = error.problems[0]
        raise BoardError([BoardProblem(begin + 2, 1, problem.found, problem.allowed, "trailer")]) from None
    if not isinstance(patch, dict):
        raise BoardError([BoardProblem(begin + 2, 1, shown(patch), "one JSON object", "trailer")])
    return lines[:begin] + lines[end + 1 :], patch


def is_line(text: str) -> bool:
    """Whether a line without indent says something else than a title: a part, a rest, a margin note."""
    folded = text.lower()
    return bool(PART_HEAD.match(text) or META.match(text)) or folded.startswith(("together", "rest "))


class _Reader:
    def __init__(self, library: Library) -> None:
        self._names = NameBook(library)
        self.problems: list[BoardProblem] = []
        self.stubs: list[Stub] = []
        self.places: dict[str, tuple[int, int]] = {}
        self.explicit: dict[str, set[str]] = {}
        self._session: JsonObject = {}
        self._notes: list[str] = []
        self._cautions: list[JsonValue] = []
        self._entries: list[JsonObject] = []
        self._section: JsonObject | None = None
        self._blocks: list[JsonValue] = []
        self._block: BlockDraft | None = None

    def read(self, lines: list[str]) -> None:
        """Read all lines; what is wrong is collected."""
        began = False
        for number, raw in enumerate(lines, start=1):
            text = raw.strip()
            if not text:
                continue
            indent = len(raw) - len(raw.lstrip())
            if not began and indent == 0 and not is_line(text):
                self._title(text)
            else:
                self._line(text, number, indent)
            began = True

    def _title(self, text: str) -> None:
        word = TITLE_WORD.match(text)
        text = (text[word.end() :] if word else text) or text
        quoted = QUOTED_TITLE.match(text)
        title, comma, told = (part.strip() for part in text.rpartition(","))
        if comma and len(told) <= MOST_OF_LENGTH and TOLD_LENGTH.fullmatch(told):
            seconds = self._parse("rest", f"rest {told}", 0, 0, quiet=True)
            if seconds is None and told.isdecimal():
                seconds = int(told) * 60
            if seconds is not None:
                title = title[1:-1] if quoted and quoted.group() == title else title
                self._session.update({"title": title, "announced_s": seconds})
                return
        self._session["title"] = text[1:-1] if quoted and quoted.group() == text else text

    def _line(self, text: str, number: int, indent: int) -> None:
        folded = text.lower()
        if indent == 0:
            if PART_HEAD.match(text):
                self._head(text, number)
                return
            if META.match(text):
                self._meta(text, number)
                return
            if folded.startswith("together"):
                self._together(text, number)
                return
            if folded == "end together":
                self._end_section(number)
                return
            if re.match(r"rest\b", folded):
                self._rest(text, number)
                return
        self._inside(text, number, indent)

    def _inside(self, text: str, number: int, indent: int) -> None:
        if self._block is None:
            allowed = "a block first: Warm-up:, Main:, Finisher:, Cool-down: or Block:"
            self.problems.append(BoardProblem(number, indent + 1, shown(text), allowed, "no_block"))
            return
        folded = text.lower()
        if re.match(r"notes?\s*:", folded):
            self._block.note(text.split(":", 1)[1].strip())
        elif re.match(r"or\s+[\"“]", folded):
            option = self._parse("option", text, number, indent)
            if option is not None and not self._block.option(option):
                self.problems.append(BoardProblem(number, indent + 1, shown(text), "a step first", "no_step"))
        elif re.match(r"at\b.*:$", folded):
            station = self._parse("station", text, number, indent)
            if station is not None:
                self._block.station(station)
        else:
            self._block.tried = True
            steps = self._parse("step", text, number, indent)
            if steps is not None:
                self._block.steps(steps, (number, indent + 1))

    def _parse(self, start: str, text: str, number: int, indent: int, *, quiet: bool = False) -> Any:
        reader = LineReader(self._names, number, indent)
        try:
            made: Any = reader.transform(line_parser().parse(text, start=start))
        except UnexpectedInput as error:
            if not quiet:
                self.problems.append(of_line(error, text, number, indent, LINE_FORMS[start]))
            return None
        if start == "step" and any("movement" not in one for one in made):
            self.problems.append(BoardProblem(number, indent + 1, shown(text), LINE_FORMS[start], "no_movement"))
            return None
        self.stubs.extend(reader.stubs)
        return made

    def _head(self, text: str, number: int) -> None:
        said: list[Statement] | None = self._parse("head", text, number, 0)
        self._close_block()
        self._block = BlockDraft(said or [], (number, 1))

    def _meta(self, text: str, number: int) -> None:
        said = self._parse("meta", text, number, 0)
        if said is None:
            return
        (key,), value = said
        if key == "note":
            self._notes.append(value)
        elif key == "cautions":
            self._cautions.append(value)
        else:
            self._session[key] = value

    def _rest(self, text: str, number: int) -> None:
        seconds = self._parse("rest", text, number, 0)
        if seconds is None:
            return
        if self._block is not None:
            self._block.set(("rest_after_s",), seconds)
        elif self._section is None and self._entries and "section" in self._entries[-1]:
            self._entries[-1]["rest_after_s"] = seconds
        else:
            self.problems.append(BoardProblem(number, 1, shown(text), "a block before the rest", "no_block"))

    def _together(self, text: str, number: int) -> None:
        made = self._parse("together", text, number, 0)
        self._close_block()
        if self._section is not None:
            self.problems.append(BoardProblem(number, 1, "together in together", "end together first", "nested"))
        self._blocks = []
        self._section = {**(made or {"section": ""}), "blocks": self._blocks}
        self._entries.append(self._section)

    def _end_section(self, number: int) -> None:
        self._close_block()
        if self._section is None:
            self.problems.append(BoardProblem(number, 1, "end together", "together first", "nested"))
        elif not self._blocks:
            self.problems.append(BoardProblem(number, 1, "no block in it", "a block at least", "empty"))
        self._section = None

    def _close_block(self) -> None:
        if self._block is None:
            return
        path = f"blocks[{len(self._entries)}]"
        if self._section is not None:
            path = f"blocks[{len(self._entries) - 1}].blocks[{len(self._blocks)}]"
        if not self._block.has_steps:
            line, column = self._block.place
            allowed = "its movements, one a line, indented"
            self.problems.append(BoardProblem(line, column, "a block without steps", allowed, "empty"))
        made = self._block.made(path, self.places)
        if self._section is None:
            self._entries.append(made)
        else:
            self._blocks.append(made)
        self.explicit[path] = self._block.explicit
        self._block = None

    def document(self) -> JsonObject:
        """The document that the lines made."""
        self._close_block()
        if self._notes:
            self._session["notes"] = "\n".join(self._notes)
        if self._cautions:
            self._session["cautions"] = self._cautions
        return {"fine_tally": 1, "title": "Session", **self._session, "blocks": [*self._entries]}
