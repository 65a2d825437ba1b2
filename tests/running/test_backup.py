"""Backups: whole, of a running server too, put back beside whatever lies there; a start that refuses what is not whole."""

from __future__ import annotations

import os
import sqlite3
import stat
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest

from finetally.running.backup import back_up, restore
from finetally.running.installation import Installation, RefusedError, exclusive_use
from finetally.running.start import refuse_unfit
from finetally.running.upgrade import known_migrations
from finetally.web.secret import secret_at
from tests.conftest import REPOSITORY
from tests.serving import empty_installation


def installed(folder: Path) -> Installation:
    """An installation with its tables and a secret."""
    made = Installation(folder, empty_installation(folder))
    secret_at(made.secret)
    return made


@pytest.fixture(scope="module")
def template(tmp_path_factory: pytest.TempPathFactory) -> Installation:
    return installed(tmp_path_factory.mktemp("installed"))


@pytest.fixture
def place(template: Installation, tmp_path: Path) -> Installation:
    for path in (template.database, template.secret):
        (tmp_path / path.name).write_bytes(path.read_bytes())
    return Installation(tmp_path, tmp_path / template.database.name)


def add_squad(database: Path, name: str) -> None:
    with closing(sqlite3.connect(database)) as made, made:
        made.execute(
            "INSERT INTO squads_squad (name, time_zone, week_start, methods, kit, movements_version, emergency,"
            " adult_from, learning, asks_health, health_why, asks_freshness, notes_months)"
            " VALUES (?, 'UTC', 0, '{}', '{}', '', '', 16, '', 0, '', 0, 12)",
            (name,),
        )


def squads(database: Path) -> list[str]:
    with closing(sqlite3.connect(database)) as found:
        return [name for (name,) in found.execute("SELECT name FROM squads_squad ORDER BY id")]


def test_what_stands_in_the_log_is_in_the_backup(place: Installation) -> None:
    with closing(sqlite3.connect(place.database)) as open_:
        open_.execute("PRAGMA journal_mode=WAL")
        open_.execute("PRAGMA wal_autocheckpoint=0")
        add_squad(place.database, "Ridge")
        assert place.beside[0].stat().st_size > 0
        made = back_up(place)
    assert squads(made) == ["Ridge"]
    assert stat.S_IMODE(made.stat().st_mode) == 0o600
    assert [one.name for one in made.parent.iterdir()] == [made.name]


def test_a_backup_is_put_back_beside_a_log_that_was_left(place: Installation) -> None:
    add_squad(place.database, "Ridge")
    made = back_up(place)
    secret = place.secret.read_text()
    place.secret.write_text("another")
    add_squad(place.database, "Later")
    # A log of another database, as a crash leaves it: beside the restored one it would be taken in.
    place.beside[0].write_bytes(b"\x37\x7f\x06\x82" + bytes(4092))
    kept = restore(place, made, known_migrations())
    assert squads(place.database) == ["Ridge"]
    assert place.secret.read_text() == secret
    assert kept is not None
    assert not place.beside[0].exists()
    kept.with_name(kept.name + "-wal").unlink()
    assert squads(kept) == ["Ridge", "Later"]
    refuse_unfit(place)


def test_only_the_newest_are_kept_of_those_named_by_the_time(
    place: Installation, monkeypatch: pytest.MonkeyPatch
) -> None:
    place.backups.mkdir()
    for day in range(1, 6):
        (place.backups / f"fine-tally-2026010{day}-120000.sqlite3").touch()
    (place.backups / "fine-tally-before-migration-20260101-120000.sqlite3").touch()
    made = back_up(place, keep=2)
    assert sorted(one.name for one in place.backups.iterdir()) == [
        "fine-tally-20260105-120000.sqlite3",
        made.name,
        "fine-tally-before-migration-20260101-120000.sqlite3",
    ]


def test_what_is_no_backup_is_refused_and_nothing_is_touched(place: Installation, tmp_path: Path) -> None:
    add_squad(place.database, "Ridge")
    good = back_up(place)
    broken, newer, other = tmp_path / "broken", tmp_path / "newer", tmp_path / "other"
    broken.write_bytes(good.read_bytes()[:9000])
    newer.write_bytes(good.read_bytes())
    with closing(sqlite3.connect(newer)) as made, made:
        made.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('plan', '0099_later', '')")
    with closing(sqlite3.connect(other)) as made, made:
        made.execute("CREATE TABLE notes (x)")
    for source, says in ((broken, "broken|cannot be read|no database"), (newer, "newer release"), (other, "no database"),
                         (tmp_path / "none", "no file")):  # fmt: skip
        with pytest.raises(RefusedError, match=says):
            restore(place, source, known_migrations())
    assert squads(place.database) == ["Ridge"]
    with pytest.raises(RefusedError, match="there already"):
        back_up(place, good)


def test_no_backup_is_put_back_under_a_running_server(place: Installation) -> None:
    made = back_up(place)
    with exclusive_use(place), pytest.raises(RefusedError, match="running"):
        restore(place, made, known_migrations())
    restore(place, made, known_migrations())


def test_a_backup_that_cannot_be_written_leaves_nothing_behind(place: Installation, tmp_path: Path) -> None:
    with pytest.raises(RefusedError, match="could not be written"):
        back_up(place, tmp_path / "no-such-folder" / "x.sqlite3")
    assert not list(tmp_path.glob(".*.part"))


# What the start refuses, each with one line


def no_tables(place: Installation) -> None:
    place.database.unlink()
    with closing(sqlite3.connect(place.database)) as made, made:
        made.execute("CREATE TABLE notes (x)")


def corrupt(place: Installation) -> None:
    whole = place.database.read_bytes()
    place.database.write_bytes(whole[:4096] + b"\xff" * 8192 + whole[12288:])


def from_newer(place: Installation) -> None:
    with closing(sqlite3.connect(place.database)) as made, made:
        made.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('plan', '0099_later', '')")


def behind(place: Installation) -> None:
    with closing(sqlite3.connect(place.database)) as made, made:
        made.execute("DELETE FROM django_migrations WHERE app = 'plan'")


UNFIT = [
    (no_tables, "no database of Fine Tally"),
    (corrupt, "broken|malformed|cannot be read"),
    (from_newer, "newer release"),
    (behind, "lacks"),
    (lambda place: place.database.unlink(), "no database"),
    (lambda place: place.database.chmod(0o400), "cannot be written"),
    (lambda place: place.secret.write_text(" \n"), "secret .* empty"),
]


@pytest.mark.parametrize(("spoil", "says"), UNFIT, ids=[one[1] for one in UNFIT])
def test_the_start_refuses_what_is_not_whole(place: Installation, spoil: object, says: str) -> None:
    refuse_unfit(place)
    spoil(place)  # type: ignore[operator]
    with pytest.raises(RefusedError, match=says) as refused:
        refuse_unfit(place)
    assert "\n" not in str(refused.value)


def test_the_command_tells_in_one_line_and_ends_with_a_status(place: Installation) -> None:
    place.secret.write_text("")
    environment = {**os.environ, "FINE_TALLY_VAR": str(place.folder)}
    command = [sys.executable, "-m", "finetally.cli", "run", "--port", "1"]
    made = subprocess.run(command, cwd=REPOSITORY, env=environment, capture_output=True, text=True)
    assert made.returncode == 3
    assert made.stderr.count("\n") == 1
    assert "secret" in made.stderr


def migrated(place: Installation) -> subprocess.CompletedProcess[str]:
    code = (
        "from finetally.running.start import *; from finetally.running.upgrade import *; "
        "from finetally.running.installation import current_installation; "
        "use_django(); migrate(current_installation())"
    )
    environment = {**os.environ, "FINE_TALLY_VAR": str(place.folder)}
    return subprocess.run(
        [sys.executable, "-c", code], cwd=REPOSITORY, env=environment, capture_output=True, text=True
    )


def test_nothing_is_migrated_under_a_running_server(place: Installation) -> None:
    with exclusive_use(place):
        assert "running" in migrated(place).stderr
    assert migrated(place).returncode == 0


def test_no_new_database_is_begun_where_a_restore_was_broken_off(
    place: Installation, monkeypatch: pytest.MonkeyPatch
) -> None:
    add_squad(place.database, "Ridge")
    made = back_up(place)

    def killed(_part: Path, _to: Path) -> Path:
        raise KeyboardInterrupt

    with monkeypatch.context() as inside:
        # The old database has its other name by then, the new one not yet its own.
        real = Path.replace
        inside.setattr(Path, "replace", lambda one, to: (killed if one.suffix == ".part" else real)(one, to))
        with pytest.raises(KeyboardInterrupt):
            restore(place, made, known_migrations())
    said = migrated(place)
    assert "broken off" in said.stderr
    assert not place.database.exists()
    [kept] = place.set_aside
    assert squads(kept) == ["Ridge"]
    restore(place, made, known_migrations())
    assert squads(place.database) == ["Ridge"]
    assert migrated(place).returncode == 0


def test_a_backup_is_made_by_itself_before_a_migration(place: Installation) -> None:
    add_squad(place.database, "Ridge")
    environment = {**os.environ, "FINE_TALLY_VAR": str(place.folder)}
    step_back = [sys.executable, "-m", "finetally.web.manage", "migrate", "plan", "0001", "--verbosity", "0"]
    subprocess.run(step_back, cwd=REPOSITORY, env=environment, check=True, capture_output=True)
    for _ in range(2):
        assert migrated(place).returncode == 0
    [made] = place.backups.iterdir()
    assert squads(made) == ["Ridge"]
    assert stat.S_IMODE(place.database.stat().st_mode) == 0o600
