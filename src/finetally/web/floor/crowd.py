"""Who stands on the floor: those expected, in the order in which they are dealt to stations."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from finetally.web.floor.models import FloorRun
from finetally.web.people.models import GroupPlace
from finetally.web.plan.entries import people_for
from finetally.web.plan.models import Entry
from finetally.web.plan.teams import teams_of
from finetally.web.squads.models import Person


@dataclass(frozen=True, slots=True)
class PersonPlaced:
    """Somebody with their team for the day, where the entry is split, and their group of the squad."""

    person: Person
    team: int | None
    group: str


def placed(entry: Entry, people: list[Person]) -> list[PersonPlaced]:
    """People team by team, then group by group, as those stay together at stations. Two queries."""
    teams = teams_of(entry.pk)
    keys = [one.pk for one in people]
    here = GroupPlace.objects.filter(person__in=keys, until=None).select_related("group").order_by("-group__name")
    groups = {one.person_id: one.group.name for one in here}
    found = [PersonPlaced(one, teams.get(one.pk), groups.get(one.pk, "")) for one in people]
    return sorted(found, key=lambda one: (one.team or 0, one.group, one.person.name))


@dataclass(frozen=True, slots=True)
class NameOnWall:
    """A short name for the wall, and the team it stands with."""

    name: str
    team: int | None


def names_here(run: FloorRun) -> list[NameOnWall]:
    """The short names of those who are at a run now, in the order of stations: who went away is not among them."""
    if run.entry is None:
        return []
    away: dict[UUID, bool] = {}
    for one in run.events.filter(event__do__in=("here", "away")).select_related("person"):
        if one.person is not None:
            away[one.person.public_id] = one.event["do"] == "away"
    people = [one for one in people_for(run.entry) if not away.get(one.public_id)]
    return [NameOnWall(one.person.on_the_wall, one.team) for one in placed(run.entry, people)]
