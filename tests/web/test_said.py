"""What is said by a person's own link: taken once, by when it was said, theirs alone; health goes in and not out."""

from __future__ import annotations

import json
from datetime import timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.utils import timezone

from finetally.web.checkin.models import SaidOnce
from finetally.web.checkin.saying import MOST_A_DAY
from finetally.web.floor.models import FloorRun
from finetally.web.log.models import LogNote, Result
from finetally.web.log.notes import MOST_OWN_NOTES, forget_notes
from finetally.web.people.models import Freshness
from finetally.web.plan.models import Attendance, Away, Entry
from finetally.web.privacy.squad_file import squad_kept
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.own_phones import entry_of_today, page_of, said


def test_here_away_score_and_effort_are_theirs_in_the_log(world: World) -> None:
    entry = entry_of_today(world)
    phone, key = world.client("own"), str(entry.pk)
    heard = said(
        phone,
        {"what": "here", "entry": key},
        {"what": "score", "entry": key, "block": 0, "score": {"rounds": 6, "reps": 2}},
        {"what": "effort", "entry": key, "effort": 7},
    )
    assert (len(heard["taken"]), heard["refused"]) == (3, [])
    own = Attendance.objects.get(entry=entry, person=world.known.own)
    assert (own.came, own.said, own.effort) == (True, "here", 7)
    assert Result.objects.get(entry=entry).way == "own"
    page = world.send("coach", "GET", f"/log/entries/{key}").json()
    row = next(one for one in page["people"] if one["name"] == "Tamsin Arkwell")
    assert (row["rated"], row["way"]) == (7, "own")
    assert page["results"][0]["score"]["rounds"] == 6
    said(phone, {"what": "score", "entry": key, "block": 0, "score": {"rounds": 7, "reps": 0}})
    # The same count by the account is a correction of theirs, no second one.
    athlete = {"results": [{"person": str(world.known.own.public_id), "block": 0, "score": {"rounds": 8}}]}
    assert world.send("athlete", "PUT", f"/log/entries/{key}/results", athlete).status_code == 204
    assert list(Result.objects.filter(entry=entry).values_list("score", flat=True)) == [{"rounds": 8}]
    said(phone, {"what": "away", "entry": key})
    sheet = world.send("coach", "GET", f"/floor/entries/{key}/sheet").json()
    shown = next(one for one in sheet["people"] if one["name"] == "Tamsin")
    assert (shown["away"], shown["said"]) == (True, "away")


def test_health_goes_in_and_not_out(world: World) -> None:
    entry = entry_of_today(world)
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True, asks_freshness=True)
    phone, key = world.client("own"), str(entry.pk)
    hurt = {
        "what": "note",
        "entry": key,
        "kind": "pain",
        "place": "calf",
        "side": "left",
        "level": 4,
        "text": "dull",
    }
    heard = said(phone, hurt, {"what": "fresh", "value": 3})
    assert len(heard["taken"]) == 2
    assert "calf" not in json.dumps([heard, page_of(phone)])
    note = LogNote.objects.get(entry=entry)
    assert (note.kind, note.place, note.level, note.person) == ("pain", "calf", 4, world.known.own)
    log = world.send("coach", "GET", f"/log/entries/{key}").json()
    assert log["notes"][0]["place"] == "calf"
    assert next(one for one in log["people"] if one["name"] == "Tamsin Arkwell")["fresh"] == 3
    sheet = world.send("coach", "GET", f"/floor/entries/{key}/sheet").json()
    assert next(one for one in sheet["people"] if one["name"] == "Tamsin")["fresh"] == 3
    person = world.send("coach", "GET", f"/log/people/{world.known.own.public_id}").json()
    assert [one["value"] for one in person["fresh"]] == [3]
    history = json.dumps(world.send("head", "GET", f"/squads/{world.squad.pk}/history").json())
    assert "calf" not in history


@pytest.mark.parametrize(
    ("thing", "code"),
    [
        ({"what": "note", "kind": "pain", "text": "knee"}, "notes of health once a head coach"),
        ({"what": "fresh", "value": 3}, "a squad that asks for it"),
        ({"what": "effort", "effort": 11}, "0 to 10"),
        ({"what": "option", "step": "b", "label": "fly"}, "step back"),
        ({"what": "score", "block": 7, "score": {"rounds": 1}}, "0 to 0"),
    ],
)
def test_what_is_wrong_is_refused_alone(world: World, thing: dict[str, Any], code: str) -> None:
    entry = entry_of_today(world)
    extra = {} if thing["what"] == "fresh" else {"entry": str(entry.pk)}
    heard = said(world.client("own"), {**thing, **extra}, {"what": "here", "entry": str(entry.pk)})
    assert code in heard["refused"][0]["why"]
    assert len(heard["taken"]) == 1


def test_said_twice_it_counts_once(world: World) -> None:
    entry = entry_of_today(world)
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    note = {
        "number": str(uuid4()),
        "what": "note",
        "entry": str(entry.pk),
        "kind": "dizziness",
        "text": "at the end",
    }
    phone = world.client("own")
    assert said(phone, note)["taken"] == said(phone, note)["taken"] == [note["number"]]
    assert LogNote.objects.count() == 1
    assert SaidOnce.objects.count() == 1


def test_sent_later_it_counts_by_when_it_was_said(world: World) -> None:
    entry = entry_of_today(world)
    day = entry.day
    Entry.objects.filter(pk=entry.pk).update(day=day - timedelta(days=5))
    phone, key = world.client("own"), str(entry.pk)
    then = (timezone.now() - timedelta(days=5)).isoformat()
    late = {"what": "effort", "entry": key, "effort": 6}
    assert said(phone, {**late, "at": then})["refused"] == []
    assert "end of the next day" in said(phone, late)["refused"][0]["why"]
    ahead = (timezone.now() + timedelta(hours=3)).isoformat()
    old = (timezone.now() - timedelta(days=15)).isoformat()
    for at in (ahead, old):
        assert "last 14 days" in said(phone, {**late, "at": at})["refused"][0]["why"]


@pytest.mark.parametrize("wrong_by", [timedelta(days=400), timedelta(days=-3), timedelta(hours=2)])
def test_a_wrong_clock_of_the_phone_is_corrected(world: World, wrong_by: timedelta) -> None:
    entry = entry_of_today(world)
    theirs = timezone.now() + wrong_by
    heard = said(
        world.client("own"), {"what": "here", "entry": str(entry.pk), "at": theirs.isoformat()}, sent=theirs
    )
    assert (len(heard["taken"]), heard["refused"], heard["waiting"]) == (1, [], [])
    assert Attendance.objects.get(entry=entry, person=world.known.own).said == "here"


@pytest.mark.parametrize("at", ["1970-01-01T00:04:00Z", "9999-12-31T23:59:59Z", "0001-01-01T00:00:00Z"])
def test_what_a_clock_cannot_have_meant_waits_and_is_not_dropped(world: World, at: str) -> None:
    entry = entry_of_today(world)
    word = {"what": "here", "entry": str(entry.pk), "at": at}
    heard = said(world.client("own"), word, sent=timezone.now() - timedelta(days=2))
    assert (heard["taken"], heard["refused"], len(heard["waiting"])) == ([], [], 1)
    assert "clock" in heard["waiting"][0]["why"]


def test_what_was_said_by_another_link_is_not_taken_by_this_one(world: World) -> None:
    entry = entry_of_today(world)
    phone = world.client("own")
    link = page_of(phone)["link"]
    here = {"what": "here", "entry": str(entry.pk), "number": str(uuid4()), "at": timezone.now().isoformat()}
    body = {"link": link + 1, "said": [here]}
    answer = phone.post("/api/checkin/say", json.dumps(body), content_type="application/json")
    assert (answer.status_code, answer.json()["type"]) == (409, "about:other-link")
    assert not Attendance.objects.exclude(said="").exists()
    assert phone.post(
        "/api/checkin/say", json.dumps({**body, "link": link}), content_type="application/json"
    ).json()["taken"]


def test_taking_a_rating_back_keeps_that_they_are_here_and_what_they_chose(world: World) -> None:
    entry = entry_of_today(world)
    phone, key = world.client("own"), str(entry.pk)
    said(
        phone, {"what": "here", "entry": key}, {"what": "option", "entry": key, "step": "b", "label": "step back"},
        {"what": "effort", "entry": key, "effort": 7},
    )  # fmt: skip
    said(phone, {"what": "effort", "entry": key, "effort": None})
    own = Attendance.objects.get(entry=entry, person=world.known.own)
    assert (own.came, own.said, own.options, own.effort) == (True, "here", {"b": "step back"}, None)


def test_one_link_does_not_fill_the_room_for_everybodys_notes(world: World) -> None:
    entry = entry_of_today(world)
    note = {"what": "note", "entry": str(entry.pk), "kind": "free", "text": "again"}
    heard = said(world.client("own"), *[note] * (MOST_OWN_NOTES + 1))
    assert (len(heard["taken"]), len(heard["refused"])) == (MOST_OWN_NOTES, 1)
    body = {"kind": "free", "text": "cold hall"}
    assert world.send("coach", "POST", f"/log/entries/{entry.pk}/notes", body).status_code == 201


def test_what_is_not_theirs_is_not_there(world: World) -> None:
    other = entry_of_today(world, person=world.planned.person)
    foreign = Entry.objects.create(squad=Squad.objects.get(name="Vale"), day=other.day, title="Vale")
    things = [{"what": "here", "entry": str(one)} for one in (other.pk, foreign.pk, uuid4())]
    heard = said(world.client("own"), *things)
    assert (heard["taken"], len(heard["refused"])) == ([], 3)
    assert Attendance.objects.exclude(said="").count() == 0


def test_what_is_logged_is_not_theirs_to_say_any_more(world: World) -> None:
    entry = entry_of_today(world, logged_minutes=30, logged_effort=6)
    heard = said(world.client("own"), {"what": "away", "entry": str(entry.pk)})
    assert "tell your coach" in heard["refused"][0]["why"]


def test_there_is_an_end_to_what_is_said_in_a_day(world: World) -> None:
    entry = entry_of_today(world)
    link = world.own_device.link
    SaidOnce.objects.bulk_create(SaidOnce(link=link, number=uuid4()) for _ in range(MOST_A_DAY - 1))
    thing = {"what": "here", "entry": str(entry.pk)}
    heard = said(world.client("own"), thing, thing)
    assert (len(heard["taken"]), len(heard["refused"])) == (1, 1)


def test_freshness_is_forgotten_with_notes(world: World) -> None:
    today = today_of(world.squad)
    for days in (10, 400):
        Freshness.objects.create(person=world.known.own, day=today - timedelta(days=days), value=4)
    forget_notes()
    assert list(Freshness.objects.values_list("day", flat=True)) == [today - timedelta(days=10)]


def test_an_option_says_nothing_of_coming_and_health_leaves_only_where_it_is_ticked(world: World) -> None:
    entry = entry_of_today(world)
    Away.objects.create(squad=world.squad, person=world.known.own, first=entry.day, last=entry.day)
    said(world.client("own"), {"what": "option", "entry": str(entry.pk), "step": "b", "label": "step back"})
    sheet = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()
    assert next(one for one in sheet["people"] if one["name"] == "Tamsin")["away"] is True
    Freshness.objects.create(person=world.known.own, day=entry.day, value=2)
    assert squad_kept(world.squad, health=False)["freshness"] == []
    assert [one["value"] for one in squad_kept(world.squad, health=True)["freshness"]] == [2]


def test_a_run_takes_what_they_said_they_would_do(world: World) -> None:
    """The option that was said before stands behind the score of the floor."""
    entry = entry_of_today(world)
    phone, key = world.client("own"), str(entry.pk)
    said(phone, {"what": "option", "entry": key, "step": "b", "label": "step back"})
    score = {"results": [{"person": str(world.known.own.public_id), "block": 0, "score": {"rounds": 9}}]}
    assert world.send("coach", "PUT", f"/log/entries/{key}/results", score).status_code == 204
    assert FloorRun.objects.filter(entry=entry).count() == 0
    assert Result.objects.get(entry=entry).options == {"b": "step back"}
