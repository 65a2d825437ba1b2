"""Doors for calendars: links that show a plan without an account, until they are revoked."""

from __future__ import annotations

import secrets
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404
from django.utils import timezone

from finetally.core.session.cleaning import one_line
from finetally.web.accounts.tokens import token_hash
from finetally.web.plan.models import Link
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, Person
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for

TOKEN_BYTES = 24


def list_links(actor: Actor, squad_id: int | None) -> QuerySet[Link]:
    """The squad's links that are not revoked."""
    return squad_for(actor, squad_id, Right.PLAN).links.filter(revoked_at=None).select_related("person")


def make_link(actor: Actor, squad_id: int | None, name: str, person: UUID | None) -> tuple[Link, str]:
    """A new link and its token, which is shown this once: only its hash is kept."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    whose = get_object_or_404(Person, public_id=person, squad=squad) if person is not None else None
    token = secrets.token_urlsafe(TOKEN_BYTES)
    with transaction.atomic():
        link = Link.objects.create(
            squad=squad,
            person=whose,
            name=one_line(name) or squad.name,
            token_hash=token_hash(token),
            made_by_id=actor.user_id,
        )
        record(actor, squad.pk, Act.LINK_MADE, link.name, whose)
    return link, token


def revoke_link(actor: Actor, link_id: int) -> None:
    """From now on the link opens nothing."""
    link = get_object_or_404(Link, pk=link_id, squad_id__in=actor.squads())
    actor.require(link.squad_id, Right.PLAN)
    with transaction.atomic():
        link.revoked_at = timezone.now()
        link.save()
        record(actor, link.squad_id, Act.LINK_ENDED, link.name)


def link_of(token: str) -> Link:
    """The link behind a token; Http404 for one that there is not, or no more."""
    return get_object_or_404(
        Link.objects.select_related("squad", "person"), token_hash=token_hash(token), revoked_at=None
    )


def holder(link: Link) -> Actor:
    """Who acts with a link: looks at one squad, nothing else."""
    return Actor("link", {link.squad_id: Right.LOOK})
