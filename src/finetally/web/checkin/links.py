"""A person's own link: made and ended by coaches, exchanged by a phone for a cookie of that phone."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, time, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

from django.db import transaction
from django.http import Http404
from django.shortcuts import get_object_or_404
from django.utils import timezone

from finetally.core.session.problems import refuse
from finetally.web.accounts.tokens import new_token, token_hash
from finetally.web.checkin.models import CheckInDevice, CheckInLink
from finetally.web.people.people import the_person
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of

LONGEST = timedelta(days=180)
"""A link holds so long, or until the season is over."""
MOST_DEVICES = 2
USED_AGAIN = timedelta(minutes=10)
"""When it was last used is written down no oftener: a phone that looks each minute writes nothing."""
LINK_OF_THE_YOUNG = "A check-in link for somebody under age once a head coach has noted that a guardian agreed."


def good_until(squad: Squad, now: datetime) -> datetime:
    """Until when a link that is made now is good: the end of the squad's last phase, 180 days at most."""
    last = now + LONGEST
    ends = [one.begins + timedelta(weeks=one.weeks) for one in squad.phases.all()]
    ahead = [day for day in ends if day > today_of(squad)]
    if not ahead:
        return last
    return min(last, datetime.combine(max(ahead), time(), ZoneInfo(squad.time_zone)))


def make_own_link(actor: Actor, person_id: UUID) -> tuple[CheckInLink, str]:
    """A new link of somebody, and its token, which is shown this once; one that they had ends. For those who plan.

    Raises DocumentError for somebody under age for whom no guardian agreed.
    """
    token, now = new_token(), timezone.now()
    with transaction.atomic():
        person = the_person(actor, person_id)
        actor.require(person.squad_id, Right.PLAN)
        if person.keeps_little:
            raise refuse(("person",), person.name, LINK_OF_THE_YOUNG, "cannot_under_age")
        person.checkin_links.filter(ended_at=None).update(ended_at=now)
        made = CheckInLink.objects.create(
            person=person, token_hash=token_hash(token), made_by_id=actor.user_id,
            expires_at=good_until(person.squad, now),
        )  # fmt: skip
        record(actor, person.squad_id, Act.OWN_LINK_MADE, person=person)
    return made, token


def own_link_of(actor: Actor, person_id: UUID) -> CheckInLink | None:
    """The link that somebody has now, if any; for those who plan, and the person."""
    return open_link(the_person(actor, person_id))


def open_link(person: Person) -> CheckInLink | None:
    """The link of somebody that opens something now."""
    found = person.checkin_links.filter(ended_at=None).select_related("person", "made_by").first()
    return found if found is not None and found.opens_at(timezone.now()) else None


def end_own_link(actor: Actor, person_id: UUID) -> None:
    """From now on somebody's link and its devices open nothing. For those who plan, and the person."""
    with transaction.atomic():
        person = the_person(actor, person_id)
        if person.checkin_links.filter(ended_at=None).update(ended_at=timezone.now()):
            record(actor, person.squad_id, Act.OWN_LINK_ENDED, person=person)


class TakenError(Exception):
    """A link is in use on as many devices as it may be."""


@dataclass(frozen=True, slots=True)
class OwnDoor:
    """Who came in by their own link: the device, and the actor that they are."""

    device: CheckInDevice
    actor: Actor

    @property
    def person(self) -> Person:
        """Whose link it is."""
        return self.device.link.person


def enter_by(token: str, cookie: str | None, called: str) -> tuple[CheckInDevice, str]:
    """Exchange a token for a cookie of this device; one that has its cookie of this link already keeps it.

    Raises Http404 for a token that opens nothing (more), TakenError on a third device.
    """
    now = timezone.now()
    with transaction.atomic():
        found = CheckInLink.objects.filter(token_hash=token_hash(token)).select_related("person__squad")
        link = found.first()
        if link is None or not link.opens_at(now):
            raise Http404
        known = link.devices.filter(cookie_hash=token_hash(cookie)).first() if cookie else None
        if known is not None and cookie:
            return known, cookie
        if link.devices.count() >= MOST_DEVICES:
            raise TakenError
        made = new_token()
        device = CheckInDevice.objects.create(
            link=link, cookie_hash=token_hash(made), called=called, used_at=now
        )  # fmt: skip
    return device, made


def door_of(cookie: str) -> OwnDoor | None:
    """Who holds a device's cookie; None for one that opens nothing, or nothing more. One query."""
    now = timezone.now()
    found = CheckInDevice.objects.filter(cookie_hash=token_hash(cookie)).select_related("link__person__squad")
    device = found.first()
    if device is None or not device.link.opens_at(now):
        return None
    if now - device.used_at > USED_AGAIN:
        device.used_at = now
        device.save(update_fields=["used_at"])
    person = device.link.person
    return OwnDoor(device, Actor("link", {person.squad_id: Right.LOOK}, person_id=person.pk))


def drop_device(door: OwnDoor, device_id: int) -> None:
    """From now on one of the link's devices opens nothing. Raises Http404 for one of another link."""
    get_object_or_404(CheckInDevice, pk=device_id, link=door.device.link).delete()
