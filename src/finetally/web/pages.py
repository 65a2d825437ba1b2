"""The one page: the built front end, which asks the API for everything else; what makes it an app."""

from __future__ import annotations

from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

NOT_BUILT = "The front end is not built yet. Start with ./tally demo or ./tally run."


@require_safe
@ensure_csrf_cookie
def front_end(request: HttpRequest) -> HttpResponse:
    """The built index page. It holds no data; the browser signs in through the API."""
    page = Path(settings.STATIC_ROOT) / "app" / "index.html"
    if not page.exists():
        return HttpResponse(NOT_BUILT, status=503, content_type="text/plain")
    return HttpResponse(page.read_bytes(), headers={"Cache-Control": "no-cache"})


SHELL_FILES = {"sw.js": "text/javascript", "manifest.webmanifest": "application/manifest+json"}
"""What browsers ask for beside the page, with its type: the worker that keeps the shell, the app's card."""


@require_safe
def shell_file(request: HttpRequest, name: str) -> HttpResponse:
    """A file of the shell at the root, so that its reach is the whole address. Asked for anew each time."""
    path = Path(settings.STATIC_ROOT) / "app" / name
    if not path.exists():
        return HttpResponse(NOT_BUILT, status=503, content_type="text/plain")
    headers = {"Cache-Control": "no-cache", "Service-Worker-Allowed": "/"}
    return HttpResponse(path.read_bytes(), content_type=SHELL_FILES[name], headers=headers)


@require_safe
def alive(request: HttpRequest) -> HttpResponse:
    """204: this process answers. For whoever watches it (running/watch.py); it says nothing else."""
    return HttpResponse(status=204)
