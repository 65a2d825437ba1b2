"""A request of the API: Django's, with the actor that the way in has found (see SignedIn in api.py)."""

from __future__ import annotations

from django.http import HttpRequest

from finetally.web.squads.actor import Actor


class ActorRequest(HttpRequest):
    """A request with who acts. Only for types: ninja sets `auth` on the request that Django made."""

    auth: Actor
