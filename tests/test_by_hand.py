"""What is run by hand only, the bench and the pictures, finds what it uses: no other test would notice."""

from __future__ import annotations

import importlib

import pytest

from tests.conftest import REPOSITORY

BY_HAND = [
    f"tests.{path.parent.name}.{path.stem}"
    for path in sorted([*REPOSITORY.glob("tests/bench/bench_*.py"), REPOSITORY / "tests/browser/screenshots.py"])
]


@pytest.mark.parametrize("module", BY_HAND)
def test_it_can_be_loaded(module: str) -> None:
    assert importlib.import_module(module).__doc__
