"""Mutants of the source: places where one small thing can be changed, and a sample of them drawn by seed."""

from __future__ import annotations

import ast
import random
import re
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass
from difflib import unified_diff
from itertools import islice
from pathlib import Path

from cosmic_ray.ast import ast_nodes, get_ast
from cosmic_ray.mutating import MutationVisitor
from cosmic_ray.plugins import get_operator, operator_names

Position = tuple[int, int]
"""A line from 1 and a column from 0."""

SAME = re.compile(r"Operator_(Is_Eq|IsNot_NotEq|(Eq|NotEq|Lt|LtE|Gt|GtE)_(Is|IsNot))$")
"""Exchanges that nobody could notice, or the compiler does: what is compared by identity here is None or one constant."""
UNSEEN = re.compile(r"^@(lru_)?cache|^@functools\.|\bslots=")
"""Lines whose decorator only makes things quicker or smaller."""


@dataclass(frozen=True)
class Mutant:
    """One change of one file."""

    path: str
    """Of the file, from the repository's root."""
    operator: str
    occurrence: int
    """Counts the places of the operator in the file, from 0."""
    first_line: int
    last_line: int

    def source(self, original: str) -> str:
        """The file's text with the change in it. Raises ValueError where the text has no such place."""
        changed = MutationVisitor.mutate_code(original, get_operator(self.operator)(), self.occurrence)
        if changed is None:
            raise ValueError(f"{self.path} has no place {self.occurrence} for {self.operator}")
        return str(changed)

    def difference(self, original: str) -> str:
        """The lines that change, before and after, on one line."""
        lines = list(unified_diff(original.splitlines(), self.source(original).splitlines(), n=0, lineterm=""))
        return " ".join(f"{line[0]} {line[1:].strip()}" for line in lines[2:] if line[0] != "@")


def sample(root: Path, packages: list[str], number: int, seed: int) -> list[Mutant]:
    """So many mutants of the packages' files, no two at one place; the same for the same source and seed.

    Each place has the same chance, whichever file it stands in and however many operators could change it. What is no
    Python any more after its change is no mutant.
    """
    places: dict[tuple[str, Position, Position], list[Mutant]] = defaultdict(list)
    for package in packages:
        for path in sorted((root / package).rglob("*.py")):
            if "migrations" not in path.parts:
                for start, end, mutant in _mutants(root, path):
                    places[mutant.path, start, end].append(mutant)
    choice = random.Random(seed)
    order = sorted(places)
    choice.shuffle(order)
    drawn = (choice.choice(places[place]) for place in order)
    return list(
        islice((one for one in drawn if _is_python(one.source((root / one.path).read_text("utf-8")))), number)
    )


def _is_python(text: str) -> bool:
    try:
        compile(text, "mutant", "exec")
    except (SyntaxError, SyntaxWarning):
        return False
    return True


def _alike() -> Iterator[list[str]]:
    """The operators, those together that change the same places: each `==` can become `!=`, `<` and so on."""
    together: dict[str, list[str]] = defaultdict(list)
    for name in operator_names():
        if not get_operator(name).arguments() and not SAME.search(name):
            together[re.sub(r"((?:Binary|Comparison)Operator_[A-Za-z]+)_[A-Za-z]+$", r"\1", name)].append(name)
    return iter(together.values())


OPERATORS = list(_alike())


def _mutants(root: Path, path: Path) -> Iterator[tuple[Position, Position, Mutant]]:
    text = path.read_text("utf-8")
    nodes = list(ast_nodes(get_ast(text)))
    hints = _hints(ast.parse(text))
    lines = text.splitlines()
    name = path.relative_to(root).as_posix()
    for alike in OPERATORS:
        operator = get_operator(alike[0])()
        places = (place for node in nodes for place in operator.mutation_positions(node))
        for occurrence, (start, end) in enumerate(places):
            if not UNSEEN.search(lines[start[0] - 1].strip()) and not any(
                a <= start and end <= b for a, b in hints
            ):
                for one in alike:
                    yield start, end, Mutant(name, one, occurrence, start[0], end[0])


def _hints(tree: ast.Module) -> list[tuple[Position, Position]]:
    """Where type hints stand that nothing reads at run time: of functions, and unions of fields (a union is no sum)."""
    found: list[ast.expr | None] = []
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
            found += [node.returns, *(one.annotation for one in ast.walk(node.args) if isinstance(one, ast.arg))]
        elif isinstance(node, ast.AnnAssign):
            found += [one for one in ast.walk(node.annotation) if isinstance(one, ast.BinOp)]
    return [
        ((one.lineno, one.col_offset), (one.end_lineno or 0, one.end_col_offset or 0))
        for one in found
        if one is not None
    ]
