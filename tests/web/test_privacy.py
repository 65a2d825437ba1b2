"""What is kept of people: taken out whole, erased whole, and erased again after a restore."""

from __future__ import annotations

import json
from datetime import date
from uuid import uuid4

import pytest
from axes.models import AccessAttempt
from django.apps import apps
from django.contrib.auth import get_user_model
from django.db import models
from django.utils import timezone

from finetally.running.installation import current_installation
from finetally.web.accounts.models import Notice
from finetally.web.floor.models import FloorRun
from finetally.web.jobs.models import Job
from finetally.web.jobs.work import JobHandle, end_of_job
from finetally.web.people.models import Group, Maximum
from finetally.web.plan.models import Attendance, Entry, Link
from finetally.web.privacy.erased import erased_ids
from finetally.web.privacy.erasing import ENOUGH_TO_HIDE_AMONG, erase_again
from finetally.web.privacy.traces import take_out_names, traces_of
from finetally.web.squads.models import Membership, Person, Record, Role, Squad, SquadMovement
from finetally.web.training.models import Session, Shape
from tests.web.conftest import DEVICE, DOCUMENT, World

NAME = "Tamsin Arkwell"


@pytest.fixture(autouse=True)
def no_erased_before() -> None:
    current_installation().erased.unlink(missing_ok=True)


def path_of(person: Person) -> str:
    return f"/people/{person.public_id}"


def well_known(world: World) -> Person:
    """The athlete, of whom everything is known that can be."""
    person = world.known.own
    world.users["athlete"].username = "tams-9"
    world.users["athlete"].save()
    path = path_of(person)
    for method, where, body in (
        ("PATCH", path, {"body_kg": 61, "pace_factor": 1.1}),
        ("PUT", f"{path}/capacity", {"test": "met", "result": 13}),
        ("POST", f"{path}/maxima", {"movement": "bench-press", "kg": 47, "reps": 5, "day": "2026-11-02"}),
        ("POST", f"{path}/limits", {"joint": "ankle", "first": "2026-11-02", "note": "the old sprain"}),
        ("PUT", f"{path}/groups", {"groups": [world.known.group.pk]}),
        ("POST", "/plan/away", {"first": "2026-11-02", "last": "2026-11-04", "person": str(person.public_id)}),
        (
            "POST",
            "/plan/links",
            {"name": "Tamsin's phone", "person": str(person.public_id), "squad": world.squad.pk},
        ),
    ):
        assert world.send("head", method, where, body).status_code < 300
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    hurt = {"t": 40, "do": "note", "text": "the left calf", "kind": "pain", "person": str(person.public_id)}
    free = {"t": 41, "do": "note", "text": f"{NAME} went home"}
    sent = {"events": [{"device": DEVICE, "number": n, "event": one} for n, one in ((1, hurt), (2, free))]}
    run = f"/floor/runs/{world.floor.run.pk}/events"
    assert world.send("coach", "POST", run, sent).status_code == 200
    came = {"person": str(person.public_id), "minutes": 33, "effort": 8}
    assert world.send("coach", "PUT", f"/plan/entries/{world.planned.entry.pk}/attendance", came).status_code == 204
    log = f"/log/entries/{world.logbook.entry.pk}"
    world.squad.asks_health = True
    world.squad.save()
    pulse = {"person": str(person.public_id), "kind": "csv", "text": "time_s,hr\n0,151\n5,163"}
    score = {
        "person": str(person.public_id),
        "block": 0,
        "score": {"rounds": 7, "reps": 3},
        "unfinished": "in Arkwell's round",
    }
    noted = {"person": str(person.public_id), "kind": "pain", "text": "the right hip", "place": "hip", "level": 3}
    for method, where, body in (
        ("PUT", f"{log}/results", {"results": [score]}),
        ("PUT", f"{log}/rating", {"person": str(person.public_id), "effort": 9}),
        ("POST", f"{log}/notes", noted),
        ("POST", f"{log}/notes", {"text": "Tamsin Arkwell was late"}),
        ("PUT", f"{log}/watch", pulse),
    ):
        assert world.send("coach", method, where, body).status_code < 300
    Squad.objects.filter(pk=world.squad.pk).update(asks_freshness=True)
    assert world.own_device.link.person_id == person.pk
    fresh = {"number": str(uuid4()), "at": timezone.now().isoformat(), "what": "fresh", "value": 2}
    heard = world.send("own", "POST", "/checkin/say", {"said": [fresh]})
    assert heard.json()["taken"] == [fresh["number"]]
    return person


def everything() -> str:
    """Every text and number that the database holds, of all our tables and Django's accounts."""
    kept: list[str] = []
    for model in apps.get_models():
        if model._meta.app_label in (
            "squads",
            "people",
            "plan",
            "training",
            "accounts",
            "jobs",
            "floor",
            "log",
            "checkin",
            "auth",
            "axes",
        ):
            rows = model._default_manager.values_list(
                *(one.name for one in model._meta.concrete_fields if not isinstance(one, models.BinaryField))
            )
            kept.extend(json.dumps([str(value) for value in row], ensure_ascii=False) for row in rows)
    return "\n".join(kept)


def test_everything_about_a_person_is_taken_out(world: World) -> None:
    person = well_known(world)
    answer = world.send("athlete", "POST", f"{path_of(person)}/export")
    told = answer.json()
    assert (told["name"], told["account"], told["squad"]) == (NAME, "tams-9", "Thornlow Ridge")
    assert told["measures"]["capacity_met"] == 13
    assert told["measures"]["sets"] == [{"movement": "bench-press", "kg": 47, "reps": 5, "on": "2026-11-02"}]
    assert told["limits"][0]["note"] == "the old sprain"
    assert told["groups"][0]["group"] == "South"
    assert told["away"] == [{"from": "2026-11-02", "to": "2026-11-04", "rest": True}]
    assert (told["sessions"][-1]["minutes"], told["sessions"][-1]["effort"]) == (33, 8)
    assert told["calendar_links"] == ["Tamsin's phone"]
    assert [one["text"] for one in told["on_the_floor"]] == ["the left calf"]
    assert (told["scores"][0]["rounds"], told["scores"][0]["reps"]) == (7, 3)
    assert [one["effort"] for one in told["ratings"]] == [9]
    assert [one["peak"] for one in told["pulse"]] == [163]
    assert {one["text"] for one in told["notes"]} == {"the left calf", "the right hip"}
    assert (told["learned"]["scores"], told["learned"]["ratings"]) == (0, 1), "unfinished is no score to learn from"
    assert [one["value"] for one in told["freshness"]] == [2]
    assert told["checkin_links"][0]["devices"][0]["is"] == "Chrome, Android"
    assert any("set a limit for" in one["what"] for one in told["history"])
    assert 'filename="person.json"' in answer["Content-Disposition"]


def test_an_export_knows_every_table_that_points_to_a_person(world: World) -> None:
    """A table that is added for people has to be thought of in the export and in erasing."""
    told = {
        "squads.record", "accounts.invitation", "people.groupplace", "people.limit", "people.maximum", "people.freshness", "checkin.checkinlink",
        "plan.entry",
        "plan.attendance", "plan.teamplace", "plan.away", "plan.link", "floor.floorevent",
        "log.result", "log.rating", "log.lognote", "log.learnedpace", "log.watchrecording",
    }  # fmt: skip
    assert {one.related_model._meta.label_lower for one in Person._meta.related_objects} == told


def test_a_person_is_erased_with_everything(world: World) -> None:
    person = well_known(world)
    AccessAttempt.objects.create(username="tams-9", ip_address="10.0.0.1", failures_since_start=1)
    Notice.objects.create(user=world.users["head"], kind="accepted", about="tams-9, athlete of Thornlow Ridge")
    key = str(person.public_id)
    assert world.send("athlete", "POST", f"{path_of(person)}/erase", {}).status_code == 204
    left = everything()
    for word in (
        NAME,
        "Tamsin",
        key,
        "tams-9",
        "the old sprain",
        "the left calf",
        "the right hip",
        '"peak": 163',
        '"47.0"',
        '"61.0"',
        '"33.0"',
    ):
        assert word not in left, word
    assert not get_user_model().objects.filter(username="tams-9").exists()
    assert ("person", key) in set(erased_ids())
    assert NAME not in current_installation().erased.read_text()
    assert world.send("head", "GET", path_of(person)).status_code == 404
    record = world.send("head", "GET", f"/squads/{world.squad.pk}/history").json()[0]
    assert record["says"] == "erased somebody"


def test_an_account_that_is_in_another_squad_stays(world: World) -> None:
    person = Person.objects.create(squad=world.squad, name="Both Ways", user=world.users["both"])
    assert world.send("head", "POST", f"{path_of(person)}/erase", {}).status_code == 204
    squads = [one["name"] for one in world.send("both", "GET", "/me").json()["squads"]]
    assert squads == ["Vale"]


def crowd(world: World, person: Person, count: int) -> None:
    """So many people noted at the squad's entry, the person among them."""
    others = [Person.objects.create(squad=world.squad, name=f"P{n}") for n in range(count - 1)]
    for one in (person, *others):
        Attendance.objects.create(entry=world.planned.entry, person=one, minutes=30, effort=5)


@pytest.mark.parametrize(("count", "left"), [(ENOUGH_TO_HIDE_AMONG, 1), (ENOUGH_TO_HIDE_AMONG - 1, 0)])
def test_that_they_came_stays_only_among_enough_others(world: World, count: int, left: int) -> None:
    person = world.known.own
    crowd(world, person, count)
    world.send("head", "POST", f"{path_of(person)}/erase", {})
    former = list(Attendance.objects.filter(person=None).values_list("came", "minutes", "effort"))
    assert former == [(True, None, None)] * left
    assert world.send("coach", "GET", f"/plan/entries/{world.planned.entry.pk}/attendance").status_code == 200
    assert world.send("head", "POST", f"/squads/{world.squad.pk}/export", {}).status_code == 202


# Names in texts


def texts(world: World) -> None:
    """The athlete's name where coaches write it."""
    document = {
        **DOCUMENT,
        "title": "Ridge for Tamsin",
        "notes": "tamsin arkwell leads; Mistamsin does not. TAMSIN!",
    }
    made = world.send("coach", "POST", "/sessions", {"document": document, "squad": world.squad.pk}).json()
    entry = {"session": made["id"], "day": "2026-12-07", "notes": "ask Tamsin"}
    assert world.send("coach", "POST", "/plan/entries", entry).status_code == 201


def test_names_in_texts_are_found_and_taken_out(world: World) -> None:
    texts(world)
    person = world.known.own
    found = world.send("head", "GET", f"{path_of(person)}/traces").json()
    assert [one["kind"] for one in found] == ["entry", "session", "version"]
    assert found[0]["title"] == "Ridge for Tamsin"
    world.send("head", "POST", f"{path_of(person)}/erase", {})
    entry = Entry.objects.get(day=date(2026, 12, 7))
    assert (entry.title, entry.notes) == ("Ridge for …", "ask …")
    assert entry.document is not None
    assert entry.document["notes"] == "… leads; Mistamsin does not. …!"
    assert "Arkwell" not in everything()


def test_every_word_that_a_squad_gave_is_gone_through(world: World) -> None:
    squad = world.squad
    swing = {"key": "own-swing", "name": "Tamsin Arkwell swing"}
    Squad.objects.filter(pk=squad.pk).update(emergency="call Tamsin Arkwell's mother", health_why="Tamsin's knee")
    Session.objects.filter(pk=world.session.pk).update(tags=["hill", "Tamsin"])
    Group.objects.create(squad=squad, name="Tamsin")
    Group.objects.create(squad=squad, name="TAMSIN")
    Link.objects.create(squad=squad, name="for Tamsin Arkwell", token_hash="t")
    Shape.objects.create(squad=squad, name="Tamsin's ladder", key="ladder")
    SquadMovement.objects.create(squad=squad, key="own-swing", definition=swing)
    version = Squad.objects.get(pk=squad.pk).movements_version
    removed = Entry.objects.create(
        squad=squad, day=date(2026, 12, 8), title="with Tamsin", removed_at=timezone.now()
    )
    kinds = {one["kind"] for one in world.send("head", "GET", f"{path_of(world.known.own)}/traces").json()}
    assert kinds == {"squad", "session", "group", "calendar link", "shape", "movement", "entry"}
    assert world.send("head", "POST", f"{path_of(world.known.own)}/erase", {}).status_code == 204
    removed = Entry.with_removed.get(pk=removed.pk)
    assert (removed.title, "Tamsin" in everything()) == ("with …", False)
    squad = Squad.objects.get(pk=squad.pk)
    assert squad.emergency == "call …'s mother"
    assert squad.movements_version != version, "whoever kept the movements reads them anew"


def test_their_own_runs_go_and_an_export_under_way_leaves_no_file(world: World) -> None:
    squad, own = world.squad, world.known.own
    entry = Entry.objects.create(squad=squad, day=date(2026, 12, 8), title="alone", person=own)
    for number, (of, name) in enumerate(((entry, ""), (None, "Tamsin"), (None, "Somebody"))):
        FloorRun.objects.create(
            squad=squad, entry=of, name=name, day=entry.day, title=f"run {number}", document=DOCUMENT,
            begun_at=timezone.now(),
        )  # fmt: skip
    running = Job.objects.create(kind="squad-file", squad=squad, state="running", owner=world.users["head"])
    must = Job.objects.create(kind="log", squad=squad, state="running")
    world.send("head", "POST", f"{path_of(own)}/erase", {})
    assert "run 2" in list(FloorRun.objects.values_list("title", flat=True))
    assert not FloorRun.objects.filter(title__in=("run 0", "run 1")).exists()
    handle = JobHandle(running)
    handle.show(file=b"Tamsin", file_name="squad.json")
    end_of_job(handle, {"state": "done"})
    assert list(Job.objects.filter(pk__in=(running.pk, must.pk))) == [must]


def test_texts_stay_where_it_is_not_asked_for(world: World) -> None:
    texts(world)
    world.send("head", "POST", f"{path_of(world.known.own)}/erase", {"from_texts": False})
    assert Entry.objects.get(day=date(2026, 12, 7)).notes == "ask Tamsin"


def test_a_name_of_other_letters_is_found_in_documents_too(world: World) -> None:
    person = Person.objects.create(squad=world.squad, name="Ægir Ångström", short_name="Ægir")
    document = {**DOCUMENT, "notes": "for Ægir Ångström"}
    world.send("coach", "POST", "/sessions", {"document": document, "squad": world.squad.pk})
    assert [one.says for one in traces_of(person)] == ["for Ægir Ångström"]
    assert take_out_names(person) == 1
    assert traces_of(person) == []


def test_another_squads_texts_are_not_touched(world: World) -> None:
    document = {**DOCUMENT, "title": "Tamsin Arkwell's"}
    world.send("stranger", "POST", "/sessions", {"document": document, "squad": world.foreign.squad.pk})
    assert traces_of(world.known.own) == []


# After a restore


def test_who_was_erased_is_erased_again_when_a_backup_brings_them_back(world: World) -> None:
    person = well_known(world)
    kept = {"name": person.name, "public_id": person.public_id, "squad": world.squad}
    world.send("head", "POST", f"{path_of(person)}/erase", {})
    back = Person.objects.create(**kept)
    Maximum.objects.create(person=back, movement="bench-press", kg=47)
    assert erase_again() == 1
    assert not Person.objects.filter(public_id=kept["public_id"]).exists()
    assert erase_again() == 0


def test_an_erased_account_comes_back_no_more_either(world: World) -> None:
    user = world.users["nobodys"]
    began = user.date_joined
    number = user.pk
    refused = world.send("nobodys", "POST", "/account/erase", {"password": "wrong-password"})
    assert refused.json()["problems"][0]["path"] == "password"
    assert world.send("nobodys", "POST", "/account/erase", {"password": "a-long-password"}).status_code == 204
    get_user_model().objects.create(pk=number, username="nobodys", date_joined=began)
    assert erase_again() == 1
    # Another account that got the number is another one.
    get_user_model().objects.create(pk=number, username="somebody else")
    assert erase_again() == 0


def test_one_erases_oneself_in_all_squads(world: World) -> None:
    user = world.users["athlete"]
    Membership.objects.create(user=user, squad=world.foreign.squad, role=Role.ATHLETE)
    Person.objects.create(squad=world.foreign.squad, name=NAME, user=user)
    assert world.send("athlete", "POST", "/account/erase", {"password": "a-long-password"}).status_code == 204
    assert NAME not in everything()
    assert len([kind for kind, _ in erased_ids() if kind == "person"]) == 2


def test_what_only_holds_the_letters_of_an_account_stays(world: World) -> None:
    user = world.users["athlete"]
    user.username = "a"
    user.save()
    kept = [
        ("changed the plan", "entry-changed", "Saddle ridge, 2026-12-07"),
        ("another", "joined", "ada, coach"),
        ("methods", "methods-changed", "a"),
    ]
    for _, act, about in kept:
        Record.objects.create(squad=world.squad, act=act, about=about)
        Record.objects.create(squad=world.foreign.squad, act=act, about=about)
    for about in ("a", "a, athlete"):
        Record.objects.create(squad=world.squad, act="joined", about=about)
    Notice.objects.create(user=world.users["head"], kind="accepted", about="ada, coach of Thornlow Ridge")
    Notice.objects.create(user=world.users["head"], kind="accepted", about="a, athlete of Thornlow Ridge")
    assert world.send("head", "POST", f"{path_of(world.known.own)}/erase", {}).status_code == 204
    for squad, gone in ((world.squad, 2), (world.foreign.squad, 0)):
        abouts = list(squad.records.values_list("about", flat=True))
        assert {about for _, _, about in kept} <= set(abouts)
        assert abouts.count("a former member") == gone
    assert list(Notice.objects.values_list("about", flat=True)) == ["ada, coach of Thornlow Ridge"]


def test_who_erases_themselves_goes_from_texts_too(world: World) -> None:
    texts(world)
    assert world.send("athlete", "POST", "/account/erase", {"password": "a-long-password"}).status_code == 204
    assert Entry.objects.get(day=date(2026, 12, 7)).notes == "ask …"


def test_a_broken_line_of_the_erased_is_left_out(world: World) -> None:
    current_installation().erased.write_text("person\nperson 0123 2026-01-01\nrubbish x y\nacc")
    assert list(erased_ids()) == [("person", "0123")]
    current_installation().erased.unlink()
    assert list(erased_ids()) == []
