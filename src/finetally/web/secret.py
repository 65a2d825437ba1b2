"""The installation's own secret, made once and kept beside its data."""

from __future__ import annotations

import os
import secrets
import time
from pathlib import Path

TRIES, PAUSE_S = 100, 0.02
"""How long one process waits for the words that another is just writing."""


def secret_at(path: Path) -> str:
    """The secret in a file that only its owner reads; made by the first of several processes that ask for it.

    A file that stays empty (its maker was stopped between making and writing it) is written anew.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    for _ in range(TRIES):
        try:
            handle = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        except FileExistsError:
            text = path.read_text()
            if text:
                return text
            time.sleep(PAUSE_S)
            continue
        made = secrets.token_urlsafe(50)
        with os.fdopen(handle, "w") as file:
            file.write(made)
        return made
    path.write_text(secrets.token_urlsafe(50))
    return path.read_text()
