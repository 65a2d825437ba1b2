"""The floor over the API, before a run starts: today, the sheet of an entry, its stations for who is here."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from datetime import time as time_of_day
from typing import Any
from uuid import UUID

from ninja import Router, Schema

from finetally.core.card.card import CardOption, KitLine
from finetally.core.floor.published import PublishedLayout, PublishedSheet
from finetally.core.floor.replan.stations import StationsWay
from finetally.core.floor.splits import PlannedRounds
from finetally.web.api.log_answers import foreseen_answer, pace_out
from finetally.web.api.log_schemas import ForeseenHereOut, PaceOut, StepOptionOut
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.floor import replanning, sheets
from finetally.web.floor.clock import server_now, since_1970
from finetally.web.floor.models import FloorRun

router = Router()


class FloorEntryOut(Schema):
    """An entry of today. `runs_here`: whether it has a session that can be run; `logged`: what it was is known."""

    id: UUID
    title: str
    time: time_of_day | None
    minutes: float
    effort: float
    group: str | None
    person: str | None
    runs_here: bool
    logged: bool


class FloorWaiting(Schema):
    """An entry of the days before that is not logged."""

    id: UUID
    title: str
    day: date


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
    unlogged: list[FloorWaiting]


class FloorPerson(Schema):
    """Somebody who is expected; `away`: known to be away. `team`: of the day, where the entry is split.

    `named`: whether others may read their scores by name. `said`: here or away, where they said so themselves;
    `fresh`: how fresh they said they are today, 1 to 5; `reports`: kinds of open health reports.
    """

    person: UUID
    name: str
    away: bool
    team: int | None
    group: str
    named: bool
    said: str
    fresh: int | None
    reports: list[str]


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


class EarlierOut(Schema):
    """What somebody (none: the session's own score) made in a window before: last, and at best."""

    person: UUID | None
    block: int
    section_pass: int
    index: int
    last: dict[str, Any]
    best: dict[str, Any]


class FloorClockOut(Schema):
    """The server's seconds since 1970."""

    now: float


class StationsOut(Schema):
    """Ways to lay each rotation out; as planned comes first."""

    ways: list[StationsWay]


class FloorSheetOut(Schema):
    """All that running an entry needs, also without a network.

    `emergency`: the squad's own words; `asks_health`: whether pain, dizziness and who was hurt may be noted.
    `people` stand in the order in which they are dealt to stations. `group`: whose entry it is. `planned`: where
    the plan would be in beats of `sheet` that go at people's own pace.
    """

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
    asks_health: bool
    people: list[FloorPerson]
    others: list[CardOption]
    group: str
    options: list[StepOptionOut]
    planned: list[PlannedRounds]
    earlier: list[EarlierOut]
    pace: PaceOut
    foreseen: ForeseenHereOut


@router.get("/today", response={200: TodayOut, **REFUSALS}, operation_id="today")
def today(request: ActorRequest, squad: int | None = None) -> TodayOut:
    """What a squad has to run today, and what of it was run; for those who plan."""
    found = sheets.floor_day(request.auth, squad)
    return TodayOut(
        squad=found.squad.pk,
        name=found.squad.name,
        day=found.day,
        now=server_now(),
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
                logged=one.logged_minutes is not None,
            )
            for one in found.entries
        ],
        runs=[_listed(one) for one in found.runs],
        unlogged=[FloorWaiting(id=one.pk, title=one.title, day=one.day) for one in found.unlogged],
    )


def _listed(run: FloorRun) -> RunListed:
    return RunListed(
        id=run.pk,
        entry=run.entry_id,
        title=run.title,
        name=run.name,
        begun=since_1970(run.begun_at),
        ended=since_1970(run.ended_at) if run.ended_at is not None and run.is_over else None,
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
        now=server_now(),
        sheet=found.sheet,
        apart=found.apart,
        exits=[ExitOut(**asdict(one)) for one in found.exits],
        variants=[
            VariantOut(block=one.block, take=one.take, value=one.value, layout=one.layout) for one in found.variants
        ],
        kit=found.kit,
        own_cautions=found.own_cautions,
        cautions=found.usual_cautions,
        emergency=entry.squad.emergency,
        asks_health=entry.squad.asks_health,
        people=[
            FloorPerson(
                person=one.person.public_id,
                name=one.person.on_the_wall,
                away=one.person.pk in found.away,
                team=one.team,
                group=one.group,
                named=one.person.is_named,
                said=found.said.get(one.person.pk, ""),
                fresh=found.fresh.get(one.person.pk),
                reports=found.reports.get(one.person.pk, []),
            )
            for one in found.people
        ],
        others=found.others,
        group=entry.group.name if entry.group is not None else "",
        options=[StepOptionOut(**asdict(one)) for one in found.options],
        planned=found.planned,
        pace=pace_out(found.pace),
        foreseen=foreseen_answer(found.foreseen),
        earlier=[EarlierOut(**asdict(one)) for one in found.earlier],
    )


@router.get("/entries/{entry_id}/stations", response={200: StationsOut, **REFUSALS}, operation_id="stationWays")
def station_ways(request: ActorRequest, entry_id: UUID, people: int) -> StationsOut:
    """Ways to lay an entry's stations out for so many people, with the minutes; for those who plan."""
    return StationsOut(ways=replanning.station_ways(request.auth, entry_id, people))


@router.get("/clock", response={200: FloorClockOut, **REFUSALS}, operation_id="floorClock")
def floor_clock(request: ActorRequest) -> FloorClockOut:
    """The server's clock, by which runs count."""
    return FloorClockOut(now=server_now())
