"""How fresh people say they are: one scale, asked only where a coach switched it on; for coaches."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date

from finetally.core.learn.scale import FRESH_WORDS
from finetally.core.session.problems import refuse
from finetally.web.people.models import Freshness
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of


def say_fresh(person: Person, day: date, value: int) -> None:
    """Keep how fresh somebody is on a day; said again it is corrected. Raises DocumentError."""
    low, high = FRESH_WORDS[0].value, FRESH_WORDS[-1].value
    if not low <= value <= high:
        raise refuse(("value",), str(value), f"{low} to {high}", "bounds")
    if not person.squad.asks_freshness:
        raise refuse(("value",), str(value), "a squad that asks for it", "cannot_health")
    if person.keeps_little:
        raise refuse(("value",), str(value), "this once a guardian agreed", "cannot_under_age")
    Freshness.objects.update_or_create(person=person, day=day, defaults={"value": value})


def fresh_on(people: Iterable[int], day: date) -> dict[int, int]:
    """What some people (by key) said of a day. One query."""
    return dict(Freshness.objects.filter(person__in=list(people), day=day).values_list("person", "value"))


def forget_freshness(squad: Squad, before: date) -> int:
    """Drop what a squad's people said before a day. Returns how many."""
    return Freshness.objects.filter(person__squad=squad, day__lt=before).delete()[0]


def fresh_today(person: Person) -> bool:
    """Whether somebody said so today; what they said stays with their coaches."""
    return person.freshness.filter(day=today_of(person.squad)).exists()
