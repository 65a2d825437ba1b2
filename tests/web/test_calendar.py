"""The calendar of a plan, as another program's parser reads it (RFC 5545)."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
from icalendar import Calendar

from finetally.web.plan.feeds import AHEAD, BACK
from finetally.web.plan.models import Entry, Link
from tests.web.conftest import World

TODAY = date.today()


def plan(world: World, day: date, **more: Any) -> Any:
    answer = world.send("coach", "POST", "/plan/entries", {"day": day.isoformat(), **more})
    assert answer.status_code == 201, answer.content
    return answer.json()


def hike(world: World, day: date = TODAY, **more: Any) -> Any:
    return plan(world, day, **{"title": "Hike", "minutes": 90, "effort": 4, **more})


def feed(world: World, **link: Any) -> dict[str, Any]:
    path = world.send("coach", "POST", "/plan/links", link).json()["path"]
    return events(world.client(None).get(path).content)


def events(content: bytes) -> dict[str, Any]:
    found = Calendar.from_ical(content).walk("VEVENT")
    return {str(one["uid"]).partition("@")[0]: one for one in found}


def test_a_title_in_any_letters_comes_back_as_it_is(world: World) -> None:
    title = "Über den Grat; Seil, Knoten \\ und 雪 – " + "lang " * 40
    entry = hike(world, title=title.strip())
    assert str(feed(world)[entry["id"]]["summary"]) == title.strip()


def test_lines_are_folded_at_75_octets(world: World) -> None:
    plan(world, TODAY, session=str(world.session.pk))
    path = world.send("coach", "POST", "/plan/links", {}).json()["path"]
    lines = world.client(None).get(path).content.split(b"\r\n")
    assert max(len(line) for line in lines) <= 75
    assert lines[0] == b"BEGIN:VCALENDAR"


def test_a_session_has_its_wall_form_in_it_other_training_its_minutes(world: World) -> None:
    session, other = plan(world, TODAY, session=str(world.session.pk)), hike(world)
    made = feed(world)
    wall = str(made[session["id"]]["description"])
    assert "20 s on / 10 s off" in wall
    assert wall.splitlines()[0].startswith(f"{round(session['minutes'])} min, effort")
    assert str(made[other["id"]]["description"]) == "90 min, effort 4.0"


def test_a_group_stands_behind_the_title(world: World) -> None:
    entry = hike(world, group=world.group("rope team"))
    assert str(feed(world)[entry["id"]]["summary"]) == "Hike (rope team)"


@pytest.mark.parametrize("month", [1, 7], ids=["winter", "summer"])
def test_a_local_time_keeps_its_hour_over_the_year(world: World, month: int) -> None:
    world.squad.time_zone = "Europe/Vienna"
    world.squad.save()
    day = date(TODAY.year + (month <= TODAY.month), month, 15)
    entry = hike(world, day, time="19:00")
    start = feed(world)[entry["id"]].decoded("dtstart")
    assert (start.hour, start.tzinfo.key) == (19, "Europe/Vienna")
    assert start.astimezone(UTC) == datetime(day.year, day.month, 15, 19, tzinfo=ZoneInfo("Europe/Vienna"))


def test_every_time_zone_that_is_named_is_defined(world: World) -> None:
    world.squad.time_zone = "America/Denver"
    world.squad.save()
    hike(world, time="06:00")
    path = world.send("coach", "POST", "/plan/links", {}).json()["path"]
    calendar = Calendar.from_ical(world.client(None).get(path).content)
    assert [str(one["tzid"]) for one in calendar.walk("VTIMEZONE")] == ["America/Denver"]


def test_a_whole_day_ends_on_the_next(world: World) -> None:
    entry = hike(world)
    event = feed(world)[entry["id"]]
    assert (event.decoded("dtstart"), event.decoded("dtend")) == (TODAY, TODAY + timedelta(days=1))


def test_uid_stays_and_sequence_grows_with_every_change(world: World) -> None:
    entry = hike(world)
    path = world.send("coach", "POST", "/plan/links", {}).json()["path"]
    sequences = []
    for change in (
        {"time": "18:00"},
        {"day": (TODAY + timedelta(days=1)).isoformat()},
        {"group": world.group("all")},
    ):
        world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", change)
        sequences.append(int(events(world.client(None).get(path).content)[entry["id"]]["sequence"]))
    assert sequences == sorted(set(sequences))


def test_what_is_unchanged_is_not_sent_again_and_what_changed_is(world: World) -> None:
    entry = hike(world)
    path = world.send("coach", "POST", "/plan/links", {}).json()["path"]
    client = world.client(None)
    etag = client.get(path)["ETag"]
    assert client.get(path, headers={"If-None-Match": etag}).status_code == 304
    world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", {"group": world.group("north")})
    changed = client.get(path, headers={"If-None-Match": etag})
    assert (changed.status_code, changed["ETag"] != etag) == (200, True)


def test_a_feed_reaches_some_way_back_and_a_year_ahead(world: World) -> None:
    inside = [hike(world, TODAY - BACK + timedelta(days=1)), hike(world, TODAY + AHEAD - timedelta(days=1))]
    hike(world, TODAY - BACK - timedelta(days=2))
    hike(world, TODAY + AHEAD + timedelta(days=2))
    assert set(feed(world)) == {one["id"] for one in inside}


def test_an_address_is_kept_as_a_hash_and_shown_once(world: World) -> None:
    made = world.send("coach", "POST", "/plan/links", {"name": "Wall"}).json()
    token = made["path"].rsplit("/", 1)[1].removesuffix(".ics")
    link = Link.objects.get(pk=made["id"])
    assert token not in (link.token_hash, link.name)
    listed = world.send("coach", "GET", "/plan/links").json()
    assert token not in str(listed)


@pytest.mark.parametrize("method", ["post", "put", "delete"])
def test_a_feed_is_only_read(world: World, method: str) -> None:
    path = world.send("coach", "POST", "/plan/links", {}).json()["path"]
    assert getattr(world.client(None), method)(path).status_code == 405


def test_a_wrong_address_tells_nothing(world: World) -> None:
    answer = world.client(None).get("/feeds/nothing-of-the-kind.ics")
    assert (answer.status_code, answer.content) == (404, b"There is no such calendar.")


def test_a_person_of_another_squad_gets_no_link(world: World) -> None:
    person = world.foreign.squad.people.create(name="Stranger")
    assert world.send("coach", "POST", "/plan/links", {"person": str(person.public_id)}).status_code == 404
    assert Entry.objects.filter(person=person).count() == 0
