"""One run of both fuzzers against a server of its own."""

from __future__ import annotations

import math
import random
import time
from pathlib import Path

from tests.fuzz.files import try_files
from tests.fuzz.routes import try_routes
from tests.fuzz.watch import Watch
from tests.serving import Server, Visitor

ROLES = ("marit", "osk", "tamsin")
"""The demo's head coach, coach and athlete."""


def fuzz(folder: Path, chance: int, *, seconds: float = math.inf, tries: float = math.inf) -> Watch:
    """Try every door for so long or so often: files for half of the time, routes for the other half, once a role.

    Of `tries` three quarters are files: a case of a route takes four times as long to make.
    """
    server = Server(folder)
    server.start()
    watch = Watch(server)
    rng = random.Random(chance)
    try:
        for name in ROLES:
            watch.ends = time.monotonic() + seconds / 2 / len(ROLES)
            watch.most = watch.tries + tries / 4 / len(ROLES)
            try_routes(watch, Visitor(server, name), rng)
        watch.ends, watch.most = time.monotonic() + seconds / 2, tries
        try_files(watch, Visitor(server, "marit"), rng)
        watch.memory.append(server.memory_mb())
    finally:
        server.stop()
    return watch
