"""What people's scores and ratings teach, kept beside them; whether it is used, and by whose word."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID

from django.db import transaction

from finetally.core.learn.learned import (
    NOTHING_LEARNED,
    EffortSeen,
    Learned,
    LearnedWhy,
    PaceSeen,
    learned,
    why_learned,
)
from finetally.core.learn.off import OffCourse, off_course
from finetally.core.session.problems import refuse, shown
from finetally.web.log.models import LearnedPace, Rating, RatingWay, Result
from finetally.web.people.pace import PaceInUse, pace_in_use
from finetally.web.people.people import the_person
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

TELLS_FOR = timedelta(weeks=8)
"""Scores of longer ago do not tell that the estimates of today are off."""


def paces_seen(people: Iterable[int], since: date) -> dict[int, list[PaceSeen]]:
    """The pace factors that are kept of some people from a day on, in order of time. One query."""
    found: dict[int, list[PaceSeen]] = {key: [] for key in people}
    results = Result.objects.filter(
        person__in=found, used=True, factor__isnull=False, entry__day__gte=since, entry__removed_at=None
    ).order_by("entry__day", "id")
    for key, day, factor in results.values_list("person", "entry__day", "factor"):
        if key is not None and factor is not None:
            found[key].append(PaceSeen(day, factor))
    return found


def seen_of(people: Iterable[int]) -> dict[int, tuple[list[PaceSeen], list[EffortSeen]]]:
    """The pace factors and ratings that are kept of some people, in order of time. Two queries."""
    found: dict[int, tuple[list[PaceSeen], list[EffortSeen]]] = {key: ([], []) for key in people}
    results = Result.objects.filter(person__in=found, used=True, factor__isnull=False, entry__removed_at=None)
    for key, day, factor in results.order_by("entry__day", "id").values_list("person", "entry__day", "factor"):
        if key is not None and factor is not None:
            found[key][0].append(PaceSeen(day, factor))
    ratings = Rating.objects.filter(person__in=found, estimated__isnull=False, entry__removed_at=None)
    ratings = ratings.exclude(way=RatingWay.GROUP)
    rows = ratings.order_by("entry__day", "id").values_list("person", "entry__day", "effort", "estimated")
    for key, day, rated, estimated in rows:
        if key is not None and estimated is not None:
            found[key][1].append(EffortSeen(day, rated, estimated))
    return found


def relearn(squad: Squad, people: Iterable[int]) -> None:
    """Keep what the scores and ratings of some people of a squad teach, as of today. Planned copies never move."""
    today, methods = today_of(squad), squad.methods_value()
    for key, (paces, efforts) in seen_of(people).items():
        made = learned(paces, efforts, as_of=today, methods=methods)
        LearnedPace.objects.update_or_create(
            person_id=key,
            defaults={
                "pace_factor": made.pace_factor, "spread": made.spread, "scores": made.scores,
                "effort_offset": made.effort_offset, "ratings": made.ratings, "as_of": today,
            },
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class LearnedHere:
    """What is learned of a person: in use or not, its arithmetic, and whether estimates are off course."""

    person: Person
    value: Learned
    in_use: PaceInUse
    use: str
    why: LearnedWhy
    off: OffCourse | None


def learned_here(person: Person) -> LearnedHere:
    """What somebody's log teaches as of the day it was last made. Two queries where the person came with theirs."""
    methods = person.squad.methods_value()
    kept = getattr(person, "learned_pace", None)
    paces, efforts = seen_of([person.pk])[person.pk]
    as_of = kept.as_of if kept is not None and kept.as_of is not None else today_of(person.squad)
    used = pace_in_use(person, methods)
    return LearnedHere(
        person,
        kept.value if kept is not None else NOTHING_LEARNED,
        used,
        kept.use if kept is not None else "",
        why_learned(paces, efforts, as_of=as_of, methods=methods),
        off_course(paces, used.pace_factor, used.spread),
    )


def use_learned(actor: Actor, person_id: UUID, use: str) -> Person:
    """Use what is learned of somebody, or put it back; empty: as the squad has it. For those who plan.

    Raises DocumentError.
    """
    if use not in ("", "yes", "no"):
        raise refuse(("use",), shown(use), "yes, no, or nothing", "use")
    with transaction.atomic():
        person = the_person(actor, person_id)
        actor.require(person.squad_id, Right.PLAN)
        LearnedPace.objects.update_or_create(person=person, defaults={"use": use})
        record(actor, person.squad_id, Act.PACE_PUT_BACK if use == "no" else Act.PACE_USED, person=person)
    return person


def set_learning(actor: Actor, squad_id: int | None, learning: str) -> Squad:
    """Let estimates learn as scores come ("auto"), or have it asked each time ("ask"). For those who plan.

    Raises DocumentError.
    """
    if learning not in ("auto", "ask"):
        raise refuse(("learning",), shown(learning), "auto or ask", "learning")
    with transaction.atomic():
        squad = squad_for(actor, squad_id, Right.PLAN)
        squad.learning = learning
        squad.save(update_fields=["learning"])
        record(actor, squad.pk, Act.SQUAD_CHANGED, "way of learning")
    return squad
