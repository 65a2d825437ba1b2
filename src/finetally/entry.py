"""The first lines of `fine-tally`: what a Python from 3.7 on can read, so that an old one says what is wrong."""

from __future__ import annotations

import sys

OLDEST = (3, 11)


def too_old(version: tuple[int, ...]) -> str:
    """Why a version (major, minor, …) will not do, and what to do; empty where it does."""
    if version[:2] >= OLDEST:
        return ""
    return (
        f"Python {version[0]}.{version[1]} is too old: {OLDEST[0]}.{OLDEST[1]} or newer is needed. "
        "On Debian or Ubuntu: apt install python3.11 python3.11-venv, then make the environment anew with it."
    )


def main() -> int:
    """Run a command; 3 where Python is too old."""
    says = too_old(tuple(sys.version_info[:3]))
    if says:
        sys.stderr.write(f"fine-tally: {says}\n")
        return 3
    from finetally.cli import main as run

    return run()
