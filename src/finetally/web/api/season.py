"""Seasons, a week beside another, weeks as files, and links for calendars, over the API."""

from __future__ import annotations

from datetime import datetime
from typing import Literal
from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.week.balance import WeekRow
from finetally.core.week.load import WeekLoad
from finetally.sheets.week import WeekLine, week_csv, week_table, week_xlsx
from finetally.web.api.days import PlanDay
from finetally.web.api.plan import REFUSALS, EntryOut, entry_out
from finetally.web.api.request import ActorRequest
from finetally.web.plan import links
from finetally.web.plan.calendar import calendar_of
from finetally.web.plan.models import Entry, Link
from finetally.web.plan.season import SeasonWeek, compare_weeks, read_season
from finetally.web.plan.week import read_week
from finetally.web.squads.figuring_context import context_of

router = Router()
FILES = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "ics": "text/calendar; charset=utf-8",
}


class SeasonOut(Schema):
    """Weeks in a row."""

    weeks: list[SeasonWeek]


class BesideOut(Schema):
    """A week held against another: each one's load and rows, and the first's figures less the other's."""

    load: WeekLoad
    rows: list[WeekRow]
    other: WeekLoad
    other_rows: list[WeekRow]
    deltas: dict[str, float]


class LinkOut(Schema):
    """A link for calendars. `path` is told once, when it is made."""

    id: int
    name: str
    person: str | None
    made_at: datetime
    path: str | None = None


class LinkIn(Schema):
    """A name, and the person whose plan it shows (the squad's, if none)."""

    name: str = Field("", max_length=80)
    person: UUID | None = None
    squad: int | None = None


@router.get("/season", response={200: SeasonOut, **REFUSALS}, operation_id="season")
def season(
    request: ActorRequest,
    day: PlanDay,
    weeks: int = 12,
    squad: int | None = None,
    person: UUID | None = None,
    group: int | None = None,
) -> SeasonOut:
    """Load and phase of `weeks` weeks in a row (1 to 53), from the one that `day` lies in."""
    return SeasonOut(weeks=read_season(request.auth, squad, day, weeks, person, group))


@router.get("/beside", response={200: BesideOut, **REFUSALS}, operation_id="week_beside")
def week_beside(request: ActorRequest, day: PlanDay, other: PlanDay, squad: int | None = None) -> BesideOut:
    """Load and rows of two weeks, and by how much the first differs from the other."""
    made = compare_weeks(request.auth, squad, day, other)
    return BesideOut(
        load=made.week.load,
        rows=list(made.week.rows),
        other=made.other.load,
        other_rows=list(made.other.rows),
        deltas=made.deltas,
    )


@router.get("/week.{kind}", response={200: None, **REFUSALS}, operation_id="export_week")
def export_week(
    request: ActorRequest, kind: Literal["csv", "xlsx", "ics"], day: PlanDay, squad: int | None = None
) -> HttpResponse:
    """Download a week as a table (csv, xlsx) or as a calendar (ics)."""
    made = read_week(request.auth, squad, day)
    if kind == "ics":
        full = Entry.objects.filter(pk__in=[one.pk for one in made.entries])
        body: str | bytes = calendar_of(made.squad, made.squad.name, full, context_of(made.squad).library)
    else:
        lines = [_line(entry_out(one)) for one in made.entries]
        table = week_table(lines, made.load, made.rows)
        body = week_csv(table) if kind == "csv" else week_xlsx(table)
    answer = HttpResponse(body, content_type=FILES[kind])
    answer["Content-Disposition"] = f'attachment; filename="week-{made.begins.isoformat()}.{kind}"'
    return answer


def _line(one: EntryOut) -> WeekLine:
    state = "skipped" if one.skipped else "logged" if one.logged else "planned"
    return WeekLine(
        one.day,
        one.time,
        one.title,
        one.group.name if one.group is not None else "",
        one.minutes,
        one.effort,
        one.load,
        state,
    )


def _link(one: Link, path: str | None = None) -> LinkOut:
    person = one.person.name if one.person is not None else None
    return LinkOut(id=one.pk, name=one.name, person=person, made_at=one.created_at, path=path)


@router.get("/links", response={200: list[LinkOut], **REFUSALS}, operation_id="list_links")
def list_links(request: ActorRequest, squad: int | None = None) -> list[LinkOut]:
    """The calendar links of a squad that are open, without their addresses."""
    return [_link(one) for one in links.list_links(request.auth, squad)]


@router.post("/links", response={201: LinkOut, **REFUSALS}, operation_id="make_link")
def make_link(request: ActorRequest, data: LinkIn) -> Status[LinkOut]:
    """Open a calendar link, of the squad or of one person. Its address is in this answer and never again."""
    made, token = links.make_link(request.auth, data.squad, data.name, data.person)
    return Status(201, _link(made, f"/feeds/{token}.ics"))


@router.delete("/links/{link_id}", response={204: None, **REFUSALS}, operation_id="revoke_link")
def revoke_link(request: ActorRequest, link_id: int) -> Status[None]:
    """Close a calendar link; its address finds nothing from then on."""
    links.revoke_link(request.auth, link_id)
    return Status(204, None)
