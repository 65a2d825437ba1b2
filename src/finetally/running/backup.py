"""Backups: one file that holds the database and the secret, and putting one back.

SQL is written here, beside the ORM: a backup is made of the whole file, also while a server works on it, and one is
put back while none does.
"""

from __future__ import annotations

import os
import shutil
import sqlite3
from collections.abc import Collection, Iterator
from contextlib import closing, contextmanager
from datetime import datetime
from pathlib import Path

from finetally import __version__
from finetally.core.session.cleaning import one_line
from finetally.running.installation import ASIDE, OWNER_ONLY, Installation, RefusedError, exclusive_use
from finetally.running.state import keep_last_backup

BACKUP_TABLE = "fine_tally_backup"
"""A table that only backups have: the secret, the release and the time it was made."""

STAMP = "%Y%m%d-%H%M%S"


def back_up(
    installation: Installation, into: Path | None = None, *, why: str = "", keep: int | None = None
) -> Path:
    """Write a backup; returns its file. Raises RefusedError.

    Without a name it goes to the folder of backups; `keep`: of those made there for the same reason only the newest
    so many stay. What stands in the database's log is in it: it is made by the database itself, not copied.
    """
    if not installation.database.exists():
        raise RefusedError(f"There is no database at {installation.database}.")
    os.umask(OWNER_ONLY)
    begin = f"{installation.database.stem}-{why}-" if why else f"{installation.database.stem}-"
    if into is None:
        with _told_as_refusal():
            installation.backups.mkdir(parents=True, exist_ok=True)
        into = installation.backups / f"{begin}{datetime.now():{STAMP}}.sqlite3"
    if into.exists():
        raise RefusedError(f"{into} is there already; a backup overwrites nothing.")
    part = into.with_name(f".{into.name}.{os.getpid()}.part")
    for left in installation.half_made:
        left.unlink(missing_ok=True)
    try:
        with _told_as_refusal():
            _write(installation, part)
            # Only what was looked through gets the name of a backup.
            refuse_broken(part)
            part.replace(into)
    finally:
        for half in (part, part.with_name(f"{part.name}-journal")):
            half.unlink(missing_ok=True)
    keep_last_backup(installation, into)
    if keep is not None:
        _drop_old(into.parent, begin, keep)
    return into


@contextmanager
def _told_as_refusal() -> Iterator[None]:
    try:
        yield
    except (OSError, sqlite3.Error) as error:
        raise RefusedError(f"The backup could not be written: {error}.") from None


def _write(installation: Installation, part: Path) -> None:
    with closing(sqlite3.connect(installation.database, timeout=30)) as source:
        source.execute("VACUUM INTO ?", (str(part),))
    secret = installation.secret.read_text() if installation.secret.exists() else ""
    with closing(sqlite3.connect(part)) as made, made:
        made.execute("PRAGMA journal_mode=DELETE")
        made.execute(f"CREATE TABLE {BACKUP_TABLE} (name TEXT PRIMARY KEY, value TEXT NOT NULL)")
        facts = {"secret": secret, "release": __version__, "made_at": datetime.now().isoformat(timespec="seconds")}
        made.executemany(f"INSERT INTO {BACKUP_TABLE} VALUES (?, ?)", facts.items())
    part.chmod(0o600)
    with part.open("rb") as file:
        os.fsync(file.fileno())


def forget_freed_pages(database: Path) -> bool:
    """Write the database anew without the pages that deletes left, and empty its log. Whether all of it was done.

    Not where somebody is just reading from the log, or writes for longer than a few seconds: try again then.
    """
    try:
        with closing(sqlite3.connect(database, timeout=5, isolation_level=None)) as found:
            found.execute("VACUUM")
            busy, _, _ = found.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
    except sqlite3.OperationalError:
        return False
    return not busy


def _drop_old(folder: Path, begin: str, keep: int) -> None:
    """Of the backups with a time as the rest of their name, the newest so many stay."""
    length = len(f"{datetime.now():{STAMP}}")
    found = sorted(one for one in folder.glob(f"{begin}*.sqlite3") if len(one.stem) == len(begin) + length)
    for old in found[: max(0, len(found) - max(1, keep))]:
        old.unlink()


def refuse_broken(path: Path) -> None:
    """Raise RefusedError unless a file is a whole database of ours."""
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True, timeout=30)) as found:
            [said] = found.execute("PRAGMA integrity_check(1)").fetchone()
            tables = {name for (name,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    except sqlite3.Error as error:
        raise RefusedError(f"{path} is no database that can be read: {error}.") from None
    if said != "ok":
        raise RefusedError(f"{path} is broken: {one_line(str(said))}.")
    if "django_migrations" not in tables:
        raise RefusedError(f"{path} is no database of Fine Tally.")


def applied(path: Path) -> set[tuple[str, str]]:
    """The migrations that a database has behind it, by app and name."""
    with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True, timeout=30)) as found:
        return set(found.execute("SELECT app, name FROM django_migrations"))


def newer_than(path: Path, known: Collection[tuple[str, str]]) -> list[str]:
    """Migrations of a database that this release does not know."""
    return sorted(f"{app}.{name}" for app, name in applied(path) - set(known))


def restore(installation: Installation, source: Path, known: Collection[tuple[str, str]]) -> Path | None:
    """Put a backup in the database's place; returns where the one that was there is kept. Raises RefusedError.

    `known`: the migrations of this release; a backup of a newer one is refused. Nothing of the old is lost: its
    files stay under a name of their own.
    """
    if not source.exists():
        raise RefusedError(f"There is no file {source}.")
    refuse_broken(source)
    newer = newer_than(source, known)
    if newer:
        raise RefusedError(f"{source} is from a newer release ({newer[0]}); install that one first.")
    with exclusive_use(installation):
        return put_in_place(installation, source)


def put_in_place(installation: Installation, source: Path) -> Path | None:
    """As restore, of a file that was looked at, by whoever has the database for themselves."""
    os.umask(OWNER_ONLY)
    part = installation.database.with_name(f".{installation.database.name}.{os.getpid()}.part")
    try:
        shutil.copyfile(source, part)
        secret = _take_secret(part)
        kept = _set_aside(installation)
        part.replace(installation.database)
    finally:
        part.unlink(missing_ok=True)
    if secret:
        installation.secret.write_text(secret)
    installation.close_to_others()
    return kept


def _take_secret(part: Path) -> str:
    with closing(sqlite3.connect(part)) as made, made:
        made.execute("PRAGMA journal_mode=DELETE")
        found = made.execute("SELECT name FROM sqlite_master WHERE name = ?", (BACKUP_TABLE,)).fetchone()
        if found is None:
            return ""
        row = made.execute(f"SELECT value FROM {BACKUP_TABLE} WHERE name = 'secret'").fetchone()
        made.execute(f"DROP TABLE {BACKUP_TABLE}")
    return str(row[0]) if row else ""


def _set_aside(installation: Installation) -> Path | None:
    """Give the database that is there a name of its own, what belongs to it with it."""
    ending = f"{ASIDE}{datetime.now():{STAMP}}"
    kept: Path | None = None
    for path in (installation.database, *installation.beside):
        if path.exists():
            suffix = path.name.removeprefix(installation.database.name)
            to = installation.database.with_name(f"{installation.database.name}{ending}{suffix}")
            path.replace(to)
            kept = kept or to
    if installation.secret.exists():
        shutil.copyfile(installation.secret, installation.secret.with_name(f"secret{ending}"))
    return kept
