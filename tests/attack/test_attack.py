"""None of the attacks succeeds."""

from __future__ import annotations

from pathlib import Path

from tests.attack.attacks import tried
from tests.serving import served


def test_no_attack_succeeds(tmp_path: Path) -> None:
    with served(tmp_path) as server:
        found = tried(server)
    assert {name: what for name, what in found.items() if what} == {}
    assert len(found) >= 12
