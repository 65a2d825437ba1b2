"""Phones that open a person's own link: what they are let into, and what they say."""

from __future__ import annotations

import json
from datetime import datetime
from typing import Any
from uuid import uuid4

from django.test import Client
from django.utils import timezone

from finetally.web.plan.models import Entry
from finetally.web.plan.summaries import summarise
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of
from tests.web.conftest import World

BARS: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Bars",
    "blocks": [
        {
            "id": "w",
            "clock": {"kind": "amrap", "window_s": 240},
            "steps": [
                {
                    "id": "b",
                    "movement": "burpee",
                    "reps": 5,
                    "options": [{"label": "step back", "level": "easier", "movement": "air-squat"}],
                }
            ],
        },
    ],
}


def entry_of_today(world: World, **more: Any) -> Entry:
    entry = Entry(squad=world.squad, day=today_of(world.squad), title="Bars", document=BARS, **more)
    summarise(BARS, context_of(world.squad)).put(entry)
    entry.save()
    return entry


def made_link(world: World, person: Person) -> str:
    """The token of a new link of somebody, as a coach gets it."""
    told = world.send("coach", "POST", f"/people/{person.public_id}/checkin").json()
    assert "/me#" in told["address"]
    return str(told["address"].partition("#")[2])


def opened(token: str, client: Client | None = None) -> tuple[Client, Any]:
    """A phone that opens a link, and the answer."""
    phone = client or Client(headers={"User-Agent": "Chrome on Android"})
    answer = phone.post("/api/checkin/open", json.dumps({"token": token}), content_type="application/json")
    return phone, answer


def said(phone: Client, *things: dict[str, Any], sent: datetime | None = None) -> Any:
    """What became of things that are said now, if nothing else is told. `sent`: the phone's clock."""
    now = timezone.now().isoformat()
    body: dict[str, Any] = {"said": [{"number": str(uuid4()), "at": now, **one} for one in things]}
    if sent is not None:
        body["sent"] = sent.isoformat()
    answer = phone.post("/api/checkin/say", json.dumps(body), content_type="application/json")
    assert answer.status_code == 200, answer.content
    return answer.json()


def page_of(phone: Client) -> Any:
    answer = phone.get("/api/checkin")
    assert answer.status_code == 200, answer.content
    return answer.json()
