"""One error shape for everything the server refuses: problem+json (RFC 9457)."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable
from http import HTTPStatus

from django.db import OperationalError
from django.http import HttpRequest, HttpResponse
from ninja import Schema

from finetally.core.session.problems import Problem

CONTENT_TYPE = "application/problem+json"


class ProblemItem(Schema):
    """One thing wrong with what was sent: where, what was found, what is allowed."""

    path: str
    found: str
    allowed: str
    code: str


class ProblemOut(Schema):
    """What is answered when something is refused. `problems` lists places in what was sent, if that was it."""

    type: str
    title: str
    status: int
    detail: str
    problems: list[ProblemItem] = []


def problem_response(status: int, kind: str, detail: str, problems: Iterable[Problem] = ()) -> HttpResponse:
    """Make the answer. `kind` is a stable word that programs can go by."""
    body = {
        "type": f"about:{kind}",
        "title": HTTPStatus(status).phrase,
        "status": status,
        "detail": detail,
        "problems": [{"path": p.path, "found": p.found, "allowed": p.allowed, "code": p.code} for p in problems],
    }
    return HttpResponse(json.dumps(body), status=status, content_type=CONTENT_TYPE)


RETRY_AFTER_S = 2
"""When to come again where something else is being written."""


def busy_response(detail: str) -> HttpResponse:
    """503: not now, but soon."""
    answer = problem_response(503, "busy", detail)
    answer["Retry-After"] = str(RETRY_AFTER_S)
    return answer


def database_refusal(error: OperationalError) -> HttpResponse:
    """What the database cannot do just now, in words. Raises what is a fault of ours."""
    said = str(error).lower()
    if "locked" in said or "busy" in said:
        return busy_response("Something else is being saved just now. Nothing was changed; try again in a moment.")
    if "full" in said:
        return problem_response(
            507, "full", "The disk of the server is full: nothing was saved. Looking still works."
        )
    if "readonly" in said or "read-only" in said:
        return problem_response(507, "read-only", "The server's data cannot be written: nothing was saved.")
    raise error


class DatabaseMiddleware:
    """Says what the database cannot do also outside of the API (sessions are read and kept before it)."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        return self._get_response(request)

    def process_exception(self, request: HttpRequest, exception: Exception) -> HttpResponse | None:
        """Django asks this where a view raised."""
        return database_refusal(exception) if isinstance(exception, OperationalError) else None


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Django's CSRF refusal."""
    return problem_response(403, "csrf", "The page is out of date: reload it and try again.")


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    """Django's refusal of a malformed request."""
    return problem_response(400, "bad-request", "The request could not be read.")


def forbidden(request: HttpRequest, exception: Exception) -> HttpResponse:
    """Django's refusal outside the API."""
    return problem_response(403, "forbidden", "This account may not do that.")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """No such address."""
    return problem_response(404, "not-found", "There is nothing at this address.")


def server_error(request: HttpRequest) -> HttpResponse:
    """A fault of ours; the traceback goes to the log, not to the reader."""
    return problem_response(500, "fault", "Something went wrong on our side. Nothing was changed.")
