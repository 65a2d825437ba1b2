"""The log: one JSON object a line on stderr, one line a request, and one where something went wrong.

A line never holds a token, a name, a note or a path: requests are told by their route's template, whoever asked by
a number that stands for them in the log alone, faults by their kind and the places in the code.
"""

from __future__ import annotations

import hashlib
import hmac
import json
import logging
import time
import traceback
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from finetally.web.metrics import count_request

lines = logging.getLogger("finetally.lines")

OURS = ("finetally", "gunicorn")
"""Loggers whose words are fixed ones; what they are filled in with is left out all the same."""
DIGITS = 10**8
METHODS = frozenset({"GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"})
PACKAGES = Path(__file__).resolve().parents[2]
PLACES_TOLD = 12
"""Places of a fault that are told, the last ones."""


def log_number(kind: str, key: int) -> int:
    """What somebody is called in the log: up to eight digits that stand for them here and nowhere else.

    `kind`: `account`, or `own` for a person by their own link. Made with the installation's secret, so that nobody
    works it out from elsewhere.
    """
    made = hmac.new(settings.SECRET_KEY.encode(), f"log:{kind}:{key}".encode(), hashlib.sha256).digest()
    return int.from_bytes(made[:8], "big") % DIGITS


def ended(status: int) -> str:
    """How a request ended, in a word."""
    return "ok" if status < 400 else "refused" if status < 500 else "failed"


def route_of(request: HttpRequest) -> str:
    """The template of a request's address."""
    match = request.resolver_match
    if match is not None:
        return "page" if match.route.startswith("^") else match.route
    return "static" if request.path.startswith(settings.STATIC_URL) else "nowhere"


OWN_LINK_KEY = "_asked_by_own_link"


def asked_by_own_link(request: HttpRequest, person: int) -> None:
    """Keep who asked, the key of a person, for the request's line."""
    setattr(request, OWN_LINK_KEY, person)


def _who(request: HttpRequest) -> int | None:
    """Whoever asked, by a number; None for nobody, and where nobody had to look who it is."""
    person = getattr(request, OWN_LINK_KEY, None)
    if person is not None:
        return log_number("own", person)
    # Not request.user: asking would look it up for requests that do not need it.
    user = getattr(request, "_cached_user", None)
    return log_number("account", user.pk) if user is not None and user.is_authenticated else None


class RequestLinesMiddleware:
    """Writes a line when a request has ended, and counts it."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        began = time.perf_counter()
        response = self._get_response(request)
        took, route = time.perf_counter() - began, route_of(request)
        method = request.method if request.method in METHODS else "other"
        count_request(route, method, ended(response.status_code), took, _said_by_proxies(request))
        told = {
            "what": "request", "method": method, "route": route, "status": response.status_code,
            "ended": ended(response.status_code), "ms": round(1000 * took, 1), "who": _who(request),
        }  # fmt: skip
        lines.info(told)
        return response


def _said_by_proxies(request: HttpRequest) -> int | None:
    """How many addresses proxies told of; None where it was asked by a name of this machine's own."""
    if request.META.get("HTTP_HOST", "").partition(":")[0] in ("", "localhost", "127.0.0.1"):
        return None
    return len([one for one in request.META.get("HTTP_X_FORWARDED_FOR", "").split(",") if one.strip()])


def _places(error: BaseException) -> list[str]:
    """Where a fault went through, the last place last: the file in the code, the line, the function."""
    found = traceback.extract_tb(error.__traceback__)[-PLACES_TOLD:]
    return [f"{_in_code(one.filename)}:{one.lineno} {one.name}" for one in found]


def _in_code(file: str) -> str:
    parts = Path(file).parts
    if "site-packages" in parts:
        return "/".join(parts[parts.index("site-packages") + 1 :])
    path = Path(file)
    return str(path.relative_to(PACKAGES)) if path.is_relative_to(PACKAGES) else path.name


class JsonLines(logging.Formatter):
    """Writes a record as one line of JSON."""

    def format(self, record: logging.LogRecord) -> str:
        """The line. Of what others log the template is kept, if it is one, and never what it was filled in with."""
        at = datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds")
        line: dict[str, Any] = {"at": at, "level": record.levelname.lower()}
        if isinstance(record.msg, dict):
            line.update(record.msg)
        else:
            line.update(what="told", logger=record.name)
            if isinstance(record.msg, str) and (record.args or record.name.partition(".")[0] in OURS):
                line["says"] = record.msg
        request = getattr(record, "request", None)
        if isinstance(request, HttpRequest):
            line["route"] = route_of(request)
        error = record.exc_info[1] if record.exc_info else None
        if error is not None:
            line.update(what="fault", error=type(error).__name__, places=_places(error))
        return json.dumps(line, ensure_ascii=False)
