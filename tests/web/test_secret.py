"""Several processes that start at once have one secret, and none has an empty one."""

from __future__ import annotations

import stat
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest

from finetally.web import secret
from finetally.web.secret import secret_at


def test_all_that_start_at_once_have_the_same(tmp_path: Path) -> None:
    for number in range(20):
        path = tmp_path / str(number)
        with ThreadPoolExecutor(8) as several:
            found = set(several.map(secret_at, [path] * 8))
        assert found == {path.read_text()}
        assert len(path.read_text()) > 50
        assert stat.S_IMODE(path.stat().st_mode) == 0o600


def test_one_that_was_left_empty_is_made_anew(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(secret, "PAUSE_S", 0)
    path = tmp_path / "secret"
    path.touch()
    made = secret_at(path)
    assert made
    assert secret_at(path) == made
