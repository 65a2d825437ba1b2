"""Levelling over the API: parts taken and undone, what is never touched, what is refused and where."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest

from finetally.web.jobs.models import Job
from finetally.web.plan.demo import load_demo_plan
from finetally.web.plan.levelling import ask_to_level
from finetally.web.plan.models import Entry
from finetally.web.plan.summaries import state_of
from finetally.web.squads.actor import member
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Squad
from finetally.web.training.demo import load_demo
from tests.web.conftest import World

MONDAY = date(2026, 12, 7)


def on(day: int) -> str:
    return (MONDAY + timedelta(days=day)).isoformat()


def level(world: World, **more: Any) -> Any:
    """A proposal for the week, by its job."""
    body = {"day": on(0), "squad": world.squad.pk, "gone": True, **more}
    asked = world.send("coach", "POST", "/plan/level", body)
    assert asked.status_code == 202, asked.content
    job = asked.json()
    assert (job["state"], job["problems"]) == ("done", []), job
    return {"job": job["id"], **world.send("coach", "GET", f"/plan/level/{job['id']}").json()}


def do(world: World, door: str, made: Any, *edits: int) -> Any:
    """Look at, or take, some edits of a proposal."""
    return world.send("coach", "POST", f"/plan/level/{made['job']}/{door}", {"edits": list(edits)})


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
    made = level(demo)
    assert (made["found"], made["end"], made["unmet"]) == (True, "proven", [])
    assert 1 <= len(made["edits"]) <= 4
    assert (len(made["before"]["clashes"]), made["after"]["clashes"]) == (3, [])
    assert made["before"]["load"]["totals"]["load"] > 1200
    assert 1050 <= made["after"]["load"]["totals"]["load"] <= 1200
    assert made["before"]["load"]["monotony"]["value"] > 2 > made["after"]["load"]["monotony"]["value"]
    # The rows go with it: what is shown of the week before, and the same patterns on other days after.
    shown = demo.send("coach", "GET", f"/plan/week?day={on(0)}&squad={demo.squad.pk}").json()
    assert made["before"]["rows"] == shown["rows"]
    assert [one["name"] for one in made["after"]["rows"]] == [one["name"] for one in shown["rows"]]
    assert made["after"]["rows"] != shown["rows"]
    some = made["edits"][:2]
    looked = do(demo, "preview", made, 0, 1).json()
    before = {
        one["id"]: one
        for one in demo.send("coach", "GET", f"/plan/week?day={on(0)}&squad={demo.squad.pk}").json()["entries"]
    }
    change = do(demo, "take", made, 0, 1).json()
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


def test_a_part_of_a_proposal_tells_which_rules_it_breaks(demo: World) -> None:
    made = level(demo)
    broken = {one["rule"] for one in made["before"]["breaks"]}
    assert broken == {"hours between the same pattern or joint", "nothing on rest days"}
    assert made["after"]["breaks"] == []
    partly = do(demo, "preview", made, 0).json()
    assert 0 < len(partly["breaks"]) < len(made["before"]["breaks"])
    assert all(0 <= day <= 6 for one in partly["breaks"] for day in one["days"])


def test_what_a_proposal_could_not_move_breaks_no_rule_in_a_part_of_it_either(demo: World) -> None:
    """Other training stays where it is, also where the squad is away: the whole and its parts say the same."""
    away = {"first": on(6), "last": on(6), "known": True, "squad": demo.squad.pk}
    assert demo.send("coach", "POST", "/plan/away", away).status_code == 204
    walk = next(one for one in entries(demo).values() if one["title"] == "Long walk out")
    assert (walk["day"], walk["session"]) == (on(6), None)
    made = level(demo)
    whole = do(demo, "preview", made, *range(len(made["edits"]))).json()
    assert whole["breaks"] == made["after"]["breaks"]
    named = {slot for one in do(demo, "preview", made).json()["breaks"] for slot in one["slots"]}
    assert walk["id"] not in named


def test_ratios_of_a_proposal_have_the_pages_history(demo: World) -> None:
    page = demo.send("coach", "GET", f"/plan/week?day={on(0)}&squad={demo.squad.pk}").json()["load"]
    made = level(demo)
    none = do(demo, "preview", made).json()["load"]
    assert page["acwr_coupled"]["value"] is not None
    for load in (made["before"]["load"], none):
        assert {name: load[name] for name in ("acwr_coupled", "acwr_uncoupled", "acwr_ewma", "change")} == {
            name: page[name] for name in ("acwr_coupled", "acwr_uncoupled", "acwr_ewma", "change")
        }


def put(world: World, day: int, **more: Any) -> Any:
    body = {"session": str(world.session.pk), "day": on(day), **more}
    return world.send("coach", "POST", "/plan/entries", body).json()


def test_days_gone_by_stay_as_they_are_unless_asked_otherwise(demo: World) -> None:
    before = entries(demo)
    actor = member(demo.users["coach"].pk)
    thursday = MONDAY + timedelta(days=3)
    job = ask_to_level(actor, demo.squad.pk, MONDAY, {}, today=thursday)
    assert job.answer is not None
    edits = job.answer["edits"]
    assert edits
    assert all(before[one["slot"]]["day"] >= on(3) for one in edits)
    assert all(one["day"] is None or one["day"] >= 3 for one in edits)
    whole = level(demo)
    assert any(before[one["slot"]]["day"] < on(3) for one in whole["edits"])


def test_which_days_are_gone_goes_by_the_squads_own_clock(world: World) -> None:
    long_ago = date(2020, 1, 6)
    for _ in range(3):
        body = {"session": str(world.session.pk), "day": long_ago.isoformat()}
        world.send("coach", "POST", "/plan/entries", body)
    asked = {"day": long_ago.isoformat(), "most_a_day": 1, "no_two_hard": False}
    assert level(world, **asked, gone=False)["edits"] == []
    assert level(world, **asked)["edits"]


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
    for day in range(8):
        put(world, day % 7)
    made = level(world, most_a_day=1, no_two_hard=False)
    assert (made["edits"], made["after"], made["found"]) == ([], None, False)
    assert "so many sessions a day at most" in made["clashing_rules"]


def proposed(world: World, edits: list[tuple[str, dict[str, Any]]]) -> str:
    """A job with a proposal of our own, made on what stands now: of each edit the entry and its fields."""
    context = context_of(world.squad)
    made = []
    for slot, fields in edits:
        state = state_of(Entry.objects.get(pk=slot), context)
        plain = {"slot": slot, "kind": "day", "what": "moves", "version": None, "day": None, "made_on": state}
        made.append({**plain, **fields})
    asked = {"day": on(0), "changes": {}, "gone": True, "today": on(0)}
    job = Job.objects.create(
        kind="level", squad=world.squad, owner=world.users["coach"], shared=True, state="done", asked=asked,
        answer={"edits": made, "titles": {}}, private={"versions": {}, "sessions": []},
    )  # fmt: skip
    return str(job.pk)


@pytest.mark.parametrize("door", ["preview", "take"])
def test_edits_that_were_not_proposed_are_refused_with_their_place(world: World, door: str) -> None:
    job = {"job": proposed(world, [(put(world, 0)["id"], {"day": 2})])}
    for picked, place in (([1], "edits[0]"), ([0, -1], "edits[1]")):
        answer = do(world, door, job, *picked)
        assert answer.status_code == 422
        assert answer.json()["problems"][0]["path"] == place


@pytest.mark.parametrize("since", [{"locked": True}, {"day": on(14)}, {"logged_minutes": 30, "logged_effort": 5}])
def test_edits_of_an_entry_that_is_another_by_now_are_refused(world: World, since: dict[str, Any]) -> None:
    entry = put(world, 0)
    job = {"job": proposed(world, [(entry["id"], {"day": 2})])}
    world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", since)
    for door in ("preview", "take"):
        assert do(world, door, job, 0).status_code == 409
    assert Entry.objects.get(pk=entry["id"]).day.isoformat() == since.get("day", on(0))


def test_an_edit_is_not_undone_over_a_later_move(world: World) -> None:
    entry = put(world, 0)
    change = do(world, "take", {"job": proposed(world, [(entry["id"], {"day": 2})])}, 0).json()
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
    numbers = [n for n, one in enumerate(made["edits"]) if one["version"] is not None]
    slots = [made["edits"][n]["slot"] for n in numbers]
    before = {pk: Entry.objects.get(pk=pk).session.head.document for pk in slots}  # type: ignore[union-attr]
    assert before
    assert do(demo, "take", made, *numbers).status_code == 201
    for pk, document in before.items():
        entry = Entry.objects.get(pk=pk)
        assert entry.session is not None
        assert entry.session.head is not None
        assert entry.session.head.document == document
        assert entry.document["blocks"] != document["blocks"]


def test_more_entries_than_a_week_holds_are_refused(world: World) -> None:
    rows = [
        Entry(squad=world.squad, day=MONDAY, title="Hike", minutes=30, effort=2, summary={"load": 60})
        for _ in range(22)
    ]
    Entry.objects.bulk_create(rows)
    answer = world.send("coach", "POST", "/plan/level", {"day": on(0)})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["allowed"] == "at most 21 to level"
