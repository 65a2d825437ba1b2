"""The demo squad: Thornlow Ridge, an invented mountain-rescue squad. Every name and number is made up."""

from __future__ import annotations

import json
from importlib import resources
from typing import Any

from django.contrib.auth import get_user_model
from django.db import transaction

from finetally.web.people.models import Maximum
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


@transaction.atomic
def load_demo() -> None:
    """Make the demo squad with its accounts, people and sessions; does nothing where it is there already."""
    if Squad.objects.filter(name=SQUAD).exists():
        return
    squad = Squad.objects.create(name=SQUAD, time_zone="Europe/London")
    users = {}
    for name, role in ACCOUNTS:
        users[name] = get_user_model().objects.create_user(name, password=PASSWORD)
        Membership.objects.create(user=users[name], squad=squad, role=role)
    for index, name in enumerate(PEOPLE):
        owner = users[ACCOUNTS[index][0]] if index < len(ACCOUNTS) else None
        lifts = {key: round(kg * (0.8 + 0.03 * index), 1) for key, kg in ONE_RM.items()}
        person = Person.objects.create(squad=squad, user=owner, name=name, body_kg=62 + 2.5 * (index % 9))
        for key, kg in lifts.items():
            Maximum.objects.create(person=person, movement=key, kg=kg)
    actor = member(users["marit"].pk)
    for document in demo_documents():
        create_session(actor, squad.pk, document)


def demo_documents() -> list[dict[str, Any]]:
    """The demo's sessions, by the names of their files."""
    files = sorted(resources.files("finetally").joinpath("data/demo").iterdir(), key=lambda f: f.name)
    return [json.loads(file.read_text("utf-8")) for file in files]


def is_loaded() -> bool:
    """Whether there is anything in the database."""
    return Session.objects.exists()
