"""A squad with one member of each role, a neighbour squad, and clients signed in as each."""

from __future__ import annotations

import json
from dataclasses import dataclass, field
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from django.test import Client

from finetally.web.squads.actor import member
from finetally.web.squads.models import Membership, Role, Squad
from finetally.web.training.models import Session
from finetally.web.training.use_cases import create_session

DOCUMENT: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Ridge",
    "club": {"kept": [1, 2]},
    "blocks": [
        {
            "clock": {"kind": "intervals", "work_s": 20, "rest_s": 10},
            "rounds": 8,
            "hall": "north",
            "steps": [{"movement": "air-squat"}],
        }
    ],
}


@dataclass
class World:
    squad: Squad
    session: Session
    foreign: Session
    users: dict[str, Any] = field(default_factory=dict)

    def client(self, who: str | None) -> Client:
        client = Client()
        if who is not None:
            client.force_login(self.users[who])
        return client

    def send(self, who: str | None, method: str, path: str, body: Any = None) -> Any:
        data = "" if body is None else body if isinstance(body, str) else json.dumps(body)
        return self.client(who).generic(method, f"/api{path}", data, content_type="application/json")


@pytest.fixture(autouse=True)
def quick_passwords(settings: Any) -> None:
    """The real hasher takes a fifth of a second on purpose; no test is about it."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture
def world(db: None) -> World:
    users = {}
    squad, other = Squad.objects.create(name="Thornlow Ridge"), Squad.objects.create(name="Vale")
    for name, where, role in (
        ("head", squad, Role.HEAD_COACH),
        ("coach", squad, Role.COACH),
        ("athlete", squad, Role.ATHLETE),
        ("stranger", other, Role.HEAD_COACH),
    ):
        users[name] = get_user_model().objects.create_user(name, password="a-long-password")
        Membership.objects.create(user=users[name], squad=where, role=role)
    users["nobodys"] = get_user_model().objects.create_user("nobodys", password="a-long-password")
    session = create_session(member(users["head"].pk), squad.pk, DOCUMENT)
    foreign = create_session(member(users["stranger"].pk), other.pk, DOCUMENT)
    return World(squad, session, foreign, users)
