"""Fixtures for all tests. The environment is set before Django's settings are read."""

from __future__ import annotations

import os
import shutil
import tempfile
from itertools import groupby, zip_longest
from pathlib import Path

import pytest

os.environ["FINE_TALLY_VAR"] = tempfile.mkdtemp(prefix="fine-tally-test-")
# The solver's own time ends a search: the same on every machine, however loaded.
os.environ["FINE_TALLY_LEVEL_SECONDS"] = "0"
# The browser's driver keeps an event loop in the thread that tests run in; nothing here is asynchronous all the same.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "1"

from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.shipped import shipped_library

CASES = Path(__file__).parent / "cases"
REPOSITORY = Path(__file__).parent.parent
SHARED = "FINE_TALLY_TEST_SHARED"
"""The variable that names the folder which all processes of one run share."""


def pytest_configure(config: pytest.Config) -> None:
    """A folder that the workers of this run share: what is slow to make (tests/serving.py) is made once."""
    if not hasattr(config, "workerinput"):
        os.environ[SHARED] = folder = tempfile.mkdtemp(prefix="fine-tally-")
        config.add_cleanup(lambda: shutil.rmtree(folder, ignore_errors=True))


WAITING = ("browser", "running", "fuzz")
"""Folders whose tests often wait: for a server, a browser, a process that ends."""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Files that wait and files that compute take turns, so that neither core is idle while tests run beside each other."""
    waiting: list[list[pytest.Item]] = []
    computing: list[list[pytest.Item]] = []
    for path, of_file in groupby(items, key=lambda item: item.path):
        (waiting if path.parent.name in WAITING else computing).append(list(of_file))
    turns = zip_longest(waiting, computing, fillvalue=[])
    items[:] = [item for pair in turns for of_file in pair for item in of_file]


@pytest.fixture(scope="session")
def library() -> Library:
    return shipped_library()


@pytest.fixture(scope="session")
def bare() -> Methods:
    """Bare pace: no fatigue, no change-overs, no breathers."""
    return Methods.model_validate(
        {"fatigue": 0, "change": {"step": 0, "kit": 0, "down": 0, "up": 0}, "breathers": 0}
    )
