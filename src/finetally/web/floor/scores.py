"""Scores that were made before in the windows of an entry's session: the last one and the best of each person."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from finetally.core.learn.pace import better
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.log.windows import SCORE_NAMES, ScoredWindow, block_numbers, earlier_by_shape
from finetally.web.plan.models import Entry
from finetally.web.squads.models import Person

MOST_RUNS = 20
"""Earlier runs that are looked through."""

EventScore = Mapping[str, float]


@dataclass(frozen=True, slots=True)
class EarlierScore:
    """What somebody (`person` by id; None: the session's own score) made in a window: last, and at best."""

    person: UUID | None
    block: int
    section_pass: int
    index: int
    last: EventScore
    best: EventScore


def earlier_scores(entry: Entry) -> list[EarlierScore]:
    """Scores of earlier runs of the same session, in windows of blocks that it still has by id. Two queries."""
    if entry.session_id is None or entry.document is None:
        return []
    numbers = block_numbers(entry.document)
    runs = FloorRun.objects.filter(squad_id=entry.squad_id, entry__session_id=entry.session_id)
    runs = runs.filter(entry__removed_at=None)
    earlier = list(runs.exclude(entry=entry).order_by("-begun_at")[:MOST_RUNS])
    events: dict[UUID, list[FloorEvent]] = {run.pk: [] for run in earlier}
    for event in FloorEvent.objects.filter(run__in=earlier, event__do="score").select_related("person"):
        events[event.run_id].append(event)
    found: dict[tuple[Any, ...], EarlierScore] = {}
    for run in reversed(earlier):
        if not events[run.pk]:
            continue
        titles = {number: ident for ident, number in block_numbers(run.document).items()}
        for (person, old, section_pass, index), score in _of_run(events[run.pk]).items():
            number = numbers.get(titles.get(old, ""))
            if number is None:
                continue
            key = person, number, section_pass, index
            known = found.get(key)
            fresh = EarlierScore(person, number, section_pass, index, score, score)
            found[key] = fresh if known is None else replace(known, last=score, best=better(known.best, score))
    return list(found.values())


def scores_of_shape(entry: Entry, windows: Iterable[ScoredWindow]) -> list[EarlierScore]:
    """What the squad's people made before in windows of the same shapes, whatever session they were in. Two
    queries.
    """
    known = list(windows)
    people = dict(Person.objects.filter(squad=entry.squad_id).values_list("pk", "public_id"))
    made = earlier_by_shape(list(people), {one.shape for one in known}, entry.day)
    return [
        EarlierScore(people[person], one.block, one.section_pass, one.place, there.last, there.best)
        for (person, shape), there in made.items()
        for one in known
        if one.shape == shape
    ]


def earlier_of(entry: Entry, windows: Iterable[ScoredWindow]) -> list[EarlierScore]:
    """The last score and the best in each window: of the same shape, else of the same session's runs."""
    of_shape = scores_of_shape(entry, windows)
    told = {(one.person, one.block, one.section_pass, one.index) for one in of_shape}
    of_session = earlier_scores(entry)
    return [
        *of_shape,
        *(one for one in of_session if (one.person, one.block, one.section_pass, one.index) not in told),
    ]


def _of_run(events: list[FloorEvent]) -> dict[tuple[UUID | None, int, int, int], EventScore]:
    """The scores of one run; of several for the same window the last one given."""
    scores: dict[tuple[UUID | None, int, int, int], EventScore] = {}
    for one in events:
        event = one.event
        if "person" in event:  # of a team: who was in it is not known any more
            continue
        person = one.person.public_id if one.person is not None else None
        score = {key: event[key] for key in SCORE_NAMES if event.get(key) is not None}
        if score:
            scores[person, int(event["block"]), int(event.get("pass", 0)), int(event.get("index", 0))] = score
    return scores
