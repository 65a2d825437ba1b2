"""Where an installation keeps what it must not lose, and who may have it open."""

from __future__ import annotations

import contextlib
import fcntl
import os
import time
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from finetally.environment import data_folder, database_file

OWNER_ONLY = 0o077
"""umask: what is made here is read by nobody else."""

HOLD_TRIES, HOLD_PAUSE_S = 5, 0.02

ASIDE = ".before-"
"""Between the name of a database that a restore replaced and the time of that."""


class RefusedError(Exception):
    """What was asked for is not done: why, in one line."""


@dataclass(frozen=True, slots=True)
class Installation:
    """The folder of an installation, its database in it, its secret."""

    folder: Path
    database: Path

    @property
    def secret(self) -> Path:
        """The file with what sessions and links are signed with."""
        return self.folder / "secret"

    @property
    def erased(self) -> Path:
        """The file with the ids of those who were erased (web/privacy/erased.py); it goes into no backup."""
        return self.database.with_name(self.database.name + ".erased")

    @property
    def backups(self) -> Path:
        """Where backups go that were given no name."""
        return self.folder / "backups"

    @property
    def lock(self) -> Path:
        """Held by the server that has the database open."""
        return self.folder / f".{self.database.name}.lock"

    @property
    def worker_lock(self) -> Path:
        """Held by the process for heavy work."""
        return self.folder / f".{self.database.name}.worker.lock"

    @property
    def last_backup(self) -> Path:
        """The note of when the last backup was made, and where it is."""
        return self.folder / f".{self.database.name}.last-backup"

    @property
    def upgrade_begun(self) -> Path:
        """What an upgrade that goes on must find again at its end."""
        return self.folder / f".{self.database.name}.upgrade-begun"

    @property
    def counts(self) -> Path:
        """The folder in which the processes of a server count what they do; begun anew at each start."""
        return self.folder / f".{self.database.stem}.counts"

    @property
    def watch_socket(self) -> Path:
        """Where it is told how it goes, unless the environment names another place."""
        return self.folder / f"{self.database.stem}.watch"

    @property
    def beside(self) -> list[Path]:
        """The database's own files beside it: what it has not yet taken in."""
        return [self.database.with_name(self.database.name + ending) for ending in ("-wal", "-shm")]

    @property
    def set_aside(self) -> list[Path]:
        """Databases that a restore moved out of the way, the newest last; what belongs to them apart."""
        found = self.folder.glob(f"{self.database.name}{ASIDE}*")
        return sorted(one for one in found if not one.name.endswith(("-wal", "-shm")))

    @property
    def half_made(self) -> list[Path]:
        """What backups and restores that were broken off left: copies of everything, of which nobody would know."""
        return [one for one in (*self.folder.glob(".*.part*"), *self.backups.glob(".*.part*")) if _is_left(one)]

    @property
    def private(self) -> list[Path]:
        """Everything that none but the owner may read."""
        return [self.folder, self.database, self.secret, *self.beside, self.backups, self.erased]

    def close_to_others(self) -> None:
        """Take every right from others than the owner."""
        for path in self.private:
            if path.exists():
                path.chmod(path.stat().st_mode & ~OWNER_ONLY)


def _is_left(part: Path) -> bool:
    """Whether the process that makes a copy, whose number is in its name, runs no more."""
    number = part.name.partition(".part")[0].rpartition(".")[2]
    try:
        os.kill(int(number), 0)
    except (ProcessLookupError, OverflowError):
        return True
    except (PermissionError, ValueError):
        return False
    return False


def current_installation() -> Installation:
    """The place that the environment names (see web/settings.py, which goes by the same)."""
    return Installation(data_folder(), database_file())


def hold_database(installation: Installation) -> int:
    """Hold the database for one server, until this process and its children end. Raises RefusedError if held."""
    installation.folder.mkdir(parents=True, exist_ok=True)
    handle = hold(installation.lock)
    if handle is None:
        raise RefusedError(f"A server is running with {installation.database}. Stop it first.")
    return handle


def hold(lock: Path) -> int | None:
    """Hold a lock's file until this process and its children end; None where another does.

    Whoever only looks whether it is held (running/state.py) holds it for a moment: hence more than one try.
    """
    handle = os.open(lock, os.O_RDWR | os.O_CREAT, 0o600)
    for _ in range(HOLD_TRIES):
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            time.sleep(HOLD_PAUSE_S)
        else:
            return handle
    os.close(handle)
    return None


@contextlib.contextmanager
def exclusive_use(installation: Installation) -> Iterator[None]:
    """Inside, no server has the database open."""
    handle = hold_database(installation)
    try:
        yield
    finally:
        os.close(handle)
