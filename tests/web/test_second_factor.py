"""A second factor at sign-in, and the password asked for again before what cannot be undone."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

import pyotp
import pytest
from django.test import Client
from django.utils import timezone

from finetally.web.accounts import second_factor
from finetally.web.accounts.models import SecondFactor
from finetally.web.accounts.resets import reset_by_keeper
from finetally.web.squads.models import Person
from tests.web.conftest import World

PASSWORD = "a-long-password"
ENTER = "/account/second-factor"


class Clock:
    """The time, as a test sets it."""

    def __init__(self, monkeypatch: pytest.MonkeyPatch) -> None:
        self.now = timezone.now()
        monkeypatch.setattr(second_factor.timezone, "now", lambda: self.now)

    def later(self, seconds: float) -> None:
        self.now += timedelta(seconds=seconds)


@pytest.fixture
def clock(monkeypatch: pytest.MonkeyPatch) -> Clock:
    return Clock(monkeypatch)


def sign_in(name: str, code: str = "") -> Any:
    body = {"name": name, "password": PASSWORD, "code": code}
    return Client().post("/api/sign-in", body, content_type="application/json")


def shown(secret: str, at: datetime) -> str:
    return pyotp.TOTP(secret).at(at)


def switched_on(world: World, clock: Clock) -> tuple[str, list[str]]:
    made = world.send("head", "POST", ENTER, {"password": PASSWORD}).json()
    assert "<svg" in made["picture"]
    assert sign_in("head").status_code == 200, "nothing is asked for until a code was shown"
    assert world.send("head", "PUT", ENTER, {"code": "000000"}).status_code == 422
    begun = world.send("head", "PUT", ENTER, {"code": shown(made["secret"], clock.now)})
    assert begun.status_code == 200, begun.content
    return made["secret"], begun.json()["spare"]


def test_a_code_of_the_app_lets_in_once(world: World, clock: Clock) -> None:
    secret, _ = switched_on(world, clock)
    asked = sign_in("head")
    assert (asked.status_code, asked.json()["type"].rpartition(":")[2]) == (401, "second-factor")
    assert sign_in("head", shown(secret, clock.now)).status_code == 401, "the code that switched it on is used"
    clock.later(second_factor.STEP_S)
    code = shown(secret, clock.now)
    assert sign_in("head", f"{code[:3]} {code[3:]}").status_code == 200
    assert sign_in("head", code).status_code == 401
    clock.later(5 * second_factor.STEP_S)
    assert sign_in("head", code).status_code == 401, "an old one"
    # Others sign in as ever.
    assert sign_in("coach").status_code == 200


def test_a_spare_code_lets_in_once(world: World, clock: Clock) -> None:
    _, spare = switched_on(world, clock)
    assert sign_in("head", spare[3].upper()).status_code == 200
    assert sign_in("head", spare[3]).status_code == 401
    assert world.send("head", "GET", ENTER).json() == {"on": True, "may": True, "spare": 7}
    assert spare[0] not in str(SecondFactor.objects.get().spare)
    person = Person.objects.create(squad=world.squad, name="Head", user=world.users["head"])
    assert world.send("head", "POST", f"/people/{person.public_id}/export").json()["second_factor"] is True


def test_codes_are_not_guessed(world: World, clock: Clock) -> None:
    secret, _ = switched_on(world, clock)
    clock.later(second_factor.STEP_S)
    answers = [sign_in("head", f"{n:06}").status_code for n in range(12)]
    assert answers[-1] == 429
    assert sign_in("head", shown(secret, clock.now)).status_code == 429


def test_it_is_for_head_coaches_and_goes_with_the_password_or_the_keeper(world: World, clock: Clock) -> None:
    assert world.send("coach", "POST", ENTER, {"password": PASSWORD}).status_code == 422
    assert world.send("head", "POST", ENTER, {"password": "a-wrong-password"}).status_code == 422
    switched_on(world, clock)
    assert world.send("head", "POST", ENTER, {"password": PASSWORD}).status_code == 422, "there is one"
    assert world.send("head", "POST", f"{ENTER}/end", {"password": "a-wrong-password"}).status_code == 422
    assert world.send("head", "POST", f"{ENTER}/end", {"password": PASSWORD}).status_code == 204
    assert sign_in("head").status_code == 200
    clock.later(60)
    switched_on(world, clock)
    reset_by_keeper(world.users["head"])
    assert sign_in("head").status_code == 200


@pytest.mark.parametrize("password", ["", "a-wrong-password"])
def test_erasing_and_health_files_ask_for_the_password_again(world: World, password: str) -> None:
    person = f"/people/{world.known.own.public_id}"
    squad = f"/squads/{world.squad.pk}/export"
    for path, body in ((f"{person}/erase", {}), (f"{person}/export", {}), (squad, {"health": True})):
        answer = world.send("head", "POST", path, {**body, "password": password})
        assert answer.status_code == 422, path
        assert answer.json()["problems"][0]["path"] == "password"
    assert Person.objects.filter(pk=world.known.own.pk).exists()
    assert world.send("head", "POST", squad, {"health": False, "password": password}).status_code == 202


def test_whoever_has_a_session_does_not_guess_the_password(world: World) -> None:
    path = f"/people/{world.known.own.public_id}/erase"
    for n in range(12):
        world.send("head", "POST", path, {"password": f"guess number {n}"})
    answer = world.send("head", "POST", path, {"password": PASSWORD})
    assert (answer.status_code, answer.json()["problems"][0]["code"]) == (422, "cannot_wait")
    assert Person.objects.filter(pk=world.known.own.pk).exists()
