"""What a check says, and what it is given to look at."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from typing_extensions import TypedDict

from finetally.core.edits.edit import SetEdit, edit_json
from finetally.core.session.document import Block
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.problems import Path, PathPart, path_text
from finetally.core.tally.measure import Tally
from finetally.core.unfold.tape import LocatedBlock

Severity = Literal["note", "look", "stop"]
Fields = dict[str, str | int | float]


class Mend(TypedDict):
    """A change of the document that clears a check: a name for it, and its edits."""

    label: str
    edits: list[JsonObject]


class CheckResult(TypedDict):
    """One finding: `path` in the document, `at` on the tape where there is one place, `number` and its fields.

    `places`: paths of everything that it is about, where one line tells of several; the first is `path`. `block`:
    the number of the block that can accept it (`on_purpose`), if one can; `accepted`: it does.
    `text` is made from the fields, at the edge.
    """

    code: str
    severity: Severity
    path: str
    places: list[str]
    at: dict[str, str | int] | None
    number: float | None
    fields: Fields
    block: int | None
    accepted: bool
    mend: Mend | None
    text: str


@dataclass(frozen=True, slots=True)
class Finding:
    """What a check function gives back."""

    path: Path
    fields: Fields
    number: float | None = None
    at: dict[str, str | int] | None = None
    block: int | None = None
    severity: Severity | None = None
    mend: Mend | None = None
    others: tuple[Path, ...] = ()


@dataclass(frozen=True, slots=True)
class Check:
    """A row of the table: code, severity, the words with places for the fields, and the function."""

    code: str
    severity: Severity
    words: str
    find: Callable[[Tally], Iterator[Finding]]


def edit_path(of: LocatedBlock, *keys: PathPart) -> list[PathPart]:
    """Where an edit of a block goes: by its id, else by its path."""
    return [*of.edit_path, *keys]


def set_edit(label: str, at: list[PathPart], value: JsonValue) -> Mend:
    """A mend that sets one key."""
    return set_edits(label, [(at, value)])


def set_edits(label: str, edits: Sequence[tuple[list[PathPart], JsonValue]]) -> Mend:
    """A mend that sets several keys."""
    return {"label": label, "edits": [edit_json(SetEdit(path=at, value=value)) for at, value in edits]}


def block_name(of: LocatedBlock, number: int) -> str:
    """What a block is called in a finding."""
    return of.block.title or f"{of.part} block {number + 1}"


def counted_blocks(t: Tally) -> Iterator[tuple[int, LocatedBlock, Block]]:
    """The blocks whose parts count."""
    for number, of in enumerate(t.tape.blocks):
        if t.counted[number]:
            yield number, of, of.block


def result_of(check: Check, finding: Finding, t: Tally) -> CheckResult:
    """A finding as it is published."""
    accepted = False
    if finding.block is not None:
        accepted = check.code in (t.tape.blocks[finding.block].block.on_purpose or ())
    return {
        "code": check.code,
        "severity": finding.severity or check.severity,
        "path": path_text(finding.path),
        "places": [path_text(path) for path in (finding.path, *finding.others)],
        "at": finding.at,
        "number": finding.number,
        "fields": finding.fields,
        "block": finding.block,
        "accepted": accepted,
        "mend": finding.mend,
        "text": check.words.format(**finding.fields),
    }
