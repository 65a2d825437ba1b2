"""An entry on other days: what is planned goes with it, what was logged, skipped or noted stays where it was."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest

from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.models import Person
from tests.web.conftest import World

MONDAY = date(2031, 3, 3)


def on(days: int) -> str:
    return (MONDAY + timedelta(days=days)).isoformat()


@pytest.fixture
def entry(world: World) -> dict[str, Any]:
    """A session that was planned for a group, logged for all and for one, skipped and noted."""
    group = world.group("north face")
    body = {"session": str(world.session.pk), "day": on(0), "time": "18:30", "group": group, "locked": True}
    made: dict[str, Any] = world.send("coach", "POST", "/plan/entries", body).json()
    path = f"/plan/entries/{made['id']}"
    logged = {"logged_minutes": 41, "logged_effort": 7.5, "skipped": True, "notes": "rain"}
    assert world.send("coach", "PATCH", path, logged).status_code == 200
    person = Person.objects.create(squad=world.squad, name="Ludo Fenwether")
    came = {"person": str(person.public_id), "came": False, "minutes": 10, "effort": 2}
    assert world.send("coach", "PUT", f"{path}/attendance", came).status_code == 204
    return made


def test_what_is_planned_goes_with_a_copy_and_what_was_done_does_not(world: World, entry: dict[str, Any]) -> None:
    answer = world.send("coach", "POST", f"/plan/entries/{entry['id']}/again", {"day": on(9)})
    [copied] = answer.json()
    made, was = Entry.objects.get(pk=copied["id"]), Entry.objects.get(pk=entry["id"])
    assert made.pk != was.pk
    assert (made.day, made.time, str(made.group), made.locked) == (
        MONDAY + timedelta(9),
        was.time,
        "north face",
        True,
    )
    assert (made.session_id, made.revision_id, made.title) == (was.session_id, was.revision_id, was.title)
    assert (made.document, made.summary, made.figured_with) == (was.document, was.summary, was.figured_with)
    assert (made.logged_minutes, made.logged_effort, made.skipped, made.notes) == (None, None, False, "")
    assert not Attendance.objects.filter(entry=made).exists()
    assert (copied["logged"], copied["skipped"]) == (False, False)
    # And what was done stays where it was.
    assert (was.logged_minutes, was.logged_effort, was.skipped, was.notes) == (41, 7.5, True, "rain")
    assert Attendance.objects.filter(entry=was).count() == 1


def test_a_week_that_repeats_a_logged_entry_is_planned_and_not_logged(world: World, entry: dict[str, Any]) -> None:
    made = world.send("coach", "POST", f"/plan/entries/{entry['id']}/again", {"weeks": 3}).json()
    assert [one["day"] for one in made] == [on(7), on(14), on(21)]
    assert len({one["id"] for one in made} | {entry["id"]}) == 4
    planned = Entry.objects.get(pk=entry["id"]).summary["load"]
    for one in made:
        week = world.send("coach", "GET", f"/plan/week?day={one['day']}").json()
        day = week["load"]["days"][0]
        assert (day["logged"], day["totals"]["load"]) == (False, pytest.approx(planned, abs=0.01))


def test_a_copy_that_was_changed_for_its_day_is_copied_as_it_stands_there(
    world: World, entry: dict[str, Any]
) -> None:
    kept = Entry.objects.get(pk=entry["id"])
    Entry.objects.filter(pk=kept.pk).update(document={**(kept.document or {}), "title": "Shorter"}, changed=True)
    [copied] = world.send("coach", "POST", f"/plan/entries/{entry['id']}/again", {"day": on(2)}).json()
    made = Entry.objects.get(pk=copied["id"])
    assert made.changed
    assert made.document is not None
    assert made.document["title"] == "Shorter"


@pytest.mark.parametrize(("minutes", "effort"), [(41, 0), (0, 7.5), (0, 0), (30, 5)])
def test_what_was_logged_is_the_load_of_the_day_also_where_it_is_nothing(
    world: World, entry: dict[str, Any], minutes: float, effort: float
) -> None:
    logged = {"logged_minutes": minutes, "logged_effort": effort, "skipped": False}
    made = world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", logged).json()
    assert (made["minutes"], made["effort"], made["load"], made["logged"]) == (
        minutes,
        effort,
        minutes * effort,
        True,
    )
    [shown] = world.send("coach", "GET", f"/plan/week?day={on(0)}").json()["entries"]
    assert (shown["minutes"], shown["effort"], shown["load"]) == (minutes, effort, minutes * effort)


def test_neither_weeks_nor_a_day_is_no_copy(world: World, entry: dict[str, Any]) -> None:
    before = Entry.objects.count()
    assert world.send("coach", "POST", f"/plan/entries/{entry['id']}/again", {}).status_code == 422
    assert Entry.objects.count() == before
