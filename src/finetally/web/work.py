"""The budget of work of one request (core/session/budget.py): past it there is a clear answer."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from finetally.core.session.budget import budget_of


class WorkMiddleware:
    """Counts the work of each request against WORK_UNITS."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        with budget_of(settings.WORK_UNITS) as budget:
            answer = self._get_response(request)
        # What an answer took, in units that are the same on every machine.
        answer["X-Work"] = str(budget.spent)
        return answer
