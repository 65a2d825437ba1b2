"""Tokens of links: 128 bits by chance, shown once, kept as their hash; they stand behind the `#` of an address."""

from __future__ import annotations

import hashlib
import secrets
from dataclasses import dataclass
from datetime import timedelta

import segno
from django.http import Http404
from django.utils import timezone

from finetally.web.accounts.keys import still_may
from finetally.web.accounts.models import Invitation, Reset
from finetally.web.squads.actor import Right

LINK_BYTES = 16
INVITED_FOR, HEAD_INVITED_FOR, RESET_FOR = timedelta(days=7), timedelta(days=1), timedelta(days=1)
"""How long links are good: whoever becomes a head coach may do everything, whoever sets a password is somebody."""


def new_token() -> str:
    """A token that nobody guesses."""
    return secrets.token_urlsafe(LINK_BYTES)


def token_hash(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode()).hexdigest()


def invitation_of(token: str) -> Invitation:
    """The invitation that a token opens; Http404 for one that opens nothing, or no more."""
    found = (
        Invitation.objects.filter(token_hash=token_hash(token)).select_related("squad", "person", "made_by").first()
    )
    if found is None or not found.opens_at(timezone.now()):
        raise Http404
    if not still_may(found.made_by_id, found.squad_id, Right.HEAD):
        raise Http404
    return found


def reset_of(token: str) -> Reset:
    """The reset that a token opens; Http404 for one that opens nothing, or no more."""
    found = Reset.objects.filter(token_hash=token_hash(token)).select_related("user", "squad", "made_by").first()
    if found is None or not found.opens_at(timezone.now()):
        raise Http404
    if found.squad_id is not None and not still_may(found.made_by_id, found.squad_id, Right.HEAD):
        raise Http404
    return found


@dataclass(frozen=True, slots=True)
class QrCode:
    """A link as a QR code: modules along a side, the quiet zone included, and the dark ones as an SVG path."""

    side: int
    path: str


def qr_of(address: str) -> QrCode:
    """The QR code of an address (ISO/IEC 18004), with its quiet zone of four modules."""
    rows = list(segno.make(address, micro=False).matrix_iter(border=4))
    path = "".join(f"M{x} {y}h1v1h-1z" for y, row in enumerate(rows) for x, module in enumerate(row) if module)
    return QrCode(len(rows), path)
