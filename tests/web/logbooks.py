"""Ways to fill a squad's log: an entry, a run of it, scores, ratings; and a whole year of it at once."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from django.utils import timezone

from finetally.core.session.reading import parse_session
from finetally.core.unfold.unfold import blocks_of
from finetally.web.floor.models import FloorRun
from finetally.web.log.models import LearnedPace, LoggedEntry, Rating, Result
from finetally.web.log.windows import block_shape
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import inside, summarise
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of
from tests.web.conftest import AMRAP, World

REPS = {"called": 0, "paced": 40, "estimated": 0, "kg": 0.0}
MOVEMENTS = {"burpee": {**REPS, "visits": 8, "row": "squat", "landings": 40}}
BLOCKS = {"0": {"scores": 1, "movements": {"burpee": REPS}}}
BLOCK = {"rounds": 8, "reps": 2}
PREDICTED = {"expected": BLOCK, "least": BLOCK, "most": BLOCK, "pace_factor": 1.0, "spread": 0.1}


def a_year(world: World, people: int, each_week: int, weeks: int) -> list[Person]:
    """Fill the squad's log up to today; returns the people."""
    squad, today = world.squad, today_of(world.squad)
    Person.objects.bulk_create(Person(squad=squad, name=f"P{n:02}") for n in range(people))
    everybody = list(squad.people.filter(name__startswith="P"))
    made = summarise(AMRAP, context_of(squad))
    shape = block_shape(blocks_of(parse_session(AMRAP))[0].block)
    entries = []
    for n in range(each_week * weeks):
        day = today - timedelta(days=7 * (n // each_week) + n % each_week + 1)
        entry = Entry(squad=squad, day=day, title="Window", document=AMRAP, logged_minutes=4, logged_effort=6)
        made.put(entry)
        entries.append(entry)
    Entry.objects.bulk_create(entries)
    LoggedEntry.objects.bulk_create(
        LoggedEntry(entry=one, how="planned", summary=made.summary, movements=MOVEMENTS, blocks=BLOCKS)
        for one in entries
    )
    pairs = [(entry, person) for entry in entries for person in everybody]
    Result.objects.bulk_create(
        Result(
            entry=entry, person=person, block=0, score=BLOCK, way="typed", shape=shape, factor=1.0 + (n % 7) / 50,
            predicted=PREDICTED, key="k", format="rounds-against-the-clock", movement="burpee",
            counted={"burpee": {"reps": 42, "kg": 0.0}},
        )
        for n, (entry, person) in enumerate(pairs)
    )  # fmt: skip
    Rating.objects.bulk_create(
        Rating(entry=entry, person=person, effort=6, way="table", estimated=5.5, key="k") for entry, person in pairs
    )
    Attendance.objects.bulk_create(
        Attendance(entry=entry, person=person, minutes=4, effort=6) for entry, person in pairs
    )
    LearnedPace.objects.bulk_create(LearnedPace(person=one, scores=9) for one in everybody)
    return everybody


STEPS = [
    {"id": "b", "movement": "burpee", "reps": 5},
    {
        "id": "p",
        "movement": "push-up",
        "reps": 10,
        "options": [{"label": "knees", "level": "easier", "movement": "knee-push-up"}],
    },
]
PULL: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Ridge pull",
    "blocks": [
        {"id": "w", "title": "Window", "clock": {"kind": "amrap", "window_s": 360}, "steps": STEPS},
        {
            "id": "r",
            "title": "Swings",
            "clock": {"kind": "intervals", "work_s": 30, "rest_s": 30},
            "rounds": 4,
            "steps": [{"movement": "swing"}],
        },
    ],
}
DEVICE, TABLET = "a-phone-on-a-box", "a-tablet-on-a-box"


def an_entry(world: World, day: date | None = None, document: dict[str, Any] = PULL) -> Entry:
    """As the plan keeps it: with the definitions of its movements inside."""
    context = context_of(world.squad)
    whole = inside(document, context)
    entry = Entry(squad=world.squad, day=day or today_of(world.squad), title=document["title"], document=whole)
    summarise(whole, context).put(entry)
    entry.save()
    return entry


def a_run(world: World, entry: Entry, *events: dict[str, Any], device: str = DEVICE) -> FloorRun:
    """A run of it that was begun an hour ago, with what was sent from one device."""
    begun = timezone.now() - timedelta(hours=1)
    run = FloorRun.objects.create(
        squad=world.squad, entry=entry, day=entry.day, title=entry.title, document=entry.document, begun_at=begun,
        hold="never", user=world.users["coach"],
    )  # fmt: skip
    give(world, run, *events, device=device)
    return run


def give(world: World, run: FloorRun, *events: dict[str, Any], device: str = DEVICE, first: int = 0) -> None:
    sent = [{"device": device, "number": first + n, "event": one} for n, one in enumerate(events)]
    answer = world.send("coach", "POST", f"/floor/runs/{run.pk}/events", {"events": sent})
    assert answer.status_code == 200, answer.content


def page(world: World, entry: Entry, who: str = "coach") -> Any:
    answer = world.send(who, "GET", f"/log/entries/{entry.pk}")
    assert answer.status_code == 200, answer.content
    return answer.json()


def write(world: World, entry: Entry, *scores: dict[str, Any], who: str = "coach") -> Any:
    return world.send(who, "PUT", f"/log/entries/{entry.pk}/results", {"results": list(scores)})


def made(person: Person, rounds: int, reps: int, **more: Any) -> dict[str, Any]:
    return {"person": str(person.public_id), "block": 0, "score": {"rounds": rounds, "reps": reps}, **more}


def the_week(world: World, entry: Entry, person: Person | None = None) -> Any:
    of = f"&person={person.public_id}" if person is not None else ""
    return world.send("coach", "GET", f"/plan/week?day={entry.day}&squad={world.squad.pk}{of}").json()


START = {"t": 0, "do": "start"}


def rated(world: World, entry: Entry, person: Person | None, effort: float | None, who: str = "coach") -> Any:
    body = {"person": str(person.public_id) if person is not None else None, "effort": effort}
    return world.send(who, "PUT", f"/log/entries/{entry.pk}/rating", body)
