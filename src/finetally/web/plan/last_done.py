"""How long ago sessions were last done: for whoever chooses one."""

from __future__ import annotations

from uuid import UUID

from django.db.models import Max

from finetally.web.plan.models import Entry
from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of


def days_since_done(actor: Actor) -> dict[UUID, int]:
    """For each session of the actor's squads that was logged, how many days ago that last was. Two queries."""
    today = {one.pk: today_of(one) for one in Squad.objects.filter(pk__in=actor.squads())}
    done = Entry.objects.filter(squad__in=today, session__isnull=False, logged_minutes__isnull=False)
    latest = done.order_by().values("squad", "session").annotate(last=Max("day"))
    rows = latest.values_list("squad", "session", "last")
    return {session: (today[squad] - last).days for squad, session, last in rows if session is not None}
