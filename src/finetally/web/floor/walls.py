"""Screens on the wall: opened by nobody, paired by a coach who reads their code, then shown a squad's runs."""

from __future__ import annotations

import secrets
from datetime import datetime, time, timedelta
from typing import get_args
from zoneinfo import ZoneInfo

from django.db import transaction
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404
from django.utils import timezone

from finetally.core.floor.document import Run
from finetally.core.floor.events import FloorOrder
from finetally.core.floor.published import PublishedSheet, published_sheet
from finetally.core.floor.sheet import sheet
from finetally.core.session.problems import refuse
from finetally.core.session.reading import parse_session
from finetally.web.accounts.tokens import token_hash
from finetally.web.floor.models import FloorRun, WallScreen
from finetally.web.floor.runs import as_run
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Act, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

CODE_SIGNS = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789"
"""No sign that looks like another."""

CODE_LENGTH = 6
CODE_HOLDS = timedelta(minutes=15)
MOST_SCREENS_WAITING = 1000
"""Screens that wait for a coach at once, of all squads; the oldest give way."""


def open_screen() -> tuple[str, str]:
    """A new screen that nobody has paired yet: its token, and the code that it shows."""
    token = secrets.token_urlsafe(24)
    code = "".join(secrets.choice(CODE_SIGNS) for _ in range(CODE_LENGTH))
    now = timezone.now()
    with transaction.atomic():
        WallScreen.objects.filter(until__lt=now).delete()
        waiting = WallScreen.objects.filter(squad=None).values_list("pk", flat=True)
        WallScreen.objects.filter(pk__in=list(waiting[MOST_SCREENS_WAITING - 1 :])).delete()
        WallScreen.objects.create(token_hash=token_hash(token), code_hash=token_hash(code), until=now + CODE_HOLDS)
    return token, code


def pair(actor: Actor, squad_id: int | None, code: str) -> WallScreen:
    """Let the screen that shows this code show a squad's runs, until midnight there. Raises DocumentError."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    typed = "".join(sign for sign in code.upper() if sign.isalnum())
    with transaction.atomic():
        found = WallScreen.objects.filter(squad=None, code_hash=token_hash(typed), until__gte=timezone.now())
        screen = found.first()
        if screen is None:
            why = "No screen shows this code now. It changes after 15 minutes; read it again."
            raise refuse(("code",), "another one", why, "cannot_code")
        screen.squad, screen.code_hash, screen.until = squad, "", midnight_of(squad)
        screen.save()
        record(actor, squad.pk, Act.WALL_PAIRED)
    return screen


def midnight_of(squad: Squad) -> datetime:
    """The next midnight where a squad is."""
    tomorrow = today_of(squad) + timedelta(days=1)
    return datetime.combine(tomorrow, time(), ZoneInfo(squad.time_zone))


def screens_of(actor: Actor, squad_id: int | None) -> QuerySet[WallScreen]:
    """The screens that show a squad's runs now."""
    return squad_for(actor, squad_id, Right.PLAN).screens.filter(until__gte=timezone.now())


def end_screen(actor: Actor, screen_id: int) -> None:
    """From now on the screen shows nothing."""
    screen = get_object_or_404(WallScreen, pk=screen_id, squad_id__in=actor.squads())
    if screen.squad_id is not None:
        actor.require(screen.squad_id, Right.PLAN)
    screen.delete()


def screen_of(token: str) -> WallScreen | None:
    """The screen that holds a token, paired or waiting; None for one that there is not, or no more."""
    found = WallScreen.objects.filter(token_hash=token_hash(token), until__gte=timezone.now())
    return found.select_related("squad").first()


def shown_run(screen: WallScreen) -> FloorRun | None:
    """The run that a paired screen shows: of today's the one that is not over, else the last one."""
    if screen.squad is None:
        return None
    runs = list(screen.squad.runs.filter(day=today_of(screen.squad)).order_by("begun_at"))
    return next((run for run in reversed(runs) if not run.is_over), runs[-1] if runs else None)


def sheet_of_run(run: FloorRun) -> PublishedSheet:
    """The sheet of a run as it began. Raises DocumentError."""
    played: Run = as_run(run)
    made = sheet(
        parse_session(run.document),
        library=context_of(run.squad).library,
        methods=played.methods,
        given=played.given,
        apart=run.apart,
    )
    return published_sheet(made)


ON_THE_WALL = frozenset((*get_args(FloorOrder), "start", "lap", "undo", "score", "change"))
"""Events that a screen is told: what runs, and nothing of people."""
