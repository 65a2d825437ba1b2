"""Starting: Django made ready, and what has to hold before anything is served."""

from __future__ import annotations

import os
import sqlite3
import stat
import sys
from contextlib import closing

from finetally.environment import wrong_values
from finetally.running.backup import applied, forget_freed_pages, refuse_broken
from finetally.running.installation import (
    OWNER_ONLY,
    Installation,
    RefusedError,
    current_installation,
    hold_database,
)
from finetally.running.upgrade import known_migrations, refuse_newer
from finetally.web.secret import secret_at


def use_django() -> None:
    """Make Django ready for this process, in a folder that is there.

    Raises RefusedError for a setting that is wrong, and for a secret that says nothing.
    """
    wrong = next(wrong_values(), None)
    if wrong is not None:
        raise RefusedError(wrong)
    current_installation().folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    refuse_empty_secret(current_installation())
    set_up_django()


def set_up_django() -> None:
    """Make Django ready, whatever else is amiss. What it makes from now on is read by nobody else."""
    os.umask(OWNER_ONLY)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finetally.web.settings")
    import django

    django.setup()


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
    refuse_newer(installation, known)
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
    secret_at(installation.secret)
    # Held until the server and its workers end: a restore goes by it.
    os.set_inheritable(hold_database(installation), True)
    arguments = [
        sys.executable, "-m", "gunicorn", "-c", "python:finetally.running.serving",
        "finetally.web.wsgi:application", "--bind", f"127.0.0.1:{port}",
    ]  # fmt: skip
    sys.stdout.write(f"Fine Tally: http://127.0.0.1:{port}\n")
    sys.stdout.flush()
    os.execv(sys.executable, arguments)
