"""Links by e-mail, where the machine's keeper has set a server (FINE_TALLY_EMAIL_URL); else they go by hand."""

from __future__ import annotations

import logging
import threading

from django.conf import settings
from django.core.exceptions import ValidationError
from django.core.mail import EmailMessage
from django.core.validators import validate_email

from finetally.core.session.cleaning import one_line
from finetally.core.session.problems import refuse, shown

log = logging.getLogger(__name__)
_sending = threading.BoundedSemaphore(1)
"""One at a time of a process: a server that does not answer holds one request, not all."""


def can_send() -> bool:
    """Whether a server is set."""
    return bool(getattr(settings, "EMAIL_URL", ""))


def address_of(text: str) -> str:
    """An address to send to. Raises DocumentError for what is none, or where no server is set."""
    address = one_line(text)
    try:
        validate_email(address)
    except ValidationError:
        raise refuse(("email",), shown(address), "an e-mail address", "email") from None
    if not can_send():
        raise refuse(
            ("email",), shown(address), "This installation sends no e-mail: hand the link on.", "cannot_email"
        )
    return address


def send(to: str, subject: str, text: str) -> bool:
    """Send a mail; whether it was handed on. Nothing of it is kept, nor logged."""
    if not _sending.acquire(timeout=settings.EMAIL_TIMEOUT):
        return False
    try:
        EmailMessage(one_line(subject), text, to=[to]).send()
    except OSError as error:
        log.warning("an e-mail could not be sent: %s", type(error).__name__)
        return False
    finally:
        _sending.release()
    return True
