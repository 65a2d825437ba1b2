"""Who sees what of the log: those who plan all of it, others what was for them, and of it their own alone."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from django.http import Http404
from django.shortcuts import get_object_or_404

from finetally.web.people.people import own_person
from finetally.web.plan.entries import people_for, the_entry
from finetally.web.plan.models import Entry
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Person


@dataclass(frozen=True, slots=True)
class Looker:
    """Somebody who looks at an entry of the log. `only`: whose results they see; None: everybody's."""

    entry: Entry
    plans: bool
    own: Person | None

    @property
    def only(self) -> Person | None:
        """The one person whose results are shown; None where all are."""
        return None if self.plans else self.own


def looker_at(actor: Actor, entry_id: UUID) -> Looker:
    """The entry, for those who plan and for whom it is for. Raises Http404 for everybody else."""
    entry = the_entry(actor, entry_id, Right.LOOK)
    own = own_person(actor, entry.squad)
    plans = actor.may(entry.squad_id, Right.PLAN)
    if not plans and (own is None or own not in people_for(entry)):
        raise Http404
    return Looker(entry, plans, own)


def person_of(looker: Looker, person_id: UUID | None) -> Person | None:
    """Whom something is written of: anybody of the squad for those who plan, else oneself. Raises Http404."""
    if person_id is None:
        if not looker.plans:
            raise Http404
        return None
    person = get_object_or_404(Person, public_id=person_id, squad_id=looker.entry.squad_id)
    if not looker.plans and person != looker.own:
        raise Http404
    return person
