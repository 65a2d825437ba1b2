"""The API object: who acts, how bodies are read, how errors are answered."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from typing import Any

from django.conf import settings
from django.core.exceptions import PermissionDenied
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError
from ninja.errors import ValidationError as RequestError
from ninja.parser import Parser
from ninja.security import APIKeyCookie
from pydantic import BaseModel

from finetally.core.session.limits import MAX_PROBLEMS
from finetally.core.session.problems import DocumentError, Problem, path_text, shown
from finetally.core.session.reading import read_json
from finetally.web.accounts.guessing import TooManyPasswordsError
from finetally.web.api.account import router as account
from finetally.web.api.attendance import router as attendance
from finetally.web.api.away import router as away
from finetally.web.api.board import router as board
from finetally.web.api.checkin import router as checkin
from finetally.web.api.compare import router as compare
from finetally.web.api.figures import router as figures
from finetally.web.api.floor import router as floor
from finetally.web.api.formats import router as formats
from finetally.web.api.groups import router as groups
from finetally.web.api.jobs import router as jobs
from finetally.web.api.joining import router as joining
from finetally.web.api.level import router as level
from finetally.web.api.log import router as log
from finetally.web.api.log_files import router as log_files
from finetally.web.api.members import router as members
from finetally.web.api.methods import router as methods
from finetally.web.api.movements import router as movements
from finetally.web.api.otherwise import router as otherwise
from finetally.web.api.people import router as people
from finetally.web.api.plan import router as plan
from finetally.web.api.privacy import router as privacy
from finetally.web.api.reports import router as reports
from finetally.web.api.runs import router as runs
from finetally.web.api.season import router as season
from finetally.web.api.sessions import router as sessions
from finetally.web.api.shapes import router as shapes
from finetally.web.api.squads import router as squads
from finetally.web.api.tables import router as tables
from finetally.web.api.walls import router as walls
from finetally.web.body import TooManyBodiesError, TooSlowError, bound_of, read_body, set_bounds
from finetally.web.problems import busy_response, database_refusal, problem_response
from finetally.web.squads.actor import Actor, signed_in
from finetally.web.versions import ChangedError


class SafeParser(Parser):
    """Reads bodies with the core's reader: bounded, no key twice, nothing but finite numbers."""

    def parse_body(self, request: HttpRequest) -> Any:
        return read_json(read_body(request), most=bound_of(request.path))


class SignedIn(APIKeyCookie):
    """The actor behind the session cookie. A cookie door, so every change must bring the CSRF token."""

    param_name = settings.SESSION_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Actor | None:
        """None, and so a refusal, for nobody."""
        if not request.user.is_authenticated:
            return None
        return signed_in(request.user)


ABOUT = """
Plans training sessions and measures them. Lengths are seconds, distances metres, loads kilograms (`unit` says how
one was typed), efforts 0 to 10, shares 0 to 1, days ISO dates; numbers in answers are rounded to a thousandth.

A session's document is as docs/session-file.md says; keys that are not known are kept and given back. Edits are
`set`, `insert`, `remove` and `move` at a `path` of keys, indices and ids of parts.

All but signing in needs the session's cookie, and what changes something the CSRF token of the cookie `csrftoken`
in the header `X-CSRFToken`. Everything is of a squad that one belongs to: without `squad` one's first.

Refusals are a Problem (application/problem+json) with every fault, its place, what was found and what is allowed:
401 nobody is signed in, 403 this account may not, 404 not there (or of another squad), 408 it came too slowly, 409
somebody changed it meanwhile, 413 too large, 422 something is wrong with what was sent, 429 and 503 try later.
"""


class Api(NinjaAPI):
    """Reads a body where ninja makes ready to answer: after the checks of who acts, before it looks at the body."""

    def create_temporal_response(self, request: HttpRequest) -> HttpResponse:
        read_body(request)
        return super().create_temporal_response(request)


api = Api(
    title="Fine Tally",
    version="1",
    description=ABOUT.strip(),
    auth=SignedIn(),
    docs_url=None,
    openapi_url=None,
    parser=SafeParser(),
)
api.add_router("", account)
api.add_router("", figures)
api.add_router("/sessions", sessions)
api.add_router("", tables)
api.add_router("", movements)
api.add_router("", formats)
api.add_router("", board)
api.add_router("", compare)
api.add_router("", shapes)
api.add_router("/jobs", jobs)
api.add_router("/plan", plan)
api.add_router("/plan", level)
api.add_router("/plan", season)
api.add_router("/plan", away)
api.add_router("/plan", attendance)
api.add_router("", squads)
api.add_router("", methods)
api.add_router("", joining)
api.add_router("", members)
api.add_router("", privacy)
api.add_router("/people", people)
api.add_router("/reports", reports)
api.add_router("", checkin)
api.add_router("/groups", groups)
api.add_router("", otherwise)
api.add_router("/floor", floor)
api.add_router("/floor", runs)
api.add_router("/floor", walls)
api.add_router("/log", log)
api.add_router("/log", log_files)


@api.exception_handler(DocumentError)
def _document_error(request: HttpRequest, error: DocumentError) -> HttpResponse:
    too_large = any(problem.code == "too_large" for problem in error.problems)
    answer = problem_response(413 if too_large else 422, "document", error.problems[0].text, error.problems)
    if too_large:
        # What is still on its way is not waited for.
        answer["Connection"] = "close"
    return answer


def _found(item: dict[str, Any]) -> str:
    """What stood at a place of a request, as far as it is told."""
    told = (item.get("ctx") or {}).get("found")
    if told is not None:
        return shown(told)
    if "input" in item:
        return shown(item["input"])
    return "nothing" if item["type"] == "missing" else "something else"


@api.exception_handler(RequestError)
def _request_error(request: HttpRequest, error: RequestError) -> HttpResponse:
    problems = [
        Problem(
            path_text(tuple(part for part in item["loc"] if part not in ("body", "data", "path", "query"))),
            _found(item),
            str(item["msg"]).lower(),
            str(item["type"]),
        )
        for item in error.errors[:MAX_PROBLEMS]
    ]
    return problem_response(422, "request", problems[0].text if problems else "", problems)


@api.exception_handler(ChangedError)
def _changed(request: HttpRequest, error: ChangedError) -> HttpResponse:
    says = f"Meanwhile changed by somebody else: {error.what}. Nothing was changed; look at it again."
    return problem_response(409, "changed", says)


@api.exception_handler(TooSlowError)
def _too_slow(request: HttpRequest, error: TooSlowError) -> HttpResponse:
    answer = problem_response(408, "too-slow", "What was sent did not come in time. Nothing was changed.")
    answer["Connection"] = "close"
    return answer


@api.exception_handler(TooManyBodiesError)
def _too_many(request: HttpRequest, error: TooManyBodiesError) -> HttpResponse:
    answer = busy_response("Other large files are being received just now. Try again in a moment.")
    answer["Connection"] = "close"
    return answer


@api.exception_handler(TooManyPasswordsError)
def _busy(request: HttpRequest, error: TooManyPasswordsError) -> HttpResponse:
    return busy_response("Many are signing in just now. Try again in a moment.")


@api.exception_handler(OperationalError)
def _database(request: HttpRequest, error: OperationalError) -> HttpResponse:
    return database_refusal(error)


@api.exception_handler(OverflowError)
def _out_of_bounds(request: HttpRequest, error: OverflowError) -> HttpResponse:
    problem = Problem("(request)", "a number out of bounds", "ordinary numbers", "number")
    return problem_response(422, "request", problem.text, [problem])


@api.exception_handler(AuthenticationError)
def _nobody(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    return problem_response(401, "sign-in", "Sign in first.")


@api.exception_handler(PermissionDenied)
def _forbidden(request: HttpRequest, error: PermissionDenied) -> HttpResponse:
    return problem_response(403, "forbidden", "This account may not do that.")


@api.exception_handler(Http404)
def _not_found(request: HttpRequest, error: Http404) -> HttpResponse:
    return problem_response(404, "not-found", "There is no such thing here.")


@api.exception_handler(HttpError)
def _http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
    if isinstance(error.__cause__, DocumentError):
        return _document_error(request, error.__cause__)
    if isinstance(error.__cause__, TooSlowError):
        return _too_slow(request, error.__cause__)
    return problem_response(error.status_code, "request", error.message)


def openapi_document() -> dict[str, Any]:
    """The API's description, with the session file's schemas in it."""
    from finetally.web.api.openapi import with_session_schemas

    plain = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/"), default=str))
    return with_session_schemas(plain)


def _routes() -> Iterator[tuple[str, list[type[BaseModel]]]]:
    """Every route with the models of its bodies; those of all methods of one path together."""
    for prefix, router in api._routers:
        for path, view in router.path_operations.items():
            whole = re.sub("/+", "/", f"/api/{prefix}/{path}").rstrip("/")
            models = [model for operation in view.operations for model in operation.models]
            yield whole, [model for model in models if getattr(model, "__ninja_param_source__", "") == "body"]


set_bounds(_routes())
