"""Members of a squad and what it sets for itself: the last head coach stays, settings hold, the history says who did what."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.web.squads.models import Membership, Person, Role, Squad
from tests.web.conftest import World
from tests.web.test_accounts import invited, joined, membership

# Members


@pytest.mark.parametrize("how", ["role", "remove", "leave", "erase"])
def test_the_last_head_coach_stays(world: World, how: str) -> None:
    own = membership(world, "head").pk
    Person.objects.create(squad=world.squad, name="Marit", user=world.users["head"])
    person = Person.objects.get(name="Marit").public_id
    tries = {
        "role": ("PATCH", f"/members/{own}", {"role": "coach"}),
        "remove": ("DELETE", f"/members/{own}", None),
        "leave": ("DELETE", f"/account/squads/{world.squad.pk}", None),
        "erase": ("POST", f"/people/{person}/erase", {}),
    }
    refused = world.send("head", *tries[how])
    assert (refused.status_code, refused.json()["problems"][0]["code"]) == (422, "cannot_last_head")
    assert membership(world, "head").role == Role.HEAD_COACH
    # With a second one it goes.
    Membership.objects.filter(pk=membership(world, "coach").pk).update(role=Role.HEAD_COACH)
    assert world.send("head", *tries[how]).status_code in (200, 204)


def test_a_closed_account_is_no_head_coach_to_leave_behind(world: World) -> None:
    Membership.objects.filter(pk=membership(world, "coach").pk).update(role=Role.HEAD_COACH)
    world.users["coach"].is_active = False
    world.users["coach"].save()
    assert world.send("head", "DELETE", f"/account/squads/{world.squad.pk}").status_code == 422


def test_who_is_taken_out_stays_in_the_list_without_an_account(world: World) -> None:
    assert world.send("head", "DELETE", f"/members/{membership(world, 'athlete').pk}").status_code == 204
    world.known.own.refresh_from_db()
    assert world.known.own.user is None
    assert world.send("athlete", "GET", "/me").json()["squads"] == []
    assert world.send("athlete", "GET", "/plan/week?day=2026-12-07").status_code == 404


def test_a_new_role_holds_at_once(world: World) -> None:
    world.send("head", "PATCH", f"/members/{membership(world, 'athlete').pk}", {"role": "coach"})
    assert world.send("athlete", "GET", f"/people?squad={world.squad.pk}").status_code == 200
    refused = world.send("head", "PATCH", f"/members/{membership(world, 'athlete').pk}", {"role": "king"})
    assert refused.json()["problems"][0]["path"] == "role"


# The squad's settings, and who did what


def test_settings_are_set_all_or_nothing(world: World) -> None:
    path = f"/squads/{world.squad.pk}/settings"
    good = {
        "name": "Ridge",
        "time_zone": "Europe/Vienna",
        "week_start": 6,
        "kit": {" Kettlebell ": 12},
        "emergency": "112",
        "adult_from": 18,
    }
    made = world.send("head", "PATCH", path, good).json()
    assert {name: made[name] for name in good} == {**good, "kit": {"kettlebell": 12}}
    bad = {
        "name": " ",
        "time_zone": "Ridge/Top",
        "week_start": 7,
        "kit": {"box": -1},
        "emergency": "x" * 2001,
        "adult_from": 9,
    }
    refused = world.send("head", "PATCH", path, bad)
    assert {one["path"] for one in refused.json()["problems"]} == {
        "name", "time_zone", "week_start", "kit.box", "emergency", "adult_from",
    }  # fmt: skip
    assert Squad.objects.get(pk=world.squad.pk).name == "Ridge"
    stale = world.send("head", "PATCH", path, {"version": "older", "name": "Peak"})
    assert stale.status_code == 409


def test_a_head_coach_founds_another_squad(world: World) -> None:
    body = {"name": "Peak", "time_zone": "Europe/Vienna", "week_start": 6}
    made = world.send("head", "POST", "/squads", body)
    assert made.status_code == 201
    mine = {one["name"]: one["role"] for one in world.send("head", "GET", "/me").json()["squads"]}
    assert mine == {"Thornlow Ridge": "head-coach", "Peak": "head-coach"}
    [record] = world.send("head", "GET", f"/squads/{made.json()['id']}/history").json()
    assert record["says"] == "founded the squad Peak"
    wrong = world.send("head", "POST", "/squads", {"name": " ", "time_zone": "Ridge/Top", "week_start": 7}).json()
    assert {one["path"] for one in wrong["problems"]} == {"name", "time_zone", "week_start"}


def test_the_kit_of_the_hall_is_held_against_a_session(world: World) -> None:
    swings = [{"movement": "swing", "load": {"kg": 16}}]
    clock = {"kind": "intervals", "work_s": 20, "rest_s": 10}
    document = {
        "fine_tally": 1,
        "title": "Bells",
        "people": 10,
        "blocks": [{"clock": clock, "rounds": 4, "steps": swings}],
    }

    def found() -> list[Any]:
        made = world.send("coach", "POST", "/figures", {"document": document, "squad": world.squad.pk}).json()
        return [one for one in made["figures"]["checks"] if one["code"] == "kit-short"]

    assert found() == []
    world.send("head", "PATCH", f"/squads/{world.squad.pk}/settings", {"kit": {"kettlebell": 4}})
    assert len(found()) == 1
    world.send("head", "PATCH", f"/squads/{world.squad.pk}/settings", {"kit": {"kettlebell": 10}})
    assert found() == []


def test_the_history_says_who_did_what(world: World) -> None:
    world.send(
        "coach",
        "POST",
        "/plan/entries",
        {"title": "Hike", "day": "2026-12-07", "minutes": 60, "effort": 3, "squad": world.squad.pk},
    )
    world.send(
        "head",
        "POST",
        f"/people/{world.known.own.public_id}/limits",
        {"joint": "knee", "first": "2026-12-07", "note": "torn"},
    )
    world.send("head", "PATCH", f"/squads/{world.squad.pk}/methods", {"methods": {"fatigue": 0}})
    joined(invited(world))
    records = world.send("head", "GET", f"/squads/{world.squad.pk}/history").json()
    assert [(one["by"], one["says"]) for one in records] == [
        ("ina", "joined as ina, coach"),
        ("head", "invited coach"),
        ("head", "changed the methods: How much longer reps become at most: 0.25 → 0"),
        ("head", "set a limit for Tamsin Arkwell"),
        ("coach", "put Hike, 2026-12-07 on the plan"),
    ]
    assert "knee" not in str(records)
    older = world.send("head", "GET", f"/squads/{world.squad.pk}/history?before={records[1]['id']}").json()
    assert older == records[2:]
