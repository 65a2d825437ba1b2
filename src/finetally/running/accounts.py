"""Accounts for whoever keeps the machine: made, listed, given a link to set their password. Needs Django set up."""

from __future__ import annotations

from collections.abc import Iterator

from finetally.environment import hosts, https
from finetally.running.installation import RefusedError

DEFAULT_ADDRESS = "http://127.0.0.1:8420"


def address_here() -> str:
    """The address that the environment says the server is reached by."""
    reached = hosts()
    return f"{'https' if https() else 'http'}://{reached[0]}" if reached else DEFAULT_ADDRESS


def create_account(name: str, squad_name: str, role: str, *, new_squad: bool) -> str:
    """Make an account in a squad (one that there is, or a new one). Returns the token that sets its password.

    Raises RefusedError for a name that is taken, a squad that there is not.
    """
    from django.contrib.auth import get_user_model
    from django.db import transaction

    from finetally.core.session.problems import DocumentError
    from finetally.web.accounts.invitations import new_account
    from finetally.web.accounts.resets import reset_by_keeper
    from finetally.web.accounts.tokens import new_token
    from finetally.web.squads.models import Membership, Squad

    with transaction.atomic():
        found = list(Squad.objects.filter(name=squad_name))
        if new_squad:
            found = [Squad.objects.create(name=squad_name)]
        if len(found) != 1:
            known = ", ".join(Squad.objects.order_by("name").values_list("name", flat=True)) or "none yet"
            raise RefusedError(f"There is no one squad called {squad_name!r} (there are: {known}).")
        try:
            # A password that nobody ever hears: the link sets the real one.
            user = new_account(name, new_token())
        except DocumentError as error:
            raise RefusedError(error.problems[0].text) from None
        Membership.objects.create(user=user, squad=found[0], role=role)
        return reset_by_keeper(get_user_model().objects.get(pk=user.pk))


def reset_account(name: str) -> str:
    """The token with which an account's password is set anew. Raises RefusedError for a name that nobody has."""
    from django.contrib.auth import get_user_model

    from finetally.web.accounts.resets import reset_by_keeper

    user = get_user_model().objects.filter(username__iexact=name).first()
    if user is None:
        raise RefusedError(f"There is no account called {name!r}.")
    return reset_by_keeper(user)


def account_lines() -> Iterator[str]:
    """A line for each account: its name, its squads and roles, when it signed in last, its number in the log."""
    from django.contrib.auth import get_user_model

    from finetally.web.log_lines import log_number

    for user in get_user_model().objects.order_by("username").prefetch_related("memberships__squad"):
        squads = ", ".join(f"{one.squad.name} ({one.get_role_display()})" for one in user.memberships.all())
        last = f"signed in {user.last_login:%d %b %Y}" if user.last_login else "never signed in"
        number = log_number("account", user.pk)
        yield f"{user.get_username()}: {squads or 'in no squad'}; {last}; {number} in the log"
