"""What whoever keeps the machine does with accounts: made, listed, reset by a link; erased people and restores."""

from __future__ import annotations

import os
import re
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest

from finetally.running.accounts import address_here
from finetally.running.backup import forget_freed_pages
from tests.conftest import REPOSITORY
from tests.serving import empty_installation

LINK = re.compile(r"Good for a day, and once: (\S+)/reset#([\w-]{22})\n")


class Keeper:
    """The command line on a folder of its own."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.database = folder / "fine-tally.sqlite3"

    def run(
        self, *arguments: str, python: tuple[str, ...] = ("-m", "finetally.cli")
    ) -> subprocess.CompletedProcess[str]:
        environment = {**os.environ, "FINE_TALLY_VAR": str(self.folder)}
        environment.pop("FINE_TALLY_DATABASE", None)
        command = [sys.executable, *python, *arguments]
        return subprocess.run(command, cwd=REPOSITORY, env=environment, capture_output=True, text=True)

    def accounts(self) -> list[str]:
        return self.run("account", "list").stdout.splitlines()


@pytest.fixture
def keeper(tmp_path: Path) -> Keeper:
    empty_installation(tmp_path)
    return Keeper(tmp_path)


def test_an_account_is_made_listed_and_reset(keeper: Keeper) -> None:
    assert keeper.accounts() == []
    made = keeper.run(
        "account", "create", "ada", "--squad", "Vale", "--new-squad", "--address", "https://tally.example.org/"
    )
    first = LINK.fullmatch(made.stdout)
    assert first is not None, made.stderr
    assert first[1] == "https://tally.example.org"
    assert keeper.run("account", "create", "osk", "--squad", "Vale", "--role", "coach").returncode == 0
    listed = [re.sub(r"; \d{1,8} in the log$", "", one) for one in keeper.accounts()]
    assert listed == ["ada: Vale (head coach); never signed in", "osk: Vale (coach); never signed in"]
    again = LINK.fullmatch(keeper.run("account", "reset", "ADA").stdout)
    assert again is not None
    assert again[2] != first[2]


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (("create", "ada", "--squad", "Nowhere"), "no one squad called 'Nowhere' (there are: none yet)"),
        (("create", "  ", "--squad", "Vale", "--new-squad"), "name: found"),
        (("reset", "nobody"), "no account called 'nobody'"),
    ],
)
def test_what_cannot_be_is_told_in_one_line_and_nothing_is_made(
    keeper: Keeper, arguments: tuple[str, ...], says: str
) -> None:
    made = keeper.run("account", *arguments)
    assert made.returncode == 3
    assert says in made.stderr
    assert made.stderr.count("\n") == 1
    with closing(sqlite3.connect(keeper.database)) as found:
        assert found.execute("SELECT count(*) FROM squads_squad").fetchone() == (0,)


def test_without_a_database_it_says_what_makes_one(tmp_path: Path) -> None:
    made = Keeper(tmp_path).run("account", "list")
    assert (made.returncode, "fine-tally run makes one" in made.stderr) == (3, True)


@pytest.mark.parametrize(
    ("hosts", "https", "address"),
    [("", "", "http://127.0.0.1:8420"), ("tally.example.org,other", "1", "https://tally.example.org"), ("hall.local", "", "http://hall.local")],
)  # fmt: skip
def test_a_link_begins_as_the_server_is_reached(
    monkeypatch: pytest.MonkeyPatch, hosts: str, https: str, address: str
) -> None:
    monkeypatch.setenv("FINE_TALLY_HOSTS", hosts)
    monkeypatch.setenv("FINE_TALLY_HTTPS", https)
    assert address_here() == address


PERSON = "11112222333344445555666677778888"
ADD_PERSON = (
    "INSERT INTO squads_person (squad_id, public_id, name, short_name, effort_offset, under_age, guardian, capacity_test)"
    f" VALUES (1, '{PERSON}', 'Wim Karsholt', 'Wim', 0, 0, '', '')"
)


def people(database: Path) -> int:
    with closing(sqlite3.connect(database)) as found:
        count: int = found.execute("SELECT count(*) FROM squads_person").fetchone()[0]
        return count


def test_a_restore_brings_nobody_back_who_was_erased_and_others_it_does(keeper: Keeper) -> None:
    keeper.run("account", "create", "ada", "--squad", "Vale", "--new-squad")
    with closing(sqlite3.connect(keeper.database)) as made, made:
        made.execute(ADD_PERSON)
        made.execute(ADD_PERSON.replace(PERSON, PERSON[::-1]).replace("Wim Karsholt", "Bea Lindqvarn"))
    backup = keeper.folder / "older.sqlite3"
    assert keeper.run("backup", str(backup)).returncode == 0
    assert keeper.run("restore", str(backup)).returncode == 0
    assert people(keeper.database) == 2
    erased = keeper.folder / "fine-tally.sqlite3.erased"
    erased.write_text("person 11112222-3333-4444-5555-666677778888 2026-11-28\n")
    told = keeper.run("restore", str(backup))
    assert "1 that were erased since were in it" in told.stdout
    assert people(keeper.database) == 1
    assert b"Karsholt" not in keeper.database.read_bytes()
    # The list of the erased is no part of a backup, and does not go with a restore.
    assert erased.exists()
    assert b"11112222-3333" not in backup.read_bytes()


def test_freed_pages_are_written_over(tmp_path: Path) -> None:
    database = tmp_path / "one.sqlite3"
    with closing(sqlite3.connect(database)) as made, made:
        made.execute("PRAGMA journal_mode=WAL")
        made.execute("CREATE TABLE kept (text TEXT)")
        made.executemany("INSERT INTO kept VALUES (?)", [("a secret word " * 400,)] * 20)
    with closing(sqlite3.connect(database)) as made, made:
        # Some builds write over what is deleted by themselves; this is for those that do not.
        made.execute("PRAGMA secure_delete=OFF")
        made.execute("DELETE FROM kept")
    held = [one.read_bytes() for one in tmp_path.iterdir()]
    assert any(b"a secret word" in one for one in held)
    assert forget_freed_pages(database)
    assert not any(b"a secret word" in one.read_bytes() for one in tmp_path.iterdir())
