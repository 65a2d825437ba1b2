"""The calendar feed: an address that calendars read again and again. It needs no account, only its token."""

from __future__ import annotations

import hashlib
from datetime import timedelta

from django.http import Http404, HttpRequest, HttpResponse, HttpResponseNotModified
from django.utils import timezone
from django.views.decorators.http import require_safe

from finetally.web.plan.calendar import calendar_of
from finetally.web.plan.links import link_of
from finetally.web.plan.week import Whose, entries_between
from finetally.web.squads.figuring_context import context_of

BACK, AHEAD = timedelta(days=60), timedelta(days=400)
"""What a feed holds around today: enough to look back at, and a year ahead."""


@require_safe
def feed(request: HttpRequest, token: str) -> HttpResponse:
    """The plan behind a token; 304 where the calendar has it already, 404 for a token that opens nothing."""
    try:
        link = link_of(token)
    except Http404:
        return HttpResponse("There is no such calendar.", status=404, content_type="text/plain; charset=utf-8")
    today = timezone.localdate()
    entries = entries_between(link.squad, today - BACK, today + AHEAD, Whose(person=link.person_id)).defer(None)
    body = calendar_of(link.squad, link.name, entries, context_of(link.squad).library)
    etag = f'"{hashlib.sha256(body).hexdigest()[:32]}"'
    if request.headers.get("If-None-Match") == etag:
        return HttpResponseNotModified(headers={"ETag": etag})
    headers = {"ETag": etag, "Cache-Control": "private, max-age=300", "Referrer-Policy": "no-referrer"}
    return HttpResponse(body, content_type="text/calendar; charset=utf-8", headers=headers)
