"""How many wrong passwords are borne: guessing one is slowed down, and nobody else is kept out by it."""

from __future__ import annotations

import hashlib

from django.core.cache import cache

MOST_WRONG = 10
"""Wrong passwords for one name from one address, before the next is not looked at."""
WITHIN_S = 300
"""Seconds after the first of them in which they count."""


def _key(name: str, address: str) -> str:
    return "tries:" + hashlib.sha256(f"{name.casefold()}\n{address}".encode()).hexdigest()


def may_try(name: str, address: str) -> bool:
    """Whether a password is looked at."""
    return int(cache.get(_key(name, address), 0)) < MOST_WRONG


def note_wrong(name: str, address: str) -> None:
    """Count a wrong password."""
    key = _key(name, address)
    if cache.add(key, 1, WITHIN_S):
        return
    try:
        cache.incr(key)
    except ValueError:  # Its time ran out between the two.
        cache.add(key, 1, WITHIN_S)


def forget(name: str, address: str) -> None:
    """After a right one, those before it are forgotten."""
    cache.delete(_key(name, address))
