"""Upgrading from the first release: every document stays, and a restore brings the old one back; or nothing happens."""

from __future__ import annotations

import json
import os
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest

from tests.conftest import REPOSITORY
from tests.running.test_releases import KEPT, laid_out, rows, same

OLD = KEPT / "0.1.0-real.sqlite3.xz"


def fine_tally(folder: Path, *arguments: str, before: str = "") -> subprocess.CompletedProcess[str]:
    """The command, with something done to it first."""
    environment = {**os.environ, "FINE_TALLY_VAR": str(folder)}
    environment.pop("FINE_TALLY_DATABASE", None)
    code = f"import sys; {before or 'pass'}\nfrom finetally.cli import main; sys.exit(main(sys.argv[1:]))"
    command = [sys.executable, "-c", code, *arguments]
    return subprocess.run(command, cwd=REPOSITORY, env=environment, capture_output=True, text=True)


def documents(database: Path) -> dict[int, object]:
    with closing(sqlite3.connect(database)) as found:
        return {key: json.loads(text) for key, text in found.execute("SELECT id, document FROM training_revision")}


def test_up_and_back(tmp_path: Path) -> None:
    database = laid_out(OLD, tmp_path)
    (tmp_path / "secret").write_text("a secret of that time, long enough for its purpose")
    before, kept = rows(database), documents(database)
    assert kept
    made = fine_tally(tmp_path, "upgrade")
    assert made.returncode == 0, made.stderr
    assert f"{len(kept)} documents are what they were" in made.stdout
    assert documents(database) == kept
    same(before, rows(database))
    again = fine_tally(tmp_path, "upgrade")
    assert again.stdout.startswith("Nothing to do")
    [backup] = (tmp_path / "backups").iterdir()
    assert f"fine-tally restore {backup}" in made.stdout
    assert fine_tally(tmp_path, "restore", str(backup)).returncode == 0
    assert rows(database) == before
    assert (tmp_path / "secret").read_text().startswith("a secret of that time")


# What a migration of a release to come might do wrong, one at a time, after all others.
LOSES = {
    "a document": "UPDATE training_revision SET document = '{}' WHERE id = (SELECT max(id) FROM training_revision)",
    "rows": "DELETE FROM plan_entry",
    "what a row belongs to": "UPDATE training_session SET squad_id = 99",
}
SPOILED = """
from finetally.running import upgrade
real = upgrade._migrate
def spoiled(installation):
    real(installation)
    import sqlite3
    with sqlite3.connect(installation.database) as made:
        made.execute({statement!r})
upgrade._migrate = spoiled
"""
FAILS = """
from finetally.running import upgrade
real = upgrade._migrate
def fails(installation):
    real(installation)
    raise RuntimeError("half of it")
upgrade._migrate = fails
"""


@pytest.mark.parametrize("loses", [*LOSES, ""])
def test_where_anything_is_lost_everything_is_put_back(tmp_path: Path, loses: str) -> None:
    database = laid_out(OLD, tmp_path)
    before = rows(database)
    first = SPOILED.format(statement=LOSES[loses]) if loses else FAILS
    made = fine_tally(tmp_path, "upgrade", before=f"\n{first}")
    assert made.returncode == 3
    assert "What was there before is back" in made.stderr
    assert rows(database) == before
    if not loses:
        # What fails once may be well the next time.
        assert fine_tally(tmp_path, "upgrade").returncode == 0
        same(before, rows(database))


KILLED = """
from finetally.running import upgrade
real = upgrade._migrate
def killed(installation):
    real(installation)
    import os, sqlite3
    with sqlite3.connect(installation.database) as made:
        made.execute("DELETE FROM {table}")
    made.close()
    os.kill(os.getpid(), 9)
upgrade._migrate = killed
"""


def test_an_upgrade_killed_after_its_last_migration_is_looked_at_by_the_next_start(tmp_path: Path) -> None:
    database = laid_out(OLD, tmp_path)
    before = rows(database)
    assert fine_tally(tmp_path, "upgrade", before=f"\n{KILLED.format(table='plan_entry')}").returncode == -9
    # No migration waits any more; what was lost is seen all the same, and put back.
    again = fine_tally(tmp_path, "upgrade")
    assert again.returncode == 3, again.stdout
    assert "What was there before is back" in again.stderr
    assert rows(database) == before
    # Of one that lost nothing the next start says that all is there.
    assert fine_tally(tmp_path, "upgrade", before=f"\n{KILLED.format(table='django_session')}").returncode == -9
    last = fine_tally(tmp_path, "upgrade")
    assert (last.returncode, "documents are what they were" in last.stdout) == (0, True), last.stderr
    same(before, rows(database))
    assert fine_tally(tmp_path, "upgrade").stdout.startswith("Nothing to do")


def test_nothing_to_upgrade(tmp_path: Path) -> None:
    made = fine_tally(tmp_path, "upgrade")
    assert made.returncode == 3
    assert "There is no database" in made.stderr
    assert not (tmp_path / "fine-tally.sqlite3").exists()
