"""Erasing a person, or an account: at once, everywhere, and again after every restore."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from axes.models import AccessAttempt
from django.contrib.auth import get_user_model
from django.db import transaction
from django.db.models import Count, Q, QuerySet

from finetally.web.accounts.keys import end_keys
from finetally.web.accounts.members import keep_a_head
from finetally.web.accounts.models import Notice
from finetally.web.jobs.upkeep import GO_ON
from finetally.web.log.models import LogPart, Result
from finetally.web.plan.models import Attendance, Change
from finetally.web.privacy.erased import account_id, erased_ids, note_erased
from finetally.web.privacy.kept import the_person_themselves
from finetally.web.privacy.traces import NameFinder, take_out_names
from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Act, Membership, Person, Record, Squad
from finetally.web.squads.record import record

ENOUGH_TO_HIDE_AMONG = 10
"""People with scores of a session from which on one of them may stay as "former member", without an id."""
FORMER_MEMBER = "a former member"
FORMER = "former"
"""Whose a score is that stays of somebody who was erased."""


def erase_person(actor: Actor, person_id: UUID, *, from_texts: bool) -> None:
    """Erase a person with all that is kept about them; their account too, unless it is in another squad.

    For head coaches and the person. `from_texts`: their names are taken out of titles, notes and versions as well.
    Raises DocumentError for the last head coach of a squad.
    """
    with transaction.atomic():
        person = the_person_themselves(actor, person_id)
        if person.user_id is not None:
            keep_a_head(person.squad, person.user_id)
        record(actor, person.squad_id, Act.PERSON_ERASED, "somebody")
        note_erased("person", str(person.public_id))
        _erase(person, from_texts=from_texts)


def erase_account(user: Any) -> None:
    """Erase one's own account and everybody that one is in one's squads, from texts too. Raises DocumentError."""
    with transaction.atomic():
        for one in Membership.objects.filter(user=user).select_related("squad"):
            keep_a_head(one.squad, user.pk)
        for person in Person.objects.filter(user=user).select_related("squad", "user"):
            note_erased("person", str(person.public_id))
            _erase(person)
        # Gone already where the last of its people was erased with it.
        for own in get_user_model().objects.filter(pk=user.pk):
            note_erased("account", account_id(own))
            _erase_account(own)


def _erase(person: Person, *, from_texts: bool = True) -> None:
    """Take a person out of the database; call it in a transaction."""
    squad, user = person.squad, person.user
    _forget_runs(squad, person)
    if from_texts:
        take_out_names(person)
    _leave_scores(person)
    _forget_copies(squad, person)
    _forget_in_history(squad, person)
    person.delete()
    if user is None:
        return
    end_keys(squad, user.pk, None)
    Membership.objects.filter(user=user, squad=squad).delete()
    _forget_account_name(squad.records.all(), user)
    if not Membership.objects.filter(user=user).exists():
        note_erased("account", account_id(user))
        _erase_account(user)


def _erase_account(user: Any) -> None:
    name = user.get_username().casefold()
    AccessAttempt.objects.filter(Q(username=name) | Q(username__startswith=f"{name} (")).delete()
    _forget_account_name(Record.objects.all(), user)
    for one in Membership.objects.filter(user=user).select_related("squad"):
        end_keys(one.squad, user.pk, None)
    user.delete()


OF_ACCOUNTS = (Act.JOINED, Act.ROLE_CHANGED, Act.MEMBER_REMOVED, Act.RESET_MADE)
"""What is written of an account by its name: the name alone, or with its role behind it."""


def _forget_account_name(records: QuerySet[Record], user: Any) -> None:
    """Take an account's name out of history and notices, and nothing that only holds its letters."""
    name = user.get_username()
    begins = Q(about__iexact=name) | Q(about__istartswith=f"{name}, ") | Q(about__istartswith=f"{name}: ")
    records.filter(begins, act__in=OF_ACCOUNTS).update(about=FORMER_MEMBER)
    Notice.objects.filter(begins).delete()


def _leave_scores(person: Person) -> None:
    """That somebody came, and a score, stay without their id where enough others have them; ratings always go."""
    mine = Attendance.objects.filter(person=person).values_list("entry_id", flat=True)
    crowded = (
        Attendance.objects.filter(entry_id__in=list(mine))
        .values("entry_id").annotate(people=Count("id")).filter(people__gte=ENOUGH_TO_HIDE_AMONG)
        .values_list("entry_id", flat=True)
    )  # fmt: skip
    Attendance.objects.filter(person=person, entry_id__in=list(crowded)).update(
        person=None, minutes=None, effort=None, said="", options={}
    )
    scored = Result.objects.filter(person=person).values_list("entry_id", flat=True)
    hidden = (
        Result.objects.filter(entry_id__in=list(scored)).exclude(person=None)
        .values("entry_id").annotate(people=Count("person", distinct=True))
        .filter(people__gte=ENOUGH_TO_HIDE_AMONG).values_list("entry_id", flat=True)
    )  # fmt: skip
    # What was told of a window several times says whose it is: one count stays.
    Result.objects.filter(person=person, used=True, entry_id__in=list(hidden)).update(
        person=None, whose=FORMER, options={}, sets=[], unfinished="", predicted=None, key="", device=""
    )


def _forget_copies(squad: Squad, person: Person) -> None:
    """What was made of the person and is kept for a while: finished work, changes of entries that go with them."""
    # A job that is gone while it runs leaves no answer and no file; what has to be done stays.
    squad.jobs.exclude(ended_at=None, kind__in=GO_ON).delete()
    LogPart.objects.filter(squad=squad, asked=False).delete()
    own = {str(key) for key in squad.entries.filter(person=person).values_list("pk", flat=True)}
    for change in Change.objects.filter(squad=squad) if own else ():
        if any(item["entry"] in own for item in change.items):
            change.delete()


def _forget_runs(squad: Squad, person: Person) -> None:
    """Their own runs: of what was planned for them alone, and under their name."""
    names = [person.name, person.on_the_wall]
    own = squad.runs.filter(Q(entry__person=person) | Q(name__in=names) | Q(name__iexact=person.name))
    own.delete()


def _forget_in_history(squad: Squad, person: Person) -> None:
    """What was done to them stays as done to somebody; their names go from what was done to anything."""
    squad.records.filter(person=person).update(about="")
    finder = NameFinder(person)
    for one in squad.records.filter(finder.may_hold("about")):
        Record.objects.filter(pk=one.pk).update(about=finder.without(one.about))


def erase_again() -> int:
    """After a restore, and at every start: erase whoever was erased before. Returns how many came back."""
    wanted = list(erased_ids())
    people = [key for kind, key in wanted if kind == "person"]
    accounts = {key for kind, key in wanted if kind == "account"}
    count = 0
    with transaction.atomic():
        for first in range(0, len(people), 500):
            found = Person.objects.filter(public_id__in=people[first : first + 500]).select_related("squad", "user")
            for person in found:
                _erase(person)
                count += 1
        for user in get_user_model().objects.all() if accounts else ():
            if account_id(user) in accounts:
                _erase_account(user)
                count += 1
    return count
