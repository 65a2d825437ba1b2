"""The least and the most that the plan takes: the bound itself is taken, a step beyond it is refused by its place."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest

from finetally.web.plan.away import MAX_DAYS
from finetally.web.plan.models import Entry
from tests.web.conftest import World

FIRST = date(2031, 3, 3)
HIKE = {"title": "Hike", "day": FIRST.isoformat(), "minutes": 60, "effort": 3}
LOGGED = {**HIKE, "logged_minutes": 60, "logged_effort": 3}
PHASE = {"begins": FIRST.isoformat(), "weeks": 2, "kind": "build", "load_low": 10, "load_high": 20}
DAY = {"intent": "hard", "share": 0.5}
CAME = {"came": True, "minutes": 60, "effort": 3}


def last(days: int) -> str:
    return (FIRST + timedelta(days=days)).isoformat()


AWAY = {"first": FIRST.isoformat(), "last": last(3)}
BOUNDS = [
    ("POST", "/plan/entries", HIKE, "minutes", (0, 24 * 60), (-1, 24 * 60 + 1)),
    ("POST", "/plan/entries", HIKE, "effort", (0, 10), (-0.1, 10.1)),
    ("POST", "/plan/entries", LOGGED, "logged_minutes", (0, 24 * 60), (-1, 24 * 60 + 1)),
    ("POST", "/plan/entries", LOGGED, "logged_effort", (0, 10), (-0.1, 10.1)),
    ("PUT", f"/plan/days/{FIRST}", DAY, "share", (0, 1, None), (-0.01, 1.01)),
    ("PUT", f"/plan/days/{FIRST}", DAY, "intent", ("", "rest", "easy", "medium", "hard"), ("wild",)),
    ("POST", "/plan/phases", PHASE, "weeks", (1, 52), (0, 53)),
    ("POST", "/plan/phases", PHASE, "load_low", (0, 20), (-1, 21)),
    ("POST", "/plan/away", AWAY, "last", (last(0), last(MAX_DAYS - 1)), (last(-1), last(MAX_DAYS))),
    ("PUT", "/plan/entries/{entry}/attendance", CAME, "minutes", (0, 24 * 60), (-1, 24 * 60 + 1)),
    ("PUT", "/plan/entries/{entry}/attendance", CAME, "effort", (0, 10), (-0.1, 10.1)),
    ("POST", "/plan/entries/{entry}/again", {}, "weeks", (1, 52), (0, 53)),
]


def sent(world: World, method: str, path: str, body: dict[str, Any]) -> Any:
    planned = world.planned
    whole = {**body, "person": str(planned.person.public_id)} if path.endswith("attendance") else body
    return world.send("coach", method, path.format(entry=planned.entry.pk), whole)


CASES = [(*case[:4], value, good) for case in BOUNDS for good in (True, False) for value in case[4 if good else 5]]


@pytest.mark.parametrize(
    ("method", "path", "body", "name", "value", "good"),
    CASES,
    ids=[
        f"{path.split('/')[2]} {name} {value} {'taken' if good else 'refused'}"
        for _, path, _, name, value, good in CASES
    ],
)
def test_a_bound_is_taken_and_what_lies_beyond_it_is_not(
    world: World, method: str, path: str, body: dict[str, Any], name: str, value: Any, good: bool
) -> None:
    before = Entry.objects.count()
    answer = sent(world, method, path, {**body, name: value})
    if good:
        assert answer.status_code in (200, 201, 204), answer.content
    else:
        assert answer.status_code == 422, answer.content
        assert answer.json()["problems"][0]["path"] == name
        assert Entry.objects.count() == before


@pytest.mark.parametrize("alone", ["minutes", "effort"])
def test_minutes_and_effort_are_logged_together_or_not_at_all(world: World, alone: str) -> None:
    one = {"person": str(world.planned.person.public_id), "came": True, alone: 3}
    path = f"/plan/entries/{world.planned.entry.pk}"
    assert world.send("coach", "PUT", f"{path}/attendance", one).json()["problems"][0]["path"] == "effort"
    refused = world.send("coach", "PATCH", path, {f"logged_{alone}": 3})
    assert refused.json()["problems"][0]["path"] == "logged_effort"
    both = {"logged_minutes": 30, "logged_effort": 3}
    assert world.send("coach", "PATCH", path, both).status_code == 200


@pytest.mark.parametrize(("weeks", "status"), [(1, 200), (53, 200), (0, 422), (54, 422)])
def test_a_season_is_a_year_of_weeks_at_most(world: World, weeks: int, status: int) -> None:
    answer = world.send("coach", "GET", f"/plan/season?day={FIRST}&weeks={weeks}")
    assert answer.status_code == status
    if status == 200:
        assert len(answer.json()["weeks"]) == weeks
    else:
        assert answer.json()["problems"][0]["path"] == "weeks"


def test_a_day_becomes_no_session_where_there_is_none(world: World) -> None:
    refused = world.send("coach", "POST", f"/plan/entries/{world.planned.entry.pk}/session", {})
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "entry")
