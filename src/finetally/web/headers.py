"""Headers that every answer carries."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from finetally.web.problems import CONTENT_TYPE, problem_response

# Element Plus positions its pop-ups with inline styles; scripts come from here alone.
CONTENT_POLICY = (
    "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; "
    "object-src 'none'; base-uri 'self'; form-action 'self'; frame-ancestors 'none'"
)


class HeadersMiddleware:
    """Adds the content security policy, and keeps answers of the API out of shared caches."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self._get_response(request)
        response.headers.setdefault("Content-Security-Policy", CONTENT_POLICY)
        response.headers.setdefault("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
        if request.path.startswith("/api/"):
            if response.status_code >= 400 and response["Content-Type"] != CONTENT_TYPE:
                # What the frameworks refuse on their own (a method, say) gets the one error shape too.
                response = problem_response(response.status_code, "request", response.reason_phrase)
            response.headers.setdefault("Cache-Control", "no-store")
        return response
