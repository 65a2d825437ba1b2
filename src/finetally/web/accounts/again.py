"""Asking for the password once more, before what cannot be undone and before health data leave the server."""

from __future__ import annotations

from django.contrib.auth import authenticate
from django.http import HttpRequest

from finetally.core.session.problems import DocumentError, refuse
from finetally.web.accounts.guessing import password_turn


def ask_password(request: HttpRequest, password: str) -> None:
    """Check the password of the person who is signed in. Wrong ones count as at sign-in.

    Raises DocumentError.
    """
    with password_turn(request):
        found = authenticate(request, username=request.user.get_username(), password=password)
    if found is not None and found.pk == request.user.pk:
        return
    if getattr(request, "axes_locked_out", False):
        raise refuse(("password",), "too many wrong ones", "Wait 5 minutes, then try again.", "cannot_wait")
    raise wrong_password()


def wrong_password(field: str = "password") -> DocumentError:
    """The refusal of a password that is not theirs."""
    return refuse((field,), "another one", "That is not your password.", "cannot_wrong_password")
