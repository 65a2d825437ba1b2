"""Levelling over the API: parts taken and undone, what is never touched, what is refused and where."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest

from finetally.web.plan.demo import load_demo_plan
from finetally.web.plan.levelling import propose, states_of
from finetally.web.plan.models import Entry
from finetally.web.plan.running import watch_of, watched
from finetally.web.plan.week import read_week
from finetally.web.squads.actor import Actor, Right, member
from finetally.web.squads.models import Squad
from finetally.web.training.demo import load_demo
from tests.web.conftest import World

MONDAY = date(2026, 12, 7)


def on(day: int) -> str:
    return (MONDAY + timedelta(days=day)).isoformat()


def level(world: World, **more: Any) -> Any:
    answer = world.send("coach", "POST", "/plan/level", {"day": on(0), "squad": world.squad.pk, **more})
    assert answer.status_code == 200, answer.content
    return answer.json()


def entries(world: World) -> dict[str, Any]:
    made = world.send("coach", "GET", f"/plan/week?day={on(0)}&squad={world.squad.pk}").json()
    return {one["id"]: one for one in made["entries"]}


@pytest.fixture
def demo(world: World) -> World:
    """The demo squad's plan, with the coach as its member."""
    world.squad.name = "Elsewhere"
    world.squad.save()
    load_demo()
    load_demo_plan(MONDAY)
    squad = Squad.objects.get(name="Thornlow Ridge")
    squad.memberships.create(user=world.users["coach"], role="coach")
    world.squad = squad
    return world


def test_the_demo_week_is_levelled_in_a_few_edits_of_which_some_are_taken_and_one_undone(demo: World) -> None:
    asked = {"day": on(0), "squad": demo.squad.pk}
    made = demo.send("coach", "POST", "/plan/level", asked).json()
    assert 1 <= len(made["edits"]) <= 4
    assert (len(made["before"]["clashes"]), made["after"]["clashes"]) == (3, [])
    assert made["before"]["load"]["totals"]["load"] > 1200
    assert 1050 <= made["after"]["load"]["totals"]["load"] <= 1200
    assert made["before"]["load"]["monotony"]["value"] > 2 > made["after"]["load"]["monotony"]["value"]
    some = made["edits"][:2]
    looked = demo.send("coach", "POST", "/plan/level/preview", {**asked, "edits": some}).json()
    before = {
        one["id"]: one
        for one in demo.send("coach", "GET", f"/plan/week?day={on(0)}&squad={demo.squad.pk}").json()["entries"]
    }
    change = demo.send("coach", "POST", "/plan/level/take", {**asked, "edits": some}).json()
    after = demo.send("coach", "GET", f"/plan/week?day={on(0)}&squad={demo.squad.pk}").json()
    assert after["load"]["totals"] == pytest.approx(looked["load"]["totals"], abs=0.1)
    changed = [one for one in after["entries"] if one["changed"]]
    assert {one["id"] for one in changed} == {one["slot"] for one in some if one["version"] is not None}
    kept = demo.send("coach", "POST", f"/plan/entries/{changed[0]['id']}/session").json()
    document = demo.send("coach", "GET", f"/sessions/{kept['id']}").json()["document"]
    made_of_it = demo.send("coach", "POST", "/figures", {"document": document, "squad": demo.squad.pk}).json()
    assert made_of_it["figures"]["effort"]["load"] == pytest.approx(changed[0]["load"], abs=0.01)
    undone = demo.send("coach", "POST", f"/plan/changes/{change['id']}/undo/0").json()
    assert [item["undone"] for item in undone["items"]] == [True, False]
    entries = {
        one["id"]: one
        for one in demo.send("coach", "GET", f"/plan/week?day={on(0)}&squad={demo.squad.pk}").json()["entries"]
    }
    first = some[0]["slot"]
    assert entries[first]["load"] == pytest.approx(before[first]["load"], abs=0.01)
    assert (entries[first]["day"], entries[first]["changed"]) == (before[first]["day"], False)
    assert demo.send("coach", "POST", f"/plan/changes/{change['id']}/undo/0").status_code == 422


def test_levelling_is_looked_at_and_stopped_by_whose_it_is(world: World) -> None:
    own = world.users["coach"].pk
    with watched(own, "ticket") as watch:
        watch.note(2_030_017.0)
        looked = world.send("coach", "GET", "/plan/level/runs/ticket").json()
        assert looked == {"running": True, "found": 1, "unmet": 2, "edits": 3}
        assert world.send("head", "GET", "/plan/level/runs/ticket").json()["running"] is False
        world.send("head", "DELETE", "/plan/level/runs/ticket")
        assert not watch.stopped
        world.send("coach", "DELETE", "/plan/level/runs/ticket")
        assert watch.stopped
    assert watch_of(own, "ticket") is None
    assert world.send("coach", "GET", "/plan/level/runs/ticket").json()["running"] is False


def put(world: World, day: int, **more: Any) -> Any:
    body = {"session": str(world.session.pk), "day": on(day), **more}
    return world.send("coach", "POST", "/plan/entries", body).json()


def test_days_gone_by_stay_as_they_are_when_asked(demo: World) -> None:
    before = entries(demo)
    actor = member(demo.users["coach"].pk)
    made = propose(actor, demo.squad.pk, MONDAY, {}, keep_gone=True, today=MONDAY + timedelta(days=3)).levelled
    assert made.edits
    assert all(before[one.slot]["day"] >= on(3) for one in made.edits)
    assert all(one.day is None or one.day >= 3 for one in made.edits)
    whole = level(demo)
    assert any(before[one["slot"]]["day"] < on(3) for one in whole["edits"])


def test_which_days_are_gone_goes_by_the_squads_own_clock(world: World) -> None:
    long_ago = date(2020, 1, 6)
    for _ in range(3):
        body = {"session": str(world.session.pk), "day": long_ago.isoformat()}
        world.send("coach", "POST", "/plan/entries", body)
    asked = {"day": long_ago.isoformat(), "most_a_day": 1, "no_two_hard": False}
    assert world.send("coach", "POST", "/plan/level", {**asked, "keep_gone": True}).json()["edits"] == []
    assert world.send("coach", "POST", "/plan/level", asked).json()["edits"]


@pytest.mark.parametrize("kept", ["locked", "logged"])
def test_what_is_locked_or_logged_is_not_touched(demo: World, kept: str) -> None:
    body = {"locked": True} if kept == "locked" else {"logged_minutes": 30, "logged_effort": 6}
    slots = {one["slot"] for one in level(demo)["edits"]}
    for slot in slots:
        assert demo.send("coach", "PATCH", f"/plan/entries/{slot}", body).status_code == 200
    assert slots.isdisjoint(one["slot"] for one in level(demo)["edits"])


def test_a_rule_of_this_answer_holds_for_this_answer(world: World) -> None:
    for _ in range(3):
        put(world, 0)
    assert level(world, most_a_day=3, no_two_hard=False)["edits"] == []
    moved = level(world, most_a_day=1, no_two_hard=False)
    assert len([one for one in moved["edits"] if one["day"] is not None]) == 2
    days = [one["day"] for one in entries(world).values()]
    assert days == [on(0)] * 3


def test_rules_that_cannot_hold_are_named_in_words(world: World) -> None:
    for _ in range(2):
        entry = put(world, 0)
        world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", {"locked": True})
    made = level(world, most_a_day=1)
    assert (made["edits"], made["after"]) == ([], None)
    assert made["clashing_rules"] == ["so many sessions a day at most"]


def edit(slot: str, **more: Any) -> dict[str, Any]:
    """An edit as made on what stands now."""
    entry = Entry.objects.select_related("squad").get(pk=slot)
    states = states_of(read_week(owner_of(entry.squad), entry.squad.pk, entry.day))
    return {"slot": slot, "kind": "day", "what": "moves", "made_on": states[slot][1], **more}


def owner_of(squad: Squad) -> Actor:
    return Actor("member", {squad.pk: Right.HEAD})


def test_edits_of_another_kind_of_entry_are_refused_with_their_place(world: World) -> None:
    free, locked = put(world, 0), put(world, 1)
    world.send("coach", "PATCH", f"/plan/entries/{locked['id']}", {"locked": True})
    elsewhere = put(world, 14)
    for edits, place in (
        ([edit(free["id"], day=2), edit(locked["id"], day=3)], "edits[1].slot"),
        ([edit(elsewhere["id"], day=3)], "edits[0].slot"),
        ([edit(free["id"], day=7)], "edits[0].day"),
        ([edit(free["id"], version=99)], "edits[0].version"),
    ):
        for door in ("preview", "take"):
            answer = world.send("coach", "POST", f"/plan/level/{door}", {"day": on(0), "edits": edits})
            assert answer.status_code == 422
            assert answer.json()["problems"][0]["path"] == place
    assert entries(world)[free["id"]]["day"] == on(0)


def test_an_edit_is_not_undone_over_a_later_move(world: World) -> None:
    entry = put(world, 0)
    body = {"day": on(0), "edits": [edit(entry["id"], day=2)]}
    change = world.send("coach", "POST", "/plan/level/take", body).json()
    assert entries(world)[entry["id"]]["day"] == on(2)
    world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", {"day": on(4)})
    answer = world.send("coach", "POST", f"/plan/changes/{change['id']}/undo/0")
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["found"] == f"now on {on(4)}"
    world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", {"day": on(2)})
    assert world.send("coach", "POST", f"/plan/changes/{change['id']}/undo/0").status_code == 200
    assert entries(world)[entry["id"]]["day"] == on(0)


def test_a_session_is_not_changed_by_what_is_levelled_for_a_day(demo: World) -> None:
    made = level(demo)
    versions = [one for one in made["edits"] if one["version"] is not None]
    body = {"day": on(0), "squad": demo.squad.pk, "edits": versions}
    before = {pk: Entry.objects.get(pk=pk).session.head.document for pk in (one["slot"] for one in versions)}  # type: ignore[union-attr]
    assert demo.send("coach", "POST", "/plan/level/take", body).status_code == 201
    for pk, document in before.items():
        entry = Entry.objects.get(pk=pk)
        assert entry.session is not None
        assert entry.session.head is not None
        assert entry.session.head.document == document
        assert entry.document["blocks"] != document["blocks"]


def test_more_entries_than_a_week_holds_are_refused(world: World) -> None:
    rows = [
        Entry(squad=world.squad, day=MONDAY, title="Hike", minutes=30, effort=2, amount={"load": 60})
        for _ in range(22)
    ]
    Entry.objects.bulk_create(rows)
    answer = world.send("coach", "POST", "/plan/level", {"day": on(0)})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["allowed"] == "at most 21 to level"
