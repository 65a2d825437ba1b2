"""The core is typed through: what may be anything is rare, and nothing is only claimed to be something."""

from __future__ import annotations

import ast
from pathlib import Path

from tests.conftest import REPOSITORY

CORE = REPOSITORY / "src/finetally/core"
MOST_ANY = 60
"""Times that the core may say `Any`: where values are walked without knowing them, or a library gives no type."""


def names_in(path: Path) -> list[str]:
    """Every name that a module uses, once for each time."""
    return [node.id for node in ast.walk(ast.parse(path.read_text("utf-8"))) if isinstance(node, ast.Name)]


def test_the_core_says_any_rarely_and_casts_nothing() -> None:
    names = [name for path in CORE.rglob("*.py") for name in names_in(path)]
    assert 0 < names.count("Any") < MOST_ANY
    assert "cast" not in names
