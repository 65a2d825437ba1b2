"""From bytes to a Session: safe JSON, then the models, then the rules that span several keys."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from finetally.core.session.cleaning import UNCLEAN, cleaned_tree
from finetally.core.session.document import Session
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


class _Object(dict[str, Any]):
    """A JSON object that remembers which of its keys came twice."""

    twice: tuple[str, ...] = ()


def _object(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    made = _Object(pairs)
    if len(made) < len(pairs):
        seen: set[str] = set()
        made.twice = tuple(key for key, _ in pairs if key in seen or seen.add(key))  # type: ignore[func-returns-value]
    return made


def read_json(data: bytes | str) -> Any:
    """Parse JSON from outside. Refuses what is too large, too deep, not finite, or has a key twice.

    Text is cleaned (see `cleaned`). Raises DocumentError with a place for each problem.
    """
    size = len(data)
    if size > MAX_BYTES:
        raise refuse((), f"{size / 1e6:.1f} MB", f"up to {MAX_BYTES / 1e6:g} MB", "too_large")
    _refuse_crowds(data)
    try:
        text = data.decode("utf-8-sig") if isinstance(data, bytes) else data
        value = json.loads(text)
        problems, keys = _tree_problems(value)
        if keys < len(_KEYS.findall(text)):
            # A key that came twice, or a text that looks like one: told apart by a slower reading.
            problems, _ = _tree_problems(json.loads(text, object_pairs_hook=_object))
    except UnicodeDecodeError as error:
        raise refuse((), f"a byte that is not UTF-8 at {error.start}", "UTF-8 text", "not_text") from None
    except json.JSONDecodeError as error:
        place = f"line {error.lineno} column {error.colno}"
        raise refuse((), f"no JSON at {place} ({error.msg.lower()})", "one JSON object", "not_json") from None
    except RecursionError:
        raise refuse((), "very deep nesting", f"{MAX_DEPTH} levels", "too_deep") from None
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


def _tree_problems(root: Any) -> tuple[list[Problem], int]:
    """What JSON allows and a document does not, and how many keys there are. Paths are made for what is wrong."""
    problems: list[Problem] = []
    keys = 0
    stack: list[tuple[Any, _Link | None, int]] = [(root, None, 0)]
    while stack and len(problems) < MAX_PROBLEMS:
        value, place, depth = stack.pop()
        if isinstance(value, float):
            if not math.isfinite(value):
                problems.append(Problem(_path_of(place), str(value), "a finite number", "not_finite"))
        elif isinstance(value, dict | list):
            if depth >= MAX_DEPTH:
                problems.append(Problem(_path_of(place), "very deep nesting", f"{MAX_DEPTH} levels", "too_deep"))
                continue
            children: Any
            if isinstance(value, dict):
                keys += len(value)
                children = value.items()
                for key in value.twice if isinstance(value, _Object) else ():
                    problems.append(
                        Problem(_path_of((key, place)), "the key twice", "each key once", "duplicate_key")
                    )
            else:
                children = enumerate(value)
            for key, child in children:
                if type(child) in _LOOKED_INTO:
                    stack.append((child, (key, place), depth + 1))
    return problems, keys


_LOOKED_INTO = frozenset((float, dict, list, _Object))

_Link = tuple[PathPart, Any]
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


def _found(document: Any, path: Path) -> Any:
    value = document
    for part in path:
        try:
            value = value[part]
        except (KeyError, IndexError, TypeError):
            return _NOTHING
    return value


_NOTHING = object()


def _problem(document: Any, error: ErrorDetails) -> Problem:
    path = _place(error)
    context: Mapping[str, Any] = error.get("ctx") or {}
    template = _ALLOWED.get(error["type"])
    allowed = template.format(**context) if template else str(context.get("allowed", error["msg"]))
    found = _found(document, path)
    if error["type"] == "missing" or found is _NOTHING:
        text = "nothing"
    elif error["type"] == "clock" and isinstance(found, dict):
        path = (*path, "kind")
        text = shown(found["kind"]) if "kind" in found else "nothing"
    else:
        text = shown(found)
    return Problem(path_text(path), text, allowed.replace(" or ", " or "), error["type"])


def parse_session(document: Any) -> Session:
    """Validate a decoded document. Raises DocumentError listing every problem, each with its path."""
    if not isinstance(document, dict):
        raise refuse((), shown(document), "an object with the key fine_tally", "model_type")
    try:
        session = Session.model_validate(document)
    except ValidationError as error:
        details = error.errors(include_url=False, include_input=False)
        raise DocumentError(_problem(document, detail) for detail in details[:MAX_PROBLEMS]) from None
    problems = rule_problems(session)
    if problems:
        raise DocumentError(problems[:MAX_PROBLEMS])
    return session


def read_session(data: bytes | str) -> tuple[dict[str, Any], Session]:
    """Read a session file: the document as written, and its validated form."""
    document = read_json(data)
    return document, parse_session(document)


def as_written(session: Session) -> dict[str, Any]:
    """The document of a session built in code: only the keys that were set."""
    return session.model_dump(mode="json", by_alias=True, exclude_unset=True)


SCALAR_TYPES = frozenset((str, int, float, bool, type(None)))
"""Kinds of values with nothing in them."""


def walk_unknown(session: Session) -> list[Path]:
    """Paths of the keys that this release does not know; they are kept and written back."""
    found: list[Path] = []
    _unknown(session, (), found)
    return found


def _unknown(value: Any, path: tuple[PathPart, ...], found: list[Path]) -> None:
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
