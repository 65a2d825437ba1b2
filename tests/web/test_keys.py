"""Keys of those who left, or may do less than before: they end with the right to them."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from django.test import Client

from finetally.core.session.problems import DocumentError
from finetally.web.jobs.models import Job, JobState
from finetally.web.jobs.work import JobHandle
from finetally.web.privacy.squad_file import squad_file_job
from finetally.web.squads.models import Membership, Role
from tests.web.conftest import World
from tests.web.own_phones import made_link, opened, page_of

HOW = ("demoted", "out", "closed", "erased")
"""What becomes of a second head coach."""


@pytest.fixture
def second(world: World) -> World:
    """The coach is a head coach, too."""
    Membership.objects.filter(squad=world.squad, user=world.users["coach"]).update(role=Role.HEAD_COACH)
    return world


def membership(world: World, who: str) -> Membership:
    return Membership.objects.get(squad=world.squad, user=world.users[who])


def lose(world: World, how: str, role: str = "athlete") -> None:
    key = membership(world, "coach").pk
    if how == "demoted":
        assert world.send("head", "PATCH", f"/members/{key}", {"role": role}).status_code == 200
    elif how == "out":
        assert world.send("head", "DELETE", f"/members/{key}").status_code == 204
    elif how == "closed":
        get_user_model().objects.filter(username="coach").update(is_active=False)
    else:
        body = {"password": "a-long-password"}
        assert world.send("coach", "POST", "/account/erase", body).status_code == 204


def look(path: str, token: str) -> int:
    answer = Client().post(f"/api/{path}/look", json.dumps({"token": token}), content_type="application/json")
    return answer.status_code


def token_of(answer: Any) -> str:
    return str(answer.json()["address"].partition("#")[2])


@pytest.mark.parametrize("how", HOW)
def test_invitations_and_resets_end_with_their_makers_right(second: World, how: str) -> None:
    world = second
    path = f"/squads/{world.squad.pk}/invitations"
    invited = token_of(world.send("coach", "POST", path, {"role": "head-coach"}))
    reset = token_of(world.send("coach", "POST", f"/members/{membership(world, 'athlete').pk}/reset"))
    assert (look("invitations", invited), look("resets", reset)) == (200, 200)
    lose(world, how)
    assert (look("invitations", invited), look("resets", reset)) == (404, 404)


@pytest.mark.parametrize("how", ["demoted", "out", "erased"])
def test_calendar_links_end_with_their_makers_right_to_plan(second: World, how: str) -> None:
    world = second
    link = world.send("coach", "POST", "/plan/links", {"name": "hall", "squad": world.squad.pk}).json()
    path = link["path"]
    assert Client().get(path).status_code == 200
    if how == "demoted":
        lose(world, how, "coach")
        assert Client().get(path).status_code == 200, "a coach may make them, too"
    lose(world, how)
    assert Client().get(path).status_code == 404


def test_who_is_taken_out_loses_the_check_in_page_and_the_calendar(world: World) -> None:
    person = world.known.own
    phone, _ = opened(made_link(world, person))
    link = world.send(
        "coach", "POST", "/plan/links", {"person": str(person.public_id), "squad": world.squad.pk, "name": "x"}
    )
    path = link.json()["path"]
    assert page_of(phone)["name"] == person.name
    assert Client().get(path).status_code == 200
    assert world.send("head", "DELETE", f"/members/{membership(world, 'athlete').pk}").status_code == 204
    assert phone.get("/api/checkin").status_code == 401
    assert Client().get(path).status_code == 404


def test_a_demoted_head_coach_gets_no_export_with_health(second: World) -> None:
    world = second
    asked = world.send("coach", "POST", f"/squads/{world.squad.pk}/export", {"health": True}).json()
    path = f"/jobs/{asked['id']}/file"
    assert world.send("coach", "GET", path).status_code == 200
    lose(world, "demoted", "coach")
    assert world.send("coach", "GET", path).status_code == 404


def test_an_export_that_waited_is_not_made_for_somebody_demoted_meanwhile(second: World) -> None:
    world = second
    job = Job.objects.create(
        kind="squad-file",
        squad=world.squad,
        owner=world.users["coach"],
        asked={"health": True},
        state=JobState.WAITING,
    )
    lose(world, "demoted", "coach")
    with pytest.raises(DocumentError):
        squad_file_job(JobHandle(job))
