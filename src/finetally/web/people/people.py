"""What can be done with the people of a squad. Each use case holds permission, change and record."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any
from uuid import UUID

from django.core import signing
from django.core.exceptions import PermissionDenied
from django.db import transaction
from django.db.models import Prefetch, Q, QuerySet
from django.http import Http404
from django.shortcuts import get_object_or_404

from finetally.core.people.listing import (
    LONGEST_NAME,
    MAX_PEOPLE,
    SHORT_NAME,
    ListedPerson,
    read_people,
    short_name,
)
from finetally.core.session.cleaning import one_line
from finetally.core.session.problems import DocumentError, Problem, refuse, shown
from finetally.web.people.groups import named_group, put_in
from finetally.web.people.models import GroupPlace
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for
from finetally.web.versions import require_version, version_of

DETAILS = ("name", "short_name", "body_kg", "pace_factor", "effort_offset", "under_age")
BOUNDS: Mapping[str, tuple[float, float]] = {
    "body_kg": (20, 300), "pace_factor": (0.5, 2), "effort_offset": (-3, 3),
}  # fmt: skip
"""A pace factor multiplies a person's times, an effort offset is added to effort: beyond these it is a mistake."""


def known_people(squad: Squad) -> QuerySet[Person]:
    """The people of a squad with all that lists and figures take from them: a few queries, however many."""
    now = GroupPlace.objects.filter(until=None, group__ended_on=None).select_related("group")
    return squad.people.select_related("user", "squad", "learned_pace").prefetch_related(
        "maxima", "limits", "away", Prefetch("places", queryset=now, to_attr="present_places")
    )


def list_people(actor: Actor, squad_id: int | None) -> list[Person]:
    """The people of a squad; what is known about their bodies is for those who plan."""
    return list(known_people(squad_for(actor, squad_id, Right.PLAN)))


def the_person(actor: Actor, person_id: UUID, right: Right = Right.PLAN) -> Person:
    """One person of the actor's squads, for whom has the right there, or is it (to look). Raises Http404.

    To an athlete all others do not exist.
    """
    found = Person.objects.filter(squad_id__in=actor.squads()).select_related("squad", "user")
    person = get_object_or_404(found, public_id=person_id)
    if actor.may(person.squad_id, right):
        return person
    if is_self(actor, person) and right <= Right.PLAN:
        return person
    if actor.may(person.squad_id, Right.PLAN) or is_self(actor, person):
        raise PermissionDenied
    raise Http404


def is_self(actor: Actor, person: Person) -> bool:
    """Whether the actor is the person."""
    if actor.person_id is not None:
        return person.pk == actor.person_id
    return actor.user_id is not None and person.user_id == actor.user_id


PRIVATE = frozenset({"body_kg", "under_age"})
"""Details that head coaches and the person see, and head coaches alone set."""


def sees_private(actor: Actor, person: Person) -> bool:
    """Whether the actor sees somebody's body mass, whether they are under age, and who agreed for them."""
    return actor.may(person.squad_id, Right.HEAD) or is_self(actor, person)


def read_person(actor: Actor, person_id: UUID) -> Person:
    """One person with everything, for those who plan and for the person."""
    person = the_person(actor, person_id)
    return get_object_or_404(known_people(person.squad), pk=person.pk)


def own_person(actor: Actor, squad: Squad) -> Person | None:
    """The person that a member is in a squad, or whose link it is, if any."""
    if actor.person_id is not None:
        return squad.people.filter(pk=actor.person_id).first()
    return None if actor.user_id is None else squad.people.filter(user_id=actor.user_id).first()


def person_version(person: Person) -> str:
    """What a change of somebody names as seen."""
    kept = (*DETAILS, "capacity_met", "guardian", "guardian_on")
    return version_of([getattr(person, name) for name in kept])


def add_person(actor: Actor, squad_id: int | None, name: str, groups: list[str]) -> Person:
    """Add somebody, without an account; groups by name, made where there are none. Raises DocumentError."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    with transaction.atomic():
        [person] = _added(squad, [ListedPerson(1, _named(name), tuple(groups))])
        record(actor, squad.pk, Act.PERSON_ADDED, person=person)
    return person


def _named(name: str) -> str:
    found = one_line(name)
    if not 0 < len(found) <= LONGEST_NAME:
        raise refuse(("name",), shown(found), f"1 to {LONGEST_NAME} characters", "name")
    return found


def _added(squad: Squad, listed: list[ListedPerson]) -> list[Person]:
    if squad.people.count() + len(listed) > MAX_PEOPLE:
        raise refuse(("people",), f"{len(listed)} more", f"{MAX_PEOPLE} people in all", "too_many")
    made = []
    taken = [other.on_the_wall for other in squad.people.all()]
    for one in listed:
        person = Person.objects.create(squad=squad, name=one.name, short_name=short_name(one.name, taken))
        taken.append(person.on_the_wall)
        put_in(person, [named_group(squad, group) for group in one.groups], since=None)
        made.append(person)
    return made


def preview_list(actor: Actor, squad_id: int | None, text: str) -> list[ListedPerson]:
    """What a list would add, nothing changed. Raises DocumentError with every line that is wrong."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    return read_people(text, squad.people.values_list("name", flat=True))


@dataclass(frozen=True, slots=True)
class ImportedList:
    """What an import of people made: who is new, and a signed word that undoes it within an hour."""

    people: list[Person]
    undo: str


def take_list(actor: Actor, squad_id: int | None, text: str) -> ImportedList:
    """Add everybody of a list who is not there yet; those who are get the groups that the list gives them.

    All or nothing. Raises DocumentError.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    with transaction.atomic():
        listed = read_people(text, squad.people.values_list("name", flat=True))
        made = _added(squad, [one for one in listed if not one.known])
        there = {person.name.casefold(): person for person in squad.people.all()}
        before = set(GroupPlace.objects.filter(person__squad=squad).values_list("pk", flat=True))
        for one in listed:
            if one.known:
                groups = [named_group(squad, group) for group in one.groups]
                put_in(there[one.name.casefold()], groups, since=today_of(squad))
        places = GroupPlace.objects.filter(person__squad=squad).exclude(pk__in=before)
        record(actor, squad.pk, Act.LIST_TAKEN, f"{len(listed)} people")
        new = {"people": [one.pk for one in made], "places": list(places.values_list("pk", flat=True))}
    return ImportedList(made, signing.dumps({"squad": squad.pk, **new}, salt=IMPORT_SALT))


UNDOABLE_FOR = timedelta(hours=1)
"""So long an import of people can be undone."""
IMPORT_SALT = "import of people"


def undo_list(actor: Actor, word: str) -> int:
    """Undo an import: removes its people and places in groups, within an hour. Returns how many were removed.

    People with anything recorded since then are kept: an account, a score, a rating, attendance.
    Raises DocumentError.
    """
    try:
        made = signing.loads(word, salt=IMPORT_SALT, max_age=UNDOABLE_FOR)
    except signing.BadSignature:
        raise refuse(("undo",), "an import", "an import of the last hour", "cannot_undo") from None
    squad = squad_for(actor, made["squad"], Right.PLAN)
    with transaction.atomic():
        new = squad.people.filter(pk__in=made["people"], user=None)
        unused = new.filter(attendance=None, results=None, ratings=None, log_notes=None, limits=None, maxima=None)
        GroupPlace.objects.filter(person__squad=squad, pk__in=made["places"]).delete()
        count = unused.count()
        for person in unused:
            person.delete()
        record(actor, squad.pk, Act.LIST_UNDONE, f"{count} people")
    return count


def change_person(actor: Actor, person_id: UUID, version: str, changes: Mapping[str, Any]) -> Person:
    """Set what is known of somebody; None takes a number away.

    For those who plan; PRIVATE details for head coaches. Raises DocumentError (every fault), ChangedError.
    """
    with transaction.atomic():
        person = the_person(actor, person_id)
        actor.require(person.squad_id, Right.HEAD if changes.keys() & PRIVATE else Right.PLAN)
        require_version(person.name, version, person_version(person))
        problems = [one for name, value in changes.items() if (one := _set(person, name, value)) is not None]
        problems += _kept_of_the_young(person)
        if problems:
            raise DocumentError(problems)
        person.save()
        record(actor, person.squad_id, Act.PERSON_CHANGED, person=person)
    return person


def _set(person: Person, name: str, value: Any) -> Problem | None:
    if name in BOUNDS:
        low, high = BOUNDS[name]
        if value is not None and not low <= value <= high:
            return Problem(name, f"{value:g}", f"{low:g} to {high:g}", "bounds")
        value = 0 if value is None and name == "effort_offset" else value
    if name == "under_age":
        value = bool(value)
    if name == "name":
        value = _named(value or "")
    if name == "short_name":
        value = one_line(value or "")
        same = person.squad.people.exclude(pk=person.pk).filter(short_name__iexact=value)
        if value and (len(value) > SHORT_NAME or same.exists()):
            return Problem(name, shown(value), f"up to {SHORT_NAME} characters, and nobody else's", "short_name")
    setattr(person, name, value)
    return None


def set_named(actor: Actor, person_id: UUID, *, agreed: bool) -> Person:
    """Note whether somebody agrees to be named beside their scores. For them, and for those who plan.

    Raises DocumentError for somebody under age.
    """
    with transaction.atomic():
        person = the_person(actor, person_id)
        if agreed and person.under_age:
            raise refuse(("agreed",), "yes", "nobody under age is named beside others", "cannot_under_age")
        person.named_on = (person.named_on or today_of(person.squad)) if agreed else None
        person.save()
        record(actor, person.squad_id, Act.PERSON_CHANGED, person=person)
    return person


YOUNG = (
    "Body mass and capacity of somebody under age are kept once a head coach has noted that a guardian agreed; "
    "until then take them away."
)


def _kept_of_the_young(person: Person) -> list[Problem]:
    """What may not be kept of somebody under age for whom no guardian agreed."""
    if not person.keeps_little:
        return []
    return [
        Problem(name, f"{value:g}", YOUNG, "cannot_under_age")
        for name, value in (("body_kg", person.body_kg), ("capacity_met", person.capacity_met))
        if value is not None
    ]


def guardian_agreed(actor: Actor, person_id: UUID, who: str, day: date | None) -> Person:
    """Note who agreed that more is kept of somebody under age, and when; no day: take it back. For head coaches.

    Raises DocumentError.
    """
    with transaction.atomic():
        person = the_person(actor, person_id, Right.HEAD)
        name = one_line(who)
        if day is not None and not 0 < len(name) <= LONGEST_NAME:
            raise refuse(("guardian",), shown(name), "the name of who agreed", "name")
        person.guardian, person.guardian_on = (name, day) if day is not None else ("", None)
        problems = _kept_of_the_young(person)
        if problems:
            raise DocumentError(problems)
        person.save()
        record(actor, person.squad_id, Act.PERSON_CHANGED, person=person)
    return person


def holding_on(day: date) -> Q:
    """Times (`first` to `last`, both included, open without an end) that a day lies in."""
    return Q(first__lte=day) & (Q(last=None) | Q(last__gte=day))
