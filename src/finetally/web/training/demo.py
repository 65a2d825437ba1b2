"""The demo squad: Thornlow Ridge, an invented mountain-rescue squad. Every name and number is made up."""

from __future__ import annotations

import json
from datetime import date, timedelta
from importlib import resources
from typing import Any

from django.contrib.auth import get_user_model
from django.db import transaction

from finetally.web.people.models import Group, GroupMark, GroupPlace, Limit, Maximum
from finetally.web.squads.actor import member
from finetally.web.squads.models import Membership, Person, Role, Squad
from finetally.web.training.models import Session
from finetally.web.training.use_cases import create_session

SQUAD = "Thornlow Ridge"
PASSWORD = "ridge-winter-8420"
ACCOUNTS = (("marit", Role.HEAD_COACH), ("osk", Role.COACH), ("tamsin", Role.ATHLETE))
PEOPLE = (
    "Marit Halvorsen-Pike", "Osk Brannock", "Tamsin Arkwell", "Ludo Fenwether", "Ines Korrigan",
    "Bram Tullivant", "Saoirse Mapleby", "Yusuf Dellacourt", "Greta Ashmoor", "Piotr Lanternsby",
    "Noor Wexcombe", "Callum Strathvane", "Hedda Quillfeather", "Jonah Merribeck",
)  # fmt: skip
ONE_RM = {"barbell-deadlift": 120, "barbell-back-squat": 95, "bench-press": 70}


KIT = {
    "barbell": 8, "box": 14, "dumbbell": 28, "kettlebell": 28, "loaded pack": 14, "pull-up bar": 6, "sandbag": 8,
}  # fmt: skip
EMERGENCY = (
    "First-aid kit and defibrillator: by the hall door. Ambulance: say Ridge Hall, Quarry Lane. "
    "The duty leader is told of every accident."
)
GROUPS = {"Carry team": (0, 1, 3, 5, 7, 9, 11, 13), "Rope team": (2, 4, 6, 8, 10, 12)}
LIMITS = (
    (5, {"joint": "ankle", "side": "left", "note": "Rolled on scree in October; level ground is fine."}),
    (11, {"movement": "burpee"}),
)
"""Who (by their place in PEOPLE) is to be spared what; made up, as everything here."""


@transaction.atomic
def load_demo() -> None:
    """Make the demo squad with its accounts, people and sessions; does nothing where it is there already."""
    if Squad.objects.filter(name=SQUAD).exists():
        return
    squad = Squad.objects.create(name=SQUAD, time_zone="Europe/London", kit=KIT, emergency=EMERGENCY)
    users = {}
    for name, role in ACCOUNTS:
        users[name] = get_user_model().objects.create_user(name, password=PASSWORD)
        Membership.objects.create(user=users[name], squad=squad, role=role)
    _people(squad, users)
    actor = member(users["marit"].pk)
    for document in demo_documents():
        create_session(actor, squad.pk, document)


def _people(squad: Squad, users: dict[str, Any]) -> None:
    people = []
    for index, name in enumerate(PEOPLE):
        owner = users[ACCOUNTS[index][0]] if index < len(ACCOUNTS) else None
        person = Person.objects.create(
            squad=squad, user=owner, name=name, short_name=name.split()[0], body_kg=62 + 2.5 * (index % 9)
        )
        people.append(person)
        for key, kg in ONE_RM.items():
            reps = 1 if index % 3 else 5
            heavy = round(kg * (0.8 + 0.03 * index) * (1 if reps == 1 else 0.86), 1)
            Maximum.objects.create(
                person=person, movement=key, kg=heavy, reps=reps, day=date.today() - timedelta(days=40)
            )
    for number, (name, places) in enumerate(GROUPS.items()):
        group = Group.objects.create(squad=squad, name=name, mark=GroupMark.values[2 * number])
        GroupPlace.objects.bulk_create(GroupPlace(group=group, person=people[place]) for place in places)
    for place, spared in LIMITS:
        Limit.objects.create(person=people[place], first=date.today() - timedelta(days=20), **spared)


def demo_documents() -> list[dict[str, Any]]:
    """The demo's sessions, by the names of their files."""
    files = sorted(resources.files("finetally").joinpath("data/demo").iterdir(), key=lambda f: f.name)
    return [json.loads(file.read_text("utf-8")) for file in files]


def is_loaded() -> bool:
    """Whether there is anything in the database."""
    return Session.objects.exists()
