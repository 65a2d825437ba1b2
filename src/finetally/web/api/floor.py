"""The floor over the API: today, sheets, runs and their events, screens on the wall."""

from __future__ import annotations

from dataclasses import asdict
from datetime import UTC, date, datetime
from datetime import time as time_of_day
from typing import Annotated, Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema, Status
from ninja.security import APIKeyHeader
from pydantic import Field

from finetally.core.card.card import HEALTH, CardOption, KitLine
from finetally.core.floor.events import Event
from finetally.core.floor.published import PublishedLayout, PublishedSheet
from finetally.core.floor.queue import Holding
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.floor import runs, sheets, walls
from finetally.web.floor.models import FloorEvent, FloorRun, WallScreen
from finetally.web.problems import ProblemOut

router = Router()
MOST_SENT = 500
"""Events in one request: the rest comes with the next."""

DeviceName = Annotated[str, Field(min_length=8, max_length=36, pattern=r"^[\w-]+$")]


class FloorEntryOut(Schema):
    """An entry of today. `runs_here`: whether it has a session that can be run."""

    id: UUID
    title: str
    time: time_of_day | None
    minutes: float
    effort: float
    group: str | None
    person: str | None
    runs_here: bool


class RunListed(Schema):
    """A run of today: of which entry, since when, whether it is over, who began it."""

    id: UUID
    entry: UUID | None
    title: str
    name: str
    begun: float
    ended: float | None
    events: int
    by: str | None


class TodayOut(Schema):
    """What a squad has to run today, and what of it was run. `now`: the server's seconds since 1970."""

    squad: int
    name: str
    day: date
    now: float
    entries: list[FloorEntryOut]
    runs: list[RunListed]


class FloorPerson(Schema):
    """Somebody who is expected; `away`: known to be away on the day."""

    person: UUID
    name: str
    away: bool


class VariantOut(Schema):
    """What follows where a block, by number, scores a value."""

    block: int
    take: str
    value: int
    layout: PublishedLayout


class ExitOut(Schema):
    """A block, by number, before which the session may end: its seconds and load whole, and ended there."""

    block: int
    whole_s: float
    whole_load: float
    ended_s: float
    ended_load: float


class FloorSheetOut(Schema):
    """All that running an entry needs, also without a network. `emergency`: the squad's own words."""

    entry: UUID
    squad: int
    squad_name: str
    day: date
    title: str
    minutes: float
    now: float
    sheet: PublishedSheet
    apart: PublishedSheet | None
    exits: list[ExitOut]
    variants: list[VariantOut]
    kit: list[KitLine]
    own_cautions: list[str]
    cautions: list[str]
    emergency: str
    people: list[FloorPerson]
    others: list[CardOption]


class RunIn(Schema):
    """A run as a device began it; `begun`: seconds since 1970 of its second 0, by the server's clock."""

    entry: UUID
    begun: float = Field(ge=0, le=1e11)
    apart: bool = False
    hold: Holding = "entries"
    name: str = Field("", max_length=80)


class KeptEvent(Schema):
    """An event with the device that gave it, and its number there."""

    device: str
    number: int
    event: dict[str, Any]


class EventSent(Schema):
    """An event as a device numbers it."""

    device: DeviceName
    number: int = Field(ge=0, le=1_000_000)
    event: Event


class EventsIn(Schema):
    """Events of a run that were not confirmed yet."""

    events: list[EventSent] = Field(max_length=MOST_SENT)


class RunOut(Schema):
    """A run, and what came after event `since`. `last`: from where to ask next; `now`: the server's clock."""

    id: UUID
    entry: UUID | None
    title: str
    name: str
    begun: float
    apart: bool
    hold: Holding
    now: float
    last: int
    events: list[KeptEvent]
    layouts: dict[str, PublishedLayout]


class WallOpened(Schema):
    """A new screen: the code to show, and the token that it goes by."""

    code: str
    token: str


class PairIn(Schema):
    """The code that a screen shows."""

    code: str = Field(max_length=20)
    squad: int | None = None


class ScreenOut(Schema):
    """A screen that shows the squad's runs, and until when."""

    id: int
    until: datetime


class WallOut(Schema):
    """What a screen shows: nothing until it is paired; then the run of the hour, if there is one."""

    paired: bool
    squad: str
    now: float
    run: RunOut | None
    sheet: PublishedSheet | None


def _seconds(moment: datetime) -> float:
    return moment.timestamp()


def _now() -> float:
    return timezone.now().timestamp()


@router.get("/today", response={200: TodayOut, **REFUSALS}, operation_id="today")
def today(request: ActorRequest, squad: int | None = None) -> TodayOut:
    """What a squad has to run today, and what of it was run; for those who plan."""
    found = sheets.floor_day(request.auth, squad)
    return TodayOut(
        squad=found.squad.pk,
        name=found.squad.name,
        day=found.day,
        now=_now(),
        entries=[
            FloorEntryOut(
                id=one.pk,
                title=one.title,
                time=one.time,
                minutes=one.summary.get("minutes", 0.0),
                effort=one.summary.get("effort", 0.0),
                group=one.group.name if one.group is not None else None,
                person=one.person.on_the_wall if one.person is not None else None,
                runs_here=one.document is not None,
            )
            for one in found.entries
        ],
        runs=[_listed(one) for one in found.runs],
    )


def _listed(run: FloorRun) -> RunListed:
    return RunListed(
        id=run.pk,
        entry=run.entry_id,
        title=run.title,
        name=run.name,
        begun=_seconds(run.begun_at),
        ended=_seconds(run.ended_at) if run.ended_at is not None and run.is_over else None,
        events=run.count,  # type: ignore[attr-defined]
        by=run.user.get_username() if run.user is not None else None,
    )


@router.get("/entries/{entry_id}/sheet", response={200: FloorSheetOut, **REFUSALS}, operation_id="floorSheet")
def floor_sheet(request: ActorRequest, entry_id: UUID) -> FloorSheetOut:
    """All that running an entry needs; for those who plan."""
    found = sheets.sheet_of_entry(request.auth, entry_id)
    entry = found.entry
    return FloorSheetOut(
        entry=entry.pk,
        squad=entry.squad_id,
        squad_name=entry.squad.name,
        day=entry.day,
        title=entry.title,
        minutes=found.minutes,
        now=_now(),
        sheet=found.sheet,
        apart=found.apart,
        exits=[ExitOut(**asdict(one)) for one in found.exits],
        variants=[
            VariantOut(block=one.block, take=one.take, value=one.value, layout=one.layout) for one in found.variants
        ],
        kit=found.kit,
        own_cautions=found.cautions,
        cautions=list(HEALTH),
        emergency=entry.squad.emergency,
        people=[
            FloorPerson(person=one.person.public_id, name=one.person.on_the_wall, away=not one.comes)
            for one in found.people
        ],
        others=found.others,
    )


@router.put("/runs/{run_id}", response={200: RunOut, **REFUSALS}, operation_id="beginRun")
def begin_run(request: ActorRequest, run_id: UUID, data: RunIn) -> RunOut:
    """Keep a run that a device began; asked for again, it is the one that there is."""
    wish = runs.RunWish(data.entry, datetime.fromtimestamp(data.begun, UTC), data.apart, data.hold, data.name)
    return _run_out(runs.news_of(runs.begin_run(request.auth, run_id, wish), 0))


@router.get("/runs/{run_id}", response={200: RunOut, **REFUSALS}, operation_id="run")
def run(request: ActorRequest, run_id: UUID, since: int = 0) -> RunOut:
    """A run, and the events that came after event `since`."""
    return _run_out(runs.news_of(runs.the_run(request.auth, run_id), since))


@router.get("/runs/{run_id}/sheet", response={200: PublishedSheet, **REFUSALS}, operation_id="runSheet")
def run_sheet(request: ActorRequest, run_id: UUID) -> PublishedSheet:
    """The sheet of a run as it began: for a second device that joins."""
    return walls.sheet_of_run(runs.the_run(request.auth, run_id))


@router.post("/runs/{run_id}/events", response={200: RunOut, **REFUSALS}, operation_id="sendEvents")
def send_events(request: ActorRequest, run_id: UUID, data: EventsIn, since: int = 0) -> RunOut:
    """Keep events, each once; answers with what came after event `since`, these among it."""
    sent = [runs.SentEvent(one.device, one.number, one.event) for one in data.events]
    runs.take_events(request.auth, run_id, sent)
    return _run_out(runs.news_of(runs.the_run(request.auth, run_id), since))


def _run_out(news: runs.RunNews, *, only: frozenset[str] | None = None) -> RunOut:
    kept = news.run
    return RunOut(
        id=kept.pk,
        entry=kept.entry_id,
        title=kept.title,
        name=kept.name,
        begun=_seconds(kept.begun_at),
        apart=kept.apart,
        hold=kept.hold,  # type: ignore[arg-type] # one of them, as it was taken in
        now=_now(),
        last=news.last,
        events=[_kept(one, only is None) for one in news.events if only is None or one.event["do"] in only],
        layouts=news.layouts,
    )


def _kept(one: FloorEvent, with_people: bool) -> KeptEvent:
    event = dict(one.event)
    if with_people and one.person is not None:
        event["person"] = str(one.person.public_id)
    return KeptEvent(device=one.device, number=one.number, event=event)


class WallKey(APIKeyHeader):
    """The screen behind a token: its own kind of actor, which reads what it shows and nothing else."""

    param_name = "X-Wall"

    def authenticate(self, request: HttpRequest, key: str | None) -> WallScreen | None:
        """None, and so a refusal, for a token that opens nothing, or nothing more."""
        return walls.screen_of(key) if key else None


class WallRequest(HttpRequest):
    """A request of a screen. Only for types."""

    auth: WallScreen


@router.post("/wall/screens", auth=None, response={200: WallOpened, 422: ProblemOut}, operation_id="openWall")
def open_wall(request: HttpRequest) -> WallOpened:
    """A new screen, which shows its code until a coach types it."""
    token, code = walls.open_screen()
    return WallOpened(code=code, token=token)


@router.get("/wall", auth=WallKey(), response={200: WallOut, 401: ProblemOut}, operation_id="wall")
def wall(request: WallRequest, run: UUID | None = None, since: int = 0) -> WallOut:
    """What a screen shows. `run` and `since`: the run that it shows already, and how far it knows it."""
    screen = request.auth
    shown = walls.shown_run(screen)
    same = shown is not None and shown.pk == run
    return WallOut(
        paired=screen.squad is not None,
        squad=screen.squad.name if screen.squad is not None else "",
        now=_now(),
        run=None if shown is None else _run_out(runs.news_of(shown, since if same else 0), only=walls.ON_THE_WALL),
        sheet=None if shown is None or same else walls.sheet_of_run(shown),
    )


@router.post("/wall/pair", response={200: ScreenOut, **REFUSALS}, operation_id="pairWall")
def pair_wall(request: ActorRequest, data: PairIn) -> ScreenOut:
    """Let the screen that shows a code show the squad's runs until midnight; for those who plan."""
    screen = walls.pair(request.auth, data.squad, data.code)
    return ScreenOut(id=screen.pk, until=screen.until)


@router.get("/walls", response={200: list[ScreenOut], **REFUSALS}, operation_id="screens")
def screens(request: ActorRequest, squad: int | None = None) -> list[ScreenOut]:
    """The screens that show the squad's runs now."""
    return [ScreenOut(id=one.pk, until=one.until) for one in walls.screens_of(request.auth, squad)]


@router.delete("/walls/{screen_id}", response={204: None, **REFUSALS}, operation_id="endScreen")
def end_screen(request: ActorRequest, screen_id: int) -> Status[None]:
    """From now on a screen shows nothing."""
    walls.end_screen(request.auth, screen_id)
    return Status(204, None)
