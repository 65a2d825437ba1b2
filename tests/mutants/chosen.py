"""Which tests a mutant has to pass: those that come by its lines, the fast ones first.

What stands in a table, a model or a signature is read when the file is imported and used by others: then all tests.
"""

from __future__ import annotations

import xml.etree.ElementTree as ElementTree
from itertools import accumulate
from pathlib import Path

from coverage import CoverageData

from tests.mutants.draw import Mutant

MOST_SECONDS = 300
"""So many seconds of tests, as measured, are tried at most: a mutant that passes them counts as not caught."""


FEW = 5
"""Where fewer tests come by a line, what it makes may be kept for all others: those of the whole file are taken."""


class TestChoice:
    """What a run of all tests left behind: who comes by which line, and how long each test takes."""

    __test__ = False

    def __init__(self, coverage: Path, times: Path, root: Path) -> None:
        """The data of coverage.py with a context a test, the JUnit report of the same run, and where it ran."""
        self._data = CoverageData(str(coverage))
        self._data.read()
        self._root = root
        self._took = {
            f"{case.get('classname', '').replace('.', '/')}.py::{case.get('name')}": float(case.get("time", 0))
            for case in ElementTree.parse(times).iter("testcase")
        }

    def of(self, mutant: Mutant) -> list[str]:
        """The ids of the tests to try, the fastest first."""
        by_line = self._data.contexts_by_lineno(str(self._root / mutant.path))
        lines = range(mutant.first_line, mutant.last_line + 1)
        contexts = set[str]().union(*(by_line.get(line, []) for line in lines))
        if len(contexts) < FEW and "" not in contexts:
            contexts = contexts.union(*by_line.values())
        chosen = {one.partition("|")[0] for one in contexts} & self._took.keys()
        if not chosen or "" in contexts:
            chosen = set(self._took)
        order = sorted(chosen, key=lambda test: (self._took[test], test))
        ends = accumulate(self._took[test] for test in order)
        return [test for test, end in zip(order, ends, strict=True) if end <= MOST_SECONDS] or order[:1]
