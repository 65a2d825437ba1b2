"""Reading what is sent: in one place, once who acts and how much is allowed are known, and in time."""

from __future__ import annotations

import re
import time
from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, HttpResponse

from finetally.core.session.limits import MAX_BYTES, MAX_WATCH_BYTES
from finetally.core.session.problems import DocumentError, Problem
from finetally.web.problems import problem_response

SIGN_IN_BYTES = 4_000
"""A name, a password, and room: read before anybody is known."""

SMALL_BYTES = 64_000
"""What most acts need: ids, numbers, a few lines."""

DOCUMENT_ROUTES = re.compile(
    r"/api/(figures|explain|fit|card|card\.pdf|movements(/preview)?|board(/\w+)?|formats/\w+|compare(\.\w+|/[\w.]+)?|sessions(/[\w-]+)?"
    r"|floor/runs/[\w-]+/events|log/(foreseen|file|entries/[\w-]+/results))"
)
"""Routes that take whole documents, or many events: these may be as long as a document."""

WATCH_ROUTE = re.compile(r"/api/log/entries/[\w-]+/watch")
"""A recording of a day is longer than any document."""

READ_S = 10.0
"""Seconds in which a body must be there, all of it."""

CHUNK = 65_536


class TooSlowError(Exception):
    """The body did not come in time."""


def bound_of(path: str) -> int:
    """How many bytes a route reads."""
    if path == "/api/sign-in":
        return SIGN_IN_BYTES
    if WATCH_ROUTE.fullmatch(path):
        return MAX_WATCH_BYTES
    return MAX_BYTES if DOCUMENT_ROUTES.fullmatch(path) else SMALL_BYTES


def read_body(request: HttpRequest) -> bytes:
    """The body, within its route's bound. Raises DocumentError (too_large) or TooSlowError."""
    bound = bound_of(request.path)
    length = request.META.get("CONTENT_LENGTH") or "0"
    wanted = int(length) if length.isascii() and length.isdecimal() and len(length) < 16 else bound + 1
    if wanted > bound:
        found = f"a body of {wanted:,} bytes"
        raise DocumentError([Problem("(document)", found, f"up to {bound:,} bytes here", "too_large")])
    if not hasattr(request, "_body"):
        # Django's own reading has no end of time; it finds the body read.
        request._body = _read(request, wanted)
    return request.body


def _read(request: HttpRequest, wanted: int) -> bytes:
    socket: Any = request.META.get("gunicorn.socket")
    deadline = time.monotonic() + READ_S
    parts: list[bytes] = []
    left = wanted
    while left > 0:
        if socket is not None:
            socket.settimeout(max(0.01, deadline - time.monotonic()))
        try:
            part = request.read(min(left, CHUNK))
        except OSError:  # Django wraps the socket's time-out; what is cut off is no body either.
            raise TooSlowError from None
        if not part:
            raise TooSlowError
        parts.append(part)
        left -= len(part)
        if time.monotonic() > deadline:
            raise TooSlowError
    return b"".join(parts)


class OnlyJsonMiddleware:
    """Refuses other kinds of bodies to the API: forms would be read before anybody is known."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        sent = (request.META.get("CONTENT_LENGTH") or "0") != "0" or "HTTP_TRANSFER_ENCODING" in request.META
        if sent and request.path.startswith("/api/") and request.content_type != "application/json":
            return problem_response(415, "request", "Bodies are JSON here.")
        return self._get_response(request)
