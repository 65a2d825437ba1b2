"""What is run by hand only, the bench and the pictures, finds what it uses: no other test would notice."""

from __future__ import annotations

import importlib

import pytest

from tests.conftest import REPOSITORY

BY_HAND = [
    f"tests.{path.parent.name}.{path.stem}"
    for folder, names in (("bench", "bench_*.py"), ("browser", "screenshots.py"), ("browser", "states.py"))
    for path in sorted((REPOSITORY / "tests" / folder).glob(names))
]


@pytest.mark.parametrize("module", BY_HAND)
def test_it_can_be_loaded(module: str) -> None:
    assert importlib.import_module(module).__doc__
