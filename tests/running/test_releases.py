"""Databases of every release, kept as it left them: each migration is tried on them, and back.

A release adds its own two (the demo, and a small real one) and its last migrations here.
"""

from __future__ import annotations

import json
import lzma
import os
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from tests.conftest import REPOSITORY

KEPT = REPOSITORY / "tests/releases"
LAST = {"0.1.0": {"squads": "0002", "training": "0002", "plan": "0001", "axes": "zero"}}
"""The last migration of each app in a release; `zero` where it had none."""


def laid_out(path: Path, into: Path) -> Path:
    database = into / "fine-tally.sqlite3"
    database.write_bytes(lzma.decompress(path.read_bytes()))
    return database


def manage(folder: Path, *arguments: str) -> str:
    environment = {**os.environ, "FINE_TALLY_VAR": str(folder)}
    environment.pop("FINE_TALLY_DATABASE", None)
    command = [sys.executable, "-m", "finetally.web.manage", *arguments]
    made = subprocess.run(command, cwd=REPOSITORY, env=environment, capture_output=True, text=True)
    assert made.returncode == 0, made.stderr
    return made.stdout


def rows(database: Path) -> dict[str, list[dict[str, Any]]]:
    """Everything that people wrote, by table; what is kept beside it (sessions, summaries) left out."""
    with closing(sqlite3.connect(database)) as found:
        found.row_factory = sqlite3.Row
        names = [name for (name,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        ours = [name for name in names if name.partition("_")[0] in ("squads", "training", "plan")]
        return {
            name: [dict(row) for row in found.execute(f"SELECT * FROM {name} ORDER BY 1")]
            for name in ours
            if name != "training_summary"
        }


def same(before: Any, after: Any) -> None:
    """Nothing that was there is gone or another; tables and keys may have come, and are empty where they came."""
    assert before.keys() <= after.keys()
    assert not [name for name in after.keys() - before.keys() if after[name]]
    for table, found in before.items():
        assert len(found) == len(after[table]), table
        for one, other in zip(found, after[table], strict=True):
            for key, value in one.items():
                if key != "pinned":
                    assert value == other[key], (table, key)


@pytest.mark.parametrize("path", sorted(KEPT.glob("*.xz")), ids=lambda path: path.name)
def test_a_database_of_an_older_release_comes_up_and_goes_back(path: Path, tmp_path: Path) -> None:
    database = laid_out(path, tmp_path)
    before = rows(database)
    assert before["training_revision"]
    manage(tmp_path, "migrate", "--verbosity", "0")
    now = rows(database)
    same(before, now)
    planned = {one["revision_id"] for one in now["plan_entry"] if one["revision_id"]}
    assert {one["id"] for one in now["training_revision"] if one["pinned"]} == planned
    # Kept conflicts are told apart by what they were made from; those from before have no such name.
    assert {one["base"] for one in now["training_revision"]} == {""}
    for app, last in LAST[path.name.rpartition("-")[0]].items():
        manage(tmp_path, "migrate", app, last, "--verbosity", "0")
    back = rows(database)
    same(before, back)
    assert {key for one in back["training_revision"] for key in one} == set(before["training_revision"][0])
    manage(tmp_path, "migrate", "--verbosity", "0")
    same(before, rows(database))


def test_its_sessions_can_be_figured_as_they_are(tmp_path: Path) -> None:
    from finetally.core.figures import figures
    from finetally.core.session.reading import parse_session
    from finetally.shipped import shipped_library

    for path in sorted(KEPT.glob("*.xz")):
        for revision in rows(laid_out(path, tmp_path))["training_revision"]:
            made = figures(parse_session(json.loads(revision["document"])), library=shipped_library())
            assert made["total_s"] > 0
