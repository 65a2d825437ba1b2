"""What check-ins take and give over the API."""

from __future__ import annotations

from datetime import date, datetime
from datetime import time as time_of_day
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, Field

from finetally.core.floor.events import NoteKind
from finetally.core.measures import Units
from finetally.web.api.log_schemas import EffortWordOut, ExpectedTold, Kind, ScoreTold

MOST_SAYINGS = 100
"""Things said in one request: what waited on a phone comes in several."""


class SaidThing(Schema):
    """Something that is said: its number, by which it counts once; when, by the device's clock."""

    number: UUID
    at: AwareDatetime


class ComesSaid(SaidThing):
    """That they are there, or do not come."""

    what: Literal["here", "away"]
    entry: UUID


class OptionSaid(SaidThing):
    """Which option they take of a step; '' for as planned."""

    what: Literal["option"]
    entry: UUID
    step: str = Field(max_length=120)
    label: str = Field("", max_length=500)


class ScoreSaid(SaidThing):
    """What they scored in a window; no score takes it back."""

    what: Literal["score"]
    entry: UUID
    block: int = Field(ge=0, le=10_000)
    section_pass: int = Field(0, ge=0, le=10_000)
    index: int = Field(0, ge=0, le=10_000)
    score: ScoreTold | None = None


class EffortSaid(SaidThing):
    """How hard it was, 0 to 10; None takes it back."""

    what: Literal["effort"]
    entry: UUID
    effort: float | None = None


class NoteSaid(SaidThing):
    """What hurts, or that they were dizzy, or anything to remember; goes in, and is not shown again."""

    what: Literal["note"]
    entry: UUID
    kind: NoteKind = "free"
    text: str = Field("", max_length=2000)
    place: str = Field("", max_length=40)
    side: Literal["", "left", "right", "both"] = ""
    level: int | None = None


class FreshSaid(SaidThing):
    """How fresh they are on the day of `at`, 1 to 5; goes in, and is not shown again."""

    what: Literal["fresh"]
    value: int


AnySaid = Annotated[
    ComesSaid | OptionSaid | ScoreSaid | EffortSaid | NoteSaid | FreshSaid, Field(discriminator="what")
]


class SaidIn(Schema):
    """Things that are said, in their order.

    `link`: the link they belong to, by the number on its page; `sent`: now, by the device's clock, by which a wrong
    one is noticed and their times are corrected.
    """

    link: int | None = Field(None, ge=0, lt=2**63)
    sent: AwareDatetime | None = None
    said: list[AnySaid] = Field(max_length=MOST_SAYINGS)


class NotTaken(Schema):
    """Something that was not taken, and why."""

    number: UUID
    why: str


class HeardOut(Schema):
    """Which things were taken, now or before; which were not. Each thing by itself.

    `waiting`: their times cannot be right, by this clock or the device's: they stay there and are sent again.
    """

    taken: list[UUID]
    refused: list[NotTaken]
    waiting: list[NotTaken] = []


class OwnTokenIn(Schema):
    """What stands behind the `#` of a person's own link."""

    token: str = Field(max_length=100)


class OwnDeviceOut(Schema):
    """A device that opened the link: what it says it is, since when, last used; `this`: the one that asks."""

    id: int
    called: str
    began_at: datetime
    used_at: datetime
    this: bool


class OwnStepOut(Schema):
    """A step with options; which is taken ('' as planned); `fixed`: agreed with the coaches, not chosen."""

    step: str
    name: str
    labels: list[str]
    taken: str
    fixed: bool


class OwnWindowOut(Schema):
    """A window that takes a score: what is expected, what they made last and at best, and what they said here."""

    block: int
    section_pass: int
    index: int
    title: str
    kind: Kind
    target: ExpectedTold | None
    last: ScoreTold | None
    best: ScoreTold | None
    score: ScoreTold | None


class OwnEntryOut(Schema):
    """A session of today or yesterday that is for them, as text for the wall; `said`: here, away or nothing."""

    id: UUID
    day: date
    time: time_of_day | None
    title: str
    minutes: float
    text: str
    cautions: list[str]
    logged: bool
    said: str
    effort: float | None
    steps: list[OwnStepOut]
    windows: list[OwnWindowOut]


class OwnResultOut(Schema):
    """Something that they made before."""

    day: date
    title: str
    score: ScoreTold


class FreshWordOut(Schema):
    """A step of the scale of freshness and its word."""

    value: int
    word: str


class OwnPageOut(Schema):
    """What the holder of a person's own link sees. Nothing of health is in it but whether it is asked for.

    `link`: a number that what a device keeps is known by.
    """

    link: int
    units: Units
    squad: str
    name: str
    today: date
    until: datetime
    emergency: str
    asks_health: bool
    health_why: str
    asks_freshness: bool
    fresh_sent: bool
    scale: list[EffortWordOut]
    fresh_scale: list[FreshWordOut]
    note_cautions: dict[str, str]
    entries: list[OwnEntryOut]
    results: list[OwnResultOut]
    devices: list[OwnDeviceOut]


class CheckInState(Schema):
    """A person's link as coaches see it, without the link itself."""

    made_at: datetime
    made_by: str | None
    until: datetime
    devices: list[OwnDeviceOut]
