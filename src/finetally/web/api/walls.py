"""Screens on the wall over the API: opened, paired by their code, shown what runs."""

from __future__ import annotations

from dataclasses import asdict
from datetime import datetime
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from ninja.security import APIKeyHeader
from pydantic import Field

from finetally.core.floor.published import PublishedSheet
from finetally.core.measures import Units
from finetally.web.accounts.guessing import ANY_SCREEN, count, is_over
from finetally.web.accounts.own import units_of
from finetally.web.api.account import wait_a_while
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.api.runs import RunOut, run_out
from finetally.web.floor import runs, walls
from finetally.web.floor.clock import server_now
from finetally.web.floor.crowd import names_here
from finetally.web.floor.models import WallScreen
from finetally.web.problems import ProblemOut

router = Router()


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


class WallName(Schema):
    """A short name, and the team that it stands with."""

    name: str
    team: int | None


class WallOut(Schema):
    """What a screen shows: nothing until it is paired; then the run of the hour, if there is one.

    `units`: what masses and distances are told in, as whoever began the run has them.
    `names`: who is here, in the order of stations; none where nothing has changed since.
    """

    paired: bool
    squad: str
    now: float
    units: Units
    run: RunOut | None
    sheet: PublishedSheet | None
    names: list[WallName] | None


class WallKey(APIKeyHeader):
    """The screen behind a token: its own kind of actor, which reads what it shows and nothing else."""

    param_name = "X-Wall"

    def authenticate(self, request: HttpRequest, key: str | None) -> WallScreen | None:
        """None, and so a refusal, for a token that opens nothing, or nothing more."""
        return walls.screen_of(key) if key else None


class WallRequest(HttpRequest):
    """A request of a screen. Only for types."""

    auth: WallScreen


@router.post(
    "/wall/screens",
    auth=None,
    response={200: WallOpened, 422: ProblemOut, 429: ProblemOut},
    operation_id="openWall",
)
def open_wall(request: HttpRequest) -> WallOpened | HttpResponse:
    """A new screen, which shows its code until a coach types it. 429 after twenty from one address."""
    if is_over(request, ANY_SCREEN):
        return wait_a_while("new screens from this network")
    count(request, ANY_SCREEN)
    token, code = walls.open_screen()
    return WallOpened(code=code, token=token)


@router.get("/wall", auth=WallKey(), response={200: WallOut, 401: ProblemOut}, operation_id="wall")
def wall(request: WallRequest, run: UUID | None = None, since: int = 0) -> WallOut:
    """What a screen shows. `run` and `since`: the run that it shows already, and how far it knows it."""
    screen = request.auth
    shown = walls.shown_run(screen)
    same = shown is not None and shown.pk == run
    news = runs.news_of(shown, since if same else 0) if shown is not None else None
    came = news is not None and bool(news.events)
    return WallOut(
        paired=screen.squad is not None,
        squad=screen.squad.name if screen.squad is not None else "",
        now=server_now(),
        units=units_of(shown.user_id if shown is not None else None),
        run=None if shown is None or news is None else run_out(news, only=walls.ON_THE_WALL),
        sheet=None if shown is None or same else walls.sheet_of_run(shown),
        names=None if shown is None or (same and not came) else [WallName(**asdict(o)) for o in names_here(shown)],
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
