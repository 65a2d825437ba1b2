"""A squad with one member of each role, a neighbour squad, and clients signed in as each."""

from __future__ import annotations

import contextlib
import json
import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import date, timedelta
from functools import cached_property
from hashlib import sha256
from typing import Any

import pytest
from django.conf import settings
from django.contrib.auth import get_user_model
from django.http import HttpResponse
from django.test import Client
from django.test.client import ClientHandler
from django.utils import timezone

from finetally.core.log.pulse import pulse_figures
from finetally.web.accounts.models import Invitation
from finetally.web.accounts.tokens import token_hash
from finetally.web.api.checkin import COOKIE
from finetally.web.checkin.models import CheckInDevice, CheckInLink
from finetally.web.floor.models import FloorEvent, FloorRun, WallScreen
from finetally.web.jobs.models import Job
from finetally.web.log.models import LogNote, Result, WatchRecording
from finetally.web.people.models import Group, Limit, Maximum
from finetally.web.people.people import person_version
from finetally.web.plan.entries import attendance_version, day_version
from finetally.web.plan.models import Attendance, Away, Change, Day, Entry, Link, Phase
from finetally.web.plan.summaries import summarise
from finetally.web.squads.actor import member
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Membership, Person, Role, Squad
from finetally.web.squads.settings import settings_version
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import methods_version
from finetally.web.training.models import Session, Shape
from finetally.web.training.use_cases import create_session

FEED_TOKEN = "the-squads-calendar"
WALL_TOKEN = "the-screen-on-the-wall"
WALL_CODE = "WALL22"
DEVICE = "a-phone-on-a-box"
OWN_TOKEN, OWN_COOKIE = "somebodys-own-link", "their-phone"
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


CHAIN = ("_view_middleware", "_template_response_middleware", "_exception_middleware", "_middleware_chain")


@pytest.fixture(scope="session", autouse=True)
def one_chain() -> Iterator[None]:
    """Middleware is loaded once for all clients: each would look through all static files, half the time of a request.

    Where a test changes settings, its clients load their own.
    """
    load, plain = ClientHandler.load_middleware, settings._wrapped
    kept: dict[str, Any] = {}

    def load_once(self: ClientHandler, is_async: bool = False) -> None:
        if settings._wrapped is not plain:
            load(self, is_async)
            return
        if not kept:
            load(self, is_async)
            kept.update({name: getattr(self, name) for name in CHAIN})
        for name, value in kept.items():
            setattr(self, name, value)

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(ClientHandler, "load_middleware", load_once)
        yield


@dataclass
class Planned:
    """What stands in the plan of the squad: an entry, a phase, a change of it, a link."""

    entry: Entry
    person: Person
    phase: Phase
    change: Change
    link: Link
    job: Job
    away: Away


@dataclass
class Known:
    """What is known of people of the squad: the athlete's own person; a set and a limit of somebody else; a group, a
    member and an invitation."""

    own: Person
    maximum: Maximum
    limit: Limit
    group: Group
    member: Membership
    invitation: Invitation


@dataclass
class World:
    squad: Squad
    session: Session
    foreign: Session
    shape: Shape
    planned: Planned
    known: Known
    users: dict[str, Any] = field(default_factory=dict)

    @cached_property
    def floor(self) -> OnTheFloor:
        """What is on the floor; made when a test first asks for it."""
        return on_the_floor(self.squad)

    @cached_property
    def logbook(self) -> Logbook:
        """What is in the log; made when a test first asks for it."""
        return in_the_log(self.squad, self.planned.person)

    @cached_property
    def own_device(self) -> CheckInDevice:
        """The phone that opened the own link of the athlete, who has an account as well."""
        now = timezone.now()
        link = CheckInLink.objects.create(
            person=self.known.own, token_hash=token_hash(OWN_TOKEN), expires_at=now + timedelta(days=90)
        )
        return CheckInDevice.objects.create(
            link=link, cookie_hash=token_hash(OWN_COOKIE), called="Chrome, Android", used_at=now
        )

    def group(self, name: str) -> int:
        """The number of the squad's group of that name, made where there is none."""
        return int(Group.objects.get_or_create(squad=self.squad, name=name)[0].pk)

    def client(self, who: str | None) -> Client:
        client = Client()
        if who == "wall":
            assert self.floor.screen.pk
            client = Client(headers={"X-Wall": WALL_TOKEN})
        elif who == "link":
            assert client.get(f"/feeds/{FEED_TOKEN}.ics").status_code == 200
        elif who == "own":
            assert self.own_device.pk
            client.cookies[COOKIE] = OWN_COOKIE
        elif who is not None:
            client.force_login(self.users[who])
        return client

    def send(self, who: str | None, method: str, path: str, body: Any = None) -> Any:
        path, body = seen(method, path, body)
        data = "" if body is None else body if isinstance(body, str) else json.dumps(body)
        answer: Any = self.client(who).generic(method, f"/api{path}", data, content_type="application/json")
        if not answer.streaming:
            return answer
        with contextlib.closing(answer):
            return HttpResponse(answer.getvalue(), status=answer.status_code, headers=dict(answer.headers))


def seen(method: str, path: str, body: Any) -> tuple[str, Any]:
    """The request with the version that stands, as a browser that looked just now would name it."""
    if re.fullmatch(r"/(people|squads)/[^/]+/(erase|export)", path):
        return path, {"password": "a-long-password", **(body or {})}
    if not isinstance(body, dict) and method != "DELETE":
        return path, body
    entry = re.fullmatch(r"/plan/entries/([\w-]{36})", path)
    if entry and method in ("PATCH", "DELETE"):
        version = Entry.objects.filter(pk=entry[1]).values_list("sequence", flat=True).first() or 0
        return (f"{path}?version={version}", body) if method == "DELETE" else (path, {"version": version, **body})
    if method == "PUT" and path.startswith("/plan/days/"):
        squad = body.get("squad")
        found = Day.objects.filter(day=path[-10:], **({"squad": squad} if squad else {})).first()
        return path, {"version": day_version(found), **body}
    came = re.fullmatch(r"/plan/entries/([\w-]{36})/attendance", path)
    if came and method == "PUT":
        own = Attendance.objects.filter(entry=came[1], person__public_id=body["person"]).first()
        return path, {"version": attendance_version(own), **body}
    settings = re.fullmatch(r"/squads/(\d+)/settings", path)
    if settings and method == "PATCH":
        squad = Squad.objects.filter(pk=settings[1]).first()
        return path, {"version": settings_version(squad) if squad else "", **body}
    person = re.fullmatch(r"/people/([\w-]{36})", path)
    if person and method == "PATCH":
        who = Person.objects.filter(public_id=person[1]).first()
        return path, {"version": person_version(who) if who else "", **body}
    methods = re.fullmatch(r"/squads/(\d+)/methods", path)
    if methods and method == "PATCH":
        squad = Squad.objects.filter(pk=methods[1]).first()
        return path, {"version": methods_version(squad) if squad else "", **body}
    return path, body


@pytest.fixture(autouse=True)
def jobs_at_once(settings: Any) -> None:
    """A job is done where it is asked for; who takes it otherwise is tested with the real server."""
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.immediate.ImmediateBackend"}}


@pytest.fixture(autouse=True)
def quick_passwords(settings: Any) -> None:
    """The real hasher takes a fifth of a second on purpose; no test is about it."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


def planned(squad: Squad) -> Planned:
    """Far from the days that tests plan on."""
    far = date(2030, 1, 7)
    entry = Entry.objects.create(squad=squad, day=far, title="Hike", minutes=60, effort=3, summary={"load": 180})
    phase = Phase.objects.create(squad=squad, begins=far, weeks=1, kind="hold", load_low=1, load_high=2)
    item = {"entry": str(entry.pk), "title": "Hike", "what": "moves", "undone": False}
    days = {"day": far.isoformat(), "day_before": far.isoformat()}
    change = Change.objects.create(squad=squad, items=[{**item, **days}])
    link = Link.objects.create(squad=squad, name="Squad", token_hash=sha256(FEED_TOKEN.encode()).hexdigest())
    person = Person.objects.create(squad=squad, name="Somebody")
    answer = {"edits": [], "titles": {}}
    asked = {"day": far.isoformat(), "changes": {}, "gone": False, "today": far.isoformat()}
    job = Job.objects.create(
        squad=squad, kind="level", shared=True, state="done", asked=asked, answer=answer, file=b"%PDF-",
        file_name="card.pdf", file_type="application/pdf", private={"versions": {}, "sessions": []},
    )  # fmt: skip
    away = Away.objects.create(squad=squad, first=date(2030, 2, 1), last=date(2030, 2, 7))
    return Planned(entry, person, phase, change, link, job, away)


@dataclass
class OnTheFloor:
    """An entry that can be run, a run of it, a screen that shows it."""

    to_run: Entry
    run: FloorRun
    screen: WallScreen


def on_the_floor(squad: Squad) -> OnTheFloor:
    """An entry with a session, a run of it that began a minute ago, a screen that shows it; another screen waits."""
    document = {**DOCUMENT, "title": "Windows"}
    now = timezone.now()
    entry = Entry(squad=squad, day=date(2030, 1, 8), title="Windows", document=document)
    summarise(document, context_of(squad)).put(entry)
    entry.save()
    run = FloorRun.objects.create(
        squad=squad, entry=entry, day=now.date(), title="Windows", document=document, begun_at=now
    )
    FloorEvent.objects.create(run=run, device=DEVICE, number=0, event={"t": 0, "do": "start"})
    until = now + timedelta(hours=2)
    screen = WallScreen.objects.create(squad=squad, token_hash=token_hash(WALL_TOKEN), until=until)
    WallScreen.objects.create(token_hash=token_hash("another"), code_hash=token_hash(WALL_CODE), until=until)
    return OnTheFloor(entry, run, screen)


AMRAP: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Window",
    "blocks": [
        {"id": "w", "clock": {"kind": "amrap", "window_s": 240}, "steps": [{"movement": "burpee", "reps": 5}]},
    ],
}


PULSE = pulse_figures([(0, 120), (10, 171)], 190, 60)


@dataclass
class Logbook:
    """An entry of today, with a score, a note and the pulse of somebody; the squad asks for health."""

    entry: Entry
    result: Result
    note: LogNote
    recording: WatchRecording


def in_the_log(squad: Squad, person: Person) -> Logbook:
    """An entry of today that is not logged yet; of somebody a score in it, and a note."""
    entry = Entry(squad=squad, day=today_of(squad), title="Window", document=AMRAP)
    summarise(AMRAP, context_of(squad)).put(entry)
    entry.save()
    result = Result.objects.create(entry=entry, person=person, block=0, score={"rounds": 8, "reps": 0}, way="typed")
    Squad.objects.filter(pk=squad.pk).update(asks_health=True)
    note = LogNote.objects.create(entry=entry, person=person, kind="free", text="new shoes")
    recording = WatchRecording.objects.create(entry=entry, person=person, figures=PULSE, curve=None)
    return Logbook(entry, result, note, recording)


def known(squad: Squad, planned: Planned, athlete: Any) -> Known:
    other = get_user_model().objects.create_user("other", password="a-long-password")
    return Known(
        Person.objects.create(squad=squad, name="Tamsin Arkwell", user=athlete),
        Maximum.objects.create(person=planned.person, movement="bench-press", kg=60, reps=5, day=date(2026, 11, 2)),
        Limit.objects.create(person=planned.person, joint="wrist", first=date(2026, 11, 2), note="since the fall"),
        Group.objects.create(squad=squad, name="South"),
        Membership.objects.create(user=other, squad=squad, role=Role.ATHLETE),
        Invitation.objects.create(
            squad=squad, role=Role.COACH, token_hash="1" * 64, expires_at=timezone.now() + timedelta(days=7)
        ),
    )


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
    users["both"] = get_user_model().objects.create_user("both", password="a-long-password")
    Membership.objects.create(user=users["both"], squad=squad, role=Role.COACH)
    Membership.objects.create(user=users["both"], squad=other, role=Role.HEAD_COACH)
    users["nobodys"] = get_user_model().objects.create_user("nobodys", password="a-long-password")
    session = create_session(member(users["head"].pk), squad.pk, DOCUMENT)
    foreign = create_session(member(users["stranger"].pk), other.pk, DOCUMENT)
    shape = Shape.objects.create(squad=squad, name="Short bursts", key="even-intervals")
    plan = planned(squad)
    return World(squad, session, foreign, shape, plan, known(squad, plan, users["athlete"]), users)
