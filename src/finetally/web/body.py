"""Reading what is sent: in one place, once who acts and how much is allowed are known, and in time."""

from __future__ import annotations

import re
import threading
import time
from collections.abc import Callable, Iterable, Sequence
from typing import Any

from django.http import HttpRequest, HttpResponse
from pydantic import BaseModel

from finetally.core.session.problems import DocumentError, Problem
from finetally.web.body_bounds import SMALL_BYTES, body_bound
from finetally.web.problems import problem_response

SIGN_IN_BYTES = 4_000
"""A name, a password, and room: read before anybody is known."""

READ_S = 10.0
"""Seconds in which a body must be there, all of it."""

CHUNK = 65_536


class TooSlowError(Exception):
    """The body did not come in time."""


class TooManyBodiesError(Exception):
    """Too many long bodies are being read just now."""


LONG_BYTES = 65_536
"""A longer body is read while it comes, by a thread; a shorter one has come before (web/server.py)."""

MOST_LONG = 2
"""Long bodies that a process reads at a time: half of its threads are for everybody else."""
_long_ones = threading.BoundedSemaphore(MOST_LONG)

_BOUNDS: list[tuple[re.Pattern[str], int]] = []


def set_bounds(routes: Iterable[tuple[str, Sequence[type[BaseModel]]]]) -> None:
    """Take over what each route reads from its own schemas: its path, and the models of its bodies."""
    _BOUNDS[:] = [
        (re.compile(re.sub(r"\\{[^}]+\\}", r"[^/]+", re.escape(path))), max(map(body_bound, models)))
        for path, models in routes
        if models
    ]


def bound_of(path: str) -> int:
    """How many bytes a route reads; where two could be meant, as much as either."""
    if path == "/api/sign-in":
        return SIGN_IN_BYTES
    return max((bound for pattern, bound in _BOUNDS if pattern.fullmatch(path)), default=SMALL_BYTES)


def read_body(request: HttpRequest) -> bytes:
    """The body, within its route's bound. Raises DocumentError (too_large), TooSlowError, TooManyBodiesError."""
    bound = bound_of(request.path)
    length = request.META.get("CONTENT_LENGTH") or "0"
    wanted = int(length) if length.isascii() and length.isdecimal() and len(length) < 16 else bound + 1
    if wanted > bound:
        found = f"a body of {wanted:,} bytes"
        raise DocumentError([Problem("(document)", found, f"up to {bound:,} bytes here", "too_large")])
    if not hasattr(request, "_body"):
        # Django's own reading has no end of time; it finds the body read.
        request._body = _read_long(request, wanted) if wanted > LONG_BYTES else _read(request, wanted)
    return request.body


def _read_long(request: HttpRequest, wanted: int) -> bytes:
    if not _long_ones.acquire(blocking=False):
        raise TooManyBodiesError
    try:
        return _read(request, wanted)
    finally:
        _long_ones.release()


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
