"""One run of both fuzzers against a server of its own."""

from __future__ import annotations

import random
import time
from pathlib import Path

from tests.fuzz.files import try_files
from tests.fuzz.routes import try_routes
from tests.fuzz.watch import Watch
from tests.serving import Server, Visitor

ROLES = ("marit", "osk", "tamsin")
"""The demo's head coach, coach and athlete."""


def fuzz(folder: Path, seconds: float, chance: int) -> Watch:
    """Try every door for so long: half of the time files, half of it routes, once for each role."""
    server = Server(folder)
    server.start()
    watch = Watch(server, time.monotonic())
    rng = random.Random(chance)
    try:
        for name in ROLES:
            watch.ends = time.monotonic() + seconds / 2 / len(ROLES)
            try_routes(watch, Visitor(server, name), rng)
        watch.ends = time.monotonic() + seconds / 2
        try_files(watch, Visitor(server, "marit"), rng)
        watch.memory.append(server.memory_mb())
    finally:
        server.stop()
    return watch
