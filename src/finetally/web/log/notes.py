"""Notes of the log: what hurt, what to remember; notes of health stand until lifted, and are forgotten in time."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from finetally.core.log.notes import HEALTH_KINDS, NOTE_KINDS
from finetally.core.session.cleaning import cleaned
from finetally.core.session.problems import refuse, shown
from finetally.web.floor.models import FloorEvent
from finetally.web.log.models import LogNote
from finetally.web.log.seeing import looker_at, person_of
from finetally.web.people.freshness import forget_freshness
from finetally.web.people.people import the_person
from finetally.web.plan.entries import entry_named
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of

LONGEST_LOG_NOTE = 2000
NOTE_SIDES = ("", "left", "right", "both")
MOST_NOTES = 200
"""Notes of one entry."""
MOST_OWN_NOTES = 20
"""Notes that somebody who does not plan writes of one entry: the others' room is not theirs to fill."""
MONTH = timedelta(days=30.4375)


@dataclass(frozen=True, slots=True)
class NoteWish:
    """A note as it is written: of whom (None: of the session), of what kind, where it hurts, how much (0 to 10)."""

    person: UUID | None
    kind: str
    text: str = ""
    place: str = ""
    side: str = ""
    level: int | None = None


def write_note(actor: Actor, entry_id: UUID, wish: NoteWish) -> LogNote:
    """Write a note. For those who plan, and of oneself. Of health only where the squad asks for it.

    Raises DocumentError.
    """
    looker = looker_at(actor, entry_id)
    entry = looker.entry
    person = person_of(looker, wish.person)
    if wish.kind not in NOTE_KINDS:
        raise refuse(("kind",), shown(wish.kind), ", ".join(NOTE_KINDS), "kind")
    if wish.kind in HEALTH_KINDS:
        if not entry.squad.asks_health:
            raise refuse(
                ("kind",), wish.kind, "notes of health once a head coach switched them on", "cannot_health"
            )
        if person is not None and person.keeps_little:
            raise refuse(("kind",), wish.kind, "notes of health once a guardian agreed", "cannot_under_age")
    if wish.side not in NOTE_SIDES or (wish.level is not None and not 0 <= wish.level <= 10):
        raise refuse(("level",), f"{wish.side} {wish.level}", "left, right or both; 0 to 10", "bounds")
    text = cleaned(wish.text).strip()
    if len(text) > LONGEST_LOG_NOTE or len(wish.place) > 40:
        raise refuse(("text",), f"{len(text)} characters", f"up to {LONGEST_LOG_NOTE}", "too_long")
    with transaction.atomic():
        if entry.log_notes.count() >= MOST_NOTES:
            raise refuse(("text",), f"{MOST_NOTES} notes", "fewer at one session", "too_many")
        if not looker.plans and entry.log_notes.filter(person=person).count() >= MOST_OWN_NOTES:
            raise refuse(("text",), f"{MOST_OWN_NOTES} notes", "fewer of yours at one session", "too_many")
        made = LogNote.objects.create(
            entry=entry, person=person, kind=wish.kind, text=text, place=cleaned(wish.place).strip(),
            side=wish.side, level=wish.level, user_id=actor.user_id,
        )  # fmt: skip
        record(actor, entry.squad_id, Act.NOTED, entry_named(entry))
    return made


def lift_note(actor: Actor, note_id: int) -> None:
    """A note of pain or dizziness stands no more. For those who plan, and for the person."""
    with transaction.atomic():
        found = LogNote.objects.filter(entry__squad_id__in=actor.squads(), entry__removed_at=None).select_related(
            "entry__squad", "person"
        )
        note = get_object_or_404(found, pk=note_id)
        if note.person is not None:
            the_person(actor, note.person.public_id)
        else:
            actor.require(note.entry.squad_id, Right.PLAN)
        note.lifted_on = today_of(note.entry.squad)
        note.save(update_fields=["lifted_on"])
        record(actor, note.entry.squad_id, Act.NOTE_LIFTED, entry_named(note.entry))


def forget_notes() -> int:
    """Empty notes of health that are older than their squads keep them; only that they were stays.

    How fresh people said they were goes with them. Returns how many notes.
    """
    count = 0
    for squad in Squad.objects.all():
        before = timezone.now() - squad.notes_months * MONTH
        old = LogNote.objects.filter(entry__squad=squad, kind__in=HEALTH_KINDS, emptied=False, at__lt=before)
        with transaction.atomic():
            for event in FloorEvent.objects.filter(
                pk__in=list(old.exclude(event=None).values_list("event", flat=True))
            ):
                event.event = {**event.event, "text": ""}
                event.save(update_fields=["event"])
            count += old.update(text="", place="", side="", level=None, emptied=True)
            forget_freshness(squad, before.date())
    return count
