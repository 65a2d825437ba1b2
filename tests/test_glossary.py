"""docs/glossary.md says what is so, and a name means one thing."""

from __future__ import annotations

import ast
import re
from collections import defaultdict
from pathlib import Path

import pytest

from tests.conftest import REPOSITORY

SOURCE = REPOSITORY / "src/finetally"
PLACES = re.compile(r"((?:`\w+`(?:, )?)+) in `([\w/.]+)`")
TWICE = {
    "Session": "the document, and the row of the database that keeps it",
    "Command": "Django's name for a management command",
    "REFUSALS": "each router of the API says which it has",
}
"""Names that are defined more than once, each with its reason."""


def names_in(path: Path) -> set[str]:
    """Everything that a module defines at its top: classes, functions, types, constants."""
    found: set[str] = set()
    for node in ast.parse(path.read_text("utf-8")).body:
        if isinstance(node, ast.ClassDef | ast.FunctionDef):
            found.add(node.name)
        elif isinstance(node, ast.Assign | ast.AnnAssign):
            targets = node.targets if isinstance(node, ast.Assign) else [node.target]
            found.update(one.id for one in targets if isinstance(one, ast.Name))
    return found


def glossary() -> list[tuple[str, str]]:
    """(name, path) of every place that the glossary tells."""
    text = (REPOSITORY / "docs/glossary.md").read_text("utf-8")
    return [(name, path) for names, path in PLACES.findall(text) for name in re.findall(r"\w+", names)]


@pytest.mark.parametrize(("name", "path"), glossary())
def test_every_term_stands_where_the_glossary_says(name: str, path: str) -> None:
    place = SOURCE / path
    modules = sorted(place.glob("*.py")) if place.is_dir() else [place]
    assert any(name in names_in(one) for one in modules)


def test_the_glossary_is_read() -> None:
    assert len(glossary()) > 40


def test_no_public_class_type_or_constant_is_defined_twice() -> None:
    where: dict[str, list[str]] = defaultdict(list)
    for path in sorted(SOURCE.rglob("*.py")):
        if "migrations" not in path.parts:
            for name in names_in(path):
                # One letter is a type variable; a small letter a function, of which a route and its use case share one.
                if len(name) > 1 and name[0].isupper():
                    where[name].append(str(path.relative_to(SOURCE)))
    twice = {name: paths for name, paths in where.items() if len(paths) > 1}
    assert twice.keys() - TWICE.keys() == set(), twice
    assert TWICE.keys() <= twice.keys()
