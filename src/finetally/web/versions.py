"""What a write replaces: whoever changes something says what they saw, and is told when it is that no more."""

from __future__ import annotations

import hashlib
import json
from typing import Any

VERSION_LENGTH = 16


class ChangedError(Exception):
    """What was to be replaced is no longer what was seen; nothing was changed. `what` names it in words."""

    def __init__(self, what: str) -> None:
        self.what = what
        super().__init__(what)


def version_of(*parts: Any) -> str:
    """A short name of a state: the same parts, the same name. Parts are JSON values."""
    text = json.dumps(parts, sort_keys=True, default=str)
    return hashlib.sha256(text.encode()).hexdigest()[:VERSION_LENGTH]


def require_version(what: str, seen: Any, now: Any) -> None:
    """Raise ChangedError unless what was seen is what stands."""
    if seen != now:
        raise ChangedError(what)
