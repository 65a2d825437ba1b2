"""Entries that are taken off the plan: what goes with them, for how long it comes back, runs that still come."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from uuid import uuid4

from django.utils import timezone

from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.log.models import LearnedPace, LoggedEntry, Result
from finetally.web.people.models import Group
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.upkeep import prune
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.logbooks import START, a_run, an_entry, made, rated, write


def taken_off(world: World, entry: Entry) -> None:
    entry.refresh_from_db()
    path = f"/plan/entries/{entry.pk}?version={entry.sequence}"
    assert world.send("coach", "DELETE", path).status_code == 204


def test_a_removed_entry_can_be_restored_with_all_that_was_noted_of_it(world: World) -> None:
    entry, person = world.planned.entry, world.planned.person
    Attendance.objects.create(entry=entry, person=person, came=False)
    path = f"/plan/entries/{entry.pk}"
    assert world.send("coach", "DELETE", f"{path}?version={entry.sequence}").status_code == 204
    assert not Entry.objects.filter(pk=entry.pk).exists()
    assert world.send("coach", "GET", f"{path}/attendance").status_code == 404
    assert world.send("athlete", "POST", f"{path}/restore").status_code in (403, 404)
    restored = world.send("coach", "POST", f"{path}/restore")
    assert (restored.status_code, restored.json()["title"]) == (200, "Hike")
    assert Attendance.objects.get(entry=entry).came is False
    # There is nothing to restore any more.
    assert world.send("coach", "POST", f"{path}/restore").status_code == 404


def test_a_removed_entry_is_deleted_after_30_days(world: World) -> None:
    entry = world.planned.entry
    for days, there in ((29.9, True), (30.1, False)):
        Entry.with_removed.filter(pk=entry.pk).update(removed_at=timezone.now() - timedelta(days=days))
        prune()
        assert Entry.with_removed.filter(pk=entry.pk).exists() is there


def test_a_group_stays_while_what_was_taken_off_can_come_back(world: World) -> None:
    group = world.known.group
    Entry.objects.filter(pk=world.planned.entry.pk).update(group=group, removed_at=timezone.now())
    assert world.send("coach", "DELETE", f"/groups/{group.pk}").status_code == 204
    assert Group.objects.get(pk=group.pk).ended_on is not None
    assert world.send("coach", "POST", f"/plan/entries/{world.planned.entry.pk}/restore").status_code == 200


def a_logged_entry(world: World) -> Entry:
    entry = an_entry(world, today_of(world.squad) - timedelta(days=3))
    write(world, entry, made(world.known.own, 8, 2))
    rated(world, entry, world.known.own, 8)
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    return entry


def test_it_says_what_goes_with_an_entry(world: World) -> None:
    entry = a_logged_entry(world)
    noted = world.send("coach", "GET", f"/plan/entries/{entry.pk}/noted").json()
    assert {kind: count for kind, count in noted.items() if count} == {
        "logged": 1, "results": 1, "ratings": 1, "attendance": 1,
    }  # fmt: skip
    fresh = an_entry(world)
    assert set(world.send("coach", "GET", f"/plan/entries/{fresh.pk}/noted").json().values()) == {0}


def test_what_was_logged_goes_out_of_every_figure_and_comes_back_with_undo(world: World) -> None:
    entry = a_logged_entry(world)
    own = world.known.own

    def seen() -> dict[str, Any]:
        page = world.send("coach", "GET", f"/log/people/{own.public_id}").json()
        log = world.send("coach", "GET", f"/log?squad={world.squad.pk}").json()
        learned = LearnedPace.objects.filter(person=own).values_list("scores", "ratings").first()
        return {"log": [one["id"] for one in log["entries"]], "rated": len(page["rated"]), "learned": learned}

    before = seen()
    assert (before["log"], before["rated"], before["learned"]) == ([str(entry.pk)], 1, (1, 1))
    taken_off(world, entry)
    gone = seen()
    assert (gone["log"], gone["rated"]) == ([], 0)
    assert gone["learned"] in (None, (0, 0)), "what was taken off teaches nothing"
    [removed] = world.send("coach", "GET", f"/plan/removed?squad={world.squad.pk}").json()
    assert (removed["id"], removed["logged"], removed["left"]) == (str(entry.pk), True, 29)
    Entry.with_removed.filter(pk=entry.pk).update(removed_at=timezone.now() - timedelta(days=29))
    prune()
    assert world.send("coach", "POST", f"/plan/entries/{entry.pk}/restore").status_code == 200
    assert seen() == before
    assert (Result.objects.count(), LoggedEntry.objects.count()) == (1, 1)


# Runs that come, or go on, while their entry is gone.


def begin(world: World, entry: Entry, run: str) -> Any:
    body = {"entry": str(entry.pk), "begun": timezone.now().timestamp() - 60}
    return world.send("coach", "PUT", f"/floor/runs/{run}", body)


def test_a_run_that_comes_after_its_entry_was_taken_off_says_so_and_comes_in_once_it_is_back(world: World) -> None:
    entry, run = an_entry(world), str(uuid4())
    taken_off(world, entry)
    answer = begin(world, entry, run)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["code"] == "entry_removed"
    assert (
        world.send("stranger", "PUT", f"/floor/runs/{run}", {"entry": str(entry.pk), "begun": 1}).status_code == 404
    )
    assert world.send("coach", "POST", f"/plan/entries/{entry.pk}/restore").status_code == 200
    assert begin(world, entry, run).status_code == 200
    assert FloorRun.objects.get(pk=run).entry_id == entry.pk


def test_a_run_that_goes_on_while_its_entry_is_taken_off_keeps_its_events_and_says_so(world: World) -> None:
    entry = an_entry(world)
    a_run(world, entry, START)
    run = FloorRun.objects.get()
    taken_off(world, entry)
    event = {"device": "a-phone-on-a-box", "number": 9, "event": {"t": 5, "do": "next"}}
    news = world.send("coach", "POST", f"/floor/runs/{run.pk}/events?since=0", {"events": [event]})
    assert news.status_code == 200, news.content
    assert news.json()["removed"] is True
    assert FloorEvent.objects.filter(run=run, device="a-phone-on-a-box").exists()
    world.send("coach", "POST", f"/plan/entries/{entry.pk}/restore")
    assert world.send("coach", "GET", f"/floor/runs/{run.pk}?since=0").json()["removed"] is False
