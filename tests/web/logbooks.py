"""A year of a squad's log, made at once: so many people, sessions a week, weeks; each came, scored and rated."""

from __future__ import annotations

from datetime import timedelta

from finetally.core.session.reading import parse_session
from finetally.core.unfold.unfold import blocks_of
from finetally.web.log.models import LearnedPace, LoggedEntry, Rating, Result
from finetally.web.log.windows import block_shape
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import summarise
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of
from tests.web.conftest import AMRAP, World

MOVEMENTS = {"burpee": {"visits": 8, "called": 0, "paced": 40, "estimated": 0, "kg": 0.0}}
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
        LoggedEntry(entry=one, how="planned", summary=made.summary, movements=MOVEMENTS) for one in entries
    )
    pairs = [(entry, person) for entry in entries for person in everybody]
    Result.objects.bulk_create(
        Result(
            entry=entry, person=person, block=0, score=BLOCK, way="typed", shape=shape, factor=1.0 + (n % 7) / 50,
            predicted=PREDICTED, key="k",
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
