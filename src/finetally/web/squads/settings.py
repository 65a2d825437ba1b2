"""What a squad sets for itself: its name, where and when it trains, its kit, what to do in an emergency."""

from __future__ import annotations

import zoneinfo
from collections.abc import Mapping
from typing import Any

from django.core.exceptions import PermissionDenied
from django.db import transaction

from finetally.core.session.cleaning import cleaned, one_line
from finetally.core.session.problems import DocumentError, Problem, shown
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Membership, Role, Squad
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for
from finetally.web.versions import require_version, version_of

SETTINGS = (
    "name", "time_zone", "week_start", "kit", "emergency", "adult_from", "asks_health", "health_why",
    "asks_freshness", "notes_months",
)  # fmt: skip
LONGEST_SQUAD_NAME, LONGEST_EMERGENCY, LONGEST_KIT_NAME, LONGEST_WHY = 120, 2_000, 60, 200
NOTES_MONTHS = (1, 36)
"""How long notes of health may be kept."""
MOST_KIT, MOST_PIECES = 200, 10_000
ADULT_FROM = (10, 21)
"""The ages that a squad may take as the end of being under age: what holds where it is comes first."""


def settings_version(squad: Squad) -> str:
    """What a change of a squad's settings names as seen."""
    return version_of([getattr(squad, name) for name in SETTINGS])


def change_settings(actor: Actor, squad_id: int, version: str, changes: Mapping[str, Any]) -> Squad:
    """Set some of a squad's settings. Raises DocumentError with every fault, ChangedError."""
    with transaction.atomic():
        squad = squad_for(actor, squad_id, Right.HEAD)
        require_version("the squad's settings", version, settings_version(squad))
        problems: list[Problem] = []
        for name, value in changes.items():
            found = _READ[name](value)
            if isinstance(found, Problem):
                problems.append(found)
            else:
                setattr(squad, name, found)
        if problems:
            raise DocumentError(problems)
        squad.save()
        record(actor, squad.pk, Act.SQUAD_CHANGED, ", ".join(name.replace("_", " ") for name in changes))
    return squad


def found_squad(actor: Actor, name: str, time_zone: str, week_start: int) -> Squad:
    """Another squad, of which the actor is head coach; for whoever is one already. Raises DocumentError."""
    if actor.user_id is None or not actor.squads(Right.HEAD):
        raise PermissionDenied
    read = {"name": _name(name), "time_zone": _zone(time_zone), "week_start": _week_start(week_start)}
    problems = [one for one in read.values() if isinstance(one, Problem)]
    if problems:
        raise DocumentError(problems)
    with transaction.atomic():
        squad = Squad.objects.create(**read)
        Membership.objects.create(squad=squad, user_id=actor.user_id, role=Role.HEAD_COACH)
        record(actor, squad.pk, Act.FOUNDED, squad.name)
    return squad


def _name(value: str) -> str | Problem:
    name = one_line(value)
    if not 0 < len(name) <= LONGEST_SQUAD_NAME:
        return Problem("name", shown(name), f"1 to {LONGEST_SQUAD_NAME} characters", "name")
    return name


def _zone(value: str) -> str | Problem:
    known = value in zoneinfo.available_timezones()
    return value if known else Problem("time_zone", shown(value), "a time zone such as Europe/London", "time_zone")


def _week_start(value: int) -> int | Problem:
    return value if 0 <= value <= 6 else Problem("week_start", str(value), "0 (Monday) to 6", "week_start")


def _kit(value: Mapping[str, int]) -> dict[str, int] | Problem:
    if len(value) > MOST_KIT:
        return Problem("kit", f"{len(value)} kinds", f"up to {MOST_KIT}", "too_many")
    found: dict[str, int] = {}
    for kit, count in value.items():
        name = one_line(kit).lower()
        if not 0 < len(name) <= LONGEST_KIT_NAME:
            return Problem("kit", shown(kit), f"a name of 1 to {LONGEST_KIT_NAME} characters", "name")
        if not 0 <= count <= MOST_PIECES:
            return Problem(f"kit.{name}", str(count), f"0 to {MOST_PIECES}", "count")
        found[name] = count
    return found


def _emergency(value: str) -> str | Problem:
    text = cleaned(value).strip()
    if len(text) > LONGEST_EMERGENCY:
        return Problem("emergency", f"{len(text)} characters", f"up to {LONGEST_EMERGENCY}", "too_long")
    return text


def _adult_from(value: int) -> int | Problem:
    low, high = ADULT_FROM
    return value if low <= value <= high else Problem("adult_from", str(value), f"{low} to {high}", "bounds")


def _why(value: str) -> str | Problem:
    line = one_line(value)
    if len(line) > LONGEST_WHY:
        return Problem("health_why", f"{len(line)} characters", f"up to {LONGEST_WHY}", "too_long")
    return line


def _months(value: int) -> int | Problem:
    low, high = NOTES_MONTHS
    return value if low <= value <= high else Problem("notes_months", str(value), f"{low} to {high}", "bounds")


_READ: Mapping[str, Any] = {
    "name": _name, "time_zone": _zone, "week_start": _week_start, "kit": _kit, "emergency": _emergency,
    "adult_from": _adult_from, "asks_health": bool, "health_why": _why,
    "asks_freshness": bool, "notes_months": _months,
}  # fmt: skip
