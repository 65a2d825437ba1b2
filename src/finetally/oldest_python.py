"""The oldest Python that this runs on. Read by one that is older, too: from 3.7 on."""

from __future__ import annotations

OLDEST = (3, 11)


def too_old(version: tuple[int, ...]) -> str:
    """Why a version (major, minor, …) will not do, and what to do; empty where it does."""
    if version[:2] >= OLDEST:
        return ""
    return (
        f"Python {version[0]}.{version[1]} is too old: {OLDEST[0]}.{OLDEST[1]} or newer is needed. "
        "On Debian or Ubuntu: apt install python3.11 python3.11-venv, then make the environment anew with it."
    )
