"""Starting: what has to hold before anything is served, and the migration that is always preceded by a backup."""

from __future__ import annotations

import os
import sqlite3
import stat
import sys
from contextlib import closing

from finetally.running.backup import applied, back_up, newer_than, refuse_broken
from finetally.running.place import OWNER_ONLY, Place, RefusedError, alone, held, place_now

KEPT_BEFORE_MIGRATIONS = 10
"""Backups made by themselves that stay: ten releases back."""


def use_django() -> None:
    """Make Django ready for this process. Sets the umask first: its settings make the secret."""
    os.umask(OWNER_ONLY)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finetally.web.settings")
    refuse_empty_secret(place_now())
    import django

    django.setup()


def known_migrations() -> set[tuple[str, str]]:
    """The migrations of this release, by app and name."""
    from django.db.migrations.loader import MigrationLoader

    return set(MigrationLoader(None).disk_migrations)


def migrate(place: Place) -> None:
    """Bring the database up to this release, after a backup if there is anything to lose. Raises RefusedError.

    Nothing is changed under a server that runs, nor is a new database begun where a restore was broken off.
    """
    from django.core.management import call_command

    known = known_migrations()
    with alone(place):
        if place.database.exists() and place.database.stat().st_size:
            refuse_broken(place.database)
            _refuse_newer(place, known)
            if known - applied(place.database):
                made = back_up(place, why="before-migration", keep=KEPT_BEFORE_MIGRATIONS)
                sys.stderr.write(f"A backup before the database is changed: {made}\n")
        elif place.set_aside and not place.database.exists():
            raise RefusedError(
                f"There is no database at {place.database}: a restore was broken off. Begin it again; what was "
                f"there is kept in {place.set_aside[-1]}."
            )
        call_command("migrate", verbosity=0)
        place.close_to_others()


def _refuse_newer(place: Place, known: set[tuple[str, str]]) -> None:
    newer = newer_than(place.database, known)
    if newer:
        raise RefusedError(
            f"{place.database} is from a newer release (it has {newer[0]}). Install that release, or put back a "
            "backup from before: fine-tally restore FILE."
        )


def refuse_empty_secret(place: Place) -> None:
    """Raise RefusedError for a secret that is there and says nothing."""
    if place.secret.exists() and not place.secret.read_text().strip():
        raise RefusedError(
            f"The secret in {place.secret} is empty: sessions and links could be forged. Put it back from a "
            "backup, or delete the file; everybody then signs in anew."
        )


def refuse_unfit(place: Place) -> None:
    """Raise RefusedError, in one line, for what could not be served: an installation that is not whole."""
    refuse_empty_secret(place)
    if not place.database.exists():
        raise RefusedError(f"There is no database at {place.database}; fine-tally run makes one.")
    refuse_broken(place.database)
    known = known_migrations()
    _refuse_newer(place, known)
    missing = sorted(known - applied(place.database))
    if missing:
        raise RefusedError(f"{place.database} lacks what this release needs ({'.'.join(missing[0])}).")
    _refuse_read_only(place)


def _refuse_read_only(place: Place) -> None:
    says = f"{place.database} cannot be written: check the rights of the file and its folder."
    # Root may write what nobody may: the mark on the file counts, too.
    if not place.database.stat().st_mode & stat.S_IWUSR or not os.access(place.folder, os.W_OK):
        raise RefusedError(says)
    try:
        with closing(sqlite3.connect(place.database, timeout=30, isolation_level=None)) as found:
            found.execute("BEGIN IMMEDIATE")
            found.execute("ROLLBACK")
    except sqlite3.Error:
        raise RefusedError(says) from None


def serve(place: Place, port: int) -> None:
    """Hand this process over to the server. Raises RefusedError before that if something does not hold."""
    refuse_unfit(place)
    # Held until the server and its workers end: a restore goes by it.
    os.set_inheritable(held(place), True)
    arguments = [
        sys.executable, "-m", "gunicorn", "-c", "python:finetally.running.serving",
        "finetally.web.wsgi:application", "--bind", f"127.0.0.1:{port}",
    ]  # fmt: skip
    sys.stdout.write(f"Fine Tally: http://127.0.0.1:{port}\n")
    sys.stdout.flush()
    os.execv(sys.executable, arguments)
