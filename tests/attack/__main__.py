"""`./tally attack`: start a server of its own, attack it, and tell what succeeded."""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path

from tests.attack.attacks import tried
from tests.serving import served


def main() -> int:
    with tempfile.TemporaryDirectory(prefix="fine-tally-attack-") as folder, served(Path(folder)) as server:
        found = tried(server)
    for name, what in found.items():
        print(f"{'SUCCEEDED' if what else 'came to nothing':16} {name}{': ' if what else ''}{what}")
    return 1 if any(found.values()) else 0


if __name__ == "__main__":
    sys.exit(main())
