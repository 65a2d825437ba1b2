"""A person's own link: who gets in, on how many devices, until when, and what they see."""

from __future__ import annotations

import json
import logging
from datetime import datetime, timedelta
from typing import Any

import pytest
from django.test import Client
from django.utils import timezone

from finetally.web.accounts import guessing
from finetally.web.api.checkin import COOKIE, COOKIE_PATH
from finetally.web.checkin.links import LONGEST, MOST_DEVICES
from finetally.web.checkin.models import CheckInDevice, CheckInLink
from finetally.web.checkin.upkeep import ENDED_KEPT, prune
from finetally.web.log.models import LogNote, Rating, Result
from finetally.web.people.models import Freshness, Limit
from finetally.web.plan.models import Phase
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.own_phones import entry_of_today, made_link, opened, page_of, said

# The link


def test_two_devices_and_no_third(world: World) -> None:
    token = made_link(world, world.known.own)
    first, answer = opened(token)
    cookie = answer.cookies[COOKIE]
    assert (cookie["httponly"], cookie["samesite"], cookie["path"]) == (True, "Strict", COOKIE_PATH)
    assert opened(token, first)[1].status_code == 204, "the same phone again is no second device"
    second, answer = opened(token)
    assert answer.status_code == 204
    _, refused = opened(token)
    assert refused.status_code == 409
    assert "two devices" in refused.json()["detail"]
    assert CheckInDevice.objects.count() == MOST_DEVICES
    mine = next(one for one in page_of(second)["devices"] if one["this"])
    assert second.delete(f"/api/checkin/devices/{mine['id']}").status_code == 204
    assert second.get("/api/checkin").status_code == 401
    assert opened(token)[1].status_code == 204, "a place that was freed is taken by another"
    assert first.get("/api/checkin").status_code == 200


def test_ended_by_a_coach_it_opens_nothing_at_once(world: World) -> None:
    token = made_link(world, world.known.own)
    phone, _ = opened(token)
    path = f"/people/{world.known.own.public_id}/checkin"
    state = world.send("coach", "GET", path).json()
    assert [one["called"] for one in state["devices"]] == ["Chrome, Android"]
    assert world.send("coach", "DELETE", path).status_code == 204
    assert phone.get("/api/checkin").status_code == 401
    assert opened(token)[1].status_code == 404
    assert world.send("coach", "GET", path).json() is None


def test_a_new_link_ends_the_one_before(world: World) -> None:
    phone, _ = opened(made_link(world, world.known.own))
    made_link(world, world.known.own)
    assert phone.get("/api/checkin").status_code == 401


def test_the_holder_ends_it_everywhere(world: World) -> None:
    token = made_link(world, world.known.own)
    phone, other = opened(token)[0], opened(token)[0]
    assert phone.delete("/api/checkin").status_code == 204
    assert other.get("/api/checkin").status_code == 401
    history = world.send("head", "GET", f"/squads/{world.squad.pk}/history").json()
    assert history[0]["by"] == "Tamsin Arkwell"
    assert "check-in link" in history[0]["says"]


def test_it_is_good_until_the_season_is_over(world: World) -> None:
    Phase.objects.all().delete()
    today = today_of(world.squad)

    def until() -> Any:
        made_link(world, world.known.own)
        return CheckInLink.objects.latest("id").expires_at

    assert abs(until() - timezone.now() - LONGEST) < timedelta(minutes=1)
    Phase.objects.create(squad=world.squad, begins=today, weeks=3, kind="build", load_low=1, load_high=2)
    assert until().date() in (today + timedelta(weeks=3), today + timedelta(weeks=3, days=-1))
    phone, _ = opened(made_link(world, world.known.own))
    CheckInLink.objects.update(expires_at=timezone.now())
    assert phone.get("/api/checkin").status_code == 401


def test_of_somebody_under_age_only_once_a_guardian_agreed(world: World) -> None:
    person = world.planned.person
    Person.objects.filter(pk=person.pk).update(under_age=True)
    path = f"/people/{person.public_id}/checkin"
    refused = world.send("coach", "POST", path)
    assert refused.status_code == 422
    assert refused.json()["problems"][0]["code"] == "cannot_under_age"
    Person.objects.filter(pk=person.pk).update(guardian="Ada Merribeck", guardian_on=today_of(world.squad))
    phone, _ = opened(made_link(world, person))
    assert page_of(phone)["name"] == person.name
    Person.objects.filter(pk=person.pk).update(guardian="", guardian_on=None)
    assert phone.get("/api/checkin").status_code == 401, "taken back, it opens nothing"


def test_guessing_comes_to_a_wait(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setitem(guessing.MOST_BY_ADDRESS, guessing.ANY_LINK, 3)
    answers = [opened(f"guessed-{n}")[1].status_code for n in range(5)]
    assert answers[:2] == [404, 404]
    assert answers[-1] == 429
    token = made_link(world, world.known.own)
    assert opened(token)[1].status_code == 429, "the address waits, whatever it brings"


def test_no_token_in_a_log_line_or_a_path(world: World, caplog: pytest.LogCaptureFixture) -> None:
    caplog.set_level(logging.DEBUG)
    token = made_link(world, world.known.own)
    phone, answer = opened(token)
    cookie = answer.cookies[COOKIE].value
    page_of(phone)
    opened(f"{token}x")
    phone.delete("/api/checkin")
    opened(token)
    logged = "\n".join([*caplog.messages, *(str(one.args) for one in caplog.records)])
    assert token not in logged
    assert cookie not in logged
    kept = CheckInLink.objects.get().token_hash + CheckInDevice.objects.get().cookie_hash
    assert token not in kept
    assert cookie not in kept


def test_changes_need_the_token_of_the_page(world: World) -> None:
    assert world.own_device.pk
    strict = Client(enforce_csrf_checks=True)
    strict.cookies[COOKIE] = "their-phone"
    for path in ("/api/checkin/say", "/api/checkin/open"):
        body = json.dumps({"said": [], "token": "x"})
        assert strict.post(path, body, content_type="application/json").status_code == 403
    assert strict.delete("/api/checkin").status_code == 403


def test_when_it_was_last_used_is_known(world: World) -> None:
    CheckInDevice.objects.filter(pk=world.own_device.pk).update(used_at=timezone.now() - timedelta(days=3))
    page_of(world.client("own"))
    state = world.send("coach", "GET", f"/people/{world.known.own.public_id}/checkin").json()
    last = datetime.fromisoformat(state["devices"][0]["used_at"])
    assert timezone.now() - last < timedelta(minutes=1)


def test_old_links_are_dropped(world: World) -> None:
    opened(made_link(world, world.known.own))
    now = timezone.now()
    CheckInLink.objects.update(ended_at=now)
    prune()
    assert (CheckInLink.objects.count(), CheckInDevice.objects.count()) == (1, 0)
    CheckInLink.objects.update(ended_at=now - ENDED_KEPT - timedelta(days=1))
    prune()
    assert CheckInLink.objects.count() == 0


# What is seen


def test_the_page_is_theirs_alone(world: World) -> None:
    entry = entry_of_today(world)
    entry_of_today(world, person=world.planned.person)
    other = world.planned.person
    Result.objects.create(entry=entry, person=other, block=0, score={"rounds": 9, "reps": 0}, way="typed")
    Rating.objects.create(entry=entry, person=other, effort=8, way="table")
    LogNote.objects.create(entry=entry, person=world.known.own, kind="pain", text="the right knee", place="knee")
    Limit.objects.create(person=world.known.own, joint="wrist", first=today_of(world.squad), note="the fall")
    Freshness.objects.create(person=world.known.own, day=today_of(world.squad), value=2)
    page = page_of(world.client("own"))
    assert [one["title"] for one in page["entries"]] == ["Bars"]
    told = json.dumps(page)
    for word in ("Somebody", "the right knee", "the fall", "wrist", '"rounds": 9', '"effort": 8.0', '"value": 2.0'):
        assert word not in told, word
    assert page["fresh_sent"] is True
    assert "burpee" in page["entries"][0]["text"]
    # The burpee loads the wrist: what is agreed with the coaches is not theirs to choose, and not told why.
    step = page["entries"][0]["steps"][0]
    assert (step["taken"], step["fixed"]) == ("step back", True)


def test_what_is_expected_follows_what_they_choose(world: World) -> None:
    entry = entry_of_today(world)
    phone = world.client("own")
    before = page_of(phone)["entries"][0]["windows"][0]["target"]["expected"]
    said(phone, {"what": "option", "entry": str(entry.pk), "step": "b", "label": "step back"})
    [shown] = page_of(phone)["entries"]
    assert shown["steps"][0]["taken"] == "step back"
    assert shown["windows"][0]["target"]["expected"]["rounds"] > before["rounds"]
    sheet = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()
    assert sheet["others"] == [{"movement": "burpee", "option": "step back", "names": ["Somebody", "Tamsin"]}]
    said(phone, {"what": "option", "entry": str(entry.pk), "step": "b", "label": ""})
    assert page_of(phone)["entries"][0]["steps"][0]["taken"] == ""
