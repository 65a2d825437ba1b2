"""Makes squads on the database of a server that runs: the process behind squads.py.

Each line that comes in is one wish, each line that goes out its answer, both JSON.
"""

from __future__ import annotations

import json
import os
import sys
import uuid
from collections.abc import Callable
from importlib import import_module
from typing import Any

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finetally.web.settings")
django.setup()

from django.conf import settings
from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY, get_user_model
from django.db import transaction
from django.db.models import Model, QuerySet

from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.log.models import LearnedPace, LoggedEntry, LoggedRun, LogNote, Rating, Result, WatchRecording
from finetally.web.people.models import Group, GroupPlace, Limit, Maximum
from finetally.web.plan.models import Attendance, Away, Day, Entry, Phase
from finetally.web.squads.models import Membership, Person, Squad, SquadMovement
from finetally.web.training.demo import ACCOUNTS, SQUAD
from finetally.web.training.models import Revision, Session, Shape

Keys = dict[type[Model], dict[Any, Any]]
"""Of each model, the keys of the copies by the keys of what was copied."""


def copy(number: int) -> dict[str, str]:
    """Copy the demo squad with all that hangs on it; answers the session keys of its accounts, signed in."""
    demo = Squad.objects.filter(name=SQUAD).order_by("pk").first()
    users = get_user_model().objects.filter(username__in=[name for name, _ in ACCOUNTS])
    sessions = Session.objects.filter(squad=demo)
    heads = dict(sessions.values_list("pk", "head_id"))
    keys: Keys = {}
    copy_rows(Squad.objects.filter(pk=demo.pk), keys)
    copy_rows(users, keys, lambda user: setattr(user, "username", f"{user.username}-{number}"))
    copy_rows(Person.objects.filter(squad=demo), keys, lambda person: setattr(person, "public_id", uuid.uuid4()))
    for rows in (
        *(model.objects.filter(squad=demo) for model in (Membership, SquadMovement, Shape, Group)),
        *(model.objects.filter(person__squad=demo) for model in (GroupPlace, Maximum, Limit)),
        sessions,
        Revision.objects.filter(session__squad=demo).order_by("pk"),
        *(model.objects.filter(squad=demo) for model in (Entry, Day, Away, Phase)),
        Attendance.objects.filter(entry__squad=demo),
        FloorRun.objects.filter(squad=demo),
        FloorEvent.objects.filter(run__squad=demo).order_by("pk"),
        LoggedRun.objects.filter(run__squad=demo),
        *(
            model.objects.filter(entry__squad=demo)
            for model in (LoggedEntry, Result, Rating, LogNote, WatchRecording)
        ),
        LearnedPace.objects.filter(person__squad=demo),
    ):
        copy_rows(rows, keys)
    for session, head in heads.items():
        Session.objects.filter(pk=keys[Session][session]).update(head=keys[Revision][head])
    return {user.username: signed_in(keys[get_user_model()][user.pk]) for user in users}


def signed_in(key: Any) -> str:
    """The session key of an account that has signed in."""
    user = get_user_model().objects.get(pk=key)
    store = import_module(settings.SESSION_ENGINE).SessionStore()
    store.update({
        SESSION_KEY: str(user.pk),
        BACKEND_SESSION_KEY: settings.AUTHENTICATION_BACKENDS[-1],
        HASH_SESSION_KEY: user.get_session_auth_hash(),
    })  # fmt: skip
    store.create()
    return str(store.session_key)


def copy_rows(rows: QuerySet[Any], keys: Keys, change: Callable[[Any], None] | None = None) -> None:
    """Copy rows of one model; what they point to is its copy where there is one already. Adds to `keys`."""
    copies = list(rows.all())
    fields = rows.model._meta.concrete_fields
    old = [row.pk for row in copies]
    for row in copies:
        for field in fields:
            if field.is_relation:
                value = getattr(row, field.attname)
                setattr(row, field.attname, keys.get(field.related_model, {}).get(value, value))
        row.pk = uuid.uuid4() if isinstance(row.pk, uuid.UUID) else None
        if change is not None:
            change(row)
    for field in fields:
        # When a row was made and changed is copied too: lists are in that order.
        field.auto_now = field.auto_now_add = False
    rows.model.objects.bulk_create(copies)
    keys[rows.model] = dict(zip(old, (row.pk for row in copies), strict=True))


def empty(account: str, name: str) -> None:
    """A squad with nothing in it that the account coaches too."""
    user = get_user_model().objects.get(username=account)
    Membership.objects.create(user=user, squad=Squad.objects.create(name=name), role="coach")


def main() -> None:
    wishes = {"copy": copy, "empty": empty}
    for line in sys.stdin:
        wish, *of = json.loads(line)
        with transaction.atomic():
            answer = wishes[wish](*of)
        sys.stdout.write(json.dumps(answer) + "\n")
        sys.stdout.flush()


if __name__ == "__main__":
    main()
