"""Upgrading: a backup, the migrations, a look whether everything is still there – or what was there, put back."""

from __future__ import annotations

import hashlib
import json
import os
import sys
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

from finetally.running.backup import applied, back_up, newer_than, put_in_place, refuse_broken
from finetally.running.installation import Installation, RefusedError, exclusive_use
from finetally.running.state import read_only

KEPT_BEFORE_MIGRATIONS = 10
"""Backups made by themselves that stay: ten releases back."""
WHY = "before-migration"
WRITTEN = frozenset({"auth", "squads", "people", "training", "plan", "floor", "log", "checkin", "accounts"})
"""Apps whose tables hold what people wrote; what is kept beside it (sign-ins, jobs, counts) may go."""
MADE_ANEW = frozenset({"training_summary", "auth_permission"})
"""Tables of those that can be made again."""


def known_migrations() -> set[tuple[str, str]]:
    """The migrations of this release, by app and name. Needs Django set up."""
    from django.db.migrations.loader import MigrationLoader

    return set(MigrationLoader(None).disk_migrations)


def refuse_newer(installation: Installation, known: set[tuple[str, str]]) -> None:
    """Raise RefusedError for a database that a newer release has changed."""
    newer = newer_than(installation.database, known)
    if newer:
        raise RefusedError(
            f"{installation.database} is from a newer release (it has {newer[0]}). Install that release, or put "
            "back a backup from before: fine-tally restore FILE."
        )


@dataclass(frozen=True, slots=True)
class Upgraded:
    """What an upgrade did: so many migrations, so many documents are the same after it, the backup before."""

    migrations: int
    documents: int = 0
    backup: Path | None = None


def migrate(installation: Installation) -> Upgraded:
    """Bring the database up to this release. Raises RefusedError, and then everything is as it was.

    After a backup if there is anything to lose. Nothing is changed under a server that runs, nor is a new database
    begun where a restore was broken off.
    """
    known = known_migrations()
    with exclusive_use(installation):
        if installation.database.exists() and installation.database.stat().st_size:
            refuse_broken(installation.database)
            refuse_newer(installation, known)
            waiting = len(known - applied(installation.database))
            begun = _begun(installation, waiting)
            if begun is not None:
                # Killed in the middle, or before it was looked whether everything is still there.
                before, backup = begun
                return _with_a_way_back(installation, waiting, before, backup)
            return _with_a_way_back(installation, waiting) if waiting else Upgraded(0)
        if installation.set_aside and not installation.database.exists():
            raise RefusedError(
                f"There is no database at {installation.database}: a restore was broken off. Begin it again; what "
                f"was there is kept in {installation.set_aside[-1]}."
            )
        _migrate(installation)
        return Upgraded(len(known))


def _migrate(installation: Installation) -> None:
    from django.core.management import call_command
    from django.db import connection

    call_command("migrate", verbosity=0)
    connection.close()
    installation.close_to_others()


def _with_a_way_back(
    installation: Installation, waiting: int, before: Kept | None = None, backup: Path | None = None
) -> Upgraded:
    """Migrate, and look whether everything is still there. `before`, `backup`: of one that was broken off."""
    if before is None or backup is None:
        before = _kept(installation.database)
        backup = back_up(installation, why=WHY, keep=KEPT_BEFORE_MIGRATIONS)
        sys.stderr.write(f"A backup before the database is changed: {backup}\n")
        _note_begun(installation, before, backup, waiting)
    try:
        _migrate(installation)
        _refuse_lost(installation.database, before)
    except Exception as error:
        from django.db import connection

        connection.close()
        kept = put_in_place(installation, backup)
        installation.upgrade_begun.unlink(missing_ok=True)
        raise RefusedError(
            f"The database could not be brought up to this release ({error}). What was there before is back; start "
            f"the release you had. What came of it is kept in {kept}."
        ) from error
    installation.upgrade_begun.unlink(missing_ok=True)
    return Upgraded(waiting, len(before.documents), backup)


def _note_begun(installation: Installation, before: Kept, backup: Path, waiting: int) -> None:
    """Write down what must still be there after the migrations: a process that is killed cannot look itself."""
    note = {
        "rows": before.rows,
        "documents": list(before.documents.items()),
        "backup": str(backup),
        "waiting": waiting,
    }
    part = installation.upgrade_begun.with_suffix(".part")
    with os.fdopen(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "w") as file:
        file.write(json.dumps(note))
        file.flush()
        os.fsync(file.fileno())
    part.replace(installation.upgrade_begun)


def _begun(installation: Installation, waiting: int) -> tuple[Kept, Path] | None:
    """What an upgrade that was broken off began with; None where none was, or what was there before is back."""
    try:
        note = json.loads(installation.upgrade_begun.read_text())
        backup = Path(note["backup"])
        kept = Kept(dict(note["rows"]), {int(key): name for key, name in note["documents"]})
    except (OSError, ValueError, KeyError, TypeError):
        return None
    return (kept, backup) if backup.exists() and waiting < note["waiting"] else None


@dataclass(frozen=True, slots=True)
class Kept:
    """What must still be there: the rows of each table, the documents by their revision's key, hashed."""

    rows: dict[str, int]
    documents: dict[int, str]


def _kept(database: Path) -> Kept:
    with closing(read_only(database)) as found:
        names = [name for (name,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        rows = {
            name: found.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0]
            for name in names
            if name.partition("_")[0] in WRITTEN and name not in MADE_ANEW
        }
        documents = (
            found.execute("SELECT id, document FROM training_revision") if "training_revision" in names else ()
        )
        return Kept(rows, {key: hashlib.sha256(text.encode()).hexdigest() for key, text in documents})


def _refuse_lost(database: Path, before: Kept) -> None:
    """Raise RefusedError where rows are lost, a document is another, or a row belongs to nothing that is there."""
    refuse_broken(database)
    after = _kept(database)
    with closing(read_only(database)) as found:
        astray = found.execute("PRAGMA foreign_key_check").fetchone()
    if astray:
        raise RefusedError(f"a row of {astray[0]} belongs to something that is not there")
    changed = [key for key, name in before.documents.items() if after.documents.get(key) != name]
    if changed:
        raise RefusedError(f"{len(changed)} documents would not be what they were")
    fewer = sorted(name for name, number in before.rows.items() if after.rows.get(name, number) < number)
    if fewer:
        raise RefusedError(f"rows of {', '.join(fewer)} would be lost")
