"""The ids of those who were erased: a file beside the database, in no backup, so that a restore brings nobody back.

A line is `person ID DATE` or `account ID DATE`; no name stands in it.
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Iterator
from datetime import date
from typing import Any, Literal

from finetally.running.installation import current_installation

ErasedKind = Literal["person", "account"]


def account_id(user: Any) -> str:
    """What an account is known by after it is gone: its number and when it began, hashed."""
    return hashlib.sha256(f"{user.pk} {user.date_joined.isoformat()}".encode()).hexdigest()[:32]


def note_erased(kind: ErasedKind, key: str) -> None:
    """Write an id down; on the disk when this returns."""
    path = current_installation().erased
    with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_APPEND, 0o600), "w") as file:
        file.write(f"{kind} {key} {date.today().isoformat()}\n")
        file.flush()
        os.fsync(file.fileno())


def erased_ids() -> Iterator[tuple[str, str]]:
    """Kind and id of everybody who was erased; a line that is broken off is left out."""
    path = current_installation().erased
    if path.exists():
        for line in path.read_text().splitlines():
            kind, _, rest = line.partition(" ")
            if kind in ("person", "account") and rest:
                yield kind, rest.split(" ")[0]
