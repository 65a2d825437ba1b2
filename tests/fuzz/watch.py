"""What is watched while doors are tried: how each answer ended, how long it took, how much work, how much memory."""

from __future__ import annotations

import json
import math
import time
from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from tests.conftest import REPOSITORY
from tests.serving import Server, Visitor

HANGS_S = 60.0
"""No answer within this is no answer: only hangs are caught by it, speed is measured elsewhere."""


@dataclass
class Watch:
    """The sum of a run."""

    server: Server
    ends: float = math.inf
    most: float = math.inf
    statuses: Counter[int] = field(default_factory=Counter)
    faults: list[str] = field(default_factory=list)
    longest_s: float = 0.0
    longest: str = ""
    most_work: int = 0
    memory: list[float] = field(default_factory=list)

    @property
    def over(self) -> bool:
        """Whether the time is up, or enough doors were tried."""
        return time.monotonic() > self.ends or self.tries >= self.most

    @property
    def tries(self) -> int:
        """How many doors were tried so far."""
        return sum(self.statuses.values())

    def send(self, who: Visitor, method: str, path: str, body: Any = None) -> int:
        """Try one door."""
        began = time.monotonic()
        try:
            answer = who.send(method, path, body, timeout=HANGS_S)
        except OSError as error:
            self.faults.append(f"no answer ({error}): {method} {path} {shown(body)}")
            return 0
        self.note(method, path, body, answer.status, time.monotonic() - began, answer.headers, answer.body)
        return answer.status

    def note(
        self, method: str, path: str, body: Any, status: int, seconds: float, headers: Any, content: bytes
    ) -> None:
        """Note how one try ended."""
        self.statuses[status] += 1
        # 503 and 507 say that it is not the time; anything else of that kind is a fault of ours.
        if status >= 500 and status not in (503, 507):
            self.faults.append(f"{status}: {method} {path} {shown(body)} -> {content[:200]!r}")
            self._keep(method, path, body)
        self.most_work = max(self.most_work, int(headers.get("X-Work") or 0))
        if seconds > self.longest_s:
            self.longest_s, self.longest = seconds, f"{method} {path} {shown(body)}"
        if self.tries % 200 == 1:
            self.memory.append(self.server.memory_mb())

    def _keep(self, method: str, path: str, body: Any) -> None:
        """Put what found a fault where it can be tried again (var/ is nobody's)."""
        folder = REPOSITORY / "var/fuzz"
        folder.mkdir(parents=True, exist_ok=True)
        file = folder / f"fault-{len(self.faults):03}.json"
        file.write_text(json.dumps({"method": method, "path": path, "body": body}, default=repr))

    def told(self) -> str:
        """The sum in a few lines."""
        memory = f"{min(self.memory):.0f} to {max(self.memory):.0f} MB" if self.memory else "not measured"
        return (
            f"{self.tries} tries: {dict(sorted(self.statuses.items()))}\n"
            f"longest {self.longest_s:.2f} s: {self.longest}\n"
            f"most work {self.most_work} units, memory {memory}, {len(self.faults)} faults"
        )


def shown(body: Any) -> str:
    """A body, short enough to be told."""
    text = body.decode("utf-8", "replace") if isinstance(body, bytes) else json.dumps(body)
    return text if len(text) <= 600 else f"{text[:600]}… ({len(text)} characters)"
