"""What the launcher asks of the server: the first account, the demo, the published descriptions."""

from __future__ import annotations

from io import StringIO
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.test import Client

from finetally.web.plan.models import Day, Entry, Phase
from finetally.web.squads.models import Membership, Squad
from finetally.web.training.demo import load_demo
from finetally.web.training.models import Session

ASKED = {"FINE_TALLY_SQUAD": "Ridge", "FINE_TALLY_NAME": "ina", "FINE_TALLY_PASSWORD": "snow-rope-4410"}


@pytest.fixture
def asked(monkeypatch: pytest.MonkeyPatch) -> pytest.MonkeyPatch:
    for name, value in ASKED.items():
        monkeypatch.setenv(name, value)
    return monkeypatch


def first_account() -> str:
    out = StringIO()
    call_command("first_account", stdout=out)
    return out.getvalue()


def test_the_first_account_is_a_head_coach_who_can_sign_in(db: None, asked: Any) -> None:
    assert first_account().strip() == "ina is head coach of Ridge."
    user = get_user_model().objects.get(username="ina")
    assert user.check_password("snow-rope-4410")
    [membership] = Membership.objects.filter(user_id=user.pk)
    assert (membership.squad.name, membership.role) == ("Ridge", "head-coach")


def test_a_second_start_makes_no_second_account(db: None, asked: Any) -> None:
    first_account()
    assert first_account() == ""
    assert (get_user_model().objects.count(), Squad.objects.count()) == (1, 1)


@pytest.mark.parametrize(
    ("name", "value", "says"),
    [
        ("FINE_TALLY_PASSWORD", "short", "too short"),
        ("FINE_TALLY_PASSWORD", "1234567890", "numeric"),
        ("FINE_TALLY_NAME", " ", "name to sign in"),
        ("FINE_TALLY_TIME_ZONE", "Ridge/Top", "no time zone"),
        ("FINE_TALLY_WEEK_START", "noday", "is no day"),
    ],
)
def test_what_is_no_account_is_refused_and_nothing_is_made(
    db: None, asked: pytest.MonkeyPatch, name: str, value: str, says: str
) -> None:
    asked.setenv(name, value)
    with pytest.raises(CommandError, match=says):
        first_account()
    assert (get_user_model().objects.count(), Squad.objects.count()) == (0, 0)


def test_without_a_terminal_it_says_what_to_set(db: None, asked: pytest.MonkeyPatch) -> None:
    asked.delenv("FINE_TALLY_NAME")
    asked.setattr("sys.stdin", StringIO())
    with pytest.raises(CommandError, match="FINE_TALLY_PASSWORD"):
        first_account()


def test_the_demo_is_made_once_and_is_whole(db: None) -> None:
    for _ in range(2):
        call_command("demo", stdout=StringIO())
    squad = Squad.objects.get()
    assert squad.name == "Thornlow Ridge"
    assert squad.people.count() == 14
    assert Entry.objects.filter(squad=squad).count() == 7 * 5 + 7
    assert [one.kind for one in Phase.objects.all()] == ["hold", "build"]
    assert Day.objects.filter(intent="rest").count() == 1
    assert Session.objects.filter(squad=squad).count() >= 8


def test_every_demo_session_can_be_figured_and_planned(db: None) -> None:
    load_demo()
    client = Client()
    client.force_login(get_user_model().objects.get(username="marit"))
    for item in client.get("/api/sessions").json()["items"]:
        assert item["figures"]["problem"] is None, item["title"]
        assert item["figures"]["total_s"] > 600


def test_the_page_comes_without_signing_in_and_holds_no_data(db: None) -> None:
    answer = Client().get("/week")
    assert answer.status_code in (200, 503)
    assert b"Thornlow" not in answer.content
    assert Client().post("/week").status_code == 405


@pytest.mark.parametrize(
    ("zone", "day", "made"),
    [("Europe/Madrid", "Sunday", ("Europe/Madrid", 6)), ("Pacific/Auckland", "", ("Pacific/Auckland", 0))],
)
def test_the_first_squad_keeps_its_own_time_and_week(
    db: None, asked: pytest.MonkeyPatch, zone: str, day: str, made: tuple[str, int]
) -> None:
    asked.setenv("FINE_TALLY_TIME_ZONE", zone)
    asked.setenv("FINE_TALLY_WEEK_START", day)
    first_account()
    squad = Squad.objects.get()
    assert (squad.time_zone, squad.week_start) == made


def test_the_terminal_asks_for_what_is_not_set(db: None, monkeypatch: pytest.MonkeyPatch) -> None:
    answers = iter(["Ridge", "ina", "Europe/Oslo", "tuesday"])
    monkeypatch.setattr("sys.stdin", type("Terminal", (StringIO,), {"isatty": lambda self: True})())
    monkeypatch.setattr("builtins.input", lambda _: next(answers))
    monkeypatch.setattr("getpass.getpass", lambda _: "snow-rope-4410")
    first_account()
    squad = Squad.objects.get()
    assert (squad.name, squad.time_zone, squad.week_start) == ("Ridge", "Europe/Oslo", 1)
