"""`./tally fuzz [--minutes N] [--seed N]`: try every door for a while and tell what came of it."""

from __future__ import annotations

import argparse
import random
import sys
import tempfile
from pathlib import Path

from tests.fuzz.run import fuzz


def main() -> int:
    parser = argparse.ArgumentParser(prog="tally fuzz")
    parser.add_argument("--minutes", type=float, default=10)
    parser.add_argument("--seed", type=int, default=random.randrange(2**32))
    given = parser.parse_args()
    with tempfile.TemporaryDirectory(prefix="fine-tally-fuzz-") as folder:
        watch = fuzz(Path(folder), given.seed, seconds=given.minutes * 60)
    print(f"seed {given.seed}\n{watch.told()}")
    for fault in watch.faults[:40]:
        print(fault)
    return 1 if watch.faults else 0


if __name__ == "__main__":
    sys.exit(main())
