"""Guessing is limited: wrong passwords and links by address, and how many passwords are checked at a time.

Wrong ones are counted in the database (django-axes): for a name from one address, and for an address alone. A
browser that was signed in before is known by a cookie and counted by itself, so that nobody beside it keeps its
owner out.
"""

from __future__ import annotations

import ipaddress
import secrets
import threading
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from datetime import timedelta

from axes.handlers.proxy import AxesProxyHandler
from django.conf import settings
from django.contrib.auth.signals import user_login_failed
from django.core.signing import BadSignature, TimestampSigner
from django.http import HttpRequest, HttpResponse
from django.utils.crypto import constant_time_compare, salted_hmac

WRONG_PASSWORDS = 10
"""Wrong passwords for a name from one address, before the wait."""
WRONG_SIGN_INS, WRONG_LINKS, SCREENS_OPENED = 60, 60, 20
"""What one address may do before the wait: wrong sign-ins of any name, wrong links, screens opened.

Nobody guesses the 128 bits of a link: this limits a squad behind one address that opens old links, and
clients that try to keep the server busy.
"""
ANY_NAME, ANY_LINK, ANY_SCREEN = "(sign-in)", "(link)", "(screen)"
MOST_BY_ADDRESS: dict[str, int] = {ANY_NAME: WRONG_SIGN_INS, ANY_LINK: WRONG_LINKS, ANY_SCREEN: SCREENS_OPENED}
"""What is counted by address alone, under names that no account can have."""
IPV6_NETWORK_BITS = 64
"""One client of version 6 has a whole network of addresses: they are counted as one."""
KNOWN_BROWSER = "known_browser"
KNOWN_FOR = timedelta(days=180)
_KNOWN_NAME = "_known_browser_name"


def client_address(request: HttpRequest) -> str | None:
    """The address that asks, as the nearest trusted proxies tell it; None where nothing is known.

    Each proxy adds the address that it was asked from at the end of `X-Forwarded-For`. The first of the `PROXIES`
    trusted ones added the client's; anything before it was written by the client, and is ignored.
    """
    if settings.PROXIES:
        added = request.META.get("HTTP_X_FORWARDED_FOR", "").split(",")[-settings.PROXIES :]
        address = _network_of(added[0])
        if address is not None:
            return address
    return _network_of(request.META.get("REMOTE_ADDR", ""))


def _network_of(text: str) -> str | None:
    """An address without its port; of version 6 its network."""
    text = text.strip()
    if text.startswith("["):
        text = text[1:].partition("]")[0]
    elif text.count(":") == 1:
        text = text.partition(":")[0]
    try:
        address = ipaddress.ip_address(text)
    except ValueError:
        return None
    if isinstance(address, ipaddress.IPv6Address):
        if address.ipv4_mapped is not None:
            return str(address.ipv4_mapped)
        return str(ipaddress.ip_network((address, IPV6_NETWORK_BITS), strict=False).network_address)
    return str(address)


def counted_name(request: HttpRequest, credentials: Mapping[str, str] | None = None) -> str:
    """The name that wrong passwords are counted under, in any case; a known browser has its own."""
    name = str((credentials or {}).get("username") or "").casefold()
    known = getattr(request, _KNOWN_NAME, None)
    return known if known is not None and known.startswith(f"{name} (") else name


def wrong_ones_allowed(request: HttpRequest, credentials: Mapping[str, str] | None = None) -> int:
    """How many wrong ones there may be under a name before the wait."""
    return MOST_BY_ADDRESS.get(counted_name(request, credentials), WRONG_PASSWORDS)


def is_over(request: HttpRequest, counter: str) -> bool:
    """Whether the address that asks has to wait. `counter`: a key of `MOST_BY_ADDRESS`."""
    return not AxesProxyHandler.is_allowed(request, {"username": counter})


def count(request: HttpRequest, counter: str) -> None:
    """Count one for the address that asks."""
    user_login_failed.send(sender=__name__, credentials={"username": counter}, request=request)


def recognise_browser(request: HttpRequest, name: str) -> bool:
    """Whether this browser was signed in with this name before; it is counted by itself from now on."""
    try:
        cookie = _signer().unsign(request.COOKIES.get(KNOWN_BROWSER, ""), max_age=KNOWN_FOR)
    except BadSignature:
        return False
    owner, _, browser = cookie.partition(".")
    if not constant_time_compare(owner, _hash_of(name)):
        return False
    setattr(request, _KNOWN_NAME, f"{name.casefold()} ({browser})")
    return True


def remember_browser(request: HttpRequest, answer: HttpResponse, name: str) -> None:
    """Set the cookie by which this browser is known. It opens nothing and does not contain the name."""
    if recognise_browser(request, name):
        return
    made = _signer().sign(f"{_hash_of(name)}.{secrets.token_hex(4)}")
    answer.set_cookie(
        KNOWN_BROWSER, made, max_age=KNOWN_FOR, path="/api/sign-in", secure=settings.HTTPS, httponly=True,
        samesite="Strict",
    )  # fmt: skip


def _signer() -> TimestampSigner:
    # Not made while modules are read: that would make the installation's secret.
    return TimestampSigner(salt="finetally.known-browser")


def _hash_of(name: str) -> str:
    return salted_hmac("finetally.known-browser", name.casefold()).hexdigest()[:20]


class TooManyPasswordsError(Exception):
    """Too many passwords are being checked just now."""


MOST_CHECKED, MOST_WAITING, LONGEST_WAIT_S = 2, 1, 3.0


class PasswordTurns:
    """The turns in which a process checks passwords; each takes a fifth of a second, on purpose.

    At most two are checked at a time, one of an address, and one waits. Whoever sends many passwords has one turn,
    and leaves the other, and the process's threads, to everybody else.
    """

    def __init__(self) -> None:
        self._changed = threading.Condition()
        self._checked: list[str | None] = []
        self.waiting: list[str | None] = []

    @contextmanager
    def turn(self, address: str | None) -> Iterator[None]:
        """A turn for an address, perhaps after a wait. Raises TooManyPasswordsError."""
        with self._changed:
            if not self._is_free(address):
                if len(self.waiting) >= MOST_WAITING:
                    raise TooManyPasswordsError
                self.waiting.append(address)
                try:
                    if not self._changed.wait_for(lambda: self._is_free(address), LONGEST_WAIT_S):
                        raise TooManyPasswordsError
                finally:
                    self.waiting.remove(address)
            self._checked.append(address)
        try:
            yield
        finally:
            with self._changed:
                self._checked.remove(address)
                self._changed.notify_all()

    def _is_free(self, address: str | None) -> bool:
        return len(self._checked) < MOST_CHECKED and address not in self._checked


password_turns = PasswordTurns()


@contextmanager
def password_turn(request: HttpRequest) -> Iterator[None]:
    """A turn to check a password, for whoever asks. Raises TooManyPasswordsError."""
    known: str | None = getattr(request, _KNOWN_NAME, None)
    with password_turns.turn(known or client_address(request)):
        yield
