"""From bytes to a Session: safe JSON, then the models, then the rules that span several keys."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Iterable

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from finetally.core.session.cleaning import UNCLEAN, cleaned_tree
from finetally.core.session.document import Session
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.limits import MAX_BYTES, MAX_DEPTH, MAX_NODES, MAX_PROBLEMS
from finetally.core.session.problems import (
    DocumentError,
    Path,
    PathPart,
    Problem,
    path_text,
    refuse,
    shown,
)
from finetally.core.session.rules import rule_problems
from finetally.core.session.values import DocumentObject

_KEYS = re.compile(r'"[ \t\n\r]*:')
"""The end of a key. Never fewer than there are keys; more where a text holds the like of it."""


class _Object(JsonObject):
    """A JSON object that remembers which of its keys came twice."""

    twice: tuple[str, ...] = ()


class JsonMap(_Object):
    """The same, filled key by key."""

    def __setitem__(self, key: str, value: JsonValue) -> None:
        if key in self:
            self.twice = (*self.twice, key)
        super().__setitem__(key, value)


def clean_value(value: JsonValue, deepest: int) -> JsonValue:
    """A value that a stream of JSON was read into, with its texts cleaned. Refuses what `read_json` refuses.

    Raises DocumentError with a place for each problem.
    """
    problems, _ = _tree_problems(value, deepest)
    if problems:
        raise DocumentError(problems)
    return cleaned_tree(value)


def _object(pairs: list[tuple[str, JsonValue]]) -> JsonObject:
    made = _Object(pairs)
    if len(made) < len(pairs):
        seen: set[str] = set()
        made.twice = tuple(key for key, _ in pairs if key in seen or seen.add(key))  # type: ignore[func-returns-value]
    return made


def read_json(data: bytes | str, *, deepest: int = MAX_DEPTH, most: int = MAX_BYTES) -> JsonValue:
    """Parse JSON from outside. Refuses what is too large, too deep, not finite, or has a key twice.

    Text is cleaned (see `cleaned`). Raises DocumentError with a place for each problem.
    """
    size = len(data)
    if size > most:
        raise refuse((), f"{size / 1e6:.1f} MB", f"up to {most / 1e6:g} MB", "too_large")
    _refuse_crowds(data)
    try:
        text = data.decode("utf-8-sig") if isinstance(data, bytes) else data
        value: JsonValue = json.loads(text)
        problems, keys = _tree_problems(value, deepest)
        if keys < len(_KEYS.findall(text)):
            # A key that came twice, or a text that looks like one: told apart by a slower reading.
            problems, _ = _tree_problems(json.loads(text, object_pairs_hook=_object), deepest)
    except UnicodeDecodeError as error:
        raise refuse((), f"a byte that is not UTF-8 at {error.start}", "UTF-8 text", "not_text") from None
    except json.JSONDecodeError as error:
        place = f"line {error.lineno} column {error.colno}"
        raise refuse((), f"no JSON at {place} ({error.msg.lower()})", "one JSON object", "not_json") from None
    except RecursionError:
        raise refuse((), "very deep nesting", f"{deepest} levels", "too_deep") from None
    except ValueError:
        raise refuse((), "a number with thousands of digits", "ordinary numbers", "number") from None
    if problems:
        raise DocumentError(problems)
    # What is not to be there comes as an escape, or as a character beyond the printable ones.
    return cleaned_tree(value) if "\\u" in text or UNCLEAN.search(text) else value


def _refuse_crowds(data: bytes | str) -> None:
    """Refuse more values than any session has before they are made: each takes a hundred times its byte."""
    marks = ("[", "{", ",")
    count = sum(data.count(mark.encode()) if isinstance(data, bytes) else data.count(mark) for mark in marks)
    # Commas in texts count too: there is room for a hundred thousand of them.
    if count > MAX_NODES + 100_000:
        raise refuse((), f"{count} values", f"up to {MAX_NODES}", "too_large")


def _tree_problems(root: JsonValue, deepest: int) -> tuple[list[Problem], int]:
    """What JSON allows and a document does not, and how many keys there are. Paths are made for what is wrong."""
    problems: list[Problem] = []
    keys = 0
    stack: list[tuple[JsonValue, _Link | None, int]] = [(root, None, 0)]
    while stack and len(problems) < MAX_PROBLEMS:
        value, place, depth = stack.pop()
        if isinstance(value, float):
            if not math.isfinite(value):
                problems.append(Problem(_path_of(place), str(value), "a finite number", "not_finite"))
        elif isinstance(value, dict | list):
            if depth >= deepest:
                problems.append(Problem(_path_of(place), "very deep nesting", f"{deepest} levels", "too_deep"))
                continue
            children: Iterable[tuple[PathPart, JsonValue]]
            if isinstance(value, dict):
                keys += len(value)
                children = value.items()
                for key in value.twice if isinstance(value, _Object) else ():
                    problems.append(
                        Problem(_path_of((key, place)), "the key twice", "each key once", "duplicate_key")
                    )
            else:
                children = enumerate(value)
            for part, child in children:
                if type(child) in _LOOKED_INTO:
                    stack.append((child, (part, place), depth + 1))
    return problems, keys


_LOOKED_INTO = frozenset((float, dict, list, _Object, JsonMap))

_Link = tuple[PathPart, "_Link | None"]
"""A place as a chain from the inside out: a key, and the chain of what it is in."""


def _path_of(place: _Link | None) -> str:
    parts: list[PathPart] = []
    while place is not None:
        part, place = place
        parts.append(part)
    return path_text(tuple(reversed(parts)))


_ALLOWED = {
    "missing": "this key is required",
    "string_type": "text",
    "string_too_short": "text of at least {min_length} character",
    "string_too_long": "text of at most {max_length} characters",
    "list_type": "a list",
    "too_short": "a list of at least {min_length}",
    "too_long": "a list of at most {max_length}",
    "dict_type": "an object",
    "model_type": "an object",
    "model_attributes_type": "an object",
    "bool_type": "true or false",
    "int_type": "a whole number",
    "float_type": "a number",
    "literal_error": "{expected}",
}


def _place(error: ErrorDetails) -> Path:
    # Tags of unions start with a tilde: they are ours, not the document's.
    return tuple(part for part in error["loc"] if not str(part).startswith("~") and part != "[key]")


def _value_at(document: JsonValue, path: Path) -> JsonValue:
    """What stands at a path. Raises LookupError where nothing does."""
    value = document
    for part in path:
        value = _child(value, part)
    return value


def _child(value: JsonValue, part: PathPart) -> JsonValue:
    if isinstance(value, dict) and isinstance(part, str):
        return value[part]
    if isinstance(value, list) and isinstance(part, int):
        return value[part]
    raise LookupError(part)


def _problem(document: JsonValue, error: ErrorDetails) -> Problem:
    path = _place(error)
    context = error.get("ctx") or {}
    template = _ALLOWED.get(error["type"])
    allowed = template.format(**context) if template else str(context.get("allowed", error["msg"]))
    try:
        if error["type"] == "clock" and isinstance(_value_at(document, path), dict):
            path = (*path, "kind")
        text = shown(_value_at(document, path))
    except LookupError:
        text = "nothing"
    return Problem(path_text(path), text, allowed, error["type"])


def object_of(document: JsonValue) -> JsonObject:
    """A decoded document, if it is an object. Raises DocumentError for anything else."""
    if not isinstance(document, dict):
        raise refuse((), shown(document), "an object with the key fine_tally", "model_type")
    return document


def parse_session(document: JsonValue) -> Session:
    """Validate a decoded document. Raises DocumentError listing every problem, each with its path."""
    try:
        session = Session.model_validate(object_of(document))
    except ValidationError as error:
        details = error.errors(include_url=False, include_input=False)
        raise DocumentError(_problem(document, detail) for detail in details[:MAX_PROBLEMS]) from None
    problems = rule_problems(session)
    if problems:
        raise DocumentError(problems[:MAX_PROBLEMS])
    return session


def read_session(data: bytes | str) -> tuple[JsonObject, Session]:
    """Read a session file: the document as written, and its validated form."""
    document = read_json(data)
    return object_of(document), parse_session(document)


SCALAR_TYPES = frozenset((str, int, float, bool, type(None)))
"""Kinds of values with nothing in them."""


def walk_unknown(session: Session) -> list[Path]:
    """Paths of the keys that this release does not know; they are kept and written back."""
    found: list[Path] = []
    _unknown(session, (), found)
    return found


def _unknown(value: DocumentObject | list[DocumentObject], path: tuple[PathPart, ...], found: list[Path]) -> None:
    if isinstance(value, list):
        for index, item in enumerate(value):
            if isinstance(item, DocumentObject | list):
                _unknown(item, (*path, index), found)
    elif isinstance(value, DocumentObject):
        extra = value.__pydantic_extra__
        if extra:
            found.extend((*path, key) for key in extra)
        fields = value.__dict__
        for key in value.__pydantic_fields_set__:
            child = fields.get(key)
            if type(child) not in SCALAR_TYPES and isinstance(child, DocumentObject | list):
                _unknown(child, (*path, "from" if key == "source" else key), found)
