"""Runs over the API: begun, their events kept and told, their plan changed while they run."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated, Any
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import Field

from finetally.core.compare.fit import FitWay
from finetally.core.figures import printed
from finetally.core.floor.events import MAX_RUN_S, Event, RunSeconds
from finetally.core.floor.published import PublishedLayout, PublishedSheet
from finetally.core.floor.queue import Holding
from finetally.core.floor.replan.changes import FloorOffer
from finetally.core.session.limits import MAX_TEXT
from finetally.web.api.figures import json_answer
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.floor import replanning, runs, walls
from finetally.web.floor.clock import server_now, since_1970
from finetally.web.floor.models import FloorEvent
from finetally.web.floor.sent import SentEvent

router = Router()
MOST_SENT = 500
"""Events in one request: the rest comes with the next."""

DeviceName = Annotated[str, Field(min_length=8, max_length=36, pattern=r"^[\w-]+$")]


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
    """A run, and what came after event `since`. `last`: from where to ask next; `now`: the server's clock.

    `left_out`: what was not kept of what was sent, in words. `removed`: its entry was taken off the plan meanwhile.
    """

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
    left_out: list[str] = []
    removed: bool = False


class LeftIn(Schema):
    """How many seconds there are from second `t` of the run on."""

    t: RunSeconds
    left_s: float = Field(ge=0, le=MAX_RUN_S)


class WaysLeftOut(Schema):
    """Ways to be done in time, the closest first; `timetable_s` from that moment on."""

    ways: list[FitWay]


class OffersOut(Schema):
    """What may be changed now, in the order of the session."""

    offers: list[FloorOffer]


class AddedIn(Schema):
    """What is to be done more, as it stands on a wall, from second `t` of the run on."""

    t: RunSeconds
    text: str = Field(min_length=1, max_length=MAX_TEXT)


class AddedOut(Schema):
    """The edits that put it in before what has not begun."""

    edits: list[dict[str, Any]]


@router.put("/runs/{run_id}", response={200: RunOut, **REFUSALS}, operation_id="beginRun")
def begin_run(request: ActorRequest, run_id: UUID, data: RunIn) -> RunOut:
    """Keep a run that a device began; asked for again, it is the one that there is."""
    wish = runs.RunWish(data.entry, datetime.fromtimestamp(data.begun, UTC), data.apart, data.hold, data.name)
    return run_out(runs.news_of(runs.begin_run(request.auth, run_id, wish), 0))


@router.get("/runs/{run_id}", response={200: RunOut, **REFUSALS}, operation_id="run")
def run(request: ActorRequest, run_id: UUID, since: int = 0) -> RunOut:
    """A run, and the events that came after event `since`."""
    return run_out(runs.news_of(runs.the_run(request.auth, run_id), since))


@router.get("/runs/{run_id}/sheet", response={200: PublishedSheet, **REFUSALS}, operation_id="runSheet")
def run_sheet(request: ActorRequest, run_id: UUID) -> PublishedSheet:
    """The sheet of a run as it began: for a second device that joins."""
    return walls.sheet_of_run(runs.the_run(request.auth, run_id))


@router.post("/runs/{run_id}/events", response={200: RunOut, **REFUSALS}, operation_id="sendEvents")
def send_events(request: ActorRequest, run_id: UUID, data: EventsIn, since: int = 0) -> RunOut:
    """Keep events, each once; answers with what came after event `since`, these among it."""
    sent = [SentEvent(one.device, one.number, one.event) for one in data.events]
    left_out = runs.take_events(request.auth, run_id, sent)
    answer = run_out(runs.news_of(runs.the_run(request.auth, run_id), since))
    answer.left_out = left_out
    return answer


def run_out(news: runs.RunNews, *, only: frozenset[str] | None = None) -> RunOut:
    kept = news.run
    return RunOut(
        id=kept.pk,
        entry=kept.entry_id,
        title=kept.title,
        name=kept.name,
        begun=since_1970(kept.begun_at),
        apart=kept.apart,
        hold=kept.hold,  # type: ignore[arg-type] # one of them, as it was taken in
        now=server_now(),
        last=news.last,
        events=[_kept(one, only is None) for one in news.events if only is None or one.event["do"] in only],
        layouts=news.layouts,
        removed=kept.entry is not None and kept.entry.removed_at is not None,
    )


def _kept(one: FloorEvent, with_people: bool) -> KeptEvent:
    event = dict(one.event)
    if with_people and one.person is not None:
        event["person"] = str(one.person.public_id)
    return KeptEvent(device=one.device, number=one.number, event=event)


@router.post("/runs/{run_id}/minutes", response={200: WaysLeftOut, **REFUSALS}, operation_id="minutesLeft")
def minutes_left(request: ActorRequest, run_id: UUID, data: LeftIn) -> HttpResponse:
    """Up to three ways to be done in the time that is left, each as edits for a change; for those who plan."""
    return json_answer(printed({"ways": replanning.minutes_left(request.auth, run_id, data.t, data.left_s)}))


@router.get("/runs/{run_id}/changes", response={200: OffersOut, **REFUSALS}, operation_id="offers")
def offers(request: ActorRequest, run_id: UUID, t: RunSeconds) -> OffersOut:
    """What may be changed of a run at second `t`: rounds, what is left out, other movements; for those who plan."""
    return OffersOut(offers=replanning.offers(request.auth, run_id, t))


@router.post("/runs/{run_id}/added", response={200: AddedOut, **REFUSALS}, operation_id="addedText")
def added_text(request: ActorRequest, run_id: UUID, data: AddedIn) -> AddedOut:
    """The edits that put what a wall says in before what has not begun; for those who plan."""
    return AddedOut(edits=replanning.added_text(request.auth, run_id, data.t, data.text))
