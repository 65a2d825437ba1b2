"""Watch recordings: put to what somebody did of an entry; the curve can be deleted, its figures stay."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.core.log.pulse import clean_samples, curve_of, pulse_figures
from finetally.core.session.problems import refuse
from finetally.web.log.models import WatchRecording
from finetally.web.log.seeing import looker_at, person_of
from finetally.web.log.watch_files import read_recording
from finetally.web.people.people import the_person
from finetally.web.plan.entries import entry_named
from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Act
from finetally.web.squads.record import record


@dataclass(frozen=True, slots=True)
class WatchWish:
    """A recording: whose, as which file (`csv`, `tcx`), and the pulse at most and at rest."""

    person: UUID
    kind: str
    text: str
    max_hr: float
    rest_hr: float


def put_recording(actor: Actor, entry_id: UUID, wish: WatchWish) -> WatchRecording:
    """Keep a recording of somebody at an entry, in the place of another one. For those who plan, and of oneself.

    Only where the squad asks for health. Raises DocumentError.
    """
    looker = looker_at(actor, entry_id)
    person = person_of(looker, wish.person)
    if not looker.entry.squad.asks_health:
        raise refuse(("person",), "a pulse", "notes of health once a head coach switched them on", "cannot_health")
    if person is None or person.keeps_little:
        raise refuse(("person",), "a pulse", "a guardian's consent first", "cannot_under_age")
    samples = clean_samples(read_recording(wish.kind, wish.text))
    figures = pulse_figures(samples, wish.max_hr, wish.rest_hr)
    with transaction.atomic():
        made, _ = WatchRecording.objects.update_or_create(
            entry=looker.entry, person=person,
            defaults={"figures": figures, "curve": curve_of(samples, wish.max_hr), "user_id": actor.user_id},
        )  # fmt: skip
        record(actor, looker.entry.squad_id, Act.NOTED, entry_named(looker.entry))
    return made


def drop_curve(actor: Actor, recording_id: int) -> None:
    """Delete a recording's curve; its figures stay. For those who plan, and for the person."""
    with transaction.atomic():
        found = WatchRecording.objects.filter(
            entry__squad_id__in=actor.squads(), entry__removed_at=None
        ).select_related("person", "entry")
        one = get_object_or_404(found, pk=recording_id)
        the_person(actor, one.person.public_id)
        one.curve = None
        one.save(update_fields=["curve"])
        record(actor, one.entry.squad_id, Act.NOTED, entry_named(one.entry))
