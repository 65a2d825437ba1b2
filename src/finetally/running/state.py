"""How an installation stands, read from outside of Django: what runs, what waits, when the last backup was made.

Nothing is changed or waited for: whoever looks is in nobody's way.
"""

from __future__ import annotations

import fcntl
import json
import os
import shutil
import sqlite3
from contextlib import closing, suppress
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from prometheus_client import CollectorRegistry
from prometheus_client.multiprocess import MultiProcessCollector

from finetally.running.installation import Installation

LONGEST_SILENCE_S = 1800
"""Seconds after which a job that runs and reports nothing counts as stuck: the longest known takes minutes."""
LONGEST_IDLE_S = 120
"""Seconds that jobs may wait while none runs."""
DATABASE_WAIT_S = 5
"""Seconds that looking waits for the database."""


def read_only(database: Path) -> sqlite3.Connection:
    """The database, to look at. Raises sqlite3.Error where it cannot be opened."""
    return sqlite3.connect(f"file:{database}?mode=ro", uri=True, timeout=DATABASE_WAIT_S)


def is_held(lock: Path) -> bool:
    """Whether a process that runs holds a lock's file."""
    try:
        handle = os.open(lock, os.O_RDONLY)
    except OSError:
        return False
    try:
        fcntl.flock(handle, fcntl.LOCK_SH | fcntl.LOCK_NB)
    except OSError:
        return True
    finally:
        os.close(handle)
    return False


@dataclass(frozen=True, slots=True)
class Queue:
    """Heavy work: how many jobs wait, and for how many seconds the oldest.

    `silent_s`: for how many the one that runs has reported nothing; None where none runs.
    """

    waiting: int
    oldest_s: float
    silent_s: float | None = None

    @property
    def stuck(self) -> str:
        """What is wrong with it, in words; empty where nothing is."""
        if self.silent_s is not None and self.silent_s > LONGEST_SILENCE_S:
            return f"a job that runs has reported nothing for {self.silent_s / 60:.0f} minutes"
        if self.silent_s is None and self.waiting and self.oldest_s > LONGEST_IDLE_S:
            return f"{self.waiting} jobs wait, the first for {self.oldest_s / 60:.0f} minutes, and none runs"
        return ""


def queue_of(database: Path, now: datetime) -> Queue:
    """What waits for the process for heavy work. Raises sqlite3.Error."""
    with closing(read_only(database)) as found:
        number, oldest = found.execute(
            "SELECT count(*), min(created_at) FROM jobs_job WHERE state = 'waiting'"
        ).fetchone()
        [seen] = found.execute("SELECT min(seen_at) FROM jobs_job WHERE state = 'running'").fetchone()

    def since(kept: str) -> float:
        return (now - moment_of(kept)).total_seconds()

    return Queue(number, since(oldest) if oldest else 0.0, since(seen) if seen else None)


def moment_of(kept: str) -> datetime:
    """A moment as Django keeps it."""
    return datetime.fromisoformat(kept).replace(tzinfo=UTC)


@dataclass(frozen=True, slots=True)
class LastBackup:
    """The newest backup that is known: when it was made, where it was put."""

    at: datetime
    file: Path


def keep_last_backup(installation: Installation, file: Path) -> None:
    """Note that a backup was made, wherever it went. Without room for the note there is a backup all the same."""
    kept = {"at": datetime.now(UTC).isoformat(), "file": str(file.resolve())}
    with suppress(OSError):
        installation.last_backup.write_text(json.dumps(kept))


def last_backup(installation: Installation) -> LastBackup | None:
    """The newest backup: of the one that was noted, and those in the folder of backups."""
    known = [
        LastBackup(datetime.fromtimestamp(one.stat().st_mtime, UTC), one)
        for one in installation.backups.glob("*.sqlite3")
    ]
    with suppress(OSError, ValueError, KeyError, TypeError):
        kept = json.loads(installation.last_backup.read_text())
        known.append(LastBackup(datetime.fromisoformat(kept["at"]), Path(kept["file"])))
    return max(known, key=lambda one: one.at, default=None)


def counted(installation: Installation) -> CollectorRegistry:
    """What the processes of the server counted together since its last start; nothing where none has run."""
    registry = CollectorRegistry()
    if installation.counts.is_dir():
        MultiProcessCollector(registry, path=str(installation.counts))  # type: ignore[no-untyped-call]
    return registry


def free_bytes(folder: Path) -> int:
    """What the disk of a folder has left for its user."""
    return shutil.disk_usage(folder).free


def size_of(installation: Installation) -> int:
    """Bytes of the database with what it has not yet taken in."""
    return sum(one.stat().st_size for one in (installation.database, *installation.beside) if one.exists())
