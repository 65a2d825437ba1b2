"""Links: told once, with the token behind the `#` and as a QR code; opened, where wrong ones are counted."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from typing import TypeVar

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Schema
from ninja.utils import check_csrf

from finetally.web.accounts.guessing import ANY_LINK, count, is_over
from finetally.web.accounts.tokens import qr_of
from finetally.web.api.account import wait_a_while
from finetally.web.problems import csrf_failure, problem_response


class QrOut(Schema):
    """A QR code: modules along a side with the quiet zone, and its dark modules as an SVG path."""

    side: int
    path: str


class LinkTold(Schema):
    """A link that is told this once: its whole address, the same as a QR code, until when it is good.

    `sent`: whether it went off by e-mail, too; None where that was not asked for.
    """

    address: str
    qr: QrOut
    expires_at: datetime
    sent: bool | None = None


def told_link(request: HttpRequest, page: str, token: str, expires_at: datetime) -> LinkTold:
    """A link to a page with its token behind the sign, told this once."""
    # Behind the sign, so that it stands in no log of a server and is sent to nobody by a browser.
    address = f"{request.build_absolute_uri(page)}#{token}"
    code = qr_of(address)
    return LinkTold(address=address, qr=QrOut(side=code.side, path=code.path), expires_at=expires_at)


Opened = TypeVar("Opened")
OPENS_NOTHING = "This link opens nothing, or nothing more: it was used, ended, or is too old. Ask for a new one."


def opened(request: HttpRequest, work: Callable[[], Opened]) -> Opened | HttpResponse:
    """What a token leads to; refused where it opens nothing, and for a while where many did not."""
    if check_csrf(request) is not None:
        return csrf_failure(request)
    if is_over(request, ANY_LINK):
        return wait_a_while("wrong links")
    try:
        return work()
    except Http404:
        count(request, ANY_LINK)
        return problem_response(404, "link", OPENS_NOTHING)
