"""Events as devices send them."""

from __future__ import annotations

import re
from dataclasses import dataclass

from finetally.core.floor.events import Event

TEAM = re.compile(r"team \d{1,3}")
"""How an event names a team of the day, in a person's place."""


@dataclass(frozen=True, slots=True)
class SentEvent:
    """An event as a device numbers it."""

    device: str
    number: int
    event: Event

    @property
    def names_team(self) -> bool:
        """Whether a team of the day stands in a person's place."""
        return TEAM.fullmatch(str(getattr(self.event, "person", None) or "")) is not None
