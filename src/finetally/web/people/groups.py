"""Groups of a squad: named, marked, and who is in them from when on."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from uuid import UUID

from django.db import transaction
from django.db.models import Count, Q
from django.shortcuts import get_object_or_404

from finetally.core.people.listing import LONGEST_GROUP
from finetally.core.session.cleaning import one_line
from finetally.core.session.problems import refuse, shown
from finetally.web.people.models import Group, GroupMark, GroupPlace
from finetally.web.plan.models import Entry
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Person, Squad
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

MOST_GROUPS = 40


def list_groups(actor: Actor, squad_id: int | None) -> list[Group]:
    """The groups of a squad that are not ended, each with how many are in it (`count`)."""
    squad = squad_for(actor, squad_id, Right.LOOK)
    there = Count("places", filter=Q(places__until=None))
    return list(squad.groups.filter(ended_on=None).annotate(count=there).order_by("name"))


def _the_group(actor: Actor, group_id: int) -> Group:
    found = Group.objects.filter(squad_id__in=actor.squads(), ended_on=None).select_related("squad")
    group = get_object_or_404(found, pk=group_id)
    actor.require(group.squad_id, Right.PLAN)
    return group


def named_group(squad: Squad, name: str) -> Group:
    """The group of that name (any case), made where there is none; its mark is one that no other has, if any is.

    Raises DocumentError.
    """
    wanted = _named(squad, name)
    there = list(squad.groups.filter(ended_on=None))
    for one in there:
        if one.name.casefold() == wanted.casefold():
            return one
    if len(there) >= MOST_GROUPS:
        raise refuse(("group",), f"{len(there)} groups", f"up to {MOST_GROUPS}", "too_many")
    marks = [mark for mark in GroupMark.values if mark not in {one.mark for one in there}]
    return Group.objects.create(squad=squad, name=wanted, mark=marks[0] if marks else GroupMark.RING)


def _named(squad: Squad, name: str) -> str:
    wanted = one_line(name)
    if not 0 < len(wanted) <= LONGEST_GROUP:
        raise refuse(("group",), shown(wanted), f"1 to {LONGEST_GROUP} characters", "name")
    return wanted


def put_in(person: Person, groups: Iterable[Group], since: date | None) -> None:
    """Put somebody into groups beside those they are in."""
    for group in groups:
        GroupPlace.objects.get_or_create(group=group, person=person, until=None, defaults={"since": since})


def set_groups(actor: Actor, person: Person, groups: Sequence[int]) -> None:
    """Let somebody be in these groups from today on, and in no others; what was before stays as it was."""
    squad = person.squad
    actor.require(squad.pk, Right.PLAN)
    today = today_of(squad)
    wanted = list(squad.groups.filter(pk__in=groups, ended_on=None))
    if len(wanted) < len(set(groups)):
        raise refuse(("groups",), "a group that there is not", "groups of this squad", "group")
    with transaction.atomic():
        left = person.places.filter(until=None).exclude(group__in=wanted)
        left.filter(since=today).delete()
        left.update(until=today)
        put_in(person, wanted, since=today)


def add_group(actor: Actor, squad_id: int | None, name: str, mark: str | None, people: Sequence[UUID]) -> Group:
    """A new group with these people in it, from today on. Raises DocumentError where there is one of that name."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    with transaction.atomic():
        if squad.groups.filter(ended_on=None, name__iexact=one_line(name)).exists():
            raise refuse(("name",), shown(name), "a name that no group has", "taken")
        group = named_group(squad, name)
        if mark is not None:
            group.mark = _mark(mark)
            group.save()
        for person in squad.people.filter(public_id__in=people):
            put_in(person, [group], since=today_of(squad))
        record(actor, squad.pk, Act.GROUP_CHANGED, group.name)
    return group


def _mark(mark: str) -> str:
    if mark not in GroupMark.values:
        raise refuse(("mark",), shown(mark), ", ".join(GroupMark.values), "mark")
    return mark


def change_group(actor: Actor, group_id: int, name: str | None, mark: str | None) -> Group:
    """Call a group otherwise, or mark it otherwise. Raises DocumentError."""
    with transaction.atomic():
        group = _the_group(actor, group_id)
        if name is not None:
            wanted = _named(group.squad, name)
            same = group.squad.groups.filter(ended_on=None, name__iexact=wanted).exclude(pk=group.pk)
            if same.exists():
                raise refuse(("name",), shown(wanted), "a name that no other group has", "taken")
            group.name = wanted
        if mark is not None:
            group.mark = _mark(mark)
        group.save()
        record(actor, group.squad_id, Act.GROUP_CHANGED, group.name)
    return group


def end_group(actor: Actor, group_id: int) -> None:
    """Have a group chosen no more: removed where nothing was ever planned for it, else kept for what was.

    Raises DocumentError where something is planned for it from today on.
    """
    with transaction.atomic():
        group = _the_group(actor, group_id)
        today = today_of(group.squad)
        ahead = group.entries.filter(day__gte=today, skipped=False).count()
        if ahead:
            says = f"{ahead} entries from today on are planned for {group.name}. Plan them for others first."
            raise refuse(("group",), f"{ahead} entries", says, "cannot_planned")
        record(actor, group.squad_id, Act.GROUP_CHANGED, group.name)
        if Entry.with_removed.filter(group=group).exists():
            group.places.filter(until=None).update(until=today)
            group.ended_on = today
            group.save()
        else:
            group.delete()
