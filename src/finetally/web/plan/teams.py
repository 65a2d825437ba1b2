"""Even teams for one day: whoever is expected at an entry, dealt by pace or by lot."""

from __future__ import annotations

import secrets
from uuid import UUID

from django.db import transaction

from finetally.core.people.teams import Paced, SplitBy, even_teams
from finetally.web.people.pace import pace_in_use
from finetally.web.people.people import known_people
from finetally.web.plan.entries import attendance_of, entry_named, the_entry, wrong
from finetally.web.plan.models import TeamPlace
from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Act
from finetally.web.squads.record import record

MOST_TEAMS = 20


def split(actor: Actor, entry_id: UUID, count: int, by: SplitBy) -> None:
    """Split everybody who is expected into `count` teams; 0 takes a split back. Raises DocumentError."""
    with transaction.atomic():
        entry = the_entry(actor, entry_id)
        expected = attendance_of(actor, entry_id)
        there = [one.person for one in expected if one.comes]
        if not 0 <= count <= min(MOST_TEAMS, len(there)):
            raise wrong("count", str(count), f"0 to {min(MOST_TEAMS, len(there))}: there are {len(there)} people")
        entry.team_places.all().delete()
        known = known_people(entry.squad).filter(pk__in=[one.pk for one in there])
        methods = entry.squad.methods_value()
        paced = [Paced(one.pk, pace_in_use(one, methods).pace_factor) for one in known]
        teams = even_teams(paced, count, by, seed=secrets.randbits(32)) if count else []
        TeamPlace.objects.bulk_create(
            TeamPlace(entry=entry, person_id=key, team=number)
            for number, team in enumerate(teams, start=1)
            for key in team
        )
        record(actor, entry.squad_id, Act.SPLIT, entry_named(entry))


def teams_of(entry_id: UUID) -> dict[int, int]:
    """The team of each person (by key) at an entry, where it is split. For callers that may see the entry."""
    return dict(TeamPlace.objects.filter(entry_id=entry_id).values_list("person_id", "team"))
