"""Starting: what has to hold before anything is served, and the migration that is always preceded by a backup."""

from __future__ import annotations

import os
import sqlite3
import stat
import sys
from contextlib import closing

from finetally.running.backup import applied, back_up, forget_freed_pages, newer_than, refuse_broken
from finetally.running.installation import (
    OWNER_ONLY,
    Installation,
    RefusedError,
    current_installation,
    exclusive_use,
    hold_database,
)

KEPT_BEFORE_MIGRATIONS = 10
"""Backups made by themselves that stay: ten releases back."""


def use_django() -> None:
    """Make Django ready for this process. Sets the umask first: its settings make the secret."""
    os.umask(OWNER_ONLY)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finetally.web.settings")
    refuse_empty_secret(current_installation())
    import django

    django.setup()


def known_migrations() -> set[tuple[str, str]]:
    """The migrations of this release, by app and name."""
    from django.db.migrations.loader import MigrationLoader

    return set(MigrationLoader(None).disk_migrations)


def migrate(installation: Installation) -> None:
    """Bring the database up to this release, after a backup if there is anything to lose. Raises RefusedError.

    Nothing is changed under a server that runs, nor is a new database begun where a restore was broken off.
    """
    from django.core.management import call_command

    known = known_migrations()
    with exclusive_use(installation):
        if installation.database.exists() and installation.database.stat().st_size:
            refuse_broken(installation.database)
            _refuse_newer(installation, known)
            if known - applied(installation.database):
                made = back_up(installation, why="before-migration", keep=KEPT_BEFORE_MIGRATIONS)
                sys.stderr.write(f"A backup before the database is changed: {made}\n")
        elif installation.set_aside and not installation.database.exists():
            raise RefusedError(
                f"There is no database at {installation.database}: a restore was broken off. Begin it again; what "
                f"was there is kept in {installation.set_aside[-1]}."
            )
        call_command("migrate", verbosity=0)
        installation.close_to_others()


def erase_again(installation: Installation) -> int:
    """Erase whoever was erased before and came back with a restore; the freed pages go too. Returns how many."""
    if not installation.erased.exists():
        return 0
    from django.db import connection

    from finetally.web.privacy.erasing import erase_again as erase

    count = erase()
    connection.close()
    if count:
        forget_freed_pages(installation.database)
    return count


def _refuse_newer(installation: Installation, known: set[tuple[str, str]]) -> None:
    newer = newer_than(installation.database, known)
    if newer:
        raise RefusedError(
            f"{installation.database} is from a newer release (it has {newer[0]}). Install that release, or put "
            "back a backup from before: fine-tally restore FILE."
        )


def refuse_empty_secret(installation: Installation) -> None:
    """Raise RefusedError for a secret that is there and says nothing."""
    if installation.secret.exists() and not installation.secret.read_text().strip():
        raise RefusedError(
            f"The secret in {installation.secret} is empty: sessions and links could be forged. Put it back from a "
            "backup, or delete the file; everybody then signs in anew."
        )


def refuse_unfit(installation: Installation) -> None:
    """Raise RefusedError, in one line, for what could not be served: an installation that is not whole."""
    refuse_empty_secret(installation)
    if not installation.database.exists():
        raise RefusedError(f"There is no database at {installation.database}; fine-tally run makes one.")
    refuse_broken(installation.database)
    known = known_migrations()
    _refuse_newer(installation, known)
    missing = sorted(known - applied(installation.database))
    if missing:
        raise RefusedError(f"{installation.database} lacks what this release needs ({'.'.join(missing[0])}).")
    _refuse_read_only(installation)


def _refuse_read_only(installation: Installation) -> None:
    says = f"{installation.database} cannot be written: check the rights of the file and its folder."
    # Root may write what nobody may: the mark on the file counts, too.
    if not installation.database.stat().st_mode & stat.S_IWUSR or not os.access(installation.folder, os.W_OK):
        raise RefusedError(says)
    try:
        with closing(sqlite3.connect(installation.database, timeout=30, isolation_level=None)) as found:
            found.execute("BEGIN IMMEDIATE")
            found.execute("ROLLBACK")
    except sqlite3.Error:
        raise RefusedError(says) from None


def serve(installation: Installation, port: int) -> None:
    """Hand this process over to the server. Raises RefusedError before that if something does not hold."""
    refuse_unfit(installation)
    # Held until the server and its workers end: a restore goes by it.
    os.set_inheritable(hold_database(installation), True)
    arguments = [
        sys.executable, "-m", "gunicorn", "-c", "python:finetally.running.serving",
        "finetally.web.wsgi:application", "--bind", f"127.0.0.1:{port}",
    ]  # fmt: skip
    sys.stdout.write(f"Fine Tally: http://127.0.0.1:{port}\n")
    sys.stdout.flush()
    os.execv(sys.executable, arguments)
