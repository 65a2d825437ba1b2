"""The squad as one file: its work, and health only where it is asked for."""

from __future__ import annotations

import json
from typing import Any

from finetally.web.squads.models import Membership, Record, Role
from tests.web.conftest import World
from tests.web.test_privacy import NAME, well_known


def squad_file(world: World, **more: Any) -> Any:
    job = world.send("head", "POST", f"/squads/{world.squad.pk}/export", more).json()
    answer = world.send("head", "GET", f"/jobs/{job['id']}/file")
    assert answer.status_code == 200, answer.content
    return answer


def test_a_squads_file_holds_its_work_and_no_health(world: World) -> None:
    well_known(world)
    world.send("head", "PATCH", f"/plan/entries/{world.planned.entry.pk}", {"notes": "knees"})
    answer = squad_file(world)
    squad = json.loads(answer.content)
    assert [one["title"] for one in squad["sessions"]] == ["Ridge"]
    assert [one["title"] for one in squad["plan"]] == ["Window", "Hike", "Windows"]
    assert [one["do"] for one in squad["runs"][0]["events"]] == ["start"]
    assert [one["name"] for one in squad["people"]] == ["Somebody", NAME]
    assert squad["log"][-1]["minutes"] == 33
    assert squad["results"][-1]["score"] == {"rounds": 7, "reps": 3}
    assert squad["ratings"] == []
    for word in (
        b"ankle",
        b"the old sprain",
        b'"joint": "wrist"',
        b"the right hip",
        b'"effort": 8.0',
        b'"effort": 9.0',
        b"61.0",
        b"knees",
        b"password",
        b"token",
    ):
        assert word not in answer.content, word


def test_health_goes_out_where_it_is_ticked(world: World) -> None:
    well_known(world)
    squad = json.loads(squad_file(world, health=True).content)
    person = next(one for one in squad["people"] if one["name"] == NAME)
    assert (person["measures"]["body_kg"], person["limits"][0]["note"]) == (61, "the old sprain")
    records = Record.objects.filter(act="exported").values_list("about", flat=True)
    assert list(records) == ["the squad with health"]


def test_a_squads_file_is_its_askers_alone(world: World) -> None:
    job = world.send("head", "POST", f"/squads/{world.squad.pk}/export", {}).json()
    Membership.objects.filter(user=world.users["coach"]).update(role=Role.HEAD_COACH)
    assert world.send("coach", "GET", f"/jobs/{job['id']}/file").status_code == 404
