"""A second factor at sign-in, for head coaches who want one: a code of six digits from an app (TOTP, RFC 6238).

The secret has to be readable to check a code: it is in the database as plain text (docs/security.md).
"""

from __future__ import annotations

import io
import secrets
from typing import Any

import pyotp
import segno
from django.db import transaction
from django.utils import timezone
from django.utils.crypto import salted_hmac

from finetally.core.session.problems import refuse
from finetally.web.accounts.models import SecondFactor
from finetally.web.squads.actor import Right, member

STEP_S = 30
"""Seconds for which a code counts; the one before and the one after count, too."""
SPARE_CODES = 8
SPARE_BYTES = 5
ISSUER = "Fine Tally"


def factor_of(user: Any) -> SecondFactor | None:
    """The second factor that somebody signs in with; None where they have none."""
    return SecondFactor.objects.filter(user=user, begun_at__isnull=False).first()


def set_up(user: Any) -> tuple[str, str]:
    """A new secret, as text and as an address for apps; it counts once a code of it was shown. For head coaches.

    Raises DocumentError for others, and where there is a second factor already.
    """
    if not member(user.pk).squads(Right.HEAD):
        raise refuse(("account",), user.get_username(), "This is for head coaches.", "cannot_head")
    if factor_of(user) is not None:
        raise refuse(("account",), "a second factor", "There is one already: switch it off first.", "cannot_twice")
    secret = pyotp.random_base32()
    SecondFactor.objects.update_or_create(user=user, defaults={"secret": secret, "spare": [], "last_step": 0})
    return secret, pyotp.TOTP(secret).provisioning_uri(name=user.get_username(), issuer_name=ISSUER)


def drawn(address: str) -> str:
    """An address as a picture for cameras, in SVG."""
    made = io.BytesIO()
    segno.make(address).save(made, kind="svg", scale=4, border=2, xmldecl=False, dark="#1f2421", light="#fffdf8")
    return made.getvalue().decode()


def begin(user: Any, code: str) -> list[str]:
    """Have the secret count from now on; a code shows that the app has it. Returns spare codes, shown this once.

    Raises DocumentError.
    """
    with transaction.atomic():
        factor = SecondFactor.objects.filter(user=user, begun_at=None).first()
        if factor is None or not _takes(factor, code):
            raise refuse(("code",), "another code", "That is not the code that the app shows now.", "cannot_code")
        spare = [secrets.token_hex(SPARE_BYTES) for _ in range(SPARE_CODES)]
        factor.spare = [_hash(factor, one) for one in spare]
        factor.begun_at = timezone.now()
        factor.save()
    return spare


def passes(factor: SecondFactor, code: str) -> bool:
    """Whether a code lets somebody in: of the app, each once, or a spare one, which is used up by it."""
    with transaction.atomic():
        factor.refresh_from_db()
        if _takes(factor, code):
            factor.save()
            return True
        used = _hash(factor, code)
        if used not in factor.spare:
            return False
        factor.spare = [one for one in factor.spare if one != used]
        factor.save()
    return True


def end(user: Any) -> None:
    """Ask for no second factor any more."""
    SecondFactor.objects.filter(user=user).delete()


def _takes(factor: SecondFactor, code: str) -> bool:
    """Whether it is the app's code of now, or of the step before or after; one that was used is not."""
    now = int(timezone.now().timestamp()) // STEP_S
    known = pyotp.TOTP(factor.secret)
    for step in (now - 1, now, now + 1):
        if step > factor.last_step and pyotp.utils.strings_equal(known.at(step * STEP_S), _plain(code)):
            factor.last_step = step
            return True
    return False


def _hash(factor: SecondFactor, code: str) -> str:
    """What is kept of a spare code. No slow hash: nobody guesses 40 bits, and the secret is beside it."""
    return salted_hmac("finetally.spare-code", f"{factor.user_id} {_plain(code)}", algorithm="sha256").hexdigest()


def _plain(code: str) -> str:
    return "".join(code.split()).lower()
