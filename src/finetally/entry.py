"""The first lines of `fine-tally`: what an old Python can read, so that it says what is wrong with it."""

from __future__ import annotations

import sys

from finetally.oldest_python import too_old


def main() -> int:
    """Run a command; 3 where Python is too old."""
    says = too_old(tuple(sys.version_info[:3]))
    if says:
        sys.stderr.write(f"fine-tally: {says}\n")
        return 3
    from finetally.cli import main as run

    return run()
